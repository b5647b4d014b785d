/** What the fields of a document are made of. */
import * as v from 'valibot'

/** Numbers of a document lie between −MOST and MOST, unless a field says otherwise. */
export const MOST = 1e9
const FAR = 'This must be between −1,000,000,000 and 1,000,000,000.'
export const finiteNumber = v.pipe(v.number(), v.minValue(-MOST, FAR), v.maxValue(MOST, FAR))
export const positive = v.pipe(finiteNumber, v.gtValue(0, 'This must be more than 0.'))
export const whole = v.pipe(finiteNumber, v.integer('This must be a whole number.'))
/** Where chance starts from. */
export const seed = v.pipe(v.number(), v.integer('This must be a whole number.'), v.minValue(0), v.maxValue(4294967295))
export const text = (most: number) =>
  v.pipe(
    v.string(),
    v.maxLength(most, `At most ${most.toLocaleString('en')} characters are allowed here.`),
    v.check(s => !/\p{Surrogate}|\0/u.test(s), 'This text contains an invalid character (half a pair, or 0).'),
  )
/** Words that every object has: none of them names an entry. */
export const ownWord = (key: string): boolean => key in {}

export const id = v.pipe(
  v.string(),
  v.regex(/^[A-Za-z0-9_]{1,32}$/, 'An id must be 1 to 32 letters, digits or _.'),
  v.check(s => !ownWord(s), 'This id is reserved (such as constructor); choose another.'),
)
export const name = v.pipe(
  text(60),
  v.check(s => s.trim().length > 0 && !s.includes('`'), 'A name needs a letter, and can’t contain a backquote.'),
)
/** Characters of a formula at most. */
export const LONGEST_FORMULA = 20000
export const formula = text(LONGEST_FORMULA)
/** Entries by their id: counted before any of them is looked at. */
export const limited = <T extends v.GenericSchema>(value: T, most: number, what: string) =>
  v.pipe(
    v.custom<Record<string, unknown>>(
      r => typeof r === 'object' && r !== null && !Array.isArray(r),
      `This must be ${what} by their ids.`,
    ),
    v.check(
      r => Object.keys(r).length <= most,
      `At most ${most.toLocaleString('en')} ${what} is the limit for a piece.`,
    ),
    v.check(r => !Object.keys(r).some(ownWord), 'This id is reserved (such as constructor); choose another.'),
    v.record(text(200), value),
  )

/** Named fields, and no others: what is not known here would be lost unseen. */
export const fields = <T extends v.ObjectEntries>(entries: T) =>
  v.strictObject(entries, issue =>
    issue.expected === 'never'
      ? 'Unknown field.'
      : issue.received === 'undefined'
        ? 'This is missing.'
        : 'This must be an object with its fields.',
  )

/** A fraction of whole numbers, for what must be exact: frames per second, seconds of a lap. */
export const Fraction = fields({
  n: v.pipe(whole, v.minValue(1), v.maxValue(1e9)),
  d: v.pipe(whole, v.minValue(1), v.maxValue(1e9)),
})

/** Colour as lightness 0–1, chroma 0–0.4 and hue in degrees (OKLCH, CSS Color 4). */
export const Colour = fields({ lightness: finiteNumber, chroma: finiteNumber, hue: finiteNumber })
