/**
 * What takes long to add up is worked out bit by bit: a reading far away enqueues it and has no value yet, and whoever
 * reads gives it time. Each program owns one queue and hands it on to the program that takes over from it, so that what
 * one player, sender or worker reads never meets another's. Nothing that is worked out depends on who asked, or in
 * which order.
 */
export interface Work {
  /** Adds up some more; true when all that was asked for is there. */
  readonly go: () => boolean
  /** Nothing that is shown waits for it. */
  readonly quiet?: true
}

/** What a reading gives while something that it needs is still being worked out: neither undefined nor out of reach. */
export const PENDING = Symbol('pending')

/** Nothing but another go: what was left out is drawn next time. */
export const RETRY: Work = { go: () => true }

/** Readings that one request may take for what is worked out anew: some hundredths of a second. */
const ALLOWED = 8000
/** How far beyond its budget a request may go to end what it began, which keeps a picture whole. */
const OVER = 30_000
/** Readings that may be taken for what is nearly there, once: some tenths of a second. */
const ONCE = 5 * ALLOWED

export class WorkQueue {
  private budget = Infinity
  private wanted = new Set<Work>()
  private requests = 0

  /** A request that must not take long: what it begins is cut short, and enqueued. Requests within it share its budget. */
  withinBudget<T>(read: () => T): T {
    if (this.budget !== Infinity) return read()
    this.budget = ALLOWED
    try {
      return read()
    } finally {
      this.budget = Infinity
    }
  }

  /** Takes readings off the budget. */
  consume(readings = 1): void {
    this.budget -= readings
  }

  /** Whether nothing more is begun in this request. */
  get isExhausted(): boolean {
    return this.budget <= 0
  }

  /** Whether even the end of what was begun has to wait: some tenths of a second have gone by. */
  get isFarOverBudget(): boolean {
    return this.budget <= -OVER
  }

  /** Asks for something to be worked out. */
  enqueue(work: Work): void {
    this.requests++
    this.wanted.add(work)
  }

  /** How often something has been asked for so far: a reading during which it grows waits for something. */
  get requestCount(): number {
    return this.requests
  }

  /** What a reading gives, or that it rests on something that is still being worked out. */
  attempt<T>(read: () => T): T | typeof PENDING {
    const before = this.requests
    const value = read()
    return this.requests === before ? value : PENDING
  }

  /** Whether something that was asked for is not there yet. */
  get isPending(): boolean {
    return this.wanted.size > 0
  }

  /** Whether something that is shown is not there yet. */
  get isShownPending(): boolean {
    return [...this.wanted].some(w => !w.quiet)
  }

  /** Works on what is wanted in turn, `steps` times some hundred cells of one of it; true when nothing is left to do. */
  advance(steps: number): boolean {
    for (let k = 0; k < steps; k++) {
      const [work] = this.wanted
      if (!work) return true
      this.wanted.delete(work)
      if (!work.go()) this.wanted.add(work)
    }
    return this.wanted.size === 0
  }

  /** Works on what is wanted step by step, one at least, while there is time; true when nothing is left to do. */
  advanceWhile(thereIsTime: () => boolean): boolean {
    do if (this.advance(1)) return true
    while (thereIsTime())
    return false
  }

  /** What was asked for is of no interest any more: another piece, another moment. */
  clear(): void {
    this.wanted = new Set()
  }

  /** Reads without enqueueing anything; null where the value isn't (nearly) there. */
  peek<T>(read: () => T): T | null {
    return this.apart(ONCE, () => {
      const value = read()
      return this.isPending || this.isExhausted ? null : value
    })
  }

  /**
   * A reading with all that it needs worked out to its end, however long that takes: within a request that must not
   * take long the budget is lifted for it, since work that may take nothing never ends.
   */
  settle<T>(read: () => T): T {
    return this.apart(Infinity, () => {
      for (;;) {
        const value = read()
        if (!this.isPending) return value
        this.advance(Infinity)
      }
    })
  }

  /** With a budget and a list of its own, which nothing that is under way meets. */
  private apart<T>(budget: number, work: () => T): T {
    const [wanted, left] = [this.wanted, this.budget]
    this.wanted = new Set()
    this.budget = budget
    try {
      return work()
    } finally {
      this.wanted = wanted
      this.budget = left
    }
  }
}
