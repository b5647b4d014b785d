/** A curve through columns of time, as strips and the scope draw it. */

/** Screen pixels a second of a strip. */
export const PER_SECOND = 52

export interface StripCurve {
  /** The first and last column, and of which multiples: so that a faint curve does not shiver as it runs. */
  readonly from: number
  readonly to: number
  readonly every: number
  readonly x: (column: number) => number
  readonly y: (value: number) => number
  /** A change of more than this between two columns is a leap, with an upright flank; Infinity for what never leaps. */
  readonly leap: number
  /** Growth after which it is drawn from the other end; 0 for none. */
  readonly turn: number
}

/** A value within one turn, where there is one. */
export const wrapped = (v: number, turn: number): number => (turn > 0 ? v - Math.floor(v / turn) * turn : v)

export function drawCurve(c: CanvasRenderingContext2D, at: (column: number) => number, d: StripCurve): void {
  c.beginPath()
  let before = NaN
  for (let k = Math.floor(d.from / d.every) * d.every; k <= d.to; k += d.every) {
    const v = at(k)
    if (Math.abs(v - before) > d.leap) c.lineTo(d.x(k), d.y(before))
    if (Number.isNaN(before) || (d.turn > 0 && Math.abs(v - before) > d.turn / 2)) c.moveTo(d.x(k), d.y(v))
    else c.lineTo(d.x(k), d.y(v))
    before = v
  }
  c.stroke()
}

/** The nib over the paper, with a ring where the value is. */
export function drawNib(
  c: CanvasRenderingContext2D,
  { ink, sheet }: { readonly ink: string; readonly sheet: string },
  x: number,
  foot: number,
  y: number,
): void {
  c.strokeStyle = ink
  c.lineWidth = 1
  c.beginPath()
  c.moveTo(x, 0)
  c.lineTo(x, foot)
  c.stroke()
  c.fillStyle = sheet
  c.lineWidth = 2
  c.beginPath()
  c.arc(x, y, 3.5, 0, 2 * Math.PI)
  c.fill()
  c.stroke()
}

/**
 * The paper of a strip: a rule every two seconds, and one where the value is 0.
 * @param now of the moment, px of tape
 */
export function drawPaper(
  c: CanvasRenderingContext2D,
  rule: string,
  width: number,
  height: number,
  now: number,
  nib: number,
  zero: number | null,
): void {
  c.strokeStyle = rule
  c.lineWidth = 1
  c.beginPath()
  const step = PER_SECOND * 2
  for (let s = Math.ceil((now - nib) / step); s * step - now + nib < width; s++) {
    const at = Math.round(s * step - now + nib) + 0.5
    c.moveTo(at, 0)
    c.lineTo(at, height)
  }
  if (zero !== null) {
    c.moveTo(0, Math.round(zero) + 0.5)
    c.lineTo(width, Math.round(zero) + 0.5)
  }
  c.stroke()
}

/** Steps of an axis: 1, 2 or 5 of a power of ten, so that lines stand at least `apart` of `size` units. */
export function axisStep(apart: number): number {
  const ten = 10 ** Math.floor(Math.log10(apart))
  return [1, 2, 5, 10].map(k => k * ten).find(k => k >= apart)!
}
