/** A dial that is lent: to somebody who tunes a piece and may not break it, under words and between values of the lender. */
import type { Dial, Piece } from './schema.ts'

export interface DialLoan {
  /** The dial's id. */
  readonly dial: string
  /** What it is called there. */
  readonly says: string
  readonly low: number
  readonly high: number
}

/** A dial as it stands, with its own limits and name. */
export const asLent = (dial: string, { name, low, high }: Dial): DialLoan => ({ dial, says: name, low, high })

/** Every dial of a piece that may be turned, in order. */
export const lendable = (piece: Piece): DialLoan[] =>
  Object.entries(piece.dials)
    .filter(([, d]) => !d.locked)
    .sort(([, a], [, b]) => a.order - b.order)
    .map(([id, d]) => asLent(id, d))

const WHOLE: readonly Dial['type'][] = ['whole', 'switch', 'choice']

/** The nearest value that a lent dial may have; null for what is no number. */
export function limitToLent(dial: Dial, { low, high }: Pick<DialLoan, 'low' | 'high'>, value: number): number | null {
  if (!Number.isFinite(value)) return null
  const whole = WHOLE.includes(dial.type)
  const [least, most] = [Math.max(low, dial.low), Math.min(high, dial.high)]
  const at = Math.min(most, Math.max(least, whole ? Math.round(value) : value))
  return whole ? Math.min(Math.floor(most), Math.max(Math.ceil(least), at)) : at
}

/** Of a slide: how far a step goes. */
export const lentStep = ({ type }: Dial, { low, high }: Pick<DialLoan, 'low' | 'high'>): number =>
  WHOLE.includes(type) ? 1 : type === 'moment' || high - low <= 10 ? 0.01 : 1
