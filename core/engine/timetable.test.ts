import { drivenPart } from '../piece/drive-key.ts'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { addDrive, removeDrive } from '../acts/drives.ts'
import { anAngle, anAngleOfCopies } from '../testing/made-up-formulas.ts'
import { apply } from '../piece/operation.ts'
import { fair, type Fair } from '../testing/fair.ts'
import { momentOfSeconds, momentOfTicks } from '../time/moment.ts'
import { plus, rational, times, type Rational } from '../time/rational.ts'
import { Program } from './program.ts'
import { setDial } from './retime.ts'
import { rewrite } from './rewrite.ts'

const RATE = rational(30)

/** Beginnings and steps: on frames and off them, backwards, over leaps, below 0, a year on, at what is no part of a frame. */
const STRETCHES: readonly (readonly [Rational, Rational])[] = [
  [rational(0), rational(1, 30)],
  [rational(-2), rational(1, 4)],
  [rational(371, 30_720), rational(1, 30_720)],
  [rational(31_557_600), rational(1, 7)],
  [rational(5), rational(-1, 60)],
  [rational(1, 3), rational(10_007, 100_003)],
]

/** Where a stretch differs from single readings, to the bit. */
function differing(program: Program, key: string, instance: number, count: number, which = STRETCHES): string[] {
  const wrong: string[] = []
  const { frameRate } = program.measures
  for (const [from, step] of which) {
    const values = program.queue.settle(() => program.stretch(key, instance, { from, step, count }))
    values.forEach((v, k) => {
      const m = momentOfSeconds(plus(from, times(rational(k), step)), frameRate)
      const plain = program.queue.settle(() => program.slots.get(key)!.readers[instance]!.at(m))
      if (!Object.is(v, plain)) wrong.push(`${m.seconds} s: ${v} instead of ${plain}`)
    })
  }
  return wrong.slice(0, 3)
}
/** Where a snapshot differs from single readings, at moments in any order. */
function unlike(program: Program, frames = [600.3, 5, 601.7, -3.25, 946_080_000.5, 5]): string[] {
  const out = new Float64Array(program.size)
  const wrong: string[] = []
  for (const f of frames) {
    const m = momentOfTicks(Math.round(f * 1024), program.measures.frameRate)
    program.queue.settle(() => program.moment(m, out))
    for (const s of program.slots.values())
      s.readers.forEach((r, i) => {
        const plain = program.queue.settle(() => r.at(m))
        if (s.offset >= 0 && !Object.is(out[s.offset + i], plain))
          wrong.push(`${s.key} copy ${i} at ${m.seconds} s: ${out[s.offset + i]} instead of ${plain}`)
      })
  }
  return wrong.slice(0, 3)
}

/** The same, also with what the piece is when it is made anew. */
function unlikeAnew(program: Program): string[] {
  const anew = new Program(program.piece)
  const m = momentOfTicks(98_765, program.measures.frameRate)
  const [a, b] = [program, anew].map(p => p.queue.settle(() => p.moment(m, new Float64Array(p.size))))
  const differ = [...a!].flatMap((v, i) => (Object.is(v, b![i]) ? [] : [`value ${i}: ${v} instead of ${b![i]}`]))
  return [...differ.slice(0, 3), ...unlike(program)]
}

/** A chain of parts, each following the one before; `each` writes the formula of a link. */
function links(count: number, each: (before: string, k: number) => string): { program: Program; keys: string[] } {
  const b = new Builder('Chain', 7)
  const ids = Array.from({ length: count }, (_, k) => b.part(`Link ${k}`, { type: 'ellipse' }))
  ids.forEach((id, k) =>
    b.drive(id, 'rotation', k ? each(`\`Link ${k - 1}\`.rotation`, k) : 'noise(1Hz, 40deg) + time * 3deg/s'),
  )
  return { program: new Program(b.piece), keys: ids.map(id => `${id}.rotation`) }
}

const off = (f: Fair, instance = 0, count = 40) => differing(f.program, f.key, instance, count)

/** Whether a drive is worked out in columns over time, all that it reads included. */
const inColumns = ({ program, key }: Fair) => program.hasTimeColumns(key, 0)

