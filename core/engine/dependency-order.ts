/** The order of things that read one another: each after all that it reads (depth first, Tarjan 1976), without recursion. */
export interface DependencyOrder {
  /** One circle of readings, or null; then the rest is not whole. */
  readonly circle: readonly string[] | null
  readonly order: readonly string[]
  /** How many stand in the longest chain that ends with each. */
  readonly links: ReadonlyMap<string, number>
}

export function dependencyOrder(reads: ReadonlyMap<string, readonly string[]>): DependencyOrder {
  const order: string[] = []
  const links = new Map<string, number>()
  for (const start of reads.keys()) {
    if (links.has(start)) continue
    const path = [{ key: start, next: 0 }]
    const open = new Set([start])
    while (path.length > 0) {
      const at = path.at(-1)!
      const others = reads.get(at.key)!
      const other = others[at.next++]
      if (other === undefined) {
        links.set(at.key, 1 + Math.max(0, ...others.map(o => links.get(o)!)))
        order.push(at.key)
        open.delete(at.key)
        path.pop()
      } else if (open.has(other)) {
        const keys = path.map(p => p.key)
        return { circle: keys.slice(keys.indexOf(other)), order, links }
      } else if (!links.has(other)) {
        open.add(other)
        path.push({ key: other, next: 0 })
      }
    }
  }
  return { circle: null, order, links }
}
