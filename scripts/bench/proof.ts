/** What a row of the benchmark says it measures is proven first: a piece that stands still is no figure. */
import type { Program } from '../../core/engine/program.ts'
import { momentOfSeconds, momentOfTicks, type Moment } from '../../core/time/moment.ts'
import { plus, rational, times } from '../../core/time/rational.ts'

/** A moment while it plays: so many frames on, and not on a whole one. */
export const played = (program: Program, frame: number): Moment =>
  momentOfTicks(frame * 1024 + 371, program.measures.frameRate)

/** Why a program doesn't do what its row names: every drive runs its text, every copy's value moves. Null when it does. */
export function faultOf(program: Program, driven: number): string | null {
  const slots = [...program.slots.values()].filter(s => s.offset >= 0)
  if (slots.length !== driven) return `${slots.length} driven, ${driven} said`
  const held = slots.find(s => s.running !== 'text' || s.problems.some(p => p.level === 'error'))
  if (held) return `${held.key} stands still: ${held.problems[0]?.message ?? held.running}`
  const [a, b, c] = [600, 601, 617].map(k =>
    program.queue.settle(() => program.moment(played(program, k), new Float64Array(program.size))).slice(),
  )
  for (let i = 0; i < program.size; i++)
    if (!Number.isFinite(a![i]!) || (a![i] === b![i] && b![i] === c![i])) return `value ${i} does not move`
  return null
}

/** Runs `f` until it has taken so long, and gives the milliseconds of one: the middle of `turns`. */
export function took(f: (k: number) => unknown, least = 120, turns = 5): number {
  let n = 1
  let k = 0
  const run = (count: number): number => {
    const from = performance.now()
    for (let i = 0; i < count; i++) f(k++)
    return performance.now() - from
  }
  run(1)
  for (let t = run(n); t < least / turns && n < 1e7; t = run(n)) n = Math.ceil(t > 1 ? (n * least) / turns / t : n * 8)
  const all = Array.from({ length: turns }, () => run(n) / n).sort((a, b) => a - b)
  return all[turns >> 1]!
}

/** Bytes that something holds, after garbage was collected (`node --expose-gc`); NaN where it can't be. */
export function held<T>(make: () => T): { readonly bytes: number; readonly made: T } {
  const gc = (globalThis as { gc?: () => void }).gc
  const size = () => {
    gc?.()
    const { heapUsed, arrayBuffers } = process.memoryUsage()
    return heapUsed + arrayBuffers
  }
  const before = size()
  const made = make()
  return { made, bytes: gc ? size() - before : NaN }
}

/** Why a stretch is not what it says: its columns, and every value that of its moment. Null when it is. */
export function stretchFault(program: Program, key: string): string | null {
  if (!program.hasTimeColumns(key, 0)) return 'it has no columns over time'
  const step = rational(1, 60)
  const values = program.stretch(key, 0, { from: rational(5), step, count: 700 })
  const wrong = values.findIndex((v, k) => {
    const m = momentOfSeconds(plus(rational(5), times(rational(k), step)), program.measures.frameRate)
    return !Object.is(v, program.slots.get(key)!.readers[0]!.at(m))
  })
  return wrong < 0 ? null : `its value ${wrong} is another one`
}
