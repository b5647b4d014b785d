/**
 * A line drawn by hand with as few points as keep to it (Ramer 1972; Douglas and Peucker 1973). Distances are told in
 * shares of the line's own length and height, so that it is thinned alike in every unit.
 * @param keep how far a point may lie off, as a share of the whole
 */
export function thinPoints(
  points: readonly { readonly time: number; readonly value: number }[],
  keep = 0.015,
): { time: number; value: number }[] {
  const sorted = [...points].sort((a, b) => a.time - b.time)
  const line = sorted.filter((p, i) => i === 0 || p.time > sorted[i - 1]!.time)
  if (line.length < 3) return line
  const values = line.map(p => p.value)
  const wide = line.at(-1)!.time - line[0]!.time || 1
  const high = Math.max(...values) - Math.min(...values) || 1
  const off = (
    p: { time: number; value: number },
    a: { time: number; value: number },
    b: { time: number; value: number },
  ) => {
    const [x, y] = [(b.time - a.time) / wide, (b.value - a.value) / high]
    const [u, v] = [(p.time - a.time) / wide, (p.value - a.value) / high]
    return Math.abs(x * v - y * u) / Math.sqrt(x * x + y * y)
  }
  const stays = kept(line.length, (i, from, to) => off(line[i]!, line[from]!, line[to]!), keep)
  return line.filter((_, i) => stays.has(i)).map(({ time, value }) => ({ time, value }))
}

/**
 * Which of so many points of a line stay, so that none lies further off than that (Ramer 1972; Douglas and Peucker 1973).
 * @param off how far a point lies off the stretch between two others
 */
export function kept(
  count: number,
  off: (i: number, from: number, to: number) => number,
  keep: number,
): ReadonlySet<number> {
  const stays = new Set([0, count - 1])
  const open: [number, number][] = [[0, count - 1]]
  for (let next = open.pop(); next; next = open.pop()) {
    const [from, to] = next
    let [most, at] = [keep, -1]
    for (let i = from + 1; i < to; i++) {
      const d = off(i, from, to)
      if (d > most) [most, at] = [d, i]
    }
    if (at < 0) continue
    stays.add(at)
    open.push([from, at], [at, to])
  }
  return stays
}
