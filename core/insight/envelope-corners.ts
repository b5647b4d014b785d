/** Where the corners of an envelope stand: the ends of its rise, of what it holds, and where it begins to fall or ends. */
import { drivenPart, isSignal } from '../piece/drive-key.ts'
import type { Program } from '../engine/program.ts'
import type { Node } from '../formula/tree.ts'
import { toNumber } from '../time/rational.ts'
import { canonical } from '../units/names.ts'

export interface EnvelopeCorner {
  /** Where it stands, and where the stretch begins that the number measures; seconds. */
  readonly seconds: number
  readonly from: number
  /** Whether the number grows when the corner is pulled later, or falls. */
  readonly sign: 1 | -1
}

/**
 * The corner that a number of an envelope belongs to; null where it has no fixed place.
 *
 * @param key of the drive or signal
 * @param filled the arguments of the envelope, by name
 * @param seconds an argument as a fixed number of seconds; null where it is none
 * @param first the second from which on corners are to stand
 */
export function envelopeCorner(
  program: Program,
  key: string,
  which: string,
  filled: ReadonlyMap<string, Node>,
  seconds: (name: string) => number | null,
  first: number,
): EnvelopeCorner | null {
  const word = (name: string) => {
    const node = filled.get(name)
    return node?.type === 'name' ? canonical(node.name) : null
  }
  const part = isSignal(key) ? null : drivenPart(key)
  const stretch = windowOf(program, part, word('over'), word('cue'), first)
  const [attack, hold, release] = [seconds('attack'), seconds('hold'), seconds('release')]
  if (!stretch || attack === null) return null
  const [start, end] = stretch
  if (which === 'attack') return { seconds: start + attack, from: start, sign: 1 }
  if (end !== null) return release === null ? null : { seconds: end - release, from: end, sign: -1 }
  if (hold === null) return null
  const falls = start + attack + hold
  if (which === 'hold') return { seconds: falls, from: start + attack, sign: 1 }
  return release === null ? null : { seconds: falls + release, from: falls, sign: 1 }
}

/** When it sets off, and when it ends where that is not its own doing. */
function windowOf(
  program: Program,
  part: string | null,
  over: string | null,
  cue: string | null,
  first: number,
): readonly [number, number | null] | null {
  const { piece, measures } = program
  if (over === 'lap') {
    const long = toNumber(measures.lapLength)
    const start = piece.lap.start + Math.ceil((first - piece.lap.start) / long - 1e-9) * long
    return [start, start + long]
  }
  const fixed = over === 'span' && part !== null ? piece.parts[part]?.span : over === 'stretch' ? piece.stretch : null
  if (fixed) return [fixed.from, fixed.to]
  if (over !== null) return null
  if (cue === null) return [0, null]
  const found = Object.values(piece.cues).find(c => canonical(c.name) === cue)
  if (!found) return null
  const { marks, every } = found
  const nexts = marks.map(m => (every !== null && m < first ? m + Math.ceil((first - m) / every) * every : m))
  const next = nexts.filter(m => m >= first).sort((a, b) => a - b)[0] ?? nexts.at(-1)
  return next === undefined ? null : [next, null]
}
