/**
 * What is slanted as two turns with a stretch between them: M = U Σ Vᵀ, the singular value decomposition. V is found by
 * Jacobi's turns (Golub and Van Loan, Matrix Computations, 8.5) from how it was a moment before, so that it goes on without
 * a leap.
 */
export type Vector = readonly [number, number, number]
export type Axes = readonly [Vector, Vector, Vector]

export const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
export const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
]
export const long = (a: Vector): number => Math.sqrt(dot(a, a))
export const by = (a: Vector, k: number): Vector => [a[0] * k, a[1] * k, a[2] * k]
const mixed = (a: Vector, s: number, b: Vector, t: number): Vector => [
  a[0] * s + b[0] * t,
  a[1] * s + b[1] * t,
  a[2] * s + b[2] * t,
]

export const UPRIGHT: Axes = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
]
const PAIRS = [
  [0, 1],
  [0, 2],
  [1, 2],
] as const
const SWEEPS = 12
const GONE = 1e-9

export interface Slanted {
  /** Columns of U and of V. */
  readonly outer: Axes
  readonly inner: Axes
  readonly stretch: Vector
}

/**
 * @param m its columns
 * @param before how it was a moment before
 */
export function slantedAs(m: Axes, before: Pick<Slanted, 'outer' | 'inner'>): Slanted {
  const v: [Vector, Vector, Vector] = [...before.inner]
  // What the columns of V become: they are turned until each stands across the others.
  const w = v.map(a => mixed(mixed(m[0], a[0], m[1], a[1]), 1, m[2], a[2])) as [Vector, Vector, Vector]
  for (let n = 0; n < SWEEPS; n++) {
    let most = 0
    for (const [p, q] of PAIRS) {
      const [a, b, c] = [dot(w[p], w[p]), dot(w[q], w[q]), dot(w[p], w[q])]
      if (Math.abs(c) <= 1e-15 * (a + b)) continue
      most = Math.max(most, Math.abs(c) / (a + b))
      const tau = (b - a) / (2 * c)
      const t = (tau < 0 ? -1 : 1) / (Math.abs(tau) + Math.sqrt(1 + tau * tau))
      const cos = 1 / Math.sqrt(1 + t * t)
      const sin = t * cos
      ;[w[p], w[q]] = [mixed(w[p], cos, w[q], -sin), mixed(w[p], sin, w[q], cos)]
      ;[v[p], v[q]] = [mixed(v[p], cos, v[q], -sin), mixed(v[p], sin, v[q], cos)]
    }
    if (most < 1e-14) break
  }
  const lengths = w.map(long) as [number, number, number]
  const unit = w.map((a, k) => (lengths[k]! > GONE ? by(a, 1 / lengths[k]!) : null))
  const x = unit[0] ?? (unit[1] && unit[2] ? cross(unit[1], unit[2]) : before.outer[0])
  const y = unit[1] ?? (unit[2] ? cross(unit[2], x) : across(x, before.outer[1]))
  const z = cross(x, y)
  const [sx, sy, sz] = lengths
  return { outer: [x, y, z], inner: v, stretch: [sx, sy, unit[2] && dot(z, unit[2]) < 0 ? -sz : sz] }
}

/** The direction across `x` that is nearest to another. */
function across(x: Vector, to: Vector): Vector {
  const nearest = mixed(to, 1, x, -dot(to, x))
  const y = long(nearest) > GONE ? nearest : cross(x, Math.abs(x[2]) < 0.9 ? UPRIGHT[2] : UPRIGHT[0])
  return by(y, 1 / long(y))
}
