/** Proofs of the rules on names, landscapes, places and fixes. */
import { expect } from 'vitest'
import { rewrite } from '../engine/rewrite.ts'
import { setDial } from '../engine/retime.ts'
import { Program } from '../engine/program.ts'
import { setBase } from '../acts/parts.ts'
import { plainly } from '../formula/parse.ts'
import { leapsOf } from '../insight/leaps.ts'
import { reportOf } from '../insight/report.ts'
import { apply } from '../piece/operation.ts'
import { at, fair, type Place } from '../testing/fair.ts'
import { copies, fixed, problems, value, prove, type Proofs } from '../testing/rule-proofs.ts'

const change = (to: NonNullable<Place['change']>): Place => ({ change: to })
const grid: Place = {
  on: 'Flag',
  change: b =>
    void b.do({
      undoLabel: '',
      puts: [
        {
          in: 'parts',
          id: 'p3',
          value: { ...b.piece.parts.p3!, copies: { layout: 'grid', count: 5, columns: 2, dx: 40, dy: 30 } },
        },
      ],
    }),
}
/** How wide a formula swings: the root of its mean square over many seconds, in degrees. */
function swing(text: string, from = 0, to = 900): number {
  const f = fair(text)
  let sum = 0
  let n = 0
  for (let t = from; t < to; t += 0.13, n++) {
    const v = f.value(t) * 360
    sum += v * v
  }
  return Math.sqrt(sum / n)
}

