/** Lines on the scope: the guaranteed ends of a value and what it promises; a promise is a handle too. */
import { promisesOf, sourceOf } from '~~/core/acts/sources.ts'
import { setPromises } from '~~/core/acts/drives.ts'
import type { Program } from '~~/core/engine/program.ts'
import { isBounded } from '~~/core/facts/interval.ts'
import { rangeOfAll } from '~~/core/insight/many-copies.ts'
import { promiseText } from '~~/core/insight/promises.ts'
import { propertyOf, showValue } from '~~/core/insight/report.ts'
import type { WaveHandle } from '~~/core/insight/wave-handles.ts'
import type { Operation } from '~~/core/piece/operation.ts'
import { toNumber } from '~~/core/time/rational.ts'
import { printNumber, sizeOfUnit } from '~~/core/units/units.ts'

export interface Limit {
  /** In base measure. */
  readonly value: number
  readonly says: string
}

const sizeOf = (program: Program, key: string): number =>
  toNumber(sizeOfUnit(propertyOf(program, key).unit, program.measures))

/** Lines of what it promises and of its guaranteed ends. */
export function limitsOf(program: Program, key: string): Limit[] {
  const { measures } = program
  const property = propertyOf(program, key)
  const slot = program.slots.get(key)
  const bounds = slot && rangeOfAll(program, slot)
  // A limit of what turns is told with all its turns.
  const { symmetry: _turns, ...whole } = property
  const ends =
    bounds && isBounded(bounds) && bounds.high > bounds.low
      ? [
          { value: bounds.high, says: `never above ${showValue(bounds.high, whole, measures, 2)}` },
          { value: bounds.low, says: `never below ${showValue(bounds.low, whole, measures, 2)}` },
        ]
      : []
  const promised = promisesOf(sourceOf(program.piece, key))
    .filter(p => p.of === 'value')
    .map(p => ({ value: p.than * sizeOf(program, key), says: promiseText(p, property) }))
  return [...ends, ...promised]
}

/** A handle on the line of each promise of a value; `nth` is below 0, −1 for the first. */
export function promiseHandles(program: Program, key: string, seconds: number): WaveHandle[] {
  const size = sizeOf(program, key)
  return promisesOf(sourceOf(program.piece, key)).flatMap((p, i): WaveHandle[] =>
    p.of !== 'value'
      ? []
      : [
          {
            nth: -1 - i,
            name: `stays ${p.side}`,
            text: printNumber(p.than, 4),
            way: 'up',
            seconds,
            from: seconds,
            value: p.than * size,
            decimals: (/\.(\d+)/.exec(String(p.than))?.[1] ?? '').length,
            pulled: (_, higher) => p.than + higher / size,
          },
        ],
  )
}

/** A promise of another limit. */
export function promiseMoved(program: Program, key: string, nth: number, than: number): Operation {
  const { piece } = program
  const promises = promisesOf(sourceOf(piece, key)).map((p, i) => (i === -1 - nth ? { ...p, than } : p))
  return setPromises(piece, key, promises)
}
