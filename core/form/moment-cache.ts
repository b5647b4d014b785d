/**
 * Values kept by moment. Delayed readings come again: two links of a chain that read the one before a while ago meet
 * at the same moments, and a while later in playing they are asked for once more. Keeping them makes two readings a
 * link cost twice one, not twice for every link. A place for each moment, the later one stays (direct mapping).
 */
import type { Moment } from '../time/moment.ts'

const FIRST = 64
const MOST = 4096

export class MomentCache {
  private size = FIRST
  private tops = new Float64Array(FIRST).fill(NaN)
  private bottoms = new Float64Array(FIRST)
  private values = new Float64Array(FIRST)
  /** Values that had to go for others since it last grew. */
  private gone = 0

  /** The value at a moment, or NaN where it is not kept. */
  at(m: Moment): number {
    const k = this.place(m)
    return this.tops[k] === m.top && this.bottoms[k] === m.bottom ? this.values[k]! : NaN
  }

  keep(m: Moment, value: number): void {
    if (Number.isNaN(m.top)) return
    if (this.gone > this.size && this.size < MOST) this.grow()
    const k = this.place(m)
    if (!Number.isNaN(this.tops[k]!)) this.gone++
    this.tops[k] = m.top
    this.bottoms[k] = m.bottom
    this.values[k] = value
  }

  private place(m: Pick<Moment, 'top' | 'bottom'>): number {
    const mixed = Math.imul(m.top | 0, 0x9e3779b1) ^ Math.imul(m.bottom | 0, 0x85ebca6b)
    return (mixed ^ (mixed >>> 15)) & (this.size - 1)
  }

  private grow(): void {
    const { tops, bottoms, values } = this
    this.size *= 4
    this.gone = 0
    this.tops = new Float64Array(this.size).fill(NaN)
    this.bottoms = new Float64Array(this.size)
    this.values = new Float64Array(this.size)
    tops.forEach((top, i) => {
      if (Number.isNaN(top)) return
      const k = this.place({ top, bottom: bottoms[i]! })
      this.tops[k] = top
      this.bottoms[k] = bottoms[i]!
      this.values[k] = values[i]!
    })
  }
}
