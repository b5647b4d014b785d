/** How parts hang and clocks run on one another: how deep, and how many instances of each part there come to be. */

/** What is looked at of a document. */
interface Carrying {
  readonly parts: Readonly<
    Record<string, { readonly parent: string | null; readonly copies: { readonly count: number } | null }>
  >
}

export interface Hung {
  readonly depth: number
  readonly count: number
}

/** How deep each part hangs and how many instances it has; null where a parent is missing or a circle closes. */
export function hangings(piece: Carrying): ReadonlyMap<string, Hung> | null {
  const known = new Map<string, Hung>()
  for (const start of Object.keys(piece.parts)) {
    const path: string[] = []
    const open = new Set<string>()
    let at: string | null = start
    while (at !== null && !known.has(at)) {
      if (open.has(at) || !Object.hasOwn(piece.parts, at)) return null
      open.add(at)
      path.push(at)
      at = piece.parts[at]!.parent
    }
    let { depth, count } = at === null ? { depth: 0, count: 1 } : known.get(at)!
    for (const id of path.reverse()) {
      depth++
      count *= piece.parts[id]!.copies?.count ?? 1
      known.set(id, { depth, count })
    }
  }
  return known
}

/** How many clocks run on one another at most; those in a circle stand still, and count once each. */
export function clocksDeep({ clocks }: { readonly clocks: Readonly<Record<string, { readonly on: string | null }>> }) {
  const known = new Map<string, number>()
  for (const start of Object.keys(clocks)) {
    const path: string[] = []
    const open = new Set<string>()
    let at: string | null = start
    while (at !== null && !known.has(at) && !open.has(at) && Object.hasOwn(clocks, at)) {
      open.add(at)
      path.push(at)
      at = clocks[at]!.on
    }
    let depth = at === null ? 0 : (known.get(at) ?? 0)
    for (const id of path.reverse()) known.set(id, ++depth)
  }
  return Math.max(0, ...known.values())
}
