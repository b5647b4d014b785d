/** Marks of a cue as they are drawn: in plain seconds, those in sight. What decides is exact and stands in the core. */
import type { Cue } from '~~/core/piece/schema.ts'

/** Marks that are drawn in what is seen. */
const MOST_MARKS = 200

/** The seconds of marks within a stretch, in order; repeats follow the first round, as a cue plays them. */
export function marksFrom({ marks, every }: Cue, from: number, to: number): number[] {
  const sorted = [...marks].sort((a, b) => a - b)
  const first = sorted[0]
  if (first === undefined || to < first) return []
  if (every === null) return sorted.filter(m => m >= from && m <= to).slice(0, MOST_MARKS)
  const found: number[] = []
  for (let round = Math.max(0, Math.floor((from - sorted.at(-1)!) / every)); found.length < MOST_MARKS; round++) {
    if (first + round * every > to) break
    for (const m of sorted) {
      const second = m + round * every
      if (second >= from && second <= to) found.push(second)
    }
  }
  return found.sort((a, b) => a - b)
}

/** The first mark after a second; null when none comes. */
export function markAfter(cue: Cue, second: number): number | null {
  const reach =
    cue.every === null ? Infinity : second + 2 * cue.every + (Math.max(...cue.marks) - Math.min(...cue.marks))
  const all = marksFrom(cue, second, Math.max(reach, Math.min(...cue.marks)))
  return all.find(m => m > second) ?? null
}
