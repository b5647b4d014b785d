/**
 * What takes long to add up is worked out bit by bit: a reading far away asks for it and has no value yet, whoever
 * reads gives it time. Nothing that is worked out depends on who asked, or in which order.
 */
export interface Work {
  /** Adds up some more; true when all that was asked for is there. */
  readonly go: () => boolean
}

let wanted = new Set<Work>()
let asked = 0

/** Asks for something to be worked out. */
export function want(work: Work): void {
  asked++
  wanted.add(work)
}

/** How often something has been asked for so far: whether a reading waits for another is seen by it. */
export const asks = (): number => asked

/** Whether something that was asked for is not there yet. */
export const working = (): boolean => wanted.size > 0

/** Works on what is wanted, `steps` times some hundred cells; true when nothing is left to do. */
export function workOn(steps: number): boolean {
  for (let k = 0; k < steps && wanted.size > 0; k++) {
    for (const work of wanted) if (work.go()) wanted.delete(work)
  }
  return wanted.size === 0
}

/** What was asked for is of no interest any more: another piece, another moment. */
export function forget(): void {
  wanted = new Set()
}

/** A reading with all that it needs worked out to its end. */
export function workedOut<T>(read: () => T): T {
  const before = wanted
  wanted = new Set()
  try {
    for (;;) {
      const value = read()
      if (!working()) return value
      workOn(Infinity)
    }
  } finally {
    wanted = before
  }
}
