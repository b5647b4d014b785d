import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { addDrive, addSignal, removeDrive } from '../acts/drives.ts'
import { setBase, setKeys } from '../acts/parts.ts'
import { setText } from '../acts/sources.ts'
import { anAngle } from '../testing/made-up-formulas.ts'
import { fair } from '../testing/fair.ts'
import { apply, type Operation } from '../piece/operation.ts'
import { momentOfFrame, momentOfSeconds, momentOfTicks, type Moment } from '../time/moment.ts'
import { rational } from '../time/rational.ts'
import { setDial } from './retime.ts'
import { Program } from './program.ts'

const RATE = rational(30)
/** On frames and between them, on leaps, below 0, a year away, and at what is no part of a frame. */
const MOMENTS: readonly Moment[] = [
  ...[0, 1, 15, 30, 60, 90, 299, -1, -60, 946_080_000].map(f => momentOfFrame(f, RATE)),
  ...[371, 30_723, -2049, 968_785_920_001].map(t => momentOfTicks(t, RATE)),
  ...[rational(1, 3), rational(-10, 7)].map(s => momentOfSeconds(s, RATE)),
]

const LANES = 9
const line = (time: number, value: number) => ({ time, value, shape: 'straight' as const })

/** What lanes may read: moving in several ways, growing, standing still, set by hand or by keyframes, in copies. */
function posts(): Builder {
  const b = new Builder('Posts', 7)
  b.dial('fast', { value: 2, low: 0, high: 4 })
  b.clock('slower', { way: { type: 'steady', rate: 0.5, ahead: 1 } })
  b.clock('rounds', { way: { type: 'toAndFro', length: 3 } })
  b.signal('gust', 'noise(1Hz, 5px)')
  b.cue('blow', [1, 2.5], 4)
  const arm = [0, 30, -10].map((v, k): [number, number] => [k, v])
  b.curve('sway', { arm }, { unit: 'px' })
  const drives = [
    'sine(every: 2s, amp: 7px)',
    'sine(every: 3.5s, amp: 2px) + 1px',
    'noise(2Hz, 4px, octaves: 2)',
    'noise(1Hz, 6px, octaves: 2)',
    'base + sine(every: 1s, amp: 3px)',
    'time * 3px/s',
    'time * 2px/s * fast',
    '7px / 3',
    null,
  ]
  drives.forEach((text, k) => {
    const part = b.part(`Post ${k}`, { type: 'ellipse' }, {}, { x: k * 11, y: k })
    if (text) b.drive(part, 'x', text)
    else b.do(setKeys(b.piece, part, 'x', { points: [line(0, 0), line(2, 30)], after: 'repeat' }))
  })
  const copies = { layout: 'row', count: 3, dx: 9, dy: 0 } as const
  b.drive(b.part('Row', { type: 'ellipse' }, { copies }), 'x', 'sine(every: 2s, amp: 3px, phase: index * 40deg)')
  return b
}

/** One part for each text, with `#` as a number of its own and `@` as a post of its own, on a property. */
function lanes(text: string, which: (lane: number) => number = lane => lane % 9, property = 'x'): Program {
  const b = posts()
  for (let lane = 0; lane < LANES; lane++) {
    let n = 0
    const own = text
      .replaceAll('#', () => `${((lane * 7 + 3 * n++) % 11) / 4 + 0.5}`)
      .replaceAll('@', `\`Post ${which(lane)}\`.x`)
    b.drive(b.part(`Lamp${lane}`, { type: 'ellipse' }, {}, { [property]: lane * 1.5 }), property, own)
  }
  return new Program(b.piece)
}

/** Drives that are run with others of their shape. */
const together = (p: Program, name = 'Lamp'): number =>
  [...p.slots.values()].filter(s => s.laneOperations !== null && p.meanings.label(s.key).startsWith(name)).length

/** Where a snapshot differs from what the plain evaluator says of each drive, to the bit. */
function differing(p: Program): string[] {
  const wrong: string[] = []
  const out = new Float64Array(p.size)
  for (const m of MOMENTS) {
    p.queue.settle(() => p.moment(m, out))
    for (const slot of p.slots.values()) {
      if (slot.offset < 0) continue
      slot.readers.forEach((r, i) => {
        const plain = p.queue.settle(() => r.at(m))
        if (!Object.is(out[slot.offset + i], plain))
          wrong.push(`${p.meanings.label(slot.key)} at ${m.seconds} s: ${out[slot.offset + i]} instead of ${plain}`)
      })
    }
  }
  return wrong.slice(0, 3)
}

