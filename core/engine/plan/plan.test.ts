import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Builder } from '../../acts/build.ts'
import { setText } from '../../acts/sources.ts'
import { anAngleOfCopies } from '../../testing/made-up-formulas.ts'
import { fair } from '../../testing/fair.ts'
import { apply } from '../../piece/operation.ts'
import { setDial } from '../retime.ts'
import { momentOfFrame, momentOfSeconds, momentOfTicks, type Moment } from '../../time/moment.ts'
import { rational } from '../../time/rational.ts'
import { Program } from '../program.ts'

const RATE = rational(30)
/** Moments on frames and between them, on leaps, below 0, a year away, and at what is no part of a frame. */
const MOMENTS: readonly Moment[] = [
  ...[0, 1, 15, 30, 45, 60, 90, 299, -1, -60, 946_080_000].map(f => momentOfFrame(f, RATE)),
  ...[371, 512, 30_723, 61_440, -2049, 968_785_920_001].map(t => momentOfTicks(t, RATE)),
  ...[rational(1, 3), rational(22, 7), rational(-10, 7), rational(1, 1_000_003)].map(s => momentOfSeconds(s, RATE)),
]

/** A row of copies with a formula, beside what it may read. */
function row(count: number, text: string, property = 'x', extra?: (b: Builder) => void): Program {
  const b = new Builder('Row', 7)
  b.dial('fast', { value: 2, low: 0, high: 4 })
  b.clock('slower', { way: { type: 'steady', rate: 0.5, ahead: 1 } })
  b.clock('rounds', { way: { type: 'toAndFro', length: 3 } })
  b.cue('blow', [1, 2.5], 4)
  b.cue('once', [-0.5, 0.1, 1, 2.5])
  b.curve(
    'sway',
    {
      arm: [
        [0, 0],
        [1, 30],
        [2, -10],
      ],
    },
    { unit: 'px' },
  )
  const copies = { layout: 'row', count, dx: 9, dy: 0 } as const
  const buoy = b.part('Buoy', { type: 'ellipse' }, { copies })
  b.drive(buoy, 'y', 'sine(every: 3s, amp: 20px, phase: index * 31deg)')
  const post = b.part('Post', { type: 'rectangle' })
  b.drive(post, 'x', 'sine(every: 2s, amp: 7px)')
  b.drive(b.part('Follower', { type: 'rectangle' }), 'x', 'delay(Post.x, 100ms) * 0.5')
  const drift = b.part('Drift', { type: 'rectangle' }, {}, { x: 7 })
  b.drive(drift, 'x', 'base + noise(2Hz, 5px, octaves: 2) + random(-3px, 3px, rate: 2Hz)')
  b.drive(b.part('Swarm', { type: 'ellipse' }, { copies }), 'x', 'noise(2Hz, 5px) * along + random(0px, 9px)')
  const lamp = b.part('Lamp', { type: 'ellipse' }, { copies })
  extra?.(b)
  b.drive(lamp, property, text)
  return new Program(b.piece)
}

/** Where the values of the lamps differ from what the plain evaluator says of each, to the bit. */
function differing(p: Program, property = 'x'): string[] {
  const slot = [...p.slots.values()].find(
    s => s.key.endsWith(`.${property}`) && p.meanings.label(s.key).startsWith('Lamp'),
  )!
  expect(slot.problems).toEqual([])
  const out = new Float64Array(p.size)
  const wrong: string[] = []
  for (const m of MOMENTS) {
    p.moment(m, out)
    slot.readers.forEach((r, i) => {
      if (!Object.is(out[slot.offset + i], r.at(m)))
        wrong.push(`copy ${i} at ${m.seconds} s: ${out[slot.offset + i]} instead of ${r.at(m)}`)
    })
  }
  return wrong.slice(0, 3)
}
const planned = (p: Program) => [...p.slots.values()].at(-1)!.plan !== null

