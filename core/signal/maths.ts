/**
 * The one place in `core/` that calls the engine's own transcendental functions. Everything else uses
 * + − × ÷ √ floor, comparison and selection only, so that it gives the same bits on every machine.
 */

/** base to the exponent, both plain. */
export const power = (base: number, exponent: number): number => Math.pow(base, exponent)
/** 2 to the x. */
export const twoTo = (x: number): number => Math.pow(2, x)
/** The direction of a point in turns, −½ … ½. */
export const atanTurns = (y: number, x: number): number => Math.atan2(y, x) / (2 * Math.PI)
/** e to the x. */
export const expOf = (x: number): number => Math.exp(x)
/** The natural logarithm. */
export const logOf = (x: number): number => Math.log(x)
