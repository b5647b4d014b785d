/** Room for more: what was there, in a longer list. */
export function copyInto<T extends Float32Array | Uint32Array>(old: T, into: T): T {
  into.set(old)
  return into
}