/** Formulas that differ from copy to copy, with every entry that has a kernel, and ways of being exact. */
const FORMULAS = [
  'index * 7px',
  'index / 3 * 1px + 1px / 7',
  'time * 20px/s + index * 1px',
  'time * 3px/s * index',
  '-(time * 3px/s) * (index + 1) / 7 - 5px',
  '(time - index * 100ms) * 12px/s',
  'sine(every: 2s, amp: 3px, phase: index * 7deg)',
  'sine(freq: 1Hz + index * 0.1Hz, amp: 3px)',
  'sine(every: 2s + index * 100ms, low: -4px, high: index * 1px)',
  'sine(freq: 3/lap, amp: 3px, phase: along * 1turn)',
  'sine(freq: 1Hz * fast, amp: 3px * along, phase: index * 11deg)',
  'sine(freq: 1Hz, amp: index * 1px, phase: time * 90deg/s * along)',
  'sine(every: 2s, amp: 3px, phase: sine(every: 5s, amp: 20deg) * index)',
  'sine(every: 1.7321s, amp: 3px, phase: index * 7deg - 278.991210937512deg)',
  'saw(freq: 2.123456789012Hz, amp: 3px, phase: index * 7.123456789deg + 10.987654321098deg)',
  'noise(freq: 1.000000000001Hz, amp: 3px, octaves: 2, phase: index * 30deg - 99.123456789012deg)',
  'random(low: 0px, high: 9px, rate: 1.5Hz, phase: index * 7deg + 178.991210937512deg)',
  'time * 20.123456789012px/s + index * 1px / 7 - 17.123456789012px',
  'floor(time * 20.123456789012px/s + index * 1px / 7 - 17.123456789012px, to: 3px)',
  'sine(freq: 3/lap, amp: 3px, phase: index * 1turn / 7919 / 7907 / 7901 / 7883)',
  'triangle(every: 2s, amp: 3px, offset: Buoy[index].y, phase: index * 45deg)',
  'saw(every: 1s, low: 0px, high: 9px, phase: index * 90deg)',
  'square(every: 1s, duty: 0.5, amp: 4px, phase: index * 90deg)',
  'square(every: 2s, duty: along, low: 1px, high: 2px)',
  'noise(2Hz, 5px)',
  'noise(1Hz, 5px, octaves: 3, roughness: 0.6, phase: index * 10deg)',
  'noise(freq: 4/lap, amp: 5px, octaves: 2)',
  'noise(1Hz, 5px, seed: 3) + index * 1px',
  'random(low: -30px, high: 30px, rate: 3Hz)',
  'random(-3px, 3px) + 10px / 3',
  'random(0px, index * 1px, rate: 2/lap)',
  'sine(every: 2s, amp: 3px, phase: random(0deg, 360deg))',
  'ramp(start: index * 0.2s, length: 2s, from: 3px, to: 90px, ease: cubicOut)',
  'ramp(start: 1s, end: 2s + index * 1s, to: index * 3px, after: mirror)',
  'ramp(start: index * 0.1s, length: 1s, to: 9px, after: repeat)',
  'clamp(Buoy[index].y, -5px, index * 1px)',
  'mix(Buoy[index].y, Post.x, along)',
  'min(Buoy[index].y, Post.x, index * 1px) + max(0px, Buoy[index].y)',
  'abs(Buoy[index].y) * sign(Buoy[index].y)',
  'sign(time - index * 1s) * 3px',
  'remap(Buoy[index].y, -20px, 20px, 0px, index * 3px, limit: yes)',
  'remap(Buoy[index].y, -10px, 10px, 0px, 3px)',
  'step(index * 1s, time) * 5px + step(0px, Buoy[index].y) * 1px',
  'smoothstep(index * 0.5s, 4s, time) * 5px',
  'ease(remap(Buoy[index].y, -20px, 20px, 0, 1), elasticOut(1.2)) * 5px',
  'round(time * 10px/s + index * 3px, to: 5px)',
  'floor(index / 3) * 10px + floor(Buoy[index].y, to: 2px)',
  'ceil(time * 2px/s * along, to: 1px) + fract(time / 2s * (index + 1)) * 4px',
  'mod(time * 45px/s - index * 10px, 90px)',
  'mod(Buoy[index].y, index * 1px + 1px)',
  'wrap(time * 40px/s + index * 25px, -100px, 100px)',
  'wrap(Buoy[index].y, -5px, 5px)',
  'mirror(time * 40px/s + index * 25px, -100px, 100px) + mirror(Buoy[index].y, -3px, 4px)',
  'cos(time * 90deg/s + index * 30deg) * 24px',
  'sin(index * 37.3deg) * 3px + cos(index * 100deg / 7) * 1px + tan(10deg * along) * 1px',
  'hypot(Buoy[index].y, 3px) + sqrt(index) * 1px + exp(-along) * 2px + log(index + 1) * 1px',
  'atan2(Buoy[index].y, Post.x) / 1deg * 1px',
  'asin(along) / 1deg * 1px + acos(along) / 1deg * 1px',
  'pow(along, 1.5) * 1px + along ^ 2 * 3px + (Buoy[index].y / 10px) ^ 3 * 1px',
  'if index == 0 then Post.x else Buoy[index - 1].y',
  'if index > 2 and Post.x > 0px then 5px else index * 1px',
  'if Buoy[index].y > 3px or index == 4 then Buoy[index].y else Post.x',
  'if not (Buoy[index].y > 0px) then -Buoy[index].y else 1px / 3',
  'if time < index * 1s then 3px else time * 1px/s',
  'index * 1px / Post.x * 1px',
  'Buoy[index].y / 3 * index / 7',
  'before.y + 1px',
  'Buoy[0].y + index * 1px',
  'delay(Buoy[index].y, index * 50ms)',
  'delay(sine(every: 2s, amp: 4px), index * 50ms) + index * 1px',
  'accumulate(1px/s + sine(every: 2s, amp: 1px/s)) + index * 1px',
  'sine(freq: 1Hz + sine(0.2Hz) * 0.5Hz, amp: 3px, phase: index * 10deg)',
  'sine(every: 2s, amp: 3px, phase: index * 30deg) on slower',
  'time * 3px/s * along on slower',
  'sine(every: 2s, amp: 3px, phase: index * 30deg) on rounds',
  'lapProgress * index * 1px + lapIndex * 2px',
  'let w = index * 10px; w + sine(every: 1s, amp: w)',
  'envelope(attack: 1s, hold: 1s, release: 1s) * index * 1px',
  'play(sway, blow) * index + curve(sway, after: repeat)',
  'since(blow) * index * 1px/s + count(blow) * 1px',
  'envelope(attack: index * 0.3s, hold: 0.5s, release: 1s, ease: cubicOut) * 9px',
  'envelope(attack: 0.2s, release: index * 0.1s + 0.1s, easeIn: elasticOut(1.2), over: lap) * 9px',
  'envelope(attack: index * 0.1s, release: 0.5s, cue: blow) * 9px',
  'play(sway, blow, shift: index * 0.7s)',
  'play(sway, blow, shift: index * 0.3s - 1s, overlap: add)',
  'delay(envelope(attack: 0.5s, hold: 0.2s, release: 1s, cue: blow), index * 130ms) * 9px',
  'delay(envelope(attack: 0.5s, release: 0.5s, over: cue, cue: blow), index * 1s / 7) * 9px',
  'delay(envelope(attack: 0.5s, release: 1s, over: lap), index * 50ms) * 9px',
  'delay(play(sway, blow), index * 0.25s)',
  'delay(play(sway, blow, overlap: add) + curve(sway, after: repeat), index * 1s / 3)',
  'delay(curve(sway, after: carry), index * 40ms) + delay(curve(sway), index * 50ms) + curve(sway, after: mirror)',
  'delay(since(blow) * 1px/s + count(blow) * 3px, index * 0.5s)',
  'delay(if fires(blow) then until(blow) * 1px/s else 7px, index * 0.5s)',
  'delay(if fires(blow) then 1px else 7px, index * 1s / 30) on slower',
  'delay(since(blow) * 1px/s, index * 1s / 90) on rounds',
  'delay(since(once) * 1px/s + until(once) * 3px/s + count(once) * 1px, index * 0.25s)',
  'delay(play(sway, once) + envelope(attack: 0.5s, release: 0.5s, over: cue, cue: once) * 1px, index * 1s / 7)',
  'delay(Post.x, index * 50ms)',
  'delay(Post.x * along + sine(every: 2s, amp: 4px, phase: index * 9deg), index * 50ms)',
  'delay(Buoy[index].y, along * 1s) * 0.5',
  'delay(delay(Follower.x, 100ms), index * 50ms)',
  'delay(noise(2Hz, 5px) + random(0px, 9px, rate: 2Hz), index * 70ms)',
  'delay(time * 3px/s + index * 1px / 7, index * 1s / 7)',
  'delay(mod(time * 45px/s, 90px) + lapProgress * 5px + lapIndex * 1px, index * 70ms)',
  'delay(if Post.x > 0px then floor(time * 3px/s, to: 1px) else step(1s, time) * 5px, index * 1s / 30)',
  'delay(sine(freq: 1Hz * fast, amp: 3px) + ramp(start: 1s, length: 2s, to: 90px), index * 70ms) on slower',
  'let w = Post.x; delay(w * along + w, index * 70ms) + w * index',
  'delay(1px / (time - 1s) * 1s, index * 1s)',
  'delay(sqrt(Post.x / 1px) * 1px, index * 100ms)',
  'rateOf(Buoy[index].y) * 0.1s + rateOf(sine(every: 2s, amp: index * 1px)) * 0.1s',
  'hold(Buoy[index].y + time * 1px/s * index, 7Hz) + hold(Post.x, 3Hz) * index',
  'hold(noise(2Hz, 5px), index * 1Hz + 1Hz)',
  'hold(delay(Post.x, index * 50ms), 3Hz)',
  'delay(Drift.x + Swarm[index].x, index * 70ms)',
  'hold(Swarm[index].x, 4Hz) + at(Swarm[0].x, 2s) + index * 1px',
  'delay(delay(Swarm[index].x, along * 1s) + hold(Drift.x, 3Hz), 0.2s)',
  'at(Buoy[index].y, 1.3s) + at(sine(every: 2s, amp: 3px, phase: index * 7deg), -1s)',
  'at(Post.x, index * 1s)',
  'base + index * 1px',
  'homeX * 0.5 + 3px',
  '1px / (index - 3)',
  'sqrt(index - 2) * 1px',
  'log(Buoy[index].y / 1px) * 1px',
] as const

