/**
 * Fixes that mend a whole formula. What a problem offers by itself, habits of writing from elsewhere (`respelling.ts`)
 * and shapes that were meant otherwise (`reshaping.ts`) are tried one after another, and on one another where one is
 * not enough; only what leaves no error is offered, so that pressing a fix always gives a formula that runs.
 */
import { change, type Change, type Fix, type Problem } from './problem.ts'
import { closeUnits, renamedHere, respelt } from './respelling.ts'
import { reshaped } from './reshaping.ts'
import type { Names, Target } from './scope.ts'

/** How a text fares: its problems. */
export type Trying = (text: string) => readonly Problem[]

/** Texts that are tried for one formula, steps on one another, and fixes offered. */
const TRIED = 140
const STEPS = 4
const OFFERED = 3
/** Longer texts are only offered what their problems offer by themselves. */
const LONGEST = 400

const errors = (found: readonly Problem[]) => found.filter(p => p.level === 'error')

/** The problems of a text with fixes that leave no error; the first error carries those of the whole. */
export function mended(
  text: string,
  found: readonly Problem[],
  trying: Trying,
  names: Names,
  target: Target,
): Problem[] {
  const first = errors(found)[0]
  if (!first) return [...found]
  const whole = text.length <= LONGEST ? search(text, found, trying, names, target) : []
  return found.map(p => {
    const own = p.fixes.filter(f => errors(trying(change(text, f.changes))).length === 0)
    if (p !== first) return { ...p, fixes: own }
    const seen = new Set<string>()
    const fixes = whole.filter(f => {
      const t = change(text, f.changes)
      return !seen.has(t) && seen.add(t)
    })
    return { ...p, fixes: (fixes.length > 0 ? fixes : own).slice(0, OFFERED) }
  })
}

interface State {
  readonly text: string
  readonly found: readonly Problem[]
}

function search(text: string, found: readonly Problem[], trying: Trying, names: Names, target: Target): Fix[] {
  const seen = new Set([text])
  const done: Fix[] = []
  let open: State[] = [{ text, found }]
  let tried = 0
  for (let step = 0; step < STEPS && done.length === 0 && open.length > 0; step++) {
    const next: State[] = []
    for (const state of open) {
      const { usual, last } = candidates(state, names, target)
      for (const [i, t] of [...usual, ...last].entries()) {
        if (i >= usual.length && done.length > 0) break
        if (seen.has(t) || tried >= TRIED) continue
        seen.add(t)
        tried++
        const problems = trying(t)
        if (errors(problems).length === 0) {
          done.push(asFix(text, t))
          if (done.length >= OFFERED) return done
        } else if (furthers(state, { text: t, found: problems })) next.push({ text: t, found: problems })
      }
    }
    open = next.slice(0, 12)
  }
  return done
}

/** Whether a change brought it on: its first error lies further on, is another, or there are fewer. */
function furthers(before: State, after: State): boolean {
  const [a, b] = [errors(before.found), errors(after.found)]
  const rest = (s: State, p: Problem) => s.text.length - p.from
  return (
    b.length < a.length ||
    b[0]!.code !== a[0]!.code ||
    b[0]!.message !== a[0]!.message ||
    rest(after, b[0]!) < rest(before, a[0]!)
  )
}

/** What is tried on a text, and what only when nothing of that helps. */
function candidates(
  { text, found }: State,
  names: Names,
  target: Target,
): { usual: readonly string[]; last: readonly string[] } {
  const first = errors(found)[0]!
  const offered = first.fixes.map(f => change(text, f.changes))
  const at = first.from
  const between = ['then ', ', '].map(
    word => `${text.slice(0, at).trimEnd()}${word === ', ' ? '' : ' '}${word}${text.slice(at).trimStart()}`,
  )
  const spelling = respelt(text)
  const shape = reshaped(text, names, target)
  // What is not read yet is a matter of spelling; what is read and does not fit, of shape.
  if (first.code === 'syntax') return { usual: [...spelling, ...between, ...offered, ...shape.likely], last: [] }
  return {
    usual: [...closeUnits(text), ...renamedHere(text), ...shape.likely, ...offered, ...spelling],
    last: shape.last,
  }
}

/** From one text to another, as one change that touches only what differs. */
function asFix(from: string, to: string): Fix {
  let a = 0
  while (a < from.length && a < to.length && from[a] === to[a]) a++
  let b = 0
  while (b < from.length - a && b < to.length - a && from.at(-1 - b) === to.at(-1 - b)) b++
  const changes: Change[] = [{ from: a, to: from.length - b, insert: to.slice(a, to.length - b) }]
  const start = a <= 12 ? 0 : a - 12
  const says = to.length <= 60 ? to : `${start > 0 ? '… ' : ''}${to.slice(start, start + 56)} …`
  return { label: says, changes }
}
