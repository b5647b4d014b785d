/** The settings that stand once in a piece: its stage, its frames, its eye. */
import { operation, type Operation } from '../piece/operation.ts'
import type { Fraction, Piece } from '../piece/schema.ts'
import { fromNumber } from '../time/rational.ts'

export function setStage(piece: Piece, change: Partial<Piece['stage']>): Operation {
  return operation('change the stage', { set: 'stage', value: { ...piece.stage, ...change } })
}

/** Frames a second. What is written per second looks the same. */
export const setFrameRate = (value: Fraction): Operation => operation('set the frame rate', { set: 'frameRate', value })

/** How far the eye stands off, px, null for flat; and whether lines grow as they come near. */
export function setEye(piece: Piece, distance: number | null, lines = piece.camera?.lines): Operation {
  const value = distance === null ? null : { distance, ...(lines && { lines }) }
  return operation('set the camera', { set: 'camera', value })
}

/** Where the chance of the piece starts from; drives keep the seeds they have. */
export const setSeed = (value: number): Operation => operation('set the seed', { set: 'seed', value })

/** Everything gathered by tuning is cleared: frame 0 is where the formulas alone put it. */
export function settleAll(piece: Piece): Operation {
  const slips = Object.keys(piece.slips).map(id => ({ in: 'slips', id, value: null }) as const)
  return operation('reset tuning offsets', ...slips)
}

/** A number of a document as a fraction, or null when it is none above 0. */
export function documentFraction(value: number): Fraction | null {
  if (!Number.isFinite(value) || value <= 0) return null
  const { n, d } = fromNumber(Number(value.toFixed(6)))
  return n > 0n && n <= 1_000_000_000n && d <= 1_000_000_000n ? { n: Number(n), d: Number(d) } : null
}

/** Frames that go out of a lap: 0 … N − 1, never frame N. */
export const framesOf = (lap: Fraction, rate: Fraction): number =>
  Math.ceil(Number(((lap.n / lap.d) * (rate.n / rate.d)).toFixed(9)))