describe('columns', () => {
  it.each(FORMULAS)('%s is on every copy what the plain evaluator says', text => {
    // What needs expressions of its own is run in columns from 256 copies on.
    for (const count of planned(row(5, text)) ? [5, 13] : [5, 260])
      expect(differing(row(count, text)), `${count} copies`).toEqual([])
  })
  it.each([
    'Rail[index].x * 0.3',
    'Rail[index].x / 7 + Mark[index].x',
    'mod(Rail[index].x, 3px)',
    'Rail[index].x - time * 20px/s',
    'sine(every: 2s, amp: 1px, phase: Mark[index].x / 1px * 1turn)',
    'Rail[9 - index].x * Mark[index].x / 1px',
  ])('what grows steadily is read exactly: %s', text => {
    const p = row(10, text, 'x', b => {
      const copies = { layout: 'row', count: 10, dx: 9, dy: 0 } as const
      b.drive(b.part('Rail', { type: 'ellipse' }, { copies }), 'x', 'time * 20px/s + index * 1px / 7')
      b.drive(b.part('Mark', { type: 'ellipse' }, { copies }), 'x', 'index * 1px / 7')
    })
    expect(planned(p)).toBe(true)
    expect(differing(p)).toEqual([])
  })

  it('hold for blocks and odd ends', () => {
    for (const count of [4, 511, 512, 513, 1100]) {
      for (const text of FORMULAS.filter((text, k) => k % 7 === 3 && !/accumulate|delay|before/.test(text)))
        expect(differing(row(count, text)), `${count} × ${text}`).toEqual([])
    }
  })
  it('follow what runs, where that is the last good text and reads others than the text', () => {
    const b = new Builder('Good', 7)
    const copies = { layout: 'row', count: 6, dx: 9, dy: 0 } as const
    const [first, second] = ['First', 'Second'].map(n => b.part(n, { type: 'ellipse' }, { copies }))
    b.drive(first!, 'x', 'Second[index].x + 1px')
    b.drive(second!, 'x', 'sine(every: 2s, amp: 9px, phase: index * 7deg)')
    // It has no length more than 0, which is found when it is compiled.
    const op = setText(b.piece, `${first}.x`, 'ramp(length: index * 0s, to: 9px)', false)
    const program = new Program(apply(b.piece, op))
    const [slot, other] = [`${first}.x`, `${second}.x`].map(k => program.slots.get(k)!)
    expect([slot!.running, slot!.plan !== null, other!.plan !== null]).toEqual(['good', true, true])
    const out = new Float64Array(program.size)
    for (const m of MOMENTS) {
      program.moment(m, out)
      slot!.readers.forEach((r, i) => expect(out[slot!.offset + i]).toBe(r.at(m)))
      expect([...program.copiesAt(slot!.key, m)]).toEqual(slot!.readers.map(r => r.at(m)))
    }
  })
  it.each([
    'parent.index * 3px + index * 1px',
    'sine(every: 2s, amp: 3px, phase: parent.index * 20deg + index * 7deg)',
    'strings.y + index * 1px',
    'strings.y * along + base',
    'if parent.index == 1 then base else own.y + homeX',
    'sine(freq: 1Hz * fast, amp: 3px, phase: index * 11deg)',
    'time * 3px/s * fast + index * 1px',
    'time * 3px/s * fast * index',
    'noise(1Hz, 3px) + before.y',
    'random(1px, 9px, rate: 2Hz, seed: 4) + row * 1px + column * 2px',
    'if index > 1 then bulb[index - 1].y else strings.y',
    'delay(strings.y + bulb[index].y, index * 40ms) + delay(base + homeX, index * 1s)',
    'delay(sine(freq: 1Hz * fast, amp: 3px) + time * 3px/s * fast, index * 70ms + parent.index * 1s / 7)',
    'delay(sine(freq: 2/lap * fast, amp: 3px) on faster, along * 1s)',
    'hold(strings.y + bulb[index].y * fast, 5Hz) + rateOf(bulb[index].y) * 0.1s',
  ])('in copies within copies, with set values of their own and a dial that was tuned: %s', text => {
    const b = new Builder('Nested', 7)
    const fast = b.dial('fast', { value: 1, low: 0, high: 4 })
    b.clock('faster', { way: { type: 'steady', rate: 1.5, ahead: 0.3 } })
    const grid = { layout: 'grid', count: 6, columns: 3, dx: 9, dy: 9 } as const
    const strings = b.part('Strings', { type: 'group' }, { copies: { layout: 'row', count: 3, dx: 60, dy: 0 } })
    const bulb = b.part('Bulb', { type: 'ellipse' }, { copies: grid, parent: strings })
    b.copies(bulb, 'x', 18, i => (i * 7) / 3)
    b.drive(strings, 'y', 'sine(every: 3s, amp: 20px, phase: index * 31deg)')
    b.drive(bulb, 'y', 'triangle(every: 4s, amp: 5px, phase: index * 9deg)')
    b.drive(bulb, 'x', text)
    const begun = new Program(b.piece)
    const tuned = setDial(begun, fast, 1.7, momentOfTicks(98_765, RATE), true)
    for (const program of [begun, new Program(apply(b.piece, tuned), begun), new Program(apply(b.piece, tuned))]) {
      const slot = program.slots.get(`${bulb}.x`)!
      expect([slot.running, slot.problems]).toEqual(['text', []])
      const out = new Float64Array(program.size)
      for (const m of MOMENTS) {
        program.moment(m, out)
        expect([...out.subarray(slot.offset, slot.offset + 18)], `${m.seconds} s`).toEqual(
          slot.readers.map(r => r.at(m)),
        )
      }
    }
  })
  it('need no forms of their own where every piece has a kernel', () => {
    expect(FORMULAS.filter(text => !planned(row(5, text)))).toEqual([
      'accumulate(1px/s + sine(every: 2s, amp: 1px/s)) + index * 1px',
      'sine(freq: 1Hz + sine(0.2Hz) * 0.5Hz, amp: 3px, phase: index * 10deg)',
      'delay(since(blow) * 1px/s, index * 1s / 90) on rounds',
      'delay(delay(Swarm[index].x, along * 1s) + hold(Drift.x, 3Hz), 0.2s)',
      '1px / (index - 3)',
    ])
  })
  it('are what runs', () => {
    const plain = FORMULAS.filter(text => !planned(row(5, text)) && !planned(row(260, text)))
    expect(plain).toEqual([])
  })
})

describe('formulas made at random', () => {
  const RUNS = Number(process.env.RUNS ?? 40)
  it('are on every copy what the plain evaluator says, pending sums aside', () => {
    const moments = MOMENTS.filter(m => Math.abs(m.seconds) < 1000)
    fc.assert(
      fc.property(anAngleOfCopies, text => {
        const { program, slot } = fair(text, { on: 'Mount' })
        if (!slot.plan) return
        for (const m of moments) {
          const values = program.copiesAt(slot.key, m)
          const plain = slot.readers.map(r => program.queue.settle(() => r.at(m)))
          expect([...values], `${text} at ${m.seconds} s`).toEqual(plain)
        }
      }),
      { numRuns: RUNS, seed: Number(process.env.SEED ?? 21) },
    )
  })
})
