/**
 * What takes long to add up is worked out bit by bit: a reading far away asks for it and has no value yet, whoever
 * reads gives it time. Nothing that is worked out depends on who asked, or in which order.
 */
export interface Work {
  /** Adds up some more; true when all that was asked for is there. */
  readonly go: () => boolean
  /** Nothing that is shown waits for it. */
  readonly quiet?: true
}

/** Readings that one request may take for what is worked out anew: some hundredths of a second. */
const ALLOWED = 8000
let allowance = Infinity

/** A request that must not take long: what it begins is cut short, and wanted. Requests within it share what it may take. */
export function limited<T>(read: () => T): T {
  if (allowance !== Infinity) return read()
  allowance = ALLOWED
  try {
    return read()
  } finally {
    allowance = Infinity
  }
}

/** Takes readings off the allowance. */
export function spend(readings = 1): void {
  allowance -= readings
}

/** Whether nothing more is begun in this request. */
export const spent = (): boolean => allowance <= 0

/** How far beyond its allowance a request may go to end what it began, which keeps a picture whole. */
const OVER = 30_000
/** Whether even that has to wait: some tenths of a second have gone by. */
export const overdrawn = (): boolean => allowance <= -OVER

let wanted = new Set<Work>()
let asked = 0

/** Asks for something to be worked out. */
export function want(work: Work): void {
  asked++
  wanted.add(work)
}

/** How often something has been asked for so far: whether a reading waits for another is seen by it. */
export const asks = (): number => asked

/** Nothing but another go: what was left out is drawn next time. */
export const AGAIN: Work = { go: () => true }

/** Whether something that was asked for is not there yet. */
export const working = (): boolean => wanted.size > 0

/** Whether something that is shown is not there yet. */
export const isShownLater = (): boolean => [...wanted].some(w => !w.quiet)

/** Works on what is wanted in turn, `steps` times some hundred cells of one of it; true when nothing is left to do. */
export function workOn(steps: number): boolean {
  for (let k = 0; k < steps; k++) {
    const [work] = wanted
    if (!work) return true
    wanted.delete(work)
    if (!work.go()) wanted.add(work)
  }
  return wanted.size === 0
}

/** Works on what is wanted step by step, one at least, while there is time; true when nothing is left to do. */
export function workWhile(thereIsTime: () => boolean): boolean {
  do if (workOn(1)) return true
  while (thereIsTime())
  return false
}

/** What was asked for is of no interest any more: another piece, another moment. */
export function forget(): void {
  wanted = new Set()
}

/** Readings that may be taken for what is nearly there, once: some tenths of a second. */
const ONCE = 5 * ALLOWED

/** A reading of what is there already, or nearly: null where it would have to be worked out, which is not asked for. */
export function ifThere<T>(read: () => T): T | null {
  const [before, allowed] = [wanted, allowance]
  wanted = new Set()
  allowance = ONCE
  try {
    const value = read()
    return working() || spent() ? null : value
  } finally {
    wanted = before
    allowance = allowed
  }
}

/**
 * A reading with all that it needs worked out to its end, however long that takes: within a request that must not take
 * long the limit is lifted for it, since work that may take nothing never ends.
 */
export function workedOut<T>(read: () => T): T {
  const [before, allowed] = [wanted, allowance]
  wanted = new Set()
  allowance = Infinity
  try {
    for (;;) {
      const value = read()
      if (!working()) return value
      workOn(Infinity)
    }
  } finally {
    wanted = before
    allowance = allowed
  }
}
