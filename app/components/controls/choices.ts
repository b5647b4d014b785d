/** What a list of choices is made of. */
export interface Choice<T = string> {
  readonly value: T
  readonly says: string
  /** Those of one group stand under its name. */
  readonly group?: string
  readonly disabled?: boolean
}

/** Choices from words by their value. */
export const choicesOf = <T extends string>(words: Readonly<Record<T, string>>): Choice<T>[] =>
  (Object.keys(words) as T[]).map(value => ({ value, says: words[value] }))

/** Choices that are their own words. */
export const plainChoices = <T extends string | number>(of: readonly T[]): Choice<T>[] =>
  of.map(value => ({ value, says: String(value) }))
