/**
 * Artwork from SVG as parts of a piece: groups, outlines, fills and lines, named after their ids. What cannot be taken is
 * listed. Nothing of the file is ever run, and nothing that it points to outside itself is fetched.
 */
import { freshId } from '../../acts/ids.ts'
import { nameProblem } from '../../acts/parts.ts'
import { symmetryOf } from '../../piece/symmetry.ts'
import { operation, type Operation, type Put } from '../../piece/operation.ts'
import type { Part, Piece, Shape } from '../../piece/schema.ts'
import { canonical } from '../../units/names.ts'
import { elementPathData, joinFlat, ringsOfPathData, SAME, transformOf, type Flat, type PathRing } from './path-data.ts'
import { gradientsOf, gradientSetValues, wayOf, type SvgGradient, type Way } from './gradients.ts'
import { filledAreas } from './areas.ts'
import { LISTED, plain, SILENT, titled } from './naming.ts'
import { painted } from './painting.ts'
import { lineEnds, PLAIN_STYLE, rulesOf, styleOf, type Style } from './style.ts'
import { treeOf, Unreadable, type SvgElement } from './svg-tree.ts'

export interface ArtworkImport {
  /** The topmost parts that were made. */
  readonly ids: readonly string[]
  readonly op: Operation
  readonly parts: number
  /** What could not be taken, in words, each once. */
  readonly left: readonly string[]
}

/** Parts that one file may become. */
export const MOST_PARTS = 400
/** How far a laid curve may lie off the one in the file, px of the stage. */
const FINE = 0.2
/** Uses within uses. */
const DEEPEST_USE = 6

/** @returns what it becomes, or why it cannot be taken */
export function artworkOf(piece: Piece, text: string, name: string): ArtworkImport | { readonly says: string } {
  try {
    return new Taking(piece, treeOf(text), name).taken()
  } catch (e) {
    if (e instanceof Unreadable) return { says: e.message }
    throw e
  }
}

interface Made {
  readonly id: string
  readonly box: Box
  /** Where its middle stands on the stage; children are told from there. */
  readonly x: number
  readonly y: number
}
interface Box {
  left: number
  right: number
  low: number
  high: number
}

class Taking {
  private readonly puts: Put[] = []
  private parts: Record<string, Part>
  private readonly left = new Set<string>()
  private readonly byId = new Map<string, SvgElement>()
  private readonly rules: ReadonlyMap<string, Record<string, string>>
  private readonly gradients: ReadonlyMap<string, SvgGradient>
  /** Names that were given, and with which number to go on of each. */
  private readonly names = new Set<string>()
  private readonly alike = new Map<string, number>()
  private count = 0
  private order = 1

  constructor(
    private readonly piece: Piece,
    private readonly root: SvgElement,
    private readonly name: string,
  ) {
    this.parts = { ...piece.parts }
    const css: string[] = []
    const index = (e: SvgElement): void => {
      if (e.attributes.id) this.byId.set(e.attributes.id, e)
      if (e.name === 'style') css.push(e.text)
      e.children.forEach(index)
    }
    index(root)
    this.rules = rulesOf(css.join('\n'))
    this.gradients = gradientsOf(this.byId)
  }

  taken(): ArtworkImport {
    const siblings = Object.values(this.piece.parts).filter(p => p.parent === null)
    this.order = Math.max(0, ...siblings.map(p => p.order)) + 1
    const made = this.children(this.root, styleOf(this.root, PLAIN_STYLE, this.rules), this.fitted(), 0)
    if (made.length === 0) {
      const what = this.left.size > 0 ? `: it has only ${[...this.left].slice(0, 3).join(', ')}` : ''
      throw new Unreadable(`Nothing in this file can be imported${what}.`)
    }
    const top = made.length === 1 ? made[0]! : this.group(made, this.name)
    this.stand(top, { x: 0, y: 0 })
    return {
      ids: [top.id],
      op: operation(`import ${this.name}`, ...this.puts),
      parts: this.count,
      left: [...this.left],
    }
  }