const FORMULAS = [
  'sine(every: 2s, amp: 30deg)',
  'sine(freq: 3/lap, low: 2deg, high: time * 1deg/s)',
  'sine(every: 2s, amp: 30deg * wind, phase: sine(every: 5s, amp: 20deg))',
  'triangle(every: 1.7321s, amp: 3deg, phase: 278.991210937512deg) + saw(1Hz, 2deg) - square(every: 1s, amp: 4deg)',
  'noise(2Hz, 9deg, octaves: 3)',
  'noise(4/lap, 9deg)',
  'random(2deg, 5deg, 3Hz)',
  'random(2deg, 5deg)',
  'ramp(start: 1s, length: 2s, to: 90deg, ease: elasticOut, after: mirror)',
  'ramp(start: 1s, end: 2s, to: 90deg, after: repeat)',
  'time * 20deg/s',
  'time * 20deg/s * wind * sine(every: 3s)',
  '(time * 20deg/s) ^ 2 / 1deg',
  'floor(time * 10deg/s, to: 5deg) + mod(time * 45deg/s, 90deg) + wrap(time * 40deg/s, -100deg, 100deg)',
  'round(sine(every: 2s, amp: 9deg), to: 2deg)',
  'clamp(Mount[3].rotation, -5deg, 4deg) + lapProgress * 1turn + lapIndex * 2deg',
  'if time < 2s then 3deg else sine(every: 1s, amp: 3deg)',
  'if Mount[3].rotation > 3deg and time > 1s then 5deg else 7deg',
  'let w = sine(every: 3s); w * 10deg + w ^ 2 * 2deg',
  'sine(every: 2s, amp: 3deg) on slow',
  'time * 3deg/s * wind on back',
  'lapProgress * 1turn on slow',
  'delay(sine(every: 2s, amp: 3deg), 0.35s)',
  'delay(delay(Mount[3].rotation, 120ms) + time * 1deg/s, 0.1s) - Mount[3].rotation',
  'let w = Mount[2].rotation; w - delay(w, 90ms)',
  'rateOf(Mount[3].rotation) * 1s',
  'gust + delay(gust, 1/3 * 1s)',
  '1deg / sine(every: 2s)',
  'sqrt(sine(every: 2s)) * 1deg',
  'base + 1deg / 3',
  'envelope(1s, 1s, 1s) * 5deg + envelope(attack: 1s, release: 2s, easeIn: cubicOut, over: lap) * 5deg',
  'envelope(0.3s, 0.2s, 0.4s, cue: blow) * 5deg + envelope(attack: 0.2s, over: cue, cue: beat) * 5deg',
  'play(swing, cue: blow, channel: arm) + play(swing, beat, channel: arm, overlap: add)',
  'curve(rocking, after: carry) + curve(rocking, after: mirror) + curve(rocking)',
  'count(beat) * 1deg + since(blow) * 1deg/s + until(beat) * 3deg/s + (if fires(blow) then 1deg else 0deg)',
  'delay(play(swing, blow, channel: arm), 0.1s) - since(beat) * 1deg/s on slow',
] as const

/** Formulas of which a node has no kernel over time: they are read one by one. */
const PLAIN = [
  'hold(Mount[3].rotation, 7Hz)',
  'time * 3deg/s on toAndFro',
  'since(beat) * 3deg/s on toAndFro',
  'sine(freq: 1Hz + sine(0.2Hz) * 0.5Hz, amp: 3deg)',
  'delay(Mount[3].rotation, 0.2s + sine(every: 2s) * 0.1s)',
]
const around = {
  with: { 'Mount.rotation': 'sine(every: 3s, amp: 20deg, phase: index * 31deg)' },
  signals: { gust: 'noise(1Hz, 5deg)' },
}

describe('a stretch', () => {
  it.each(FORMULAS)('%s is at every moment what it is by itself, in columns', text => {
    const f = fair(text, around)
    expect(f.slot.problems.filter(p => p.level === 'error')).toEqual([])
    expect(inColumns(f)).toBe(true)
    expect(off(f)).toEqual([])
  })
  it.each(PLAIN)('%s is too, one by one', text => {
    const f = fair(text, around)
    expect(f.slot.problems).toEqual([])
    expect(inColumns(f)).toBe(false)
    expect(off(f)).toEqual([])
  })
  it('of any length, in blocks and odd ends', () => {
    const { program, key } = fair('floor(time * 10deg/s, to: 5deg) + noise(2Hz, 3deg)')
    for (const count of [0, 1, 2, 511, 512, 513, 1100]) expect(differing(program, key, 0, count)).toEqual([])
  })
  it('of a copy reads its own, and a chain of copies each the one before it', () => {
    for (const text of [
      'delay(before.rotation, 90ms) * 0.9 + index * 1deg',
      'if index == 0 then sine(every: 3s, amp: 40deg) else delay(Mount[index - 1].rotation, 90ms) * 0.9',
      'if index == 11 then sine(every: 3s, amp: 40deg) else delay(Mount[index + 1].rotation, 0.1s) + Mount[index + 1].rotation * 0.1',
    ]) {
      const f = fair(text, { on: 'Mount' })
      expect(f.slot.problems, text).toEqual([])
      for (const i of [1, 7]) expect(f.program.hasTimeColumns(f.key, i), text).toBe(true)
      for (const i of [0, 1, 7, 11]) expect(off(f, i, 20), `${text}, copy ${i}`).toEqual([])
    }
  })
  it('goes on through a dial that was tuned', () => {
    const b = new Builder('Tuned', 7)
    const fast = b.dial('fast', { value: 1, low: 0, high: 4 })
    const key = `${b.part('Dot', { type: 'ellipse' })}.x`
    b.drive(drivenPart(key), 'x', 'sine(freq: 1Hz * fast, amp: 3px) + time * fast * 2px/s + noise(fast * 1Hz, 3px)')
    const begun = new Program(b.piece)
    const tuned = setDial(begun, fast, 1.7, momentOfTicks(98_765, RATE), true)
    for (const program of [new Program(apply(b.piece, tuned), begun), new Program(apply(b.piece, tuned))])
      expect(differing(program, key, 0, 60)).toEqual([])
  })
  it('of formulas made at random', () => {
    const RUNS = Number(process.env.RUNS ?? 60)
    const near = STRETCHES.filter(([from]) => from.n < 1000n)
    let columns = 0
    fc.assert(
      fc.property(anAngle, anAngleOfCopies, (text, other) => {
        const f = fair(`${text} + delay(Mount[4].rotation, 0.3s)`, { ...around, with: { 'Mount.rotation': other } })
        if (inColumns(f)) columns++
        expect(differing(f.program, f.key, 0, 12, near), `${text} / ${other}`).toEqual([])
      }),
      { numRuns: RUNS, seed: Number(process.env.SEED ?? 12) },
    )
    expect(columns).toBeGreaterThan(RUNS / 10)
  })
})

