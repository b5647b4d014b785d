/**
 * The instances of a part: one for every combination of the copies it stands in, numbered with the innermost
 * copies running fastest.
 */
import { countedLevels, lettersOf, levelsOf, type Level } from '../formula/scope.ts'
import { homesOf } from '../piece/copies.ts'
import type { Piece } from '../piece/schema.ts'
import { fromFinite, rational, ZERO, type Rational } from '../time/rational.ts'

export interface Instances {
  readonly levels: readonly Level[]
  readonly count: number
}

export function instancesOf(piece: Piece, part: string): Instances {
  const levels = levelsOf(piece, part)
  return { levels, count: levels.reduce((n, l) => n * l.copies.count, 1) }
}

/** The copy indices of an instance, outermost first. */
export function indicesOf(of: Instances, instance: number): number[] {
  const indices: number[] = []
  let rest = instance
  for (let k = of.levels.length - 1; k >= 0; k--) {
    const { count } = of.levels[k]!.copies
    indices.unshift(rest % count)
    rest = Math.floor(rest / count)
  }
  return indices
}

/** The instance with these indices. */
export const instanceAt = (of: Instances, indices: readonly number[]): number =>
  of.levels.reduce((n, l, k) => n * l.copies.count + indices[k]!, 0)

/**
 * The instance of another part that a formula on one of `here` reads: its shared copies are the same ones, and
 * `copy` picks one of its innermost copies. Null when there is no such copy.
 */
export function instanceRead(here: Instances, instance: number, there: Instances, copy: number | null): number | null {
  const own = indicesOf(here, instance)
  const indices: number[] = []
  for (let k = 0; k < there.levels.length; k++) {
    const last = k === there.levels.length - 1
    if (last && copy !== null) {
      if (copy < 0 || copy >= there.levels[k]!.copies.count) return null
      indices.push(copy)
    } else if (here.levels[k]?.part === there.levels[k]!.part) indices.push(own[k]!)
    else return null
  }
  return instanceAt(there, indices)
}

/** How far along its copies an index is: of the whole way round in a full ring or closed path, else from first to last. */
export function alongOf(level: Level, index: number): Rational {
  const { copies } = level
  const round =
    (copies.layout === 'ring' && Math.abs(copies.sweep) >= 360) || (copies.layout === 'path' && copies.closed)
  const steps = round ? copies.count : copies.count - 1
  return steps === 0 ? ZERO : rational(index, steps)
}

/**
 * The words of copies at an instance: `index`, `count`, `along`, `row`, `rows`, the same of the copies further out
 * after `parent.`, and `layer`, `layers`, `depth`. Layers are counted apart from copies that stand beside each other.
 */
export function copyWords(piece: Piece, of: Instances, instance: number): Pick<ReadonlyMap<string, Rational>, 'get'> {
  const words = new Map<string, Rational>()
  const indices = indicesOf(of, instance)
  const all = of.levels.map((level, k) => ({ level, index: indices[k]! })).reverse()
  const layered = all.find(l => l.level.copies.layout === 'layers')
  const levels = countedLevels(of.levels)
  const counted = all.filter(l => levels.includes(l.level))
  for (const [out, at] of counted.entries()) {
    const prefix = 'parent.'.repeat(out)
    const { copies } = at.level
    words.set(`${prefix}index`, rational(at.index))
    words.set(`${prefix}count`, rational(copies.count))
    words.set(`${prefix}along`, alongOf(at.level, at.index))
    const columns = copies.layout === 'grid' ? copies.columns : copies.count
    words.set(`${prefix}column`, rational(at.index % columns))
    words.set(`${prefix}columns`, rational(Math.min(columns, copies.count)))
    words.set(`${prefix}row`, rational(Math.floor(at.index / columns)))
    words.set(`${prefix}rows`, rational(Math.ceil(copies.count / columns)))
  }
  const lettered = all.find(l => lettersOf(piece, l.level) !== null)
  if (lettered) {
    const before = [...lettersOf(piece, lettered.level)!].slice(0, lettered.index).join('')
    words.set('word', rational(before.trimStart().match(/\s+/g)?.length ?? 0))
    words.set('line', rational(before.split('\n').length - 1))
  }
  if (layered) {
    words.set('layer', rational(layered.index))
    words.set('layers', rational(layered.level.copies.count))
    words.set('depth', alongOf(layered.level, layered.index))
  }
  return { get: name => words.get(name) ?? homeOf(counted, name) }
}

const HOMES = { homeX: 'x', homeY: 'y', homeAngle: 'turns' } as const

/** Where a layout puts a copy: worked out only when it is asked for. */
function homeOf(counted: readonly { level: Level; index: number }[], name: string): Rational | undefined {
  const parts = name.split('.')
  const side = HOMES[parts.at(-1) as keyof typeof HOMES]
  const at = side && counted[parts.length - 1]
  return at && fromFinite(homesOf(at.level.copies)[at.index]![side])
}
