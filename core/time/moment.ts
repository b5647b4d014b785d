/**
 * A moment: an exact number of frames since the piece's time 0, and the same in seconds as the nearest double.
 * Live playing rounds to `TICKS` parts of a frame; typed and delayed times may be any fraction.
 */
import { ratio, rational, times, over, type Rational } from './rational.ts'

/** Parts of a frame that live playing rounds to. */
export const TICKS = 1024

export class Moment {
  /** Numerator and denominator of the frame count as doubles when both are exact, else NaN. */
  readonly top: number
  readonly bottom: number
  readonly seconds: number

  constructor(
    readonly frames: Rational,
    readonly rate: Rational,
  ) {
    const small = frames.n <= SAFE && -frames.n <= SAFE && frames.d <= SAFE
    this.top = small ? Number(frames.n) : NaN
    this.bottom = small ? Number(frames.d) : NaN
    this.seconds = ratio(frames.n * rate.d, frames.d * rate.n)
  }

  /** The moment in seconds, exact. */
  get exactSeconds(): Rational {
    return over(this.frames, this.rate)
  }
}
const SAFE = BigInt(Number.MAX_SAFE_INTEGER)

/** The moment `ticks` 1024ths of a frame after 0; `rate` in frames per second. */
export const momentOfTicks = (ticks: number, rate: Rational): Moment => new Moment(rational(ticks, TICKS), rate)
/** The moment of an exact number of seconds. */
export const momentOfSeconds = (seconds: Rational, rate: Rational): Moment => new Moment(times(seconds, rate), rate)
/** The moment of a second given as a double: to 40 bits behind the point of a frame, fewer far away. */
export function momentNear(seconds: number, rate: Rational): Moment {
  const frames = (seconds * Number(rate.n)) / Number(rate.d)
  const size = Math.abs(frames)
  // The frames times a power of two that keeps all their bits and is still a whole number.
  let scale = 1099511627776
  while (size * scale > Number.MAX_SAFE_INTEGER && scale > 1) scale /= 2
  let n = Math.round(frames * scale)
  while (scale > 1 && n % 2 === 0) [n, scale] = [n / 2, scale / 2]
  return new Moment({ n: BigInt(n), d: BigInt(scale) }, rate)
}
/** The moment at which a frame stands. */
export const momentOfFrame = (frame: number, rate: Rational): Moment => new Moment(rational(frame), rate)