  /** From the file's measure to the stage: its view box in the middle, y upwards, smaller where it does not fit. */
  private fitted(): Flat {
    const { attributes } = this.root
    const box = (attributes.viewBox ?? '')
      .trim()
      .split(/[\s,]+/)
      .map(Number)
    const sound = box.length === 4 && box.every(Number.isFinite) && box[2]! > 0 && box[3]! > 0
    const size = (n: string) => Number.parseFloat(attributes[n] ?? '')
    const [x, y, w, h] = sound
      ? (box as [number, number, number, number])
      : ([0, 0, size('width') || 300, size('height') || 150] as const)
    const own = size('width') > 0 && !/%\s*$/.test(attributes.width ?? '') ? size('width') / w : 1
    const { width, height } = this.piece.stage
    const scale = Math.min(own, width / w, height / h)
    return [scale, 0, 0, -scale, -(x + w / 2) * scale, (y + h / 2) * scale]
  }

  private children(e: SvgElement, style: Style, m: Flat, uses: number): Made[] {
    return e.children.flatMap(c => this.one(c, style, m, uses))
  }

  private one(e: SvgElement, around: Style, m: Flat, uses: number): Made[] {
    if (SILENT.has(e.name)) return []
    const says = LISTED[e.name]
    if (says !== undefined) {
      this.left.add(says)
      return []
    }
    const style = styleOf(e, around, this.rules)
    const transform = transformOf(e.attributes.transform)
    if (!transform) this.left.add('a transform that couldn’t be read')
    const at = joinFlat(m, transform ?? SAME)
    for (const name of ['mask', 'filter', 'clip-path'])
      if (e.attributes[name] && e.attributes[name] !== 'none')
        this.left.add(`${name} (its elements are imported without it)`)
    const called = e.attributes['inkscape:label'] ?? e.attributes.id ?? ''
    if (e.name === 'use') return this.used(e, style, at, uses)
    if (e.name === 'g' || e.name === 'svg' || e.name === 'a' || e.name === 'switch') {
      const made = this.children(e, style, at, uses)
      if (made.length === 0) return []
      // A group of one thing that has no name of its own is that thing.
      return made.length === 1 && called === '' ? made : [this.group(made, called || 'Group')]
    }
    const data = elementPathData(e)
    if (data === null) {
      if (!/^[a-z]+:/.test(e.name)) this.left.add(`${e.name} elements`)
      return []
    }
    const rings = ringsOfPathData(data, at, FINE)
    if (!rings) {
      this.left.add('an outline that couldn’t be read, or has more than 20,000 points')
      return []
    }
    return this.outline(rings, style, at, called || titled(e.name))
  }

  private used(e: SvgElement, style: Style, m: Flat, uses: number): Made[] {
    const href = e.attributes.href ?? e.attributes['xlink:href'] ?? ''
    const target = href.startsWith('#') ? this.byId.get(href.slice(1)) : undefined
    if (!target) {
      this.left.add(href.startsWith('#') ? 'a use element without a target' : 'references to other files')
      return []
    }
    if (uses >= DEEPEST_USE) {
      this.left.add('use elements that refer to themselves')
      return []
    }
    const [x, y] = [Number.parseFloat(e.attributes.x ?? '0') || 0, Number.parseFloat(e.attributes.y ?? '0') || 0]
    const at = joinFlat(m, [1, 0, 0, 1, x, y])
    const inner = target.name === 'symbol' ? { ...target, name: 'g' } : target
    return this.one(inner, style, at, uses + 1)
  }

  private outline(rings: readonly PathRing[], style: Style, m: Flat, name: string): Made[] {
    const { values } = style
    if (style.opacity === 0 || values.visibility === 'hidden') return []
    const { hand, gradient, filled, width, left } = painted(values, style.opacity, m, this.gradients)
    for (const what of left) this.left.add(what)
    if (!filled && !(width > 0)) return []
    // What is only filled is an area also where its outline was left open.
    const rule = values['fill-rule'] === 'evenodd' ? 'evenodd' : 'nonzero'
    const { areas, lines, whole, wild } = filledAreas(rings, filled, width > 0, rule)
    if (wild) this.left.add('an outline that crosses itself too often (its fill may differ)')
    const ends = width > 0 ? lineEnds(values) : {}
    const all = rings.flatMap(r => r.points)
    const way = gradient && wayOf(gradient, all, m)
    const clear = (what: string) => [...hand.filter(([property]) => property !== what), [what, 0] as [string, number]]
    const made = [
      ...areas.map(a => this.path(a.rings, a.closed, whole ? hand : clear('strokeWidth'), name, ends, way)),
      ...(width > 0 ? lines.map(l => this.path(l.rings, l.closed, whole ? hand : clear('fillAlpha'), name, ends)) : []),
    ]
    return made.length > 1 ? [this.group(made, name)] : made
  }

