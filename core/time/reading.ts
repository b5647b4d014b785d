/** Moments in words: read as people type them, shown as people read them. */
import { fromDecimal, over, plus, rational, times, ONE, ZERO, negate, type Rational } from './rational.ts'

export interface Scale {
  readonly frameRate: Rational
  readonly lapLength: Rational
}

const UNIT: Readonly<Record<string, (s: Scale) => Rational>> = {
  '': () => ONE,
  s: () => ONE,
  ms: () => rational(1, 1000),
  min: () => rational(60),
  h: () => rational(3600),
  d: () => rational(86400),
  f: s => over(ONE, s.frameRate),
  lap: s => s.lapLength,
  laps: s => s.lapLength,
}

export type TimeRead =
  { readonly seconds: Rational; readonly says: null } | { readonly seconds: null; readonly says: string }

const WRONG = 'Type a time in seconds, such as 12.4, or 1:30, 372f, 3lap, 365d.'

/**
 * Seconds from a typed time: `12.4`, `90s`, `1:30.5`, `2:00:00`, `372f`, `3lap`, `365d 6h`, each with a minus
 * before it or not. Gives a sentence instead when it is none.
 */
export function readTime(text: string, scale: Scale): TimeRead {
  const trimmed = text.trim().toLowerCase().replace(/−/g, '-')
  const down = trimmed.startsWith('-')
  const body = trimmed.replace(/^[+-]\s*/, '')
  let seconds: Rational | null = null
  if (/^\d+(:[0-5]?\d){1,2}(\.\d*)?$/.test(body)) {
    seconds = body.split(':').reduce<Rational>((sum, part) => plus(times(sum, rational(60)), fromDecimal(part)), ZERO)
  } else if (/^(\d*\.?\d+|\d+\.)\s*[a-z]*(\s+(\d*\.?\d+)\s*[a-z]*)*$/.test(body)) {
    seconds = ZERO
    for (const [, digits, unit] of body.matchAll(/(\d*\.?\d+|\d+\.)\s*([a-z]*)/g)) {
      const size = UNIT[unit!]
      if (!size) return { seconds: null, says: `${unit} isn’t a unit of time here. ${WRONG}` }
      seconds = plus(seconds, times(fromDecimal(digits!), size(scale)))
    }
  }
  if (!seconds) return { seconds: null, says: WRONG }
  if (seconds.n > seconds.d * FURTHEST)
    return { seconds: null, says: 'That’s beyond a thousand years. Choose an earlier time.' }
  return { seconds: down ? negate(seconds) : seconds, says: null }
}

/** The furthest time that can be gone to, in seconds: a thousand years. */
export const FURTHEST = 31557600000n

/** Seconds as `00:12.400`, `1:00:00.000`, `365d 06:00:00.000`; negative ones with a minus. */
export function showTime(seconds: number): string {
  const milli = Math.floor(Math.abs(seconds) * 1000 + 0.5)
  const two = (n: number) => String(n).padStart(2, '0')
  const [ms, s, m] = [milli % 1000, Math.floor(milli / 1000) % 60, Math.floor(milli / 60000) % 60]
  const h = Math.floor(milli / 3600000) % 24
  const d = Math.floor(milli / 86400000)
  const end = `${two(m)}:${two(s)}.${String(ms).padStart(3, '0')}`
  const text = d > 0 ? `${d}d ${two(h)}:${end}` : h > 0 ? `${h}:${end}` : end
  return seconds < 0 && milli > 0 ? `−${text}` : text
}
