/**
 * What differs from copy to copy cannot be read where all copies are looked at together: to read it would take one of
 * them for all.
 */

/** Thrown where it takes one copy to go on. */
export class DiffersByCopy extends Error {}

/** The reading of what differs from copy to copy. */
export const refuseToRead = (): never => {
  throw new DiffersByCopy('This differs from copy to copy.')
}

/** What is so of every copy; null where it takes one of them to tell. */
export function ofEveryCopy<T>(work: () => T): T | null {
  try {
    return work()
  } catch (e) {
    if (e instanceof DiffersByCopy) return null
    throw e
  }
}
