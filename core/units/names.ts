/** Names: compared after NFKC and lower case, and the nearest known ones for a name that is not. */

/** The form in which two names are the same name. */
export function canonical(name: string): string {
  let known = forms.get(name)
  if (known === undefined) {
    known = name.normalize('NFKC').toLowerCase()
    if (forms.size >= MOST_FORMS) forms.clear()
    forms.set(name, known)
  }
  return known
}
/** The same few names are compared over and over. */
const forms = new Map<string, string>()
const MOST_FORMS = 4096

/** Letters to insert, drop, change or swap to get from a to b (Damerau, restricted), given up beyond `most`. */
function distance(a: string, b: string, most: number): number {
  if (Math.abs(a.length - b.length) > most) return most + 1
  let before: number[] = []
  let row = Array.from({ length: b.length + 1 }, (_, j) => j)
  for (let i = 1; i <= a.length; i++) {
    const next = [i]
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1
      let best = Math.min(next[j - 1]! + 1, row[j]! + 1, row[j - 1]! + same)
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) best = Math.min(best, before[j - 2]! + 1)
      next.push(best)
    }
    before = row
    row = next
  }
  return row[b.length]!
}

/** The known names nearest to one that is not known, nearest first, at most three. */
export function nearest(name: string, known: Iterable<string>): string[] {
  const wanted = canonical(name)
  const most = Math.max(1, Math.min(3, Math.ceil(wanted.length / 3)))
  const found: { name: string; far: number }[] = []
  for (const candidate of new Set(known)) {
    const c = canonical(candidate)
    const begins = wanted.length >= 3 && (c.startsWith(wanted) || wanted.startsWith(c)) && c.length >= 3
    const far = distance(wanted, c, most)
    if (far <= most || begins) found.push({ name: candidate, far: begins ? Math.min(far, most) : far })
  }
  const letters = (n: string) => [...canonical(n)].sort().join('')
  // Two letters swapped are the likeliest slip, then a letter changed, then one too many or too few.
  const off = (n: string) => (letters(n) === letters(name) ? -1 : Math.abs(n.length - wanted.length))
  found.sort((a, b) => a.far - b.far || off(a.name) - off(b.name) || (a.name < b.name ? -1 : 1))
  return found.slice(0, 3).map(f => f.name)
}

/** Nearest names as a half sentence: "Did you mean carousel?" or "". */
export const meant = (names: readonly string[]): string =>
  names.length === 0
    ? ''
    : ` Did you mean ${names.slice(0, -1).join(', ')}${names.length > 1 ? ' or ' : ''}${names.at(-1)}?`
