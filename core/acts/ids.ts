/** Ids of new entries. */

/** The next free id with a prefix: `p1`, `p2` … */
export function freshId(entries: Readonly<Record<string, unknown>>, prefix: string): string {
  const used = Object.keys(entries).map(id => (id.startsWith(prefix) ? Number(id.slice(prefix.length)) : 0))
  return `${prefix}${Math.max(0, ...used.filter(n => Number.isInteger(n))) + 1}`
}
