/** Values at fixed columns of time, so that a frame works out only the columns that have come in. */
import type { ProgramHome } from '~~/core/engine/program.ts'
import type { CompiledExpression } from '~~/core/form/compiled-expression.ts'
import { momentOfSeconds, type Moment } from '~~/core/time/moment.ts'
import { rational, type Rational } from '~~/core/time/rational.ts'

/** The moments of evenly spaced columns: the same column is the same moment for every reader. */
export class Columns {
  private readonly moments = new Map<number, Moment>()
  private rate: Rational | null = null

  /** @param perSecond a whole number */
  constructor(readonly perSecond: number) {}

  moment(column: number, rate: Rational): Moment {
    if (this.rate !== rate || this.moments.size > 6000) {
      this.moments.clear()
      this.rate = rate
    }
    let found = this.moments.get(column)
    if (!found) this.moments.set(column, (found = momentOfSeconds(rational(column, this.perSecond), rate)))
    return found
  }
}

/** Samples of one instance by column, in a ring that forgets the oldest. */
export class Samples {
  private values = new Float64Array(0)
  private columns = new Float64Array(0)

  resize(count: number): void {
    if (this.values.length >= count) return
    this.values = new Float64Array(count)
    this.columns = new Float64Array(count).fill(NaN)
  }

  forget(): void {
    this.columns.fill(NaN)
  }

  /** @param program the program the reader belongs to */
  at(column: number, of: Columns, reader: Pick<CompiledExpression, 'at'>, program: ProgramHome): number {
    const place = ((column % this.values.length) + this.values.length) % this.values.length
    if (this.columns[place] !== column) {
      const { measures, queue } = program
      const before = queue.requestCount
      this.values[place] = reader.at(of.moment(column, measures.frameRate))
      // What is still being worked out is asked for again.
      this.columns[place] = queue.requestCount === before ? column : NaN
    }
    return this.values[place]!
  }
}
