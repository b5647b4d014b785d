/** Stretches of numbered things, from and to, in their order: what has changed and must be sent. */
export type Range = [from: number, to: number]

/** One range more, in one with the last where they meet. */
export function join(ranges: Range[], from: number, to: number): void {
  const last = ranges.at(-1)
  if (last?.[1] === from) last[1] = to
  else ranges.push([from, to])
}

/** The lines of a table, so many things across, in which some of them lie. */
export function tableLines(ranges: readonly Range[], across: number): Range[] {
  const lines: Range[] = []
  for (const [a, b] of ranges) {
    if (b <= a) continue
    const [from, to] = [Math.floor(a / across), Math.ceil(b / across)]
    const last = lines.at(-1)
    if (last && from <= last[1]) last[1] = Math.max(last[1], to)
    else lines.push([from, to])
  }
  return lines
}