/** With a lane for each, all run together. */
const TOGETHER = [
  'sine(every: #s, amp: #px)',
  'base + sine(every: #s, amp: #px, phase: #turn)',
  'saw(freq: #Hz, low: -#px, high: #px)',
  'square(every: #s, duty: 0.4, amp: #px)',
  'triangle(freq: 3/lap, amp: #px)',
  'sine(freq: 1Hz * fast, amp: #px)',
  'noise(#Hz, #px)',
  'noise(1Hz, #px, octaves: 3, roughness: 0.6)',
  'random(-#px, #px, rate: #Hz)',
  'time * #px/s',
  'time * #px/s * 2 + #px',
  '#px * 3 - 1px / 7',
  'base',
  'base * # + 2px',
  'mod(time * #px/s, #px)',
  'floor(time * #px/s, to: #px)',
  'if time < #s then #px else -#px',
  'if mod(time, 3s) < 1s then #px else base * 2',
  'step(#s, time) * #px',
  'hold(noise(2Hz, #px), 7Hz)',
  'hold(base + time * #px/s, 3Hz) * #',
  'at(sine(every: #s, amp: #px), 1.3s)',
  'play(sway, blow, shift: #s) * #',
  'envelope(attack: #s, release: #s, cue: blow) * #px',
  'envelope(attack: #s, release: #s, over: lap) * #px',
  'delay(play(sway, blow) + curve(sway, after: repeat), 0.3s) * #',
  'since(blow) * #px/s + count(blow) * 1px',
  'let pace = #s; sine(every: pace, amp: #px) + saw(every: pace, amp: 1px)',
  'gust * #',
  'fast * #px + sine(every: #s, amp: fast * 2px)',
  '(sine(every: #s, amp: #px) on slower)',
  '(time * #px/s on slower)',
  '(sine(every: #s, amp: #px) on rounds)',
  'ramp(start: #s, length: #s, to: #px, after: hold, ease: cubicOut)',
  'ramp(start: #s, length: #s, to: #px, after: mirror, ease: powIn(3.5))',
  'smoothstep(#s, 9s, time) * #px',
  '@ * 0.5 + #px',
  '-@ + time * 1px/s',
  '@ * # - @ / 3',
  'max(@, #px)',
  'round(@, to: #px)',
  'if @ > #px then 1px else 0px',
  'sine(every: 2s, amp: @)',
  'sine(every: 2s, amp: #px) ^ 2 / 1px',
]

describe('drives of one shape', () => {
  it.each(TOGETHER)('%s', text => {
    const p = lanes(text)
    expect([...p.slots.values()].flatMap(s => s.problems)).toEqual([])
    expect(together(p)).toBe(LANES)
    expect(differing(p)).toEqual([])
  })

  it.each([
    ['delay(@, 100ms) * #', (lane: number) => lane % 4],
    ['delay(@, 100ms) + delay(@, 250ms) + @', (lane: number) => lane % 2],
    ['delay(@ + sine(every: #s, amp: 1px), 125ms)', (lane: number) => lane % 4],
    ['delay(@, 250ms) + #px', (lane: number) => (lane % 2) + 2],
    ['rateOf(@) * #s', (lane: number) => lane % 5],
    ['let back = @; back - delay(back, 0.3s)', (lane: number) => lane % 4],
    ['delay(floor(@, to: #px), 0.5s)', (lane: number) => lane % 4],
  ])('at other moments: %s', (text, which) => {
    const p = lanes(text, which)
    expect([...p.slots.values()].flatMap(s => s.problems)).toEqual([])
    expect(together(p)).toBeGreaterThanOrEqual(4)
    expect(differing(p)).toEqual([])
  })

  it.each([
    'Row[1].x * #',
    'mod(time, #s) * 1px / 1s',
    'accumulate(#px/s)',
    'accumulate(sine(every: #s, amp: 3px) / 1s)',
    'average(@, #s)',
    'hold(@, #Hz)',
    'delay(@, #s)',
    'sine(freq: 1Hz * (1 + 0.4 * sine(every: #s)), amp: 3px)',
    'own.y * #',
    'delay(@, 1s) * #',
    'at(@, time: #s)',
    '#px / (@ - 7px / 3)',
    'sqrt(@ / 1px) * #px',
    'atan2(@, #px) / 1deg * 1px',
    'sine(freq: #/lap, amp: 3px)',
  ])('is read one by one where it has to be: %s', text => {
    expect(differing(lanes(text))).toEqual([])
  })

  it('where one of them is wrong, the others run', () => {
    const b = posts()
    for (let k = 0; k < 8; k++) b.drive(b.part(`Lamp${k}`, { type: 'ellipse' }), 'x', `sine(every: ${k}s, amp: 3px)`)
    const p = new Program(b.piece)
    const running = [...p.slots.values()].filter(s => p.meanings.label(s.key).startsWith('Lamp')).map(s => s.running)
    expect(running).toEqual(['base', ...Array.from({ length: 7 }, () => 'text')])
    expect(differing(p)).toEqual([])
  })

  it('each has its own seed', () => {
    const p = lanes('noise(1Hz, 5px)')
    const out = p.moment(momentOfFrame(7, RATE), new Float64Array(p.size))
    const lamps = [...p.slots.values()].filter(s => p.meanings.label(s.key).startsWith('Lamp'))
    expect(new Set(lamps.map(s => out[s.offset])).size).toBe(LANES)
  })

  it('made at random', () => {
    let most = 0
    fc.assert(
      fc.property(
        anAngle,
        fc.array(fc.integer({ min: 1, max: 90 }), { minLength: 6, maxLength: 6 }),
        (text, scales) => {
          // Numbers with a unit are each lane's own; those without mean something else, such as octaves.
          const own = (lane: number) =>
            text.replace(
              /(\d+(?:\.\d+)?)(deg|s|Hz)/g,
              (_, n: string, unit: string) => `${(Number(n) * scales[lane]!) / 16}${unit}`,
            )
          const f = fair(own(0), {
            change: b => {
              for (let lane = 1; lane < 6; lane++)
                b.drive(b.part(`Lamp${lane}`, { type: 'ellipse' }), 'rotation', own(lane))
            },
          })
          most = Math.max(most, together(f.program))
          expect(differing(f.program), own(1)).toEqual([])
        },
      ),
      { numRuns: Number(process.env.RUNS ?? 150), seed: Number(process.env.SEED ?? 21) },
    )
    expect(most).toBeGreaterThanOrEqual(4)
  })
})

