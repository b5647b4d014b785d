/**
 * Parts taken along with all they carry, what drives them and the named things that their formulas read: put down again
 * in the same piece or another. What has a name there already is read there; what has not comes along.
 */
import { drivenPart, drivenProperty, propertyKey } from '../piece/drive-key.ts'
import { renamedIn } from '../formula/renaming.ts'
import { operation, type Operation, type Put } from '../piece/operation.ts'
import { emptyPiece, type Drive, type Piece, type Shape } from '../piece/schema.ts'
import { seedOf } from '../signal/hash.ts'
import { freshId } from './ids.ts'
import { freeName, withCarried } from './parts.ts'
import { outermost } from './stage-edits.ts'

/** Collections of what formulas may read besides parts, each before those that it may read itself. */
const READ = ['signals', 'clocks', 'dials', 'cues', 'curves'] as const
const PREFIX = { signals: 's', clocks: 'k', dials: 'd', cues: 'q', curves: 'v' } as const

/** A piece that holds nothing but what is carried. */
export type Transfer = Piece

/** Whether a text speaks of a name. */
export const mentions = (text: string, name: string): boolean => renamedIn(text, name, `${name}_`) !== text

/** What is taken along with some parts. */
export function transferOf(piece: Piece, ids: readonly string[]): Transfer {
  const all = new Set(outermost(piece, ids).flatMap(id => withCarried(piece, id)))
  const own = <T>(of: Readonly<Record<string, T>>, is: (key: string, value: T) => boolean) =>
    Object.fromEntries(Object.entries(of).filter(([k, v]) => is(k, v)))
  const parts = own(piece.parts, id => all.has(id))
  const drives = own(piece.drives, key => all.has(drivenPart(key)))
  const texts = Object.values(drives).flatMap(d => [d.text, d.good, ...d.takes.map(t => t.text)])
  const made: Transfer = {
    ...emptyPiece('Carried', piece.seed),
    parts: Object.fromEntries(
      Object.entries(parts).map(([id, p]) => [id, p.parent !== null && all.has(p.parent) ? p : { ...p, parent: null }]),
    ),
    drives,
    bases: own(piece.bases, key => all.has(drivenPart(key))),
    assets: own(piece.assets, hash =>
      Object.values(parts).some(p => p.shape.type === 'picture' && p.shape.asset === hash),
    ),
  }
  // What is read may read further: until nothing more comes along.
  const more = (): boolean =>
    READ.some(c =>
      Object.entries(piece[c]).some(([id, entry]) => {
        if (made[c][id] || !(texts.some(t => mentions(t, entry.name)) || isLedTo(made, c, id))) return false
        ;(made[c] as Record<string, unknown>)[id] = entry
        if (c === 'signals') texts.push(piece.signals[id]!.text, piece.signals[id]!.good)
        return true
      }),
    )
  while (more()) continue
  return made
}

/** Whether a clock that comes along runs on this one, on this cue, curve or dial. */
const isLedTo = ({ clocks }: Transfer, collection: (typeof READ)[number], id: string): boolean =>
  Object.values(clocks).some(({ on, way }) => {
    if (collection === 'clocks') return on === id
    if (collection === 'cues') return way.type === 'cue' && way.cue === id
    if (collection === 'curves') return way.type === 'curve' && way.curve === id
    return collection === 'dials' && way.type === 'steady' && way.dial === id
  })

/** A piece that things are put into, what was put, and how what came along is called and found there. */
export class PasteBuilder {
  readonly puts: Put[] = []
  /** Names that were taken there, with the new ones. */
  readonly renamed = new Map<string, string>()
  /** The id there of what came along: of parts by their old id, of the rest by `collection id`. */
  readonly ids = new Map<string, string>()

  constructor(public piece: Piece) {}

  put(p: Put & { in: string; id: string }): void {
    this.puts.push(p)
    this.piece = {
      ...this.piece,
      [p.in]: { ...this.piece[p.in as 'parts'], [p.id]: (p as { value: unknown }).value },
    } as Piece
  }

  /** A text with the names that things have there. */
  readonly about = (text: string): string => [...this.renamed].reduce((t, [from, to]) => renamedIn(t, from, to), text)

  /** Signals and clocks speak of what came along by its names there. */
  settle(): void {
    for (const p of this.puts) {
      if (!('in' in p)) continue
      if (p.in === 'signals')
        Object.assign(p, { value: remapTexts(p.value as { text: string; good: string }, this.about) })
      if (p.in === 'clocks') Object.assign(p, { value: led(p.value as Piece['clocks'][string], this.ids) })
    }
  }
}

/**
 * Brings the named things that formulas read.
 * @param shared whether what has the name there already is read instead
 */
