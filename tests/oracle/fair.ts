/** The world of the trials as a piece, built with the product's own operations, with one formula to try. */
import { Builder } from '../../core/acts/build.ts'
import { Program } from '../../core/engine/program.ts'
import { bySecond, type CompiledExpression } from '../../core/form/compiled-expression.ts'
import { momentOfSeconds } from '../../core/time/moment.ts'
import { rational } from '../../core/time/rational.ts'
import { toDouble, type Q } from './fraction.ts'
import { CURVES, HITS } from './world.ts'

export interface Tried {
  readonly program: Program
  readonly key: string
  readonly problems: readonly string[]
  /** Value of a copy at an exact second, in base measure. */
  readonly value: (t: Q, copy?: number) => number
  readonly reader: (copy?: number) => CompiledExpression
  /** The same as others read it. */
  readonly driven: (copy: number) => CompiledExpression
  /** How wide a copy ranges over some laps, looked at often, from what it is known to reach. */
  readonly extremes: (copy: number, low: number, high: number) => number
}

/** Copies of the lamp. */
export const LAMPS = 5

const built = world()

function world(): { b: Builder; lamp: string } {
  const b = new Builder('Trials', 5)
  b.dial('fairPace')
  b.dial('wind', { value: 35, high: 100 })
  b.dial('dusk', { unit: '', value: 0.8, low: 0, high: 1 })
  b.clock('slow', { way: { type: 'steady', rate: 0.5, ahead: 0 } })
  b.clock('back', { way: { type: 'steady', rate: -1, ahead: 3 } })
  b.clock('slower', { on: 'k1', way: { type: 'steady', rate: 0.5, ahead: 1 } })
  b.clock('toAndFro', { way: { type: 'toAndFro', length: 3 } })
  b.clock('again', { way: { type: 'restart', every: 2 } })
  b.clock('stepped', { hold: 10 })
  b.cue('blow', [2, 5, 5.5])
  b.cue('beat', [1], 2)
  b.cue('never', [])
  for (const [name, channels] of Object.entries(CURVES)) {
    const unit = name === 'climb' ? '' : 'deg'
    const size = unit === 'deg' ? 360 : 1
    const points = Object.entries(channels).map(([channel, of]) => [
      channel,
      of.map(
        ([t, v, stepped]) =>
          [toDouble(t), Math.round(toDouble(v) * size * 1e6) / 1e6, stepped ? 'stepped' : 'straight'] as const,
      ),
    ])
    b.curve(name, Object.fromEntries(points), { unit, hit: toDouble(HITS[name]!) })
  }
  b.signal('gust', 'triangle(every: 4s, amp: 0.5) + 0.5')
  const row = (count: number) => ({ copies: { layout: 'row', count, dx: 40, dy: 0 } }) as const
  const part = (name: string, more = {}) => b.part(name, { type: 'rectangle' }, more)
  b.drive(part('Idler'), 'rotation', 'time * 30deg/s')
  b.drive(part('Pinion'), 'rotation', 'sine(every: 2s, amp: 20deg)')
  b.drive(part('Arch'), 'rotation', 'saw(every: 4s, low: 0deg, high: 80deg)')
  b.drive(
    part('Flag', row(5)),
    'rotation',
    'if index == 0 then sine(every: 2s, amp: 30deg) else delay(before.rotation, 100ms) * 0.5',
  )
  return { b, lamp: part('Lamp', row(LAMPS)) }
}

const before = new Program(built.b.piece)

/** The trials' piece with a formula on a property of the lamp. */
export function tried(text: string, property = 'rotation'): Tried {
  const { piece } = built.b
  built.b.drive(built.lamp, property, text)
  const program = new Program(built.b.piece, before)
  built.b.piece = piece
  const key = `${built.lamp}.${property}`
  const slot = program.slots.get(key)!
  return {
    program,
    key,
    problems: slot.problems.filter(p => p.level === 'error').map(p => p.message),
    value: (t, copy = 0) =>
      program.queue.settle(() =>
        slot.readers[copy]!.at(momentOfSeconds(rational(t.n, t.d), program.measures.frameRate)),
      ),
    reader: (copy = 0) => slot.forms[copy]!,
    driven: copy => slot.readers[copy]!,
    extremes: (copy, low, high) => {
      const read = bySecond(slot.forms[copy]!, program.measures.frameRate)
      for (let k = 0; k < 4000; k++) {
        const v = program.queue.settle(() => read(k / 113 - 9))
        if (v < low) low = v
        if (v > high) high = v
      }
      return high - low
    },
  }
}
