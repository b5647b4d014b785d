/** What moves as elements of a drawing: what each is, and what of it changes over a lap, whoever prints it. */
import { matrix } from '../../piece/transform.ts'
import { hex, paintOf, rgbOf } from '../../rig/colour.ts'
import { gradientEnds, extent, gradientOf } from '../../rig/gradient.ts'
import { outlineAt } from '../../rig/outlined.ts'
import { atanTurns } from '../../signal/maths.ts'
import type { Piece } from '../../piece/schema.ts'
import { ringsPathData, flat, short } from './ring-paths.ts'
import type { Moving } from './sampling.ts'
import type { Track } from './thin-track.ts'
import type { DrawnUnit } from './drawn-units.ts'

/** One thing that changes: an attribute, or a kind of transformation, in this order. */
export interface ElementChange {
  readonly of: 'translate' | 'rotate' | 'scale' | 'skewX' | Attribute
  /** Times as shares of the whole; one alone stands still. */
  readonly at: readonly number[]
  readonly values: readonly string[]
  /** Each value holds until the next. */
  readonly stepped: boolean
}
export type Attribute = 'd' | 'opacity' | 'fill' | 'stroke' | 'stroke-width' | 'stroke-dashoffset' | 'stroke-dasharray'
export const MOVES = ['translate', 'rotate', 'scale', 'skewX'] as const

export interface MovingElement {
  readonly tag: 'path' | 'image'
  readonly id: string
  readonly attributes: Readonly<Record<string, string>>
  readonly changes: readonly ElementChange[]
  /** What must be defined before it. */
  readonly defs: string
}

const change = (
  of: ElementChange['of'],
  { at, rows }: Track,
  print: (row: readonly number[]) => string,
  stepped = false,
): ElementChange => ({ of, at, values: rows.map(print), stepped })

const IDENTITY = matrix()
/** A fill that runs, as it lies in what is laid; empty where there is none. */
function gradient(unit: DrawnUnit, stage: Piece['stage'], id: string): string {
  const { body, i } = unit
  const outline = outlineAt(body, i)
  if (!outline || unit.what !== 'fill') return ''
  const near = paintOf(body, 'fill', i)
  // What is laid on the stage point by point has its gradient there too.
  const own = unit.mode === 'posed' ? IDENTITY : body.worlds[i]!
  const g = gradientOf(body, i, near, extent(outline.points), stage, own)
  const ends = g && gradientEnds(g)
  if (!g || !ends) return ''
  // What is laid is as much smaller as its outline is.
  const [w, h] = extent(outline.points)
  const [lw, lh] = extent(new Float64Array(flat(unit.rings)))
  const [kx, ky] = unit.mode === 'posed' && w > 0 && h > 0 ? [lw / w, lh / h] : [1, 1]
  const [x1, y1, x2, y2] = ends
  const stops = `<stop offset="0" stop-color="${hex(near)}"/><stop offset="1" stop-color="${hex(g.far)}" stop-opacity="${short(g.alpha, 3)}"/>`
  const line = [x1, -y1, x2, -y2].map(v => short(v, 4))
  return `<linearGradient id="${id}" gradientUnits="userSpaceOnUse" x1="${line[0]}" y1="${line[1]}" x2="${line[2]}" y2="${line[3]}" gradientTransform="scale(${short(kx, 6)} ${short(ky, 6)})">${stops}</linearGradient>`
}

/** @param pictures data addresses by hash */
export function elementOf(
  moving: Moving,
  stage: Piece['stage'],
  pictures: ReadonlyMap<string, string>,
  k: number,
): MovingElement | null {
  const { unit, points } = moving
  const id = `m${k}`
  const posed = unit.mode === 'posed'
  const changes: ElementChange[] = []
  if (posed) {
    const decimals = unit.reach < 20 ? 5 : 4
    changes.push(
      change('translate', moving.move, r => `${short(r[0]!, 3)} ${short(r[1]!, 3)}`),
      change('rotate', moving.turn, r => short(r[0]! * 360, 4)),
      change('scale', moving.stretch, r => `${short(r[0]!, decimals)} ${short(r[1]!, decimals)}`),
      change('skewX', moving.slant, r => short(atanTurns(r[0]!, 1) * 360, 4)),
    )
  } else {
    const stepped = unit.mode === 'stepped'
    const rings = stepped ? moving.forms : []
    changes.push({
      of: 'd',
      at: points.at,
      values: points.rows.map((row, n) => ringsPathData(stepped ? rings[n]! : moving.forms[0]!, row, 2)),
      stepped,
    })
  }
  changes.push(change('opacity', moving.solid, r => short(r[0]!, 4)))
  if (unit.what === 'picture') {
    const { shape } = unit.body.part
    const data = shape.type === 'picture' ? pictures.get(shape.asset) : undefined
    if (data === undefined) return null
    const attributes = { x: '-0.5', y: '-0.5', width: '1', height: '1', preserveAspectRatio: 'none', href: data }
    return { tag: 'image', id, attributes, changes, defs: '' }
  }
  const attributes: Record<string, string> = {}
  if (posed) attributes.d = ringsPathData(unit.rings, flat(unit.rings), unit.reach < 20 ? 5 : 2)
  const colour = (r: readonly number[]) => hex({ r: r[0]!, g: r[1]!, b: r[2]! })
  if (unit.what === 'line') {
    attributes.fill = 'none'
    changes.push(
      change('stroke', moving.colour, colour),
      change('stroke-width', moving.width, r => short(r[0]!, 4)),
    )
    dashes(moving, attributes, changes)
    return { tag: 'path', id, attributes, changes, defs: '' }
  }
  if (unit.what === 'fill') attributes['fill-rule'] = 'evenodd'
  const defs = gradient(unit, stage, `g${k}`)
  if (defs) attributes.fill = `url(#g${k})`
  else changes.push(change('fill', moving.colour, colour))
  return { tag: 'path', id, attributes, changes, defs }
}

/** A line that is dashed, capped, or drawn from a share of its way to another. */
function dashes({ unit, dash, cut }: Moving, attributes: Record<string, string>, changes: ElementChange[]): void {
  const { cap, join } = unit.body.part
  if (join) attributes['stroke-linejoin'] = join
  if (cap && cap !== 'flat') attributes['stroke-linecap'] = cap
  if (unit.mode !== 'posed') return
  if (unit.cut) {
    attributes.pathLength = '1'
    changes.push(
      change('stroke-dasharray', cut, r => `${short(r[1]! - r[0]!, 5)} 4`),
      change('stroke-dashoffset', cut, r => short(-r[0]!, 5)),
    )
    return
  }
  if (!unit.dashes) return
  attributes['stroke-dasharray'] = unit.dashes.map(v => short(v, 4)).join(' ')
  changes.push(change('stroke-dashoffset', dash, r => short(r[0]!, 4)))
}

/** The ground of a stage. */
export const backgroundOf = ({ background: { lightness, chroma, hue } }: Piece['stage']): string =>
  hex(rgbOf(lightness, chroma, hue / 360))
