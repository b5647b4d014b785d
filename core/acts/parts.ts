/** Operations on parts: new, copied, renamed, removed, set by hand. */
import { drivenPart, propertyKey } from '../piece/drive-key.ts'
import { symmetryOf } from '../piece/symmetry.ts'
import { canonical } from '../units/names.ts'
import { renamedIn } from '../formula/renaming.ts'
import { initialOf, propertyNamed } from '../piece/properties.ts'
import { operation, type Operation, type Put } from '../piece/operation.ts'
import { freshId } from './ids.ts'
import { tiedSetValues } from './ties.ts'
import { NAMED, type Base, type Part, type Piece, type Shape } from '../piece/schema.ts'

/** Why a name cannot be given, in one sentence; null when it can. `own` is the entry that may keep it. */
export function nameProblem(piece: Piece, name: string, own: string | null = null): string | null {
  const trimmed = name.trim()
  if (trimmed === '') return 'A name needs at least one letter.'
  if (trimmed.length > 60) return 'Names can have up to 60 characters.'
  if (trimmed.includes('`')) return 'Names can’t contain a backquote.'
  const taken = NAMED.some(c =>
    Object.entries(piece[c]).some(([id, e]) => `${c}/${id}` !== own && canonical(e.name) === canonical(trimmed)),
  )
  return taken ? `There’s already something named ${trimmed} in this piece.` : null
}

/** A name that is free, made from a wish: `Ellipse`, `Ellipse2` … */
export function freeName(piece: Piece, wish: string): string {
  for (let n = 1; ; n++) {
    const name = n === 1 ? wish : `${wish}${n}`
    if (!nameProblem(piece, name)) return name
  }
}

const SHAPE_NAME = {
  group: 'Group',
  rectangle: 'Rectangle',
  ellipse: 'Ellipse',
  polygon: 'Polygon',
  star: 'Star',
  ring: 'Ring',
  line: 'Line',
  gear: 'Gear',
  waves: 'Waves',
  text: 'Text',
  trace: 'Trace',
  emitter: 'Emitter',
  path: 'Path',
  picture: 'Picture',
} as const
export const shapeName = (shape: Shape): string => SHAPE_NAME[shape.type]

/** A new part on top of its siblings. */
export function addPart(piece: Piece, shape: Shape, given: Partial<Part> = {}): { id: string; op: Operation } {
  const id = freshId(piece.parts, 'p')
  const siblings = Object.values(piece.parts).filter(p => p.parent === (given.parent ?? null))
  const part: Part = {
    name: freeName(piece, shapeName(shape)),
    parent: null,
    order: Math.max(0, ...siblings.map(p => p.order)) + 1,
    shape,
    pivot: { x: 0, y: 0 },
    symmetry: symmetryOf(shape),
    copies: null,
    span: null,
    ...given,
  }
  return { id, op: operation(`add ${part.name}`, { in: 'parts', id, value: part }) }
}

/** How copies stand, in words. */
export const LAYOUTS = {
  ring: 'in a ring',
  row: 'in a row',
  grid: 'in a grid',
  path: 'along a path',
  layers: 'in layers',
  chain: 'in a chain',
  placed: 'as letters',
} as const

export function setPart(piece: Piece, id: string, change: Partial<Part>): Operation {
  const part = piece.parts[id]!
  return operation(`change ${part.name}`, { in: 'parts', id, value: { ...part, ...change } })
}

/** A part with all it carries. */
export function withCarried(piece: Piece, id: string): string[] {
  const below = Object.keys(piece.parts).filter(p => piece.parts[p]!.parent === id)
  return [id, ...below.flatMap(p => withCarried(piece, p))]
}

/** Takes a part away with all it carries and what drives them. Formulas that read it keep their text. */
export function removePart(piece: Piece, id: string): Operation {
  const gone = withCarried(piece, id)
  const puts: Put[] = gone.map(p => ({ in: 'parts', id: p, value: null }))
  for (const collection of ['drives', 'bases'] as const) {
    for (const key of Object.keys(piece[collection])) {
      if (gone.includes(drivenPart(key))) puts.push({ in: collection, id: key, value: null })
    }
  }
  for (const [key, tie] of Object.entries(piece.ties)) {
    if ([tie.a, tie.b].some(k => gone.includes(drivenPart(k)))) puts.push({ in: 'ties', id: key, value: null })
  }
  return operation(`remove ${piece.parts[id]!.name}`, ...puts)
}

/** What a property holds by hand, in its display unit; null puts it back to what it was made with. */
export function setBase(piece: Piece, part: string, property: string, value: number | null): Operation {
  const key = propertyKey(part, property)
  const says = `set ${piece.parts[part]!.name} ${property}`
  const tied = value === null ? [] : tiedSetValues(piece, key, value)
  return operation(
    says,
    { in: 'bases', id: key, value: value === null ? null : { ...piece.bases[key], value } },
    ...tied,
  )
}

/** Keyframes of a property over time; null takes them away. */
export function setKeys(piece: Piece, part: string, property: string, keys: Base['keys'] | null): Operation {
  const key = propertyKey(part, property)
  const { shape, name } = piece.parts[part]!
  const held = piece.bases[key] ?? { value: initialOf(propertyNamed(property)!, shape.type) }
  const { keys: _old, ...rest } = held
  return operation(`set keys of ${name} ${property}`, { in: 'bases', id: key, value: keys ? { ...rest, keys } : rest })
}

/** Set values of single copies that differ from the common one, by instance, in the display unit. */
export function setCopies(
  piece: Piece,
  part: string,
  property: string,
  copies: Readonly<Record<number, number>>,
): Operation {
  const key = propertyKey(part, property)
  const { shape, name } = piece.parts[part]!
  const value = piece.bases[key]?.value ?? initialOf(propertyNamed(property)!, shape.type)
  return operation(`set copies of ${name} ${property}`, {
    in: 'bases',
    id: key,
    value: { ...piece.bases[key], value, copies: { ...copies } },
  })
}

/** Gives a named thing another name, in every formula too. */
export function rename(piece: Piece, collection: (typeof NAMED)[number], id: string, name: string): Operation {
  const entry = piece[collection][id]!
  const to = name.trim()
  const puts: Put[] = [{ in: collection, id, value: { ...entry, name: to } } as Put]
  const text = (t: string) => renamedIn(t, entry.name, to)
  for (const [key, drive] of Object.entries(piece.drives)) {
    const next = {
      ...drive,
      text: text(drive.text),
      good: text(drive.good),
      takes: drive.takes.map(t => ({ ...t, text: text(t.text) })),
    }
    const touched = next.takes.some((t, i) => t.text !== drive.takes[i]!.text)
    if (touched || next.text !== drive.text || next.good !== drive.good)
      puts.push({ in: 'drives', id: key, value: next })
  }
  for (const [key, signal] of Object.entries(piece.signals)) {
    const next = { ...signal, text: text(signal.text), good: text(signal.good) }
    if (key === id && collection === 'signals') continue
    if (next.text !== signal.text) puts.push({ in: 'signals', id: key, value: next })
  }
  return operation(`rename ${entry.name} to ${to}`, ...puts)
}
