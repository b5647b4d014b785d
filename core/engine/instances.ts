/**
 * The instances of a part: one for every combination of the copies it stands in, numbered with the innermost
 * copies running fastest.
 */
import { countedLevels, lettersOf, levelsOf, type Level } from '../formula/scope.ts'
import { fractionsOf, type Fractions } from '../columns/fractions.ts'
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

/**
 * The same for many instances at once, −1 where there is none. `copy`: by lane, or the copy before, of which the first
 * has none.
 */
export function instancesRead(
  here: Instances,
  instances: readonly number[],
  there: Instances,
  copy: readonly number[] | 'before' | null,
): Int32Array {
  const innermost = here.levels.at(-1)?.copies.count ?? 1
  if (copy === 'before') return Int32Array.from(instances, i => (i % innermost === 0 ? -1 : i - 1))
  const alike =
    !copy && here.levels.length === there.levels.length && here.levels.every((l, k) => l.part === there.levels[k]!.part)
  if (alike) return Int32Array.from(instances)
  return Int32Array.from(instances, (i, lane) => instanceRead(here, i, there, copy ? copy[lane]! : null) ?? -1)
}

/** How far along its copies an index is: of the whole way round in a full ring or closed path, else from first to last. */
export function alongOf(level: Level, index: number): Rational {
  const { copies } = level
  const round =
    (copies.layout === 'ring' && Math.abs(copies.sweep) >= 360) || (copies.layout === 'path' && copies.closed)
  const steps = round ? copies.count : copies.count - 1
  return steps === 0 ? ZERO : rational(index, steps)
}

/** The words of copies that count within one level, by name: of its copies and the index of one. */
const COUNTED: Readonly<Record<string, (level: Level, index: number) => Rational>> = {
  index: (_, index) => rational(index),
  count: level => rational(level.copies.count),
  along: alongOf,
  column: (level, index) => rational(index % columnsOf(level)),
  columns: level => rational(Math.min(columnsOf(level), level.copies.count)),
  row: (level, index) => rational(Math.floor(index / columnsOf(level))),
  rows: level => rational(Math.ceil(level.copies.count / columnsOf(level))),
}
const columnsOf = ({ copies }: Level): number => (copies.layout === 'grid' ? copies.columns : copies.count)

/** Those of layers, and of letters by the text before them. */
const LAYERED: typeof COUNTED = {
  layer: (_, index) => rational(index),
  layers: level => rational(level.copies.count),
  depth: alongOf,
}
const LETTERED: Readonly<Record<string, (before: string) => number>> = {
  word: before => before.trimStart().match(/\s+/g)?.length ?? 0,
  line: before => before.split('\n').length - 1,
}

/**
 * The words of copies at an instance: `index`, `count`, `along`, `row`, `rows`, the same of the copies further out
 * after `parent.`, and `layer`, `layers`, `depth`. Layers are counted apart from copies that stand beside each other.
 */
export function copyWords(piece: Piece, of: Instances, instance: number): { get(name: string): Rational | undefined } {
  const indices = indicesOf(of, instance)
  const all = of.levels.map((level, k) => ({ level, index: indices[k]! })).reverse()
  const levels = countedLevels(of.levels)
  const counted = all.filter(l => levels.includes(l.level))
  const get = (name: string): Rational | undefined => {
    if (Object.hasOwn(LAYERED, name)) {
      const at = all.find(l => l.level.copies.layout === 'layers')
      return at && LAYERED[name]!(at.level, at.index)
    }
    if (Object.hasOwn(LETTERED, name)) {
      const at = all.find(l => lettersOf(piece, l.level) !== null)
      return at && rational(LETTERED[name]!([...lettersOf(piece, at.level)!].slice(0, at.index).join('')))
    }
    const parts = name.split('.')
    const last = parts.at(-1)!
    const at = counted[parts.length - 1]
    if (!at || !parts.slice(0, -1).every(p => p === 'parent')) return undefined
    return Object.hasOwn(COUNTED, last) ? COUNTED[last]!(at.level, at.index) : homeOf(at, last)
  }
  return { get }
}

const HOMES = { homeX: 'x', homeY: 'y', homeAngle: 'turns' } as const

/** Where a layout puts a copy: worked out only when it is asked for. */
function homeOf({ level, index }: { level: Level; index: number }, name: string): Rational | undefined {
  const side = HOMES[name as keyof typeof HOMES]
  return side && fromFinite(homesOf(level.copies)[index]![side])
}

const columns = new WeakMap<Instances, Map<string, Fractions | null>>()

/** A word of copies at every instance, worked out once; null where there is none. */
export function copyWordOfAll(piece: Piece, of: Instances, name: string): Fractions | null {
  const known = columns.get(of) ?? new Map<string, Fractions | null>()
  columns.set(of, known)
  let found = known.get(name)
  if (found === undefined) {
    const all = Array.from({ length: of.count }, (_, i) => copyWords(piece, of, i).get(name))
    known.set(name, (found = all.every(w => w !== undefined) ? fractionsOf(all as Rational[]) : null))
  }
  return found
}