export function bringNamed(
  growing: PasteBuilder,
  carried: Transfer,
  shared: (collection: (typeof READ)[number], own: string, there: string) => boolean,
): void {
  const { piece, ids, renamed } = growing
  for (const c of READ)
    for (const [old, { name }] of Object.entries(carried[c])) {
      const there = Object.entries(piece[c]).find(([, e]) => e.name === name)
      if (there && shared(c, old, there[0])) {
        ids.set(`${c} ${old}`, there[0])
        continue
      }
      const id = freshId(growing.piece[c], PREFIX[c])
      ids.set(`${c} ${old}`, id)
      const called = freeName(growing.piece, name)
      if (called !== name) renamed.set(name, called)
      growing.put({ in: c, id, value: { ...carried[c][old]!, name: called } } as Put & { in: string; id: string })
    }
}

/**
 * Puts what was taken along into a piece, on a parent (null: the stage), above what is there. Formulas mean the same
 * about the copies and draw their own chance.
 */
export function pasteTransfer(
  piece: Piece,
  carried: Transfer,
  parent: string | null,
  says: string,
): { ids: string[]; op: Operation } {
  const growing = new PasteBuilder(piece)
  const { puts, renamed, ids } = growing
  for (const hash of Object.keys(carried.assets))
    if (!piece.assets[hash]) growing.put({ in: 'assets', id: hash, value: carried.assets[hash]! })
  // What has a name there already is read there.
  bringNamed(growing, carried, () => true)
  const tops: string[] = []
  for (const [old, part] of inOrder(carried)) {
    const id = freshId(growing.piece.parts, 'p')
    ids.set(old, id)
    const top = part.parent === null
    const on = top ? parent : ids.get(part.parent!)!
    const above = Object.values(growing.piece.parts).filter(p => p.parent === on)
    const name = freeName(growing.piece, part.name.replace(/\d+$/, '') || part.name)
    if (name !== part.name) renamed.set(part.name, name)
    if (top) tops.push(id)
    const order = top ? Math.max(0, ...above.map(p => p.order)) + 1 : part.order
    growing.put({ in: 'parts', id, value: { ...part, name, parent: on, order } })
  }
  const about = growing.about
  for (const p of puts)
    if ('in' in p && p.in === 'parts')
      Object.assign(p.value!, { shape: followed((p.value as { shape: Shape }).shape, ids) })
  growing.settle()
  for (const drive of Object.values(carried.drives)) {
    const part = ids.get(drive.part)!
    const takes = drive.takes.map(t => ({ ...t, text: about(t.text) }))
    const seed = seedOf(piece.seed, part, drive.property)
    const value: Drive = { ...remapTexts(drive, about), part, takes, seed }
    puts.push({ in: 'drives', id: propertyKey(part, drive.property), value })
  }
  for (const [key, base] of Object.entries(carried.bases)) {
    puts.push({ in: 'bases', id: propertyKey(ids.get(drivenPart(key))!, drivenProperty(key)), value: base })
  }
  return { ids: tops, op: operation(says, ...puts) }
}

export const remapTexts = <T extends { text: string; good: string }>(it: T, about: (text: string) => string): T => ({
  ...it,
  text: about(it.text),
  good: about(it.good),
})

/** Parents before what they carry. */
function inOrder({ parts }: Transfer): [string, Piece['parts'][string]][] {
  const deep = (id: string): number => (parts[id]!.parent === null ? 0 : 1 + deep(parts[id]!.parent))
  return Object.entries(parts).sort(([a, p], [b, q]) => deep(a) - deep(b) || p.order - q.order)
}

/** A trace of something that comes along follows the copy, and particles look like it. */
function followed(shape: Shape, ids: ReadonlyMap<string, string>): Shape {
  if ((shape.type === 'trace' || shape.type === 'emitter') && shape.of && ids.has(shape.of))
    return { ...shape, of: ids.get(shape.of)! }
  return shape
}

function led(clock: Piece['clocks'][string], ids: ReadonlyMap<string, string>): Piece['clocks'][string] {
  const { way } = clock
  const to = (c: (typeof READ)[number], id: string) => ids.get(`${c} ${id}`) ?? id
  const on = clock.on === null ? null : to('clocks', clock.on)
  if (way.type === 'cue') return { ...clock, on, way: { ...way, cue: to('cues', way.cue) } }
  if (way.type === 'curve') return { ...clock, on, way: { ...way, curve: to('curves', way.curve) } }
  if (way.type === 'steady' && way.dial) return { ...clock, on, way: { ...way, dial: to('dials', way.dial) } }
  return { ...clock, on }
}
