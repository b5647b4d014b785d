/**
 * Bounds and leaps of what is drawn, worked out between frames: a frame asks for them, and has them once they are there.
 * Looking for the bounds of some formulas takes hundreds of readings, which no frame has time for.
 */
import { SMOOTH } from '~~/core/facts/bends.ts'
import { union, type Interval } from '~~/core/facts/interval.ts'
import type { CompiledExpression } from '~~/core/form/compiled-expression.ts'
import type { Work, WorkQueue } from '~~/core/form/work-queue.ts'

export interface DrawnFacts {
  /** Of all the expressions together. */
  readonly bounds: Interval
  /** Whether the first of them leaps at all. */
  readonly leaps: boolean
}

export class AskedFacts {
  private forms: readonly CompiledExpression[] = []
  private found: DrawnFacts | null = null
  private readonly work: Work = {
    quiet: true,
    go: () => {
      const { forms } = this
      this.found = {
        bounds: forms.map(f => f.facts().bounds).reduce(union),
        leaps: forms[0]!.facts().leaps !== SMOOTH,
      }
      return true
    },
  }

  /** What the facts are of; at least one expression. */
  of(forms: readonly CompiledExpression[]): void {
    this.forms = forms
    this.found = null
  }

  /**
   * The facts; null while they are on their way.
   * @param queue of the program the expressions belong to
   */
  known(queue: WorkQueue): DrawnFacts | null {
    if (!this.found && this.forms.length > 0) queue.enqueue(this.work)
    return this.found
  }
}
