/**
 * Stills of pieces, drawn one after another in a worker that has its limits: whatever a document asks for, saves and
 * openings go on meanwhile, and a piece that cannot be drawn gets a card that says so. Kept by revision.
 */
import { existsSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { Worker } from 'node:worker_threads'
import type { Asked } from './worker.ts'

/** Milliseconds and MB that a picture may take. */
const TIME = 8000
/** Milliseconds in which the worker has to be there. */
const STARTING = 60_000
const MEMORY = 384
/** Largest picture, and all that are kept, in characters. */
const LARGEST = 4_000_000
const KEPT = 24_000_000

export type Still = { readonly svg: string } | { readonly svg: null; readonly why: string }

const kept = new Map<string, Still>()
let size = 0
let worker: Worker | null = null
/** Resolved when the worker can draw. */
let ready: Promise<void> = Promise.resolve()
let last: Promise<unknown> = Promise.resolve()
const begun = new Map<string, Promise<Still>>()

/** The picture of a piece at a revision; `read` gives its document as text, with the pictures it shows. */
export function still(id: string, revision: number, read: () => Promise<Asked>): Promise<Still> {
  const key = `${id} ${revision}`
  const known = kept.get(key)
  if (known) return Promise.resolve(known)
  let drawing = begun.get(key)
  if (!drawing) {
    drawing = (last = last.then(async () => keep(key, await drawn(await read())))) as Promise<Still>
    begun.set(key, drawing)
    last = drawing.catch(() => {}).finally(() => begun.delete(key))
  }
  return drawing
}

function keep(key: string, made: Still): Still {
  kept.set(key, made)
  size += made.svg?.length ?? 0
  for (const [old, { svg }] of kept) {
    if (size <= KEPT && kept.size <= 400) break
    kept.delete(old)
    size -= svg?.length ?? 0
  }
  return made
}

const HEAVY = 'It takes too long to draw.'

/** What waits for the worker's answer: a picture or why there is none, or what went wrong with the worker itself. */
let answer: ((made: Still | string) => void) | null = null

/** One picture at a time. */
function drawn(asked: Asked): Promise<Still> {
  return new Promise(done => {
    const at = (worker ??= begin())
    let timer = setTimeout(() => give(HEAVY), STARTING)
    const give = (made: Still | string) => {
      answer = null
      clearTimeout(timer)
      if (typeof made !== 'string') return done(made)
      // A worker that did not come to an end is given up, and the next picture gets a new one.
      if (worker === at) worker = null
      void at.terminate()
      done({ svg: null, why: made })
    }
    answer = give
    void ready.then(() => {
      if (answer !== give) return
      clearTimeout(timer)
      timer = setTimeout(() => give(HEAVY), TIME)
      at.postMessage(asked)
    })
  })
}

/** The built worker lies beside the built server; while working on Open Tide it runs from its source. */
function begin(): Worker {
  const built = join(dirname(resolve(process.argv[1] ?? '.')), 'still.mjs')
  const limits = { resourceLimits: { maxOldGenerationSizeMb: MEMORY, stackSizeMb: 8 }, stdout: true, stderr: true }
  const made = existsSync(built)
    ? new Worker(built, limits)
    : new Worker(resolve('server/stills/worker.ts'), { ...limits, execArgv: ['--import', 'jiti/register'] })
  const own = (say: (to: NonNullable<typeof answer>) => void) => () => {
    if (worker === made && answer) say(answer)
  }
  let there = () => {}
  ready = new Promise(done => (there = done))
  made.on('message', (m: { ready?: true; svg?: string; why?: string }) => {
    if (m.ready) return there()
    if (worker !== made) return
    if (m.svg === undefined) answer?.({ svg: null, why: m.why ?? HEAVY })
    else answer?.(m.svg.length > LARGEST ? { svg: null, why: 'Its picture is too large.' } : { svg: m.svg })
  })
  made.on(
    'error',
    own(to => to('It takes too much memory to draw.')),
  )
  made.on(
    'exit',
    own(to => to(HEAVY)),
  )
  made.unref()
  return made
}

export async function stopStills(): Promise<void> {
  await worker?.terminate()
  worker = null
}
