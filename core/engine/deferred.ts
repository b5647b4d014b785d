/**
 * Expressions of copies whose values are run in columns: each is compiled when something asks for that one copy, such as the
 * scope, its facts, or a lane on which a kernel could not decide.
 */
import type { Moment } from '../time/moment.ts'
import type { CompiledExpression } from '../form/compiled-expression.ts'

export class DeferredForm implements CompiledExpression {
  private compiled: CompiledExpression | null = null

  constructor(
    private readonly compile: (instance: number) => CompiledExpression,
    private readonly instance: number,
  ) {}

  get form(): CompiledExpression {
    return (this.compiled ??= this.compile(this.instance))
  }
  /** Whether anything has asked for it. */
  get isCompiled(): boolean {
    return this.compiled !== null
  }

  at(m: Moment): number {
    return this.form.at(m)
  }
  get exact() {
    return this.form.exact
  }
  get perLap() {
    return this.form.perLap
  }
  get dials() {
    return this.form.dials
  }
  get ofTime() {
    return this.form.ofTime
  }
  get facts() {
    return this.form.facts
  }
  get onClock() {
    return this.form.onClock
  }
  get rate() {
    return this.form.rate
  }
  get integral() {
    return this.form.integral
  }
  get exactly() {
    return this.form.exactly
  }
  get grid() {
    return this.form.grid
  }
}

/** What an expression is when something is made of it. */
export const compiledOf = (f: CompiledExpression): CompiledExpression => (f instanceof DeferredForm ? f.form : f)

/** How copies are compiled. */
export interface CopySource {
  /** How many there are. */
  readonly count: number
  /** The expression of one copy. */
  compile(instance: number): CompiledExpression
  /** The same as it is read: held to what is set where it is no number. */
  guard(form: CompiledExpression, instance: number): CompiledExpression
}

/** The copies of a slot that is run in columns: no list of them is made before something asks for one. */
export class DeferredCopies {
  private list: readonly DeferredForm[] | null = null
  private guardedList: readonly DeferredForm[] | null = null

  constructor(private readonly source: CopySource) {}

  get count(): number {
    return this.source.count
  }
  get forms(): readonly DeferredForm[] {
    return (this.list ??= this.each(i => this.source.compile(i)))
  }
  get readers(): readonly DeferredForm[] {
    return (this.guardedList ??= this.each(i => this.source.guard(this.forms[i]!.form, i)))
  }
  /** Those that something has asked for. */
  get compiled(): readonly CompiledExpression[] {
    return (this.guardedList ?? []).filter(f => f.isCompiled).map(f => f.form)
  }

  private each(make: (instance: number) => CompiledExpression): DeferredForm[] {
    return Array.from({ length: this.count }, (_, i) => new DeferredForm(make, i))
  }
}