describe('chains with lags', () => {
  it.each([
    ['one lag', (l: string) => `delay(${l}, 90ms) * 0.97`],
    ['a lag a link', (l: string, k: number) => `delay(${l}, ${k} * 7ms) - 1deg`],
    ['two readings a link', (l: string) => `delay(${l}, 90ms) * 0.5 + delay(${l}, 30ms) * 0.4`],
    ['a reading now and one later', (l: string) => `mix(${l}, delay(${l}, 0.1s), 0.3)`],
    ['speeds', (l: string, k: number) => (k % 5 ? `delay(${l}, 0.1s)` : `rateOf(${l}) * 0.1s + ${l}`)],
    ['no number at times', (l: string) => `delay(${l}, 90ms) + sqrt(sine(every: 2s)) * 1deg`],
    [
      'links without a kernel among them',
      (l: string, k: number) => (k === 11 ? `hold(${l}, 7Hz)` : `delay(${l}, 90ms) * 0.97`),
    ],
    [
      'sums among them',
      (l: string, k: number) =>
        k === 4 ? `accumulate(sine(every: 3s, amp: 9deg) / 1s) + ${l}` : `delay(${l}, 90ms) * 0.97`,
    ],
  ] as const)('%s: the bits of single readings', (_, each) => {
    const { program } = links(14, each)
    expect([...program.slots.values()].flatMap(s => s.problems.filter(p => p.level === 'error'))).toEqual([])
    expect(unlike(program)).toEqual([])
    expect(program.inChains).toBeGreaterThan(7)
  })
  it.each([
    'if index == 0 then sine(every: 3s, amp: 40deg) else delay(before.rotation, 90ms) * 0.97',
    'if index == 11 then sine(every: 3s, amp: 40deg) else delay(Mount[index + 1].rotation, 0.1s) + Mount[index + 1].rotation * 0.1',
    'delay(before.rotation, index * 20ms) + noise(1Hz, 3deg)',
  ])('of copies: %s', text => {
    const { program } = fair(text, { on: 'Mount' })
    expect(unlike(program)).toEqual([])
    expect(program.inChains).toBe(12)
  })
  it('follow every change of a piece', () => {
    const { program, keys } = links(14, l => `delay(${l}, 90ms) * 0.97`)
    unlike(program)
    let now = program
    const m = momentOfTicks(123_456, RATE)
    for (const [k, text] of [
      [5, 'delay(`Link 4`.rotation, 90ms) * 0.5'],
      [5, 'delay(`Link 4`.rotation, 70ms) * 0.5'],
      [9, 'delay(`Link 2`.rotation, 70ms) + 1deg'],
      [9, 'sine(every: 3s, amp: 9deg)'],
      // What is exact is not read from a column: from one to another, and to what is none.
      [0, 'time * 3deg/s'],
      [0, 'time * 5deg/s'],
      [0, '7.3deg'],
      [0, 'sine(every: 3s, amp: 40deg)'],
      [13, 'hold(`Link 12`.rotation, 3Hz)'],
      [5, 'delay(`Link 4`.rotation, 70ms) *'],
      [5, 'delay(`Link 4`.rotation, 90ms) * 0.5'],
    ] as const) {
      const next = rewrite(now, keys[k]!, text, m, true).program
      expect(unlikeAnew(next), text).toEqual([])
      expect(next.inChains).toBeGreaterThan(7)
      // The one before goes on as it was: a change may be given up.
      expect(unlike(now, [10.5]), text).toEqual([])
      now = next
    }
  })
  it('follow where their first link gets a formula, loses it, and gets it again', () => {
    const { program, keys } = links(14, l => `delay(${l}, 90ms) * 0.97`)
    const { piece } = program
    const without = apply(piece, removeDrive(piece, keys[0]!))
    let now = program
    for (const next of [
      without,
      piece,
      without,
      apply(without, addDrive(without, keys[0]!.split('.')[0]!, 'rotation', '9deg')),
    ]) {
      unlike(now)
      now = new Program(next, now)
      expect(unlikeAnew(now)).toEqual([])
    }
  })
  it('are not more than what a few of them cost one by one', () => {
    const { program } = links(6, l => `delay(${l}, 90ms) * 0.97`)
    unlike(program)
    expect(program.inChains).toBe(0)
  })
})
