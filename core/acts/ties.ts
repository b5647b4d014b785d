/**
 * Ties: one value with two faces, b = a × ratio + offset, moving either moves the other. Ties form a forest, and of
 * all that hang together at most one is driven; the others follow it. Where none is driven, what is set on one is
 * set on all.
 */
import { drivenPart, drivenProperty, splitDriveKey } from '../piece/drive-key.ts'
import { driveLabel } from '../formula/labels.ts'
import { propertyNamed, initialOf } from '../piece/properties.ts'
import { operation, type Operation, type Put } from '../piece/operation.ts'
import { freshId } from './ids.ts'
import type { Piece, Tie } from '../piece/schema.ts'

/** How a tied property follows another: its value is that one's × ratio + offset (in display units). */
export interface Following {
  readonly of: string
  readonly ratio: number
  readonly offset: number
}

/** Every property tied to one, with how it follows its neighbour towards it; the property itself comes first, following none. */
export function tiedTo(piece: Piece, key: string): Map<string, Following | null> {
  const found = new Map<string, Following | null>([[key, null]])
  const open = [key]
  for (let at = open.shift(); at !== undefined; at = open.shift()) {
    for (const tie of Object.values(piece.ties)) {
      const next = tie.a === at ? tie.b : tie.b === at ? tie.a : null
      if (next === null || found.has(next)) continue
      const there =
        tie.a === at
          ? { ratio: tie.ratio, offset: tie.offset }
          : { ratio: 1 / tie.ratio, offset: -tie.offset / tie.ratio }
      found.set(next, { of: at, ...there })
      open.push(next)
    }
  }
  return found
}

/** The formulas by which tied properties follow the driven one of their group, by key. */
export function followingFormulas(piece: Piece): Map<string, string> {
  const texts = new Map<string, string>()
  if (Object.keys(piece.ties).length === 0) return texts
  for (const key of Object.keys(piece.drives)) {
    for (const [other, f] of tiedTo(piece, key)) {
      if (!f || piece.drives[other]) continue
      if (!piece.parts[drivenPart(other)] || !piece.parts[drivenPart(f.of)]) continue
      const unit = propertyNamed(drivenProperty(other))?.unit ?? ''
      const offset = f.offset === 0 ? '' : ` ${f.offset < 0 ? '-' : '+'} ${decimal(Math.abs(f.offset))}${unit}`
      texts.set(other, `${driveLabel(piece, f.of)} * ${decimal(f.ratio)}${offset}`)
    }
  }
  return texts
}

const decimal = (x: number): string => String(Number(x.toFixed(12)))

/** Why two properties cannot be tied, in one sentence; null when they can. */
export function tieProblem(piece: Piece, a: string, b: string, ratio: number): string | null {
  const kind = (key: string) => propertyNamed(drivenProperty(key))?.kind
  if (a === b) return 'A property can’t be linked to itself.'
  if (!Number.isFinite(ratio) || ratio === 0) return 'The ratio of a two-way link can’t be 0.'
  if (JSON.stringify(kind(a)) !== JSON.stringify(kind(b)))
    return `${driveLabel(piece, a)} and ${driveLabel(piece, b)} have different units. Link them with a formula instead.`
  const [x, y] = [tiedTo(piece, a), tiedTo(piece, b)]
  if (x.has(b)) return `${driveLabel(piece, a)} and ${driveLabel(piece, b)} are already linked through others.`
  const driven = [...x.keys(), ...y.keys()].filter(k => piece.drives[k])
  return driven.length > 1
    ? `${driven.map(k => driveLabel(piece, k)).join(' and ')} both have a formula; only one side of a two-way link may. Remove one first.`
    : null
}

/** Ties b to a: b = a × ratio + offset, in display units. */
export function addTie(piece: Piece, tie: Tie): Operation {
  const id = freshId(piece.ties, 't')
  const says = `link ${driveLabel(piece, tie.b)} to ${driveLabel(piece, tie.a)}`
  return operation(
    says,
    { in: 'ties', id, value: tie },
    ...tiedSetValues({ ...piece, ties: { ...piece.ties, [id]: tie } }, tie.a, handValue(piece, tie.a)),
  )
}

/** Changes the ratio or offset of a tie; b's set value is updated from a's in the same step. */
export function setTie(piece: Piece, id: string, tie: Tie): Operation {
  const next = { ...piece, ties: { ...piece.ties, [id]: tie } }
  const follows = tiedSetValues(next, tie.a, handValue(piece, tie.a))
  return operation('change a two-way link', { in: 'ties', id, value: tie }, ...follows)
}

const handValue = (piece: Piece, key: string): number => {
  const [part, name] = splitDriveKey(key)
  return piece.bases[key]?.value ?? initialOf(propertyNamed(name)!, piece.parts[part]!.shape.type)
}

/** The set values that follow when one of a tied group is set; what has a formula keeps its own. */
export function tiedSetValues(piece: Piece, key: string, value: number): Put[] {
  const values = new Map([[key, value]])
  const puts: Put[] = []
  for (const [other, f] of tiedTo(piece, key)) {
    if (!f) continue
    const next = values.get(f.of)! * f.ratio + f.offset
    values.set(other, next)
    if (piece.drives[other]) continue
    puts.push({ in: 'bases', id: other, value: { ...piece.bases[other], value: Number(next.toFixed(12)) } })
  }
  return puts
}
