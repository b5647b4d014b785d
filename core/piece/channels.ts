/** Channels of a drawn curve in their order: the one that is meant where none is named, then the others by name. */
import type { Curve } from './schema.ts'

export function channelsOf({ channels, first }: Pick<Curve, 'channels' | 'first'>): readonly [string, ...string[]] {
  const names = Object.keys(channels).sort()
  const head = first !== undefined && Object.hasOwn(channels, first) ? first : names[0]!
  return [head, ...names.filter(n => n !== head)]
}
