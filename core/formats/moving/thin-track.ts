/**
 * Fewer moments for the same motion: between those that are kept, what was left out lies within its tolerance of a straight
 * way. After Douglas and Peucker (Cartographica 10, 1973), with time as the first axis.
 */

/** Values at times: row k stands at `at[k]`, all rows as long. */
export interface Track {
  readonly at: readonly number[]
  readonly rows: readonly (readonly number[])[]
}

/** How far between two rows each value may lie from the straight way, in its own measure. */
export type Tolerance = readonly number[]

/** Whether a row lies within its tolerance of the way between two others, `share` of it on. */
export function straight(
  a: readonly number[],
  b: readonly number[],
  row: readonly number[],
  share: number,
  tolerance: Tolerance,
): number {
  let worst = 0
  for (let c = 0; c < row.length; c++) {
    const off = Math.abs(row[c]! - (a[c]! + (b[c]! - a[c]!) * share)) / tolerance[c % tolerance.length]!
    if (off > worst) worst = off
  }
  return worst
}

/** Keeps first and last; one row alone where nothing changes. */
export function thinTrack({ at, rows }: Track, tolerance: Tolerance): Track {
  const last = rows.length - 1
  const keep = new Set([0, last])
  const open: [number, number][] = [[0, last]]
  for (let span = open.pop(); span; span = open.pop()) {
    const [from, to] = span
    let [worst, where] = [1, -1]
    for (let k = from + 1; k < to; k++) {
      const share = (at[k]! - at[from]!) / (at[to]! - at[from]!)
      const off = straight(rows[from]!, rows[to]!, rows[k]!, share, tolerance)
      if (off > worst) [worst, where] = [off, k]
    }
    if (where < 0) continue
    keep.add(where)
    open.push([from, where], [where, to])
  }
  const kept = [...keep].sort((a, b) => a - b)
  if (kept.length === 2 && straight(rows[0]!, rows[0]!, rows[last]!, 0, tolerance) <= 1e-3)
    return { at: [0], rows: [rows[0]!] }
  return { at: kept.map(k => at[k]!), rows: kept.map(k => rows[k]!) }
}
