/** Whether two pieces of a document hold the same, in whatever order their fields stand. */
export function alike(a: unknown, b: unknown): boolean {
  if (a === b) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  if (Array.isArray(a) !== Array.isArray(b)) return false
  const keys = Object.keys(a)
  return (
    keys.length === Object.keys(b).length &&
    keys.every(k => Object.hasOwn(b, k) && alike((a as Record<string, unknown>)[k], (b as Record<string, unknown>)[k]))
  )
}
