/**
 * A moment: an exact number of frames since the piece's time 0, and the same in seconds as the nearest double.
 * Live playing rounds to `TICKS` parts of a frame; typed and delayed times may be any fraction.
 */
import { plus, ratio, rational, times, over, type Rational } from './rational.ts'

/** Parts of a frame that live playing rounds to. */
export const TICKS = 1024

export class Moment {
  /** Numerator and denominator of the frame count as doubles when both are exact, else NaN. */
  readonly top: number
  readonly bottom: number
  readonly seconds: number
  private whole: Rational | null

  /** @param frames in lowest terms, as a fraction or as two doubles that hold it */
  constructor(
    frames: Rational | { readonly top: number; readonly bottom: number },
    readonly rate: Rational,
  ) {
    if ('top' in frames) {
      this.top = frames.top
      this.bottom = frames.bottom
      this.whole = null
      const [up, down] = [frames.top * Number(rate.d), frames.bottom * Number(rate.n)]
      this.seconds = isSafe(up) && isSafe(down) ? up / down : secondsOf(this.frames, rate)
    } else {
      const small = frames.n <= SAFE && -frames.n <= SAFE && frames.d <= SAFE
      this.top = small ? Number(frames.n) : NaN
      this.bottom = small ? Number(frames.d) : NaN
      this.whole = frames
      this.seconds = secondsOf(frames, rate)
    }
  }

  /** The frame count, exact. */
  get frames(): Rational {
    return (this.whole ??= { n: BigInt(this.top), d: BigInt(this.bottom) })
  }

  /** The moment in seconds, exact. */
  get exactSeconds(): Rational {
    return over(this.frames, this.rate)
  }

  /** The moment a whole number of frames later. */
  framesAhead(count: number): Moment {
    const top = this.top + count * this.bottom
    return Number.isSafeInteger(top) && Number.isSafeInteger(count * this.bottom)
      ? new Moment({ top, bottom: this.bottom }, this.rate)
      : new Moment(plus(this.frames, rational(count)), this.rate)
  }

  /** The moment so many seconds later; this one where that is none. */
  ahead(seconds: Rational): Moment {
    return seconds.n === 0n ? this : new Moment(plus(this.frames, times(seconds, this.rate)), this.rate)
  }
}
const secondsOf = (frames: Rational, rate: Rational): number => ratio(frames.n * rate.d, frames.d * rate.n)
const isSafe = (x: number): boolean => x <= Number.MAX_SAFE_INTEGER && x >= -Number.MAX_SAFE_INTEGER
const SAFE = BigInt(Number.MAX_SAFE_INTEGER)

/** The moment `ticks` 1024ths of a frame after 0; `rate` in frames per second. */
export function momentOfTicks(ticks: number, rate: Rational): Moment {
  if (!Number.isSafeInteger(ticks)) return new Moment(rational(ticks, TICKS), rate)
  let [top, bottom] = [ticks + 0, TICKS]
  while (bottom > 1 && top % 2 === 0) [top, bottom] = [top / 2, bottom / 2]
  return new Moment({ top, bottom }, rate)
}
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
  return new Moment(isSafe(n) ? { top: n + 0, bottom: scale } : { n: BigInt(n), d: BigInt(scale) }, rate)
}
/** The moment at which a frame stands. */
export const momentOfFrame = (frame: number, rate: Rational): Moment => momentOfTicks(frame * TICKS, rate)
