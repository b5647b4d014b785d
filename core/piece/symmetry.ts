/**
 * How many times a part looks the same in a whole turn about its pivot: derived from its outline, pivot, size, fill,
 * line and children, unless a number was typed. What is not known to look the same is taken to look different.
 */
import { initialOf, propertyNamed } from './properties.ts'
import type { Part, Piece, Shape } from './schema.ts'

export interface Symmetry {
  readonly turns: number
  /** Why it is less than its outline alone has, in a few words; '' when it is not, or was typed. */
  readonly because: string
  readonly typed: boolean
}

const common = (a: number, b: number): number => (b === 0 ? a : common(b, a % b))

/** How many times an outline of any size falls on itself in a turn about its middle. */
export function symmetryOf(shape: Shape): number {
  if (shape.type === 'gear') return shape.spokes === 0 ? shape.teeth : common(shape.teeth, shape.spokes)
  if (shape.type === 'polygon') return shape.sides
  if (shape.type === 'star') return shape.points
  return shape.type === 'rectangle' || shape.type === 'line' || shape.type === 'ellipse' ? 2 : 1
}

/** Whether the number in the document was typed. Before that was kept, one that differs from its outline's was. */
const isTyped = (part: Part): boolean =>
  part.symmetryTyped === true || (part.symmetry !== symmetryOf(part.shape) && !isOld(part))
/** Ellipses were taken for 1 before 0.13. */
const isOld = ({ shape, symmetry }: Part): boolean => shape.type === 'ellipse' && symmetry === 1

const parents = new WeakMap<Piece['parts'], ReadonlySet<string>>()
/** The parts with visible children. Kept by the parts object, which a drag leaves as it is. */
function parentsIn(parts: Piece['parts']): ReadonlySet<string> {
  let found = parents.get(parts)
  if (!found) {
    found = new Set(Object.values(parts).flatMap(p => (p.parent === null || p.hidden ? [] : [p.parent])))
    parents.set(parts, found)
  }
  return found
}

export function symmetryIn(piece: Piece, id: string): Symmetry {
  const part = piece.parts[id]!
  if (isTyped(part)) return { turns: part.symmetry, because: '', typed: true }
  const outline = symmetryOf(part.shape)
  const derived = (turns: number, because: string): Symmetry => ({ turns, because, typed: false })
  if (outline === 1) return derived(1, '')
  /** What a property holds where it is one number for ever and all copies; null else. */
  const held = (name: string): number | null => {
    const key = `${id}.${name}`
    const property = propertyNamed(name)!
    const drive = piece.drives[key]
    const base = piece.bases[key]
    if ((drive && !drive.off) || base?.keys || base?.copies) return null
    if (Object.values(piece.ties).some(t => t.a === key || t.b === key)) return null
    return base?.value ?? initialOf(property, part.shape.type)
  }
  if (part.pivot.x !== 0 || part.pivot.y !== 0) return derived(1, 'the pivot isn’t in the middle')
  const { type } = part.shape
  if (type !== 'line' && held('gradient') !== 0 && part.gradientFrame !== 'stage')
    return derived(1, 'the gradient turns with it')
  if (held('lineStart') !== 0 || held('lineEnd') !== 100) return derived(1, 'the line doesn’t go all the way round')
  if (held('dash') !== 0) return derived(1, 'the line is dashed')
  if (parentsIn(piece.parts).has(id)) return derived(1, 'it has children')
  if (held('scaleX') === null || held('scaleX') !== held('scaleY'))
    return derived(common(outline, 2), outline === common(outline, 2) ? '' : 'it is scaled unevenly')
  if (type === 'rectangle' || type === 'ellipse') {
    const [width, height] = [held('width'), held('height')]
    return derived(type === 'rectangle' && width !== null && width === height ? 4 : 2, '')
  }
  return derived(outline, '')
}
