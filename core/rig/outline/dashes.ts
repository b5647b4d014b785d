/** Lines in dashes: pieces of an outline by length along it, as SVG 2 lays them (stroke-dasharray, stroke-dashoffset). */
import type { Outline } from './outline.ts'

export interface Dashes {
  /** Length of a dash and of the gap after it, and how far into them the line begins. */
  dash: number
  gap: number
  offset: number
}

/** Pieces of one line, most: longer ones are drawn instead. */
const MOST = 1500

/** The pieces of an outline; itself where it has no dashes. */
export function dashed(o: Outline, { dash, gap, offset }: Dashes): Outline[] {
  const round = dash + gap
  if (!(dash > 0) || !(gap > 0) || !Number.isFinite(offset)) return [o]
  const n = o.points.length / 2
  const count = o.closed ? n + 1 : n
  const along = new Float64Array(count)
  for (let i = 1; i < count; i++) {
    const [a, b] = [2 * (i - 1), 2 * (i % n)]
    const [dx, dy] = [o.points[b]! - o.points[a]!, o.points[b + 1]! - o.points[a + 1]!]
    along[i] = along[i - 1]! + Math.sqrt(dx * dx + dy * dy)
  }
  const total = along[count - 1]!
  const fold = Math.max(1, Math.ceil(total / round / MOST))
  const [long, each] = [dash * fold, round * fold]
  const shift = offset - Math.floor(offset / each) * each
  const out: Outline[] = []
  let i = 0
  const at = (d: number, to: number[], high: number[], old: number[]): void => {
    while (i < count - 2 && along[i + 1]! <= d) i++
    const share = Math.min(1, Math.max(0, (d - along[i]!) / (along[i + 1]! - along[i]! || 1)))
    const [a, b] = [i, (i + 1) % n]
    for (const k of [0, 1]) to.push(o.points[2 * a + k]! + (o.points[2 * b + k]! - o.points[2 * a + k]!) * share)
    if (o.heights) high.push(o.heights[a]! + (o.heights[b]! - o.heights[a]!) * share)
    if (o.ages) old.push(o.ages[a]! + (o.ages[b]! - o.ages[a]!) * share)
  }
  for (let start = -shift; start < total; start += each) {
    const [from, to] = [Math.max(0, start), Math.min(total, start + long)]
    if (!(to > from)) continue
    const [points, heights, ages]: [number[], number[], number[]] = [[], [], []]
    at(from, points, heights, ages)
    while (i + 1 < count && along[i + 1]! < to) {
      i++
      points.push(o.points[2 * (i % n)]!, o.points[2 * (i % n) + 1]!)
      if (o.heights) heights.push(o.heights[i % n]!)
      if (o.ages) ages.push(o.ages[i % n]!)
      if (i >= count - 1) break
    }
    if (i >= count - 1) i = count - 2
    at(to, points, heights, ages)
    out.push({
      points: new Float64Array(points),
      closed: false,
      ...(o.heights && { heights: new Float64Array(heights) }),
      ...(o.ages && { ages: new Float64Array(ages) }),
    })
  }
  return out
}
