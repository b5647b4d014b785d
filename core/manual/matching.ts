/**
 * How well words fit a text, for searches: whole words before beginnings, beginnings before what lies within, and words
 * with a slip of the finger last (one letter wrong, missing, doubled or swapped; two in long words).
 */

/** Letters from which on a word may have one slip in it, and two. */
const [ONE_SLIP, TWO_SLIPS] = [4, 9]

const wordsOf = (text: string): string[] =>
  text
    .normalize('NFKC')
    .replaceAll(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .split(/[^\p{L}\p{N}%/]+/u)
    .filter(Boolean)

/**
 * Letters that one word is away from another, swaps of neighbours counted once (optimal string alignment; Damerau 1964,
 * Levenshtein 1966); more than `most` are not counted on.
 */
export function slips(a: string, b: string, most: number): number {
  if (Math.abs(a.length - b.length) > most) return most + 1
  let [twoAgo, before]: number[][] = [[], Array.from({ length: b.length + 1 }, (_, j) => j)]
  for (let i = 1; i <= a.length; i++) {
    const row = [i]
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1]
      let least = Math.min(before![j]! + 1, row[j - 1]! + 1, before![j - 1]! + (same ? 0 : 1))
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) least = Math.min(least, twoAgo![j - 2]! + 1)
      row.push(least)
    }
    if (Math.min(...row) > most) return most + 1
    ;[twoAgo, before] = [before, row]
  }
  return before![b.length]!
}

/** @param slipping whether it may have slips in it */
function fitOf(word: string, texts: readonly string[], slipping: boolean): number {
  let best = 0
  const allowed = !slipping ? 0 : word.length >= TWO_SLIPS ? 2 : word.length >= ONE_SLIP ? 1 : 0
  for (const t of texts) {
    // One and several are the same thing.
    if (t === word || t === `${word}s`) return 10
    if (t.startsWith(word)) best = Math.max(best, 6)
    else if (word.length > 2 && t.includes(word)) best = Math.max(best, 3)
    else if (best < 2 && allowed > 0 && slips(word, t, allowed) <= allowed) best = 2
  }
  return best
}

/** What is searched: its name, the words the trade has for it, and what is said of it. */
export interface Searched {
  readonly name: string
  readonly also?: string
  readonly says?: string
}

/** Words that tell nothing beside others. */
const SMALL = new Set(['a', 'an', 'and', 'the', 'to', 'of', 'in', 'on', 'for', 'with', 'my'])

/** How well a question fits, all its words together; 0 where one of them is nowhere. */
export function fit(question: string, it: Searched): number {
  const all = wordsOf(question)
  const telling = all.filter(w => !SMALL.has(w))
  const asked = telling.length > 0 ? telling : all
  const [name, also, says] = [wordsOf(it.name), wordsOf(it.also ?? ''), wordsOf(it.says ?? '')]
  let sum = 0
  for (const word of asked) {
    const best = Math.max(3 * fitOf(word, name, true), 2 * fitOf(word, also, true), fitOf(word, says, false))
    if (best === 0) return 0
    sum += best
  }
  // Of what fits alike the shortest name is meant, and all of a name before a part of it.
  const whole = all.join(' ') === name.join(' ') ? 12 : 0
  // Several words that the trade says together are one.
  const phrase = all.length > 1 && ` ${also.join(' ')} `.includes(` ${all.join(' ')} `) ? 6 : 0
  return asked.length === 0 ? 0 : sum / asked.length + whole + phrase - name.length / 10
}

/** Those that fit, the best first. */
export function matching<T extends Searched>(question: string, all: readonly T[], most: number): T[] {
  return all
    .map(it => ({ it, fit: fit(question, it) }))
    .filter(f => f.fit > 0)
    .sort((a, b) => b.fit - a.fit)
    .slice(0, most)
    .map(f => f.it)
}