  private path(
    rings: readonly (readonly (readonly [number, number])[])[],
    closed: boolean,
    hand: readonly (readonly [string, number])[],
    name: string,
    ends: Pick<Part, 'cap' | 'join'>,
    way: Way | null = null,
  ): Made {
    const box = boxOf(rings[0]!)
    const [x, y] = [(box.left + box.right) / 2, (box.low + box.high) / 2]
    const short = (v: number) => Number(v.toFixed(2)) || 0
    const pose = rings.map(r => r.map(([px, py]) => ({ x: short(px - x), y: short(py - y), smooth: false })))
    const id = this.part({ type: 'path', closed, poses: [pose] }, name, ends)
    const along = way ? gradientSetValues(way, [x, y], [box.right - box.left, box.high - box.low]) : []
    for (const [property, value] of [...hand, ...along]) this.base(id, property, value)
    return { id, box, x, y }
  }

  /** Holds what was made, at the middle of it, so that it turns about that. */
  private group(made: readonly Made[], name: string): Made {
    const box = made
      .map(x => x.box)
      .reduce((a, b) => ({
        left: Math.min(a.left, b.left),
        right: Math.max(a.right, b.right),
        low: Math.min(a.low, b.low),
        high: Math.max(a.high, b.high),
      }))
    const id = this.part({ type: 'group' }, name)
    const it = { id, box, x: (box.left + box.right) / 2, y: (box.low + box.high) / 2 }
    for (const child of made) {
      this.parts[child.id] = { ...this.parts[child.id]!, parent: id }
      this.puts.push({ in: 'parts', id: child.id, value: this.parts[child.id]! })
      this.stand(child, it)
    }
    return it
  }

  private stand(it: Made, from: { x: number; y: number }): void {
    this.base(it.id, 'x', Number((it.x - from.x).toFixed(2)) || 0)
    this.base(it.id, 'y', Number((it.y - from.y).toFixed(2)) || 0)
  }

  private base(id: string, property: string, value: number): void {
    this.puts.push({ in: 'bases', id: `${id}.${property}`, value: { value } })
  }

  /** A name that nothing has, counted on where many are called alike. */
  private free(wish: string): string {
    for (let n = this.alike.get(wish) ?? 1; ; n++) {
      const name = n === 1 ? wish : `${wish}${n}`
      if (this.names.has(canonical(name)) || nameProblem(this.piece, name)) continue
      this.alike.set(wish, n + 1)
      this.names.add(canonical(name))
      return name
    }
  }

  private part(shape: Shape, name: string, more: Partial<Part> = {}): string {
    if (++this.count > MOST_PARTS)
      throw new Unreadable(
        `It would make more than ${MOST_PARTS} parts. Join outlines in the file, or split it into several files.`,
      )
    const id = freshId(this.parts, 'p')
    const called = this.free(plain(name))
    const part: Part = {
      name: called,
      parent: null,
      order: this.order++,
      shape,
      pivot: { x: 0, y: 0 },
      symmetry: symmetryOf(shape),
      copies: null,
      ...more,
      span: null,
    }
    this.parts[id] = part
    this.puts.push({ in: 'parts', id, value: part })
    return id
  }
}

function boxOf(points: readonly (readonly [number, number])[]): Box {
  const [xs, ys] = [points.map(p => p[0]), points.map(p => p[1])]
  return { left: Math.min(...xs), right: Math.max(...xs), low: Math.min(...ys), high: Math.max(...ys) }
}
