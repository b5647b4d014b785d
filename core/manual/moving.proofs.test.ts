/** Proofs of the rules of sources, of time and of chance. */
import { expect } from 'vitest'
import { Program } from '../engine/program.ts'
import type { LiveMarks } from '../engine/live-marks.ts'
import { tapped } from '../engine/taps.ts'
import { closureOf } from '../insight/closure.ts'
import { duplicatePart } from '../acts/duplicate.ts'
import { setText } from '../acts/sources.ts'
import { apply } from '../piece/operation.ts'
import { rename, setKeys, setPart } from '../acts/parts.ts'
import { at, fair, RATE, type Place } from '../testing/fair.ts'
import { Moment, momentOfSeconds } from '../time/moment.ts'
import { ONE, ZERO, rational } from '../time/rational.ts'
import { fixed, problems, read, runs, says, value, prove, type Proofs } from '../testing/rule-proofs.ts'

const many: Place['change'] = b =>
  void b.do(setPart(b.piece, 'p3', { copies: { layout: 'row', count: 60, dx: 9, dy: 0 } }))
const turning = { 'Flag.rotation': 'time * 40deg/s' }
const closes = (text: string) => {
  const { slot, program } = fair(text)
  return closureOf(slot.forms[0]!, program, ZERO, ONE, ONE).verdict
}

/** Values at scattered moments, in the order given and then forwards by a fresh program: to the bit the same. */
function anyOrder(text: string): void {
  const moments = [86400.5, -7.25, 31557600.1, 0, 12.4, -86400, 3.9]
  const [one, two] = [fair(text), fair(text)]
  const seen = moments.map(t => one.value(t))
  const forwards = [...moments].sort((a, b) => a - b)
  expect(forwards.map(t => two.value(t))).toEqual(forwards.map(t => seen[moments.indexOf(t)]))
  expect(seen.every(Number.isFinite)).toBe(true)
}

