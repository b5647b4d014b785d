/**
 * Asks a worker what is known of the drives of a piece for all time. The worker is told every change; an answer is of
 * the piece as it was when it was asked for, or newer. What takes the worker too long is given up.
 */
import type { Operation } from '~~/core/piece/operation.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import type { About, Answered, Answers, InsightRequest } from './asking.ts'

/** Milliseconds that the worker may take for one answer. */
const PATIENCE = 10_000

interface Asked {
  readonly key: string
  readonly about: About
  /** Of which piece it has to be at least. */
  readonly version: number
  readonly answer: (answer: Answers[About] | null) => void
}

export class Insight {
  private worker: Worker | null = null
  private version = 0
  private asked: Asked[] = []
  private timer: ReturnType<typeof setTimeout> | null = null
  private waiting: (() => void)[] = []

  constructor(private piece: Piece) {}

  /** The piece has changed by an operation to another. */
  changed(op: Operation, piece: Piece): void {
    this.piece = piece
    this.version++
    this.tell({ is: 'done', op, version: this.version })
  }

  /** Null when there is nothing to tell, or it took too long. */
  ask<A extends About>(key: string, about: A): Promise<Answers[A] | null> {
    return new Promise(done => {
      this.worker ??= this.begin()
      const answer = done as Asked['answer']
      this.asked.push({ key, about, version: this.version, answer })
      this.tell({ is: 'asked', key, about })
      this.watch()
    })
  }

  /** Resolves when no question is open. */
  settled(): Promise<void> {
    return this.asked.length === 0 ? Promise.resolve() : new Promise(done => this.waiting.push(done))
  }

  stop(): void {
    if (this.timer) clearTimeout(this.timer)
    this.timer = null
    this.worker?.terminate()
    this.worker = null
    for (const a of this.asked.splice(0)) a.answer(null)
    this.watch()
  }

  private tell(what: InsightRequest): void {
    this.worker?.postMessage(what)
  }

  private begin(): Worker {
    const made = new Worker(new URL('./insight.worker.ts', import.meta.url), { type: 'module' })
    made.onmessage = ({ data }: MessageEvent<Answered>) => this.heard(data)
    made.onerror = () => this.giveUp()
    made.postMessage({ is: 'opened', piece: this.piece, version: this.version } satisfies InsightRequest)
    return made
  }

  private heard({ key, about, version, answer }: Answered): void {
    const mine = (a: Asked) => a.key === key && a.about === about && a.version <= version
    const done = this.asked.filter(mine)
    this.asked = this.asked.filter(a => !mine(a))
    for (const a of done) a.answer(answer)
    this.watch()
  }

  /** The first that is asked for has its time from now on. */
  private watch(): void {
    if (this.timer) clearTimeout(this.timer)
    this.timer = this.asked.length > 0 ? setTimeout(() => this.giveUp(), PATIENCE) : null
    if (this.asked.length === 0) for (const done of this.waiting.splice(0)) done()
  }

  /** The oldest question is given up; the others are asked of another worker. */
  private giveUp(): void {
    this.worker?.terminate()
    const [first, ...others] = this.asked
    this.asked = others
    this.worker = others.length > 0 ? this.begin() : null
    for (const { key, about } of others) this.tell({ is: 'asked', key, about })
    this.watch()
    first?.answer(null)
  }
}
