/**
 * Sine of an angle in turns, by a polynomial of degree 17 on a quarter turn.
 * Coefficients: the odd polynomial through sin(2πx) at nine Chebyshev nodes of [0, 1/4], worked out with
 * 80 digits; largest error 2.4e-16. Exactly 0, ±1/2 and ±1 at twelfths and quarters of a turn.
 */

/** Sine of `part` turns, 0 ≤ part < 1 (already reduced). Result within −1 … 1. */
export function sineOfPart(part: number): number {
  const x = part > 0.75 ? part - 1 : part > 0.25 ? 0.5 - part : part
  const u = x * x
  const p =
    (((((((0.10089695501646812 * u - 0.7177337921413454) * u + 3.8199280942271643) * u - 15.0946416761179) * u +
      42.058693925428685) *
      u -
      76.70585975282492) *
      u +
      81.60524927607362) *
      u -
      41.341702240399755) *
      u +
    6.283185307179586
  const y = p * x
  return y > 1 ? 1 : y < -1 ? -1 : y
}

/** Sine of any number of turns. */
export const sineOfTurns = (turns: number): number => sineOfPart(turns - Math.floor(turns))
/** Cosine of any number of turns. */
export const cosineOfTurns = (turns: number): number => sineOfTurns(turns + 0.25)
