/**
 * A worker for what may take long: it does one thing at a time, within limits of time and memory, and is given up and
 * begun anew where it goes beyond them. Requests go on meanwhile.
 */
import { existsSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { Worker } from 'node:worker_threads'

/** Milliseconds in which a worker has to be there. */
const STARTING = 60_000

export interface Limits {
  /** Milliseconds that one thing may take. */
  readonly time: number
  /** MB of the worker. */
  readonly memory: number
  /** What is said where it takes longer, and where it needs more. */
  readonly heavy: string
  readonly large: string
}

/** What a worker posts first, when it is there. */
export const READY = 'ready'

export class Beside<Asked, Answer> {
  private worker: Worker | null = null
  /** Resolved when the worker can begin. */
  private ready: Promise<void> = Promise.resolve()
  private last: Promise<unknown> = Promise.resolve()
  /** What waits for the answer: what came, or why nothing did. */
  private waiting: ((answer: Answer | null, why: string) => void) | null = null

  /**
   * @param built the file beside the built server
   * @param source what it is made from, where Open Tide itself is worked on
   */
  constructor(
    private readonly built: string,
    private readonly source: string,
    private readonly limits: Limits,
  ) {}

  /** Does one thing after those that were asked before. `asked` is made when its turn comes. */
  ask(asked: () => Promise<Asked> | Asked): Promise<{ answer: Answer; why: '' } | { answer: null; why: string }> {
    const turn = this.last.then(async () => this.one(await asked()))
    this.last = turn.catch(() => {})
    return turn
  }

  private one(asked: Asked): Promise<{ answer: Answer; why: '' } | { answer: null; why: string }> {
    return new Promise(done => {
      const at = (this.worker ??= this.begin())
      const give = (answer: Answer | null, why: string) => {
        this.waiting = null
        clearTimeout(timer)
        if (answer !== null) return done({ answer, why: '' })
        // A worker that did not come to an end is given up, and the next one begins anew.
        if (this.worker === at) this.worker = null
        void at.terminate()
        done({ answer: null, why })
      }
      let timer = setTimeout(() => give(null, this.limits.heavy), STARTING)
      this.waiting = give
      void this.ready.then(() => {
        if (this.waiting !== give) return
        clearTimeout(timer)
        timer = setTimeout(() => give(null, this.limits.heavy), this.limits.time)
        at.postMessage(asked)
      })
    })
  }

  /** The built worker lies beside the built server; while working on Open Tide it runs from its source. */
  private begin(): Worker {
    const { memory, large, heavy } = this.limits
    const built = join(dirname(resolve(process.argv[1] ?? '.')), this.built)
    const limits = { resourceLimits: { maxOldGenerationSizeMb: memory, stackSizeMb: 8 }, stdout: true, stderr: true }
    const made = existsSync(built)
      ? new Worker(built, limits)
      : new Worker(resolve(this.source), { ...limits, execArgv: ['--import', 'jiti/register'] })
    const say = (why: string) => () => {
      if (this.worker === made) this.waiting?.(null, why)
    }
    let there = () => {}
    this.ready = new Promise(done => (there = done))
    made.on('message', (m: Answer | typeof READY) => {
      if (m === READY) there()
      else if (this.worker === made) this.waiting?.(m as Answer, '')
    })
    made.on('error', say(large))
    made.on('exit', say(heavy))
    made.unref()
    return made
  }

  async stop(): Promise<void> {
    await this.worker?.terminate()
    this.worker = null
  }
}
