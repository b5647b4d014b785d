/** What the fields of a document are made of. */
import * as v from 'valibot'

export const number = v.pipe(v.number(), v.finite('A number must be finite.'))
export const positive = v.pipe(number, v.gtValue(0, 'This must be more than 0.'))
export const whole = v.pipe(number, v.integer('This must be a whole number.'))
export const text = (most: number) => v.pipe(v.string(), v.maxLength(most, `At most ${most} characters fit here.`))
export const id = v.pipe(v.string(), v.regex(/^[A-Za-z0-9_]{1,32}$/, 'An id is 1 to 32 letters, digits or _.'))
export const name = v.pipe(
  text(60),
  v.check(s => s.trim().length > 0 && !s.includes('`'), 'A name needs a letter and no backquote.'),
)
export const formula = text(2000)
export const limited = <T extends v.GenericSchema>(value: T, most: number, what: string) =>
  v.pipe(
    v.record(text(200), value),
    v.check(r => Object.keys(r).length <= most, `At most ${most} ${what} fit in a piece.`),
  )

/** A fraction of whole numbers, for what must be exact: frames per second, seconds of a lap. */
export const Fraction = v.object({
  n: v.pipe(whole, v.minValue(1), v.maxValue(1e9)),
  d: v.pipe(whole, v.minValue(1), v.maxValue(1e9)),
})

/** Colour as lightness 0–1, chroma 0–0.4 and hue in degrees (OKLCH, CSS Color 4). */
export const Colour = v.object({ lightness: number, chroma: number, hue: number })
