/** Whole numbers below `n`, made up from a seed. */
export type Random = (n: number) => number

/** A small generator (a linear congruence, Knuth's MMIX constants): the same run from the same seed. */
export function random(seed: number): Random {
  let state = BigInt(seed) + 1n
  return n => {
    state = (state * 6364136223846793005n + 1442695040888963407n) & 0xffffffffffffffffn
    return Number((state >> 33n) % BigInt(n))
  }
}
