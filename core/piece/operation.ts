/**
 * Operations: the only way a piece changes. An operation is plain data (it can be stored and sent) and says
 * what single entries become. Its laws, which undo, autosave and replay follow from:
 *
 *   apply(apply(p, o), inverse(p, o)) equals p
 *   apply(p, compose(a, b))           equals apply(apply(p, a), b)
 *   apply(p, o) shares with p everything that o does not name
 */
import { propertyKey } from './drive-key.ts'
import type { Piece } from './schema.ts'

/** The collections of entries by id. */
export type Collection =
  'parts' | 'drives' | 'bases' | 'signals' | 'dials' | 'clocks' | 'cues' | 'curves' | 'ties' | 'slips' | 'assets'
/** The settings that stand once in a piece. */
export type Setting = 'title' | 'seed' | 'frameRate' | 'lap' | 'stretch' | 'stage' | 'camera'

export type Put =
  | { [C in Collection]: { readonly in: C; readonly id: string; readonly value: Piece[C][string] | null } }[Collection]
  | { [S in Setting]: { readonly set: S; readonly value: Piece[S] } }[Setting]

export interface Operation {
  /** What it does, for the undo list: "tune Carousel rotation". */
  readonly undoLabel: string
  readonly puts: readonly Put[]
}

export const operation = (says: string, ...puts: Put[]): Operation => ({ undoLabel: says, puts })

/** By a collection the number of the one that it was made from by an operation, and the entries that this named. */
const made = new WeakMap<object, { readonly from: number; readonly ids: ReadonlySet<string> }>()

/** Numbers of collections. A weak reference would hold each until the task that made it is over: gigabytes, where 3,000 parts are added in one. */
const numbers = new WeakMap<object, number>()
let latest = 0
function numberOf(collection: object): number {
  let number = numbers.get(collection)
  if (number === undefined) numbers.set(collection, (number = ++latest))
  return number
}

/** The entries in which a collection differs from the one that it was made from by one operation; null when that isn't known. */
export function entriesChanged(from: object, to: object): readonly string[] | null {
  if (from === to) return []
  const known = made.get(to)
  return known && known.from === numbers.get(from) ? [...known.ids] : null
}

/** Whether two collections have the same ids, where one operation made `to` from `from`. False when that isn't known. */
export function sameEntries(from: object, to: object): boolean {
  const ids = entriesChanged(from, to)
  return ids !== null && ids.every(id => Object.hasOwn(from, id) === Object.hasOwn(to, id))
}

/** The piece after an operation. */
export function apply(piece: Piece, op: Operation): Piece {
  const next: Record<string, unknown> = { ...piece }
  const copied = new Map<string, Set<string>>()
  for (const put of op.puts) {
    if ('set' in put) {
      next[put.set] = put.value
      continue
    }
    let ids = copied.get(put.in)
    if (!ids) {
      const from = next[put.in] as object
      const copy = { ...from }
      next[put.in] = copy
      copied.set(put.in, (ids = new Set()))
      made.set(copy, { from: numberOf(from), ids })
    }
    ids.add(put.id)
    const entries = next[put.in] as Record<string, unknown>
    if (put.value === null) Reflect.deleteProperty(entries, put.id)
    else entries[put.id] = put.value
  }
  return next as Piece
}

/**
 * The same as `apply(piece, op)`, but reuses the collections of a discarded trial instead of copying them again, which is slow with
 * thousands of entries. `trial` is `apply(piece, other)`, where `other` named every entry that `op` names; it must not be used afterwards.
 * Throws where `op` names anything else.
 */
export function applyInstead(trial: Piece, op: Operation): Piece {
  for (const put of op.puts) {
    if ('set' in put || put.value === null || !made.get(trial[put.in])?.ids.has(put.id))
      throw new Error('A trial is of the same entries.')
    const entries = trial[put.in] as Record<string, unknown>
    entries[put.id] = put.value
  }
  return { ...trial }
}

/** The operation that takes `op` back, made from the piece before it. */
export function inverse(before: Piece, op: Operation): Operation {
  const puts: Put[] = []
  const seen = new Set<string>()
  for (const put of op.puts) {
    const place = 'set' in put ? put.set : `${put.in}/${put.id}`
    if (seen.has(place)) continue
    seen.add(place)
    if ('set' in put) puts.push({ set: put.set, value: before[put.set] } as Put)
    else puts.push({ in: put.in, id: put.id, value: before[put.in][put.id] ?? null } as Put)
  }
  return { undoLabel: op.undoLabel, puts }
}

/** One operation that does a, then b; named after the first that has a name. */
export const compose = (a: Operation, b: Operation): Operation => ({
  undoLabel: a.undoLabel || b.undoLabel,
  puts: [...a.puts, ...b.puts],
})

export const putDrive = (drive: Piece['drives'][string]): Put => ({
  in: 'drives',
  id: propertyKey(drive.part, drive.property),
  value: drive,
})
