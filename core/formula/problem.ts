/** What is wrong with a formula, as data: screen, prompt and manual all print the same thing. */
export interface Span {
  readonly from: number
  readonly to: number
}

/** One replacement in a text: the letters from … to become `insert`. */
export interface Change extends Span {
  readonly insert: string
}

export type ProblemCode =
  | 'syntax'
  | 'limit'
  | 'heavy'
  | 'unit'
  | 'unknown-name'
  | 'kind'
  | 'argument-missing'
  | 'argument-twice'
  | 'argument-unknown'
  | 'domain'
  | 'cycle'
  | 'index'
  | 'varying'
  | 'clock'

export interface Fix {
  /** What the fix does, in a few words: `time * 40deg/s`. */
  readonly label: string
  readonly changes: readonly Change[]
}

export interface Problem extends Span {
  readonly code: ProblemCode
  /** `error`: the formula does not run. `warning`: it runs, but hardly as meant. */
  readonly level: 'error' | 'warning'
  /** One plain sentence. */
  readonly message: string
  readonly fixes: readonly Fix[]
}

export function problem(code: ProblemCode, at: Span, says: string, ...fixes: Fix[]): Problem {
  return { code, level: 'error', from: at.from, to: at.to, message: says, fixes }
}

/** The text with changes made; they must not overlap and may come in any order. */
export function change(text: string, changes: readonly Change[]): string {
  const ordered = [...changes].sort((a, b) => b.from - a.from || b.to - a.to)
  return ordered.reduce((t, c) => t.slice(0, c.from) + c.insert + t.slice(c.to), text)
}

/** A fix that puts `insert` in place of a span. */
export const replacing = (at: Span, insert: string, says = insert): Fix => ({
  label: says,
  changes: [{ from: at.from, to: at.to, insert }],
})