const PLACES = {
  'writing.signs': () => {
    expect(value('time × 4deg/s ÷ 2 − 1deg', 3)).toBeCloseTo(5, 12)
    expect(plainly('time × 4deg/s · 2 – 1deg // a × b')).toBe('time * 4deg/s * 2 - 1deg // a × b')
    expect(plainly('`a × b`.x')).toBe('`a × b`.x')
  },
  'writing.letsOnce': () => {
    expect(problems('let a = 1deg; let a = 2deg; a')[0]!.message).toBe(
      'a is defined twice. Give the second one another name.',
    )
  },
  'numbers.unitsAsTyped': () => {
    expect(value('time * 90°/s', 1)).toBeCloseTo(90, 12)
    expect(plainly('delay(time * 2turns/sec, 12frames + 3laps)')).toBe('delay(time * 2turn/s, 12f + 3lap)')
  },
  'kinds.switches': () => {
    const lights = (on: number) =>
      change(b => void b.dial('lights', { type: 'switch', unit: '', value: on, low: 0, high: 1 }))
    expect([0, 1].map(on => value('if lights then 9deg else 4deg', 0, lights(on)))).toEqual([
      expect.closeTo(4),
      expect.closeTo(9),
    ])
    expect(value('if not lights and time < 1s then 9deg else 4deg', 0, lights(0))).toBeCloseTo(9, 12)
    expect(problems('if wind then 9deg else 4deg')[0]!.code).toBe('kind')
  },
  'kinds.bareShare': () => {
    const f = fair('sine(every: 2s, low: 20, high: 100)', { property: 'opacity' })
    expect(f.slot.problems[0]).toMatchObject({ level: 'warning', message: '20 is 2,000 % here.' })
    expect(fixed('sine(every: 2s, low: 20, high: 100)', { property: 'opacity' })).toBe(
      'sine(every: 2s, low: 20%, high: 100%)',
    )
    expect(fair('0.5', { property: 'opacity' }).slot.problems).toEqual([])
  },
  'values.columns': () =>
    expect(copies('column * 1deg + columns * 10deg', grid).map(Math.round)).toEqual([20, 21, 20, 21, 20]),
  'values.letters': () => {
    const text: Place = {
      on: 'Flag',
      change: b => {
        const part = b.piece.parts.p3!
        const shape = {
          type: 'text',
          words: 'up we go',
          shows: 'letters',
          decimals: 0,
          prefix: '',
          suffix: '',
          align: 'middle',
        } as const
        b.do({
          undoLabel: '',
          puts: [
            { in: 'parts', id: 'p3', value: { ...part, shape, copies: { layout: 'row', count: 8, dx: 9, dy: 0 } } },
          ],
        })
      },
    }
    expect(copies('word * 10deg + line * 1deg', text).map(Math.round)).toEqual([0, 0, 0, 10, 10, 10, 20, 20])
    expect(problems('word * 10deg', { on: 'Flag' })[0]!.code).toBe('index')
  },
  'values.homes': () => {
    expect(copies('homeX / 1px * 1deg', { on: 'Flag' }).map(Math.round)).toEqual([-80, -40, 0, 40, 80])
    expect(value('homeAngle', 0, { on: 'Mount' }, 3)).toBeCloseTo(0, 9)
    expect(value('homeY / 1px * 1deg', 0, { on: 'Mount' }, 3)).toBeCloseTo(170, 9)
  },
  'values.stage': () => expect(value('(stageWidth - stageHeight) / 1px * 1deg')).toBeCloseTo(560, 9),
  'values.places': () => {
    const linked: Place = { on: 'Idler', with: { 'Carousel.rotation': 'time * 90deg/s', 'Carousel.x': '10px' } }
    expect(value('carousel.stageX / 1px * 1deg', 1, linked)).toBeCloseTo(10, 9)
    expect(value('carousel.stageY(40px) / 1px * 1deg', 1, linked)).toBeCloseTo(40, 9)
    expect(value('mount[3].stageX / 1px * 1deg', 1, linked)).toBeCloseTo(10 - 170, 6)
    expect(problems('own.stageX / 1px * 1deg')[0]!.code).toBe('cycle')
  },
  'values.parents': () => {
    const deep: Place = {
      change: b => {
        const inner = b.part('Inner', { type: 'ellipse' }, { parent: 'p2' })
        b.drive(inner, 'rotation', 'parent.parent.rotation * 2 + index * 1deg')
      },
    }
    const f = fair('30deg', deep)
    const slot = [...f.program.slots.values()].find(s => s.running === 'text' && s.key !== f.key)!
    expect(slot.readers[5]!.at(at(0)) * 360).toBeCloseTo(65, 9)
  },
  'sources.noiseField': () => {
    const field = (x: number, y: number, t = 0) => value(`noise(at: ${x}, across: ${y}, freq: 1Hz, amp: 9deg)`, t)
    expect(field(0.4, 0.7)).not.toBe(field(0.4, 1.9))
    expect(field(0.4, 0.7, 0.6)).not.toBe(field(0.4, 0.7))
    expect(Math.abs(field(0.4, 0.7) - field(0.4001, 0.7001))).toBeLessThan(0.05)
    expect(value('noise(at: 60px, cell: 40px, amp: 9deg)')).toBeCloseTo(value('noise(at: 1.5, amp: 9deg)'), 12)
    for (let k = 0; k < 400; k++) expect(Math.abs(field(k * 0.37, k * 0.71, k * 0.13))).toBeLessThanOrEqual(9)
  },
  'sources.noiseOneField': () => {
    const [a, b] = copies('noise(at: 0.6, amp: 9deg)', { on: 'Mount' })
    expect(a).toBe(b)
  },
  'sources.octavesSwing': () => {
    const one = swing('noise(1Hz, 30deg)')
    for (const octaves of [2, 3, 5]) {
      const more = swing(`noise(1Hz, 30deg, octaves: ${octaves})`)
      expect(more / one).toBeGreaterThan(0.85)
      expect(more / one).toBeLessThan(1.15)
    }
  },
  'sources.lapNoiseMoves': () => {
    for (let seed = 0; seed < 60; seed++) {
      const f = fair(`noise(${1 + (seed % 3)}/lap, 10deg, seed: ${seed})`)
      const seen = Array.from({ length: 400 }, (_, k) => Math.abs(f.value(k / 50)) * 360)
      expect(Math.max(...seen)).toBeGreaterThan(4.5)
      expect(f.value(1.3)).toBe(f.value(9.3))
    }
  },
  'sources.channelsTogether': () => {
    // `arm` has its last point at 1.2 s, `puck` at 2 s: both come again after 2 s.
    expect(value('curve(swing, channel: arm, after: repeat)', 1.6)).toBeCloseTo(0, 9)
    expect(value('curve(swing, channel: arm, after: repeat)', 2.6)).toBeCloseTo(40, 9)
  },
  'sources.curveEasing': () => {
    expect(value('ramp(length: 4s, to: 90deg, ease: climb)', 1)).toBeCloseTo(22.5, 9)
    expect(problems('ramp(length: 4s, to: 90deg, ease: rocking)')[0]!.code).toBe('kind')
    expect(value('climb * 90deg', 1)).toBeCloseTo(45, 9)
  },
  'sources.marksCounted': () => {
    expect([0, 2, 5.2, 99].map(t => value('count(blow) * 1deg', t))).toEqual(
      [0, 1, 2, 3].map(n => expect.closeTo(n, 9)),
    )
    expect(value('until(beat) / 1s * 1deg', 1.5)).toBeCloseTo(1.5, 9)
    expect(value('count(beat) * 1deg', 7)).toBeCloseTo(4, 9)
  },
  'time.dialClock': () => {
    const f = fair('time * 30deg/s on paced', {
      change: b => void b.clock('paced', { way: { type: 'steady', rate: 1, ahead: 0, dial: 'd2' } }),
    })
    expect(f.value(10) * 360).toBeCloseTo(105, 9)
    const next = new Program(apply(f.piece, setDial(f.program, 'd2', 70, at(10))), f.program)
    const read = (t: number) => next.slots.get(f.key)!.readers[0]!.at(at(t)) * 360
    expect(read(10)).toBeCloseTo(105, 9)
    expect(read(11)).toBeCloseTo(105 + 21, 9)
  },
  'time.workedOut': () => {
    const f = fair('accumulate(max(0, noise(2Hz)) * 20deg/s)')
    expect(Number.isFinite(f.slot.readers[0]!.at(at(4000)))).toBe(true)
    expect(f.program.queue.isPending).toBe(true)
  },
  'tuning.rampLength': () => {
    const f = fair('ramp(length: 4s, to: 90deg, after: repeat)')
    const made = rewrite(f.program, f.key, 'ramp(length: 5s, to: 90deg, after: repeat)', at(13), true)
    expect(made.text).toBe('ramp(length: 5s, to: 90deg, after: repeat, start: -3.25s)')
    expect(made.program.slots.get(f.key)!.readers[0]!.at(at(13))).toBeCloseTo(f.value(13), 12)
    const jump = rewrite(f.program, f.key, 'ramp(length: 4s, to: 80deg, after: repeat)', at(13), true)
    expect(jump.shift).toMatchObject({ copy: 0, from: expect.closeTo(0.0625, 9), to: expect.closeTo(20 / 360, 9) })
  },
  'known.everyCopy': () => {
    const f = fair('if index == 3 then time * 10deg/s else index * 1deg', { on: 'Mount' })
    expect(reportOf(f.program, f.slot)).toMatchObject({ copy: 3, range: '' })
    const g = fair('if index == 3 then step(2s, time) * 10deg else 0deg', { on: 'Mount' })
    expect(leapsOf(g.slot.forms, g.program, 1).jumps.map(j => j.copy)).toEqual([3])
  },
  'known.fixesRun': () => {
    expect(fixed('time > 1s && time < 3s ? 10deg : 20deg')).toBe('if time > 1s and time < 3s then 10deg else 20deg')
    expect(fixed('sin(time*2*pi)*20')).toBe('sine(1Hz, 20deg)')
    expect(fixed('lerp(10, 20, 0,5)')).toBe('mix(10, 20, 0.5)')
    expect(fixed('rotation + 5deg')).toBe('base + 5deg')
    const turned = fair('0deg', { change: b => void b.do(setBase(b.piece, 'p1', 'rotation', 40)) })
    expect(turned.value(0)).toBe(0)
  },
} satisfies Proofs
export type Proved = keyof typeof PLACES
prove(PLACES)
