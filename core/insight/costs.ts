/** What the values of a piece cost a frame, as measured here: in all, and each driven value of it. */
import type { Program } from '../engine/program.ts'
import type { Slot } from '../engine/slot.ts'
import { figure, weightsOf } from '../engine/weight.ts'
import { momentOfTicks } from '../time/moment.ts'

/** Milliseconds a frame. */
export interface Costs {
  readonly all: number
  readonly each: ReadonlyMap<string, number>
  /** What would make it lighter, by key: of those that take some time. */
  readonly lighter: ReadonlyMap<string, string>
}

/** Frames that are looked at, at most, and milliseconds that may take. */
const FRAMES = 24
const LONGEST = 200
/** From so many milliseconds on it is said what would make it lighter. */
const HEAVY = 0.5

/** @param now a clock in milliseconds: it may be coarse, since many frames are looked at */
export function costsOf(program: Program, now: () => number): Costs {
  const out = new Float64Array(program.size)
  const each = new Map<string, number>()
  const moment = (k: number) => momentOfTicks(k * 1024 + 371, program.measures.frameRate)
  // The first frames make what all later ones have.
  for (let k = 0; k < 3; k++) program.moment(moment(k), out)
  const begun = now()
  const longest = new Map<string, number>()
  let frames = 0
  do
    program.timed(
      moment(10 + frames++),
      out,
      (slot, ms) => {
        each.set(slot.key, (each.get(slot.key) ?? 0) + ms)
        longest.set(slot.key, Math.max(longest.get(slot.key) ?? 0, ms))
      },
      now,
    )
  while (frames < FRAMES && now() - begun < LONGEST)
  let all = 0
  // The longest of several frames is left out: the machine may have done something else meanwhile.
  for (const [key, sum] of each) {
    const ms = frames > 1 ? (sum - longest.get(key)!) / (frames - 1) : sum
    all += ms
    each.set(key, ms)
  }
  const heavy = [...each].filter(([, ms]) => ms >= HEAVY).map(([key]) => key)
  return { all, each, lighter: new Map(heavy.length === 0 ? [] : lighterOf(program, heavy)) }
}

function lighterOf(program: Program, keys: readonly string[]): [string, string][] {
  const moments = new Map(weightsOf(program.slots.values()).map(w => [w.slot.key, w.moments]))
  return keys.map(key => [key, says(program.slots.get(key)!, moments.get(key) ?? 1)])
}

function says({ count, plan }: Slot, moments: number): string {
  if (moments > 4)
    return `It’s read at ${figure(moments)} moments per frame. Fewer delays or averages would make it lighter.`
  if (count < 24) return 'A shorter formula would make it lighter: fewer octaves, or fewer sums over time.'
  return plan?.isWhole
    ? `It has ${figure(count)} copies. Fewer would make it lighter.`
    : `Its ${figure(count)} copies are calculated one by one. Fewer would make it lighter, and so would moving what all copies share to a signal.`
}
