/** A point, with its height. */
export type OutlineSpot = readonly [x: number, y: number, z: number]

/** Points that a trace or an emitter lays on the stage, px. */
export interface Laying {
  /** x, y in turn. */
  readonly points: Float64Array
  /** Towards the eye, one a point. */
  readonly heights: Float64Array
  /** Of particles: how much of its life each has behind it, 0 to 1; of a trace: how far back on the trail each is. */
  readonly ages: Float64Array
}

export const layingOf = (
  flat: readonly number[],
  heights: readonly number[],
  ages: readonly number[] = [],
): Laying => ({
  points: new Float64Array(flat),
  heights: new Float64Array(heights),
  ages: new Float64Array(ages),
})

export const NO_POINTS: Laying = layingOf([], [])
