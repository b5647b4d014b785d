/** One property of all instances of a body, as it is read a frame: driven, or set by hand. */

/** The driven values of a moment, as a program leaves them. */
export interface ValueSnapshot {
  values: Float64Array
}

/** One class for all, so that a loop over instances reads it without asking what it is. */
export class PropertyColumn {
  /**
   * @param from where driven values are
   * @param offset where its own begin there; −1 when it is set by hand
   * @param all what all instances have by hand, in base measure
   * @param own what each has by hand; null where all have the same
   * @param low
   * @param high what it is held between
   */
  constructor(
    private readonly from: ValueSnapshot,
    private readonly offset: number,
    private all: number,
    private own: Float64Array | null = null,
    private readonly low = -Infinity,
    private readonly high = Infinity,
  ) {}

  /** Other set values: for all instances, and those that some have of their own. */
  set(all: number, own: Float64Array | null): void {
    this.all = all
    this.own = own
  }

  /** In base measure, held to what it may be. */
  at(instance: number): number {
    const { own, low, high } = this
    const v = this.offset < 0 ? (own === null ? this.all : own[instance]!) : this.from.values[this.offset + instance]!
    return v < low ? low : v > high ? high : v
  }
}
