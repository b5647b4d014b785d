/** Days as the calendar has them, written `2027-03-12` and held at noon UTC, so that no clock change moves them. */

const two = (n: number): string => String(n).padStart(2, '0')

/** The day that it is where the reader is. */
export const isoOf = (d: Date): string => `${d.getFullYear()}-${two(d.getMonth() + 1)}-${two(d.getDate())}`
export const dayOf = (iso: string): Date => new Date(`${iso}T12:00:00Z`)
const iso = (d: Date): string => d.toISOString().slice(0, 10)

/** Some days or months away; a month's last day stays the last where the other month is shorter. */
export function shiftDay(from: string, by: { readonly days?: number; readonly months?: number }): string {
  const d = dayOf(from)
  const day = d.getUTCDate()
  if (by.months) {
    d.setUTCDate(1)
    d.setUTCMonth(d.getUTCMonth() + by.months)
    const last = new Date(Date.UTC(d.getUTCFullYear(), d.getUTCMonth() + 1, 0)).getUTCDate()
    d.setUTCDate(Math.min(day, last))
  }
  d.setUTCDate(d.getUTCDate() + (by.days ?? 0))
  return iso(d)
}

export interface CalendarDay {
  readonly iso: string
  readonly day: number
  /** Whether it is of the month that is shown. */
  readonly within: boolean
}

/** Six weeks from Monday on that hold the month of a day. */
export function daysOf(at: string): CalendarDay[] {
  const first = dayOf(`${at.slice(0, 8)}01`)
  const back = (first.getUTCDay() + 6) % 7
  return Array.from({ length: 42 }, (_, k) => {
    const d = shiftDay(iso(first), { days: k - back })
    return { iso: d, day: Number(d.slice(8)), within: d.slice(0, 7) === at.slice(0, 7) }
  })
}

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']

/** What was typed: `2027-03-12`, `12 Mar 2027`, `12.3.2027`; `''` for nothing, null for no day. */
export function readDay(text: string): string | null {
  const typed = text.trim().toLowerCase()
  if (typed === '') return ''
  const [, y, m, d] = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(typed) ?? []
  const [, d2, m2, y2] = /^(\d{1,2})\.?\s*[. /]\s*([a-z]{3,9}|\d{1,2})\.?,?\s*[. /]?\s*(\d{4})$/.exec(typed) ?? []
  const [year, month, day] = y ? [y, m!, d!] : [y2, m2, d2]
  if (!year || !month || !day) return null
  const nth = /^\d+$/.test(month) ? Number(month) : MONTHS.findIndex(name => month.startsWith(name)) + 1
  const made = `${year}-${two(nth)}-${two(Number(day))}`
  const date = dayOf(made)
  return Number.isNaN(date.getTime()) || iso(date) !== made ? null : made
}