describe('batches from program to program', () => {
  const TEXTS = [
    'sine(every: #s, amp: #px)',
    'sine(every: #s, amp: #px) + gust',
    '@ * # + 1px',
    'delay(@, 90ms) * #',
    'time * #px/s',
    'base + saw(every: #s, amp: 2px)',
    'sine(freq: 1Hz * fast, amp: #px)',
    'sine(every: #s, amp:',
    '#px',
  ]
  const at = momentOfTicks(98_765, RATE)

  it('are to the bit what they are when they are made anew, after any changes', () => {
    let together = 0
    const one = fc.tuple(fc.nat(6), fc.nat(99), fc.nat(99), fc.nat(99))
    fc.assert(
      fc.property(fc.array(one, { minLength: 1, maxLength: 14 }), fc.nat(8), (steps, begun) => {
        const text = (which: number, n: number, post: number): string =>
          TEXTS[which % TEXTS.length]!.replaceAll('#', `${(n % 13) / 4 + 0.25}`).replaceAll(
            '@',
            `\`Post ${post % 9}\`.x`,
          )
        const b = posts()
        const lamps = Array.from({ length: 14 }, (_, k) => b.part(`Lamp${k}`, { type: 'ellipse' }, {}, { x: k }))
        for (const [k, id] of lamps.entries()) b.drive(id, 'x', text(begun === 7 ? 0 : begun, k, k % 5))
        const ids = [...lamps, ...Object.keys(b.piece.parts).slice(0, 9)]
        const dial = Object.keys(b.piece.dials)[0]!
        let now = new Program(b.piece)
        let last = 0
        for (const [kind, chosen, which, n] of steps) {
          // A number that is dragged changes one drive again and again.
          const k = kind > 4 ? last : chosen
          last = k
          now.queue.settle(() => now.moment(at, new Float64Array(now.size)))
          const id = ids[k % ids.length]!
          const key = `${id}.x`
          const { piece } = now
          const driven = piece.drives[key] !== undefined
          const isLamp = lamps.includes(id)
          const next = text(isLamp ? (kind === 6 ? begun : which) : which % 2 ? 0 : 4, n, k)
          const op: Operation | null =
            kind === 0
              ? driven
                ? removeDrive(piece, key)
                : addDrive(piece, id, 'x', next)
              : kind === 1
                ? setBase(piece, id, 'x', n / 3)
                : kind === 2
                  ? setDial(now, dial, n / 30, at, true)
                  : kind === 3
                    ? addSignal(piece, `Wind ${Object.keys(piece.signals).length}`, 'noise(1Hz, 1px)').op
                    : driven
                      ? setText(piece, key, next, !next.endsWith(':'))
                      : null
          if (!op) continue
          now = new Program(apply(piece, op), now)
          const anew = new Program(now.piece)
          const [a, c] = [now, anew].map(p => p.queue.settle(() => p.moment(at, new Float64Array(p.size))))
          expect([...a!], JSON.stringify(steps)).toEqual([...c!])
          expect([...now.slots.values()].map(s => [s.key, s.running])).toEqual(
            [...now.slots.keys()].map(key => [key, anew.slots.get(key)!.running]),
          )
          for (const slot of now.slots.values())
            expect(now.queue.settle(() => slot.readers[0]!.at(at))).toBe(
              anew.queue.settle(() => anew.slots.get(slot.key)!.readers[0]!.at(at)),
            )
          together = Math.max(together, [...now.slots.values()].filter(s => s.laneOperations !== null).length)
        }
      }),
      { numRuns: Number(process.env.RUNS ?? 60), seed: Number(process.env.SEED ?? 5) },
    )
    expect(together).toBeGreaterThanOrEqual(10)
  })
})