const MOVING = {
  'sources.order': () => {
    expect(value('sine(0.5Hz, 9, 2, 0.25turn)')).toBeCloseTo(11, 12)
    expect(value('sine(0.5Hz) * 9deg', 0.5)).toBeCloseTo(9, 12)
  },
  'sources.eitherForm': () => {
    expect(problems('sine(freq: 1Hz, every: 2s, amp: 3deg)')[0]!.code).toBe('argument-twice')
    expect(problems('sine(every: 2s, amp: 3deg, low: 1deg)')[0]!.code).toBe('argument-twice')
    expect(value('sine(every: 2s, low: 10, high: 30)', 0.5)).toBeCloseTo(30, 12)
  },
  'sources.phaseIsEarlier': () =>
    expect(value('sine(every: 2s, amp: 9deg, phase: 0.1turn)', 0.3)).toBeCloseTo(
      value('sine(every: 2s, amp: 9deg)', 0.5),
      12,
    ),
  'sources.noiseWithin': () => {
    for (let t = 0; t < 2000; t += 0.37) expect(Math.abs(value('noise(2Hz, 6, octaves: 4)', t))).toBeLessThanOrEqual(6)
  },
  'sources.noiseApart': () => {
    const f = fair('noise(1Hz, 6)', { on: 'Flag', change: many })
    // Where the cells of plain lattice noise meet, at whole seconds, all would stand at 0.
    for (const t of [0, 1, 2, 30]) {
      const near = f.slot.readers.filter(r => Math.abs(r.at(at(t)) * 360) < 0.05).length
      expect(near).toBeLessThan(10)
    }
  },
  'sources.noiseOverSpace': () => {
    expect(value('noise(at: own.x, amp: 9deg)', 0, { with: { 'Carousel.x': '3.4px' } })).toBe(
      value('noise(at: own.x, amp: 9deg)', 77, { with: { 'Carousel.x': '3.4px' } }),
    )
    expect(value('noise(at: 0.5, amp: 9deg)')).not.toBe(value('noise(at: 1.3, amp: 9deg)'))
  },
  'sources.randomFixed': () => {
    expect(value('random(0, 90)', 0)).toBe(value('random(0, 90)', 1e6))
    expect(value('random(0, 90, 2Hz)', 0.4)).toBe(value('random(0, 90, 2Hz)', 0.1))
    expect(value('random(0, 90, 2Hz)', 0.6)).not.toBe(value('random(0, 90, 2Hz)', 0.1))
  },
  'sources.rampAfter': () => {
    const ramp = (after: string, t: number) => value(`ramp(length: 4s, from: 10, to: 50, after: ${after})`, t)
    expect([-1, 2, 5].map(t => ramp('hold', t))).toEqual([10, 30, 50].map(v => expect.closeTo(v, 9)))
    expect(ramp('repeat', 5)).toBeCloseTo(20, 9)
    expect(ramp('mirror', 5)).toBeCloseTo(40, 9)
  },
  'sources.curveAfter': () => {
    const climb = (after: string, t: number) => value(`curve(climb, after: ${after}) * 1deg`, t)
    expect(climb('hold', 3)).toBeCloseTo(1, 12)
    expect(climb('repeat', 3)).toBeCloseTo(0.5, 12)
    expect(climb('mirror', 2.5)).toBeCloseTo(0.75, 12)
    expect(climb('carry', 3)).toBeCloseTo(1.5, 12)
  },
  'sources.envelopeFits': () => {
    expect(value('envelope(1s, 2s, 4s) * 90deg', 5)).toBeCloseTo(45, 9)
    expect(value('envelope(2s, release: 2s, over: lap) * 90deg', 7)).toBeCloseTo(45, 9)
    expect(value('envelope(2s, release: 2s, over: lap) * 90deg', 4)).toBeCloseTo(90, 9)
  },
  'sources.hitOnMark': () => {
    // `swing` hits 0.9 s in, at −60; the mark is at 2 s, so it sets off at 1.1 s.
    expect(value('play(swing, blow, channel: arm)', 2)).toBeCloseTo(-60, 9)
    expect(value('play(swing, blow, channel: arm)', 1.7)).toBeCloseTo(40, 9)
    expect(value('play(swing, blow, channel: arm)', 1.1)).toBeCloseTo(0, 9)
  },
  'sources.overlap': () => {
    // The marks at 5 s and 5.5 s are nearer than the curve is long.
    // At 5.3 s the second has begun, as the first one had at 1.8 s, though the one before is still under way.
    expect(value('play(swing, blow, channel: arm)', 5.3)).toBeCloseTo(value('play(swing, blow, channel: arm)', 1.8), 9)
    expect(value('play(swing, blow, channel: arm)', 5.3)).not.toBeCloseTo(
      value('play(swing, blow, channel: arm)', 2.3),
      1,
    )
    const added = value('play(swing, blow, channel: puck, overlap: add)', 5.6)
    expect(added).toBeCloseTo(
      value('play(swing, blow, channel: puck)', 2.6) + value('play(swing, blow, channel: puck)', 2.1),
      9,
    )
  },
  'sources.noMark': () => {
    expect(value('play(rocking, blow)', 0)).toBeCloseTo(-10, 12)
    expect(value('since(blow) * 1deg/s', 0.5)).toBeCloseTo(-1.5, 12)
    const held: Place['change'] = b =>
      void b.do({ undoLabel: '', puts: [{ in: 'bases', id: 'p1.x', value: { value: 40 } }] })
    expect(value('since(never) * 1px/s', 3, { property: 'x', change: held })).toBe(40)
  },
  'sources.liveMarks': () => {
    const f = fair('play(swing, never, channel: arm)')
    const cue = Object.keys(f.piece.cues).find(id => f.piece.cues[id]!.name === 'never')!
    const { live } = tapped(f.program, {}, cue, at(3)) as { live: LiveMarks }
    expect(live[cue]).toEqual([3.9])
    const played = new Program(f.piece, null, live).slots.get(f.key)!.readers[0]!
    expect(played.at(at(3.9)) * 360).toBeCloseTo(-60, 9)
  },

  'time.clockForSources': () => {
    expect(value('sine(every: 2s, amp: 9deg) on slow', 1)).toBeCloseTo(9, 12)
    expect(value('curve(rocking) on slow', 4)).toBeCloseTo(20, 12)
    const keys: Place['change'] = b => {
      const points = [0, 4].map(time => ({ time, value: time * 10, shape: 'straight' as const }))
      b.do(setKeys(b.piece, 'p1', 'rotation', { after: 'hold', points }))
    }
    expect(value('base on slow', 4, { change: keys })).toBeCloseTo(20, 9)
  },
  'time.linksOwnClock': () => {
    const slowed = { 'Flag.rotation': 'time * 40deg/s on slow' }
    expect(value('flag[0].rotation + time * 1deg/s on slow', 4, { with: slowed })).toBeCloseTo(80 + 2, 9)
  },
  'time.onNeedsTime': () => expect(problems('flag[0].rotation on slow', { with: turning })[0]!.code).toBe('clock'),
  'time.delays': () => {
    expect(value('delay(flag[0].rotation, 500ms)', 2, { with: turning })).toBeCloseTo(60, 9)
    expect(value('hold(flag[0].rotation, 1Hz)', 2.7, { with: turning })).toBeCloseTo(80, 9)
    expect(value('at(flag[0].rotation, 3s)', 99, { with: turning })).toBeCloseTo(120, 9)
    expect(value('average(flag[0].rotation, 2s)', 5, { with: turning })).toBeCloseTo(160, 9)
    // `at` sets the moment of the piece, whatever the clock.
    expect(value('at(time * 1deg/s, 3s) on slow', 0)).toBeCloseTo(1.5, 9)
  },
  'time.rateRightSided': () =>
    expect(value('rateOf(if time < 2s then 0deg else 90deg + (time - 2s) * 7deg/s) * 1s', 2)).toBeCloseTo(7, 6),
  'time.averageTrails': () => expect(value('average(time * 10deg/s, 2s)', 6)).toBeCloseTo(50, 9),
  'time.negativeTimes': () => {
    expect(value('lapProgress * 8deg', -1)).toBeCloseTo(7, 12)
    expect(value('ramp(length: 4s, from: 10, to: 50)', -9)).toBeCloseTo(10, 12)
    expect(value('ramp(length: 4s, from: 3, to: 40, after: repeat)', -1)).toBeCloseTo(3, 12)
    expect(value('ramp(length: 4s, from: 3, to: 40, after: mirror)', -1)).toBeCloseTo(3, 12)
    expect(value('accumulate(30deg/s)', -2)).toBeCloseTo(-60, 12)
  },
  'time.anyOrder': () => {
    for (const text of [
      'accumulate(30deg/s + sine(every: 4s, amp: 20deg/s))',
      'average(noise(2Hz, 30), 0.5s)',
      'random(-30, 30, rate: 3Hz)',
      'noise(1Hz, 20, octaves: 3)',
      'curve(rocking, after: repeat)',
      'play(swing, beat, channel: arm, overlap: add)',
      'sine(every: 3s, amp: 9deg) on toAndFro',
      'time * 9deg/s on onBlow',
      'hold(noise(1Hz, 20), 7Hz) on stepped',
    ])
      anyOrder(text)
  },
  'time.paceAddedUp': () => {
    const f = fair('sine(freq: 1Hz * (1 + 0.5 * noise(1Hz)), amp: 9deg)')
    const steepest = 2 * Math.PI * 1.5 * (9 / 360)
    for (let t = 3600; t < 3610; t += 0.01)
      expect(Math.abs(f.value(t + 0.01) - f.value(t))).toBeLessThan(steepest * 0.0101)
  },
  'time.timesVarying': () => {
    const text = 'time * 45deg/s * (1 + noise(1Hz, 0.3))'
    expect(problems(text)[0]).toMatchObject({ level: 'warning', code: 'varying' })
    expect(fixed(text)).toBe('accumulate(45deg/s * (1 + noise(1Hz, 0.3)))')
  },
  'time.exactForEver': () => {
    const form = (text: string) => fair(text).slot.forms[0]!
    expect(form('delay(time * 0.1deg/s on slow, 0.3s)').exact).toEqual({
      rate: rational(1, 7200),
      base: rational(-3, 72000),
    })
    // A third of a turn a second, a year on: mod and floor still know the very turn.
    const m = momentOfSeconds(rational(31557600 * 3 + 1, 3), RATE)
    expect(form('mod(time * 1turn / 1s, 1turn)').at(m)).toBe(1 / 3)
    expect(form('floor(time * 3 / 1s) * 1turn').at(m)).toBe(31557600 * 3 + 1)
    expect(form('if time < 31557600s + 1s / 3 then 1turn else 2turn').at(m)).toBe(2)
  },
  'time.fromTheRight': () => {
    for (const text of ['square(0.3Hz, 1turn)', 'saw(7.77Hz, 1turn)']) {
      const [n, d] = text.startsWith('square') ? [3, 10] : [777, 100]
      const form = fair(text).slot.forms[0]!
      for (let k = 0; k < 400; k++)
        expect(form.at(momentOfSeconds(rational(k * d, n), RATE))).toBe(text.startsWith('saw') ? -1 : 1)
    }
    expect(value('step(3s, time) * 1deg', 3)).toBeCloseTo(1, 12)
  },
  'time.perLap': () => {
    expect(closes('noise(freq: 8/lap, amp: 6deg)')).toBe('yes')
    expect(closes('random(0deg, 9deg, rate: 24/lap)')).toBe('yes')
    expect(closes('noise(freq: 1Hz, amp: 6deg)')).not.toBe('yes')
    expect(closes('noise(freq: 8.5/lap, amp: 6deg)')).not.toBe('yes')
    const lap: Place['change'] = b => void (b.piece = { ...b.piece, lap: { length: { n: 7, d: 1 }, start: 0 } })
    const f = fair('sine(freq: 3/lap, amp: 6deg)', { change: lap })
    expect(f.value(2.4)).toBe(f.value(9.4))
    const fixedRate = fair('sine(freq: 0.375Hz, amp: 6deg)', { change: lap })
    expect(fixedRate.value(2.4)).not.toBe(fixedRate.value(9.4))
  },
  'time.notFinite': () => {
    const held: Place['change'] = b =>
      void b.do({ undoLabel: '', puts: [{ in: 'bases', id: 'p1.x', value: { value: 40 } }] })
    expect(value('1px / (time / 1s)', 0, { property: 'x', change: held })).toBe(40)
    expect(fair('acos(2)').value(0)).toBe(0)
    expect(fair('acos(2)').slot.forms[0]!.facts().finite).toBe(false)
  },
  'time.limits': () => {
    expect(says(`${'1deg + '.repeat(400)}1deg`)).toMatch(/2,?000/)
    expect(says(`${'('.repeat(70)}1deg${')'.repeat(70)}`)).toMatch(/64/)
  },

  'chance.ownSeed': () => {
    expect(value('noise(1Hz, 9) - noise(1Hz, 9)', 0.7)).not.toBe(0)
    const both = { 'Carousel.x': 'noise(1Hz, 9)' }
    expect(value('noise(1Hz, 9)', 0.7, { property: 'y', with: both })).not.toBe(
      value('noise(1Hz, 9)', 0.7, { property: 'x' }),
    )
    const f = fair('random(0, 90)', { on: 'Flag' })
    expect(new Set(f.slot.readers.map(r => r.at(at(0)))).size).toBe(5)
  },
  'chance.seedKept': () => {
    const f = fair('noise(1Hz, 9)')
    const before = f.value(0.7)
    expect(read(f, apply(f.piece, rename(f.piece, 'parts', 'p1', 'Merry ride')), 0.7)).toBe(before)
    const away = apply(f.piece, setText(f.piece, f.key, 'noise(1Hz, 20)', true))
    expect(read(f, apply(away, setText(away, f.key, 'noise(1Hz, 9)', true)), 0.7)).toBe(before)
    expect(read(f, { ...f.piece, title: 'A copy' }, 0.7)).toBe(before)
    const { id, op } = duplicatePart(f.piece, 'p1')
    expect(read(f, apply(f.piece, op), 0.7)).toBe(before)
    expect(read(f, apply(f.piece, op), 0.7, `${id}.rotation`)).not.toBe(before)
  },
  'chance.sharedSeed': () => {
    expect(value('noise(1Hz, 9, seed: 4) - noise(1Hz, 9, seed: 4)', 0.7)).toBe(0)
    const flags = fair('noise(1Hz, 9, seed: 4)', { on: 'Flag' })
    expect(new Set(flags.slot.readers.map(r => r.at(at(0.7)))).size).toBe(1)
  },
  'chance.signalShares': () => {
    const f = fair('gust * 9deg', { on: 'Flag', signals: { gust: 'noise(1Hz)' } })
    expect(new Set(f.slot.readers.map(r => r.at(new Moment(rational(77), RATE)))).size).toBe(1)
    expect(runs('gust * 9deg', { signals: { gust: 'noise(1Hz)' } })).toBe(true)
  },
} satisfies Proofs
export type Proved = keyof typeof MOVING
prove(MOVING)
