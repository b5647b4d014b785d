/**
 * The transcendental functions of `core/`. They are plain arithmetic (`plain-maths.ts`), since those of browsers differ in
 * their last bits; everything else uses + − × ÷ √ floor, comparison and selection only.
 */
import { atan2, exp, log, pow } from './plain-maths.ts'

/** base to the exponent, both plain. */
export const power = pow
/** 2 to the x. */
export const twoTo = (x: number): number => pow(2, x)
/** The direction of a point in turns, −½ … ½. */
export const atanTurns = (y: number, x: number): number => atan2(y, x) / (2 * Math.PI)
/** e to the x. */
export const expOf = exp
/** The natural logarithm. */
export const logOf = log
