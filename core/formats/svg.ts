/** One moment of a piece as an SVG picture (SVG 2), drawn from the same scene as the stage. */
import { Program } from '../engine/program.ts'
import { limited } from '../form/working.ts'
import type { Piece } from '../piece/schema.ts'
import { hex, paintOf, rgbOf } from '../rig/colour.ts'
import { endsOf, extent, gradientOf } from '../rig/gradient.ts'
import { cutOutline, dotOf, outlineOf, type Outline } from '../rig/outline.ts'
import { noSizes, sizesOf } from '../rig/sizing.ts'
import type { Body } from '../rig/body.ts'
import { Scene } from '../rig/scene.ts'
import { applyX, applyY, scaleOf, type Matrix } from '../piece/transform.ts'
import { momentOfSeconds } from '../time/moment.ts'
import type { Rational } from '../time/rational.ts'

/** Characters of a picture, at most: what comes after is not drawn. */
const LARGEST = 3_000_000

const short = (x: number) => String(Math.round(x * 100) / 100)

function path(points: Float64Array, closed: boolean, m: Matrix): string {
  let d = ''
  for (let i = 0; i < points.length; i += 2) {
    d += `${i === 0 ? 'M' : 'L'}${short(applyX(m, points[i]!, points[i + 1]!))} ${short(-applyY(m, points[i]!, points[i + 1]!))}`
  }
  return d + (closed ? 'Z' : '')
}

const sizes = noSizes()

/** How a fill is painted: a colour, or a gradient that is defined before it. */
function paintFor(
  { body, i, outline, m, id }: Drawn,
  stage: Piece['stage'],
): { readonly defs: string; readonly fill: string } {
  const near = paintOf(body, 'fill', i)
  const g = gradientOf(body, i, near, extent(outline.points), stage, m)
  const ends = g && endsOf(g)
  if (!g || !ends) return { defs: '', fill: hex(near) }
  const [x1, y1, x2, y2] = ends
  const from = `<stop offset="0" stop-color="${hex(near)}"/>`
  const to = `<stop offset="1" stop-color="${hex(g.far)}" stop-opacity="${short(g.alpha)}"/>`
  const line = `x1="${short(x1)}" y1="${short(-y1)}" x2="${short(x2)}" y2="${short(-y2)}"`
  const defs = `<linearGradient id="${id}" gradientUnits="userSpaceOnUse" ${line}>${from}${to}</linearGradient>`
  return { defs, fill: `url(#${id})` }
}

/** An outline of an instance, where it stands and by which name its gradient goes. */
interface Drawn {
  readonly body: Body
  readonly i: number
  readonly outline: Outline
  readonly m: Matrix
  readonly id: string
}

function drawn(body: Body, i: number, stage: Piece['stage']): string {
  const m = body.worlds[i]!
  const id = `g-${body.id}-${i}`
  if (!(body.opacity[i]! > 0) || !Number.isFinite(m[0]! + m[3]! + m[7]!)) return ''
  const of = sizesOf(body, i, sizes)
  if (body.part.shape.type !== 'emitter') {
    const outline = outlineOf(body.part.shape, of)
    return outline ? one({ body, i, outline, m, id }, stage) : ''
  }
  const [places, outline] = [of.laid!, dotOf(of.size!)]
  let out = ''
  for (let k = 0; k < places.length && out.length <= LARGEST; k += 2) {
    const there = new Float64Array([1, 0, 0, places[k]!, 0, 1, 0, places[k + 1]!, 0, 0, 1, 0])
    out += one({ body, i, outline, m: there, id: `${id}-${k / 2}` }, stage)
  }
  return out
}

function one(it: Drawn, stage: Piece['stage']): string {
  const { body, i, outline, m } = it
  const opacity = Math.min(1, body.opacity[i]!)
  let out = ''
  const { defs, fill: colour } = paintFor(it, stage)
  if (outline.letters) return defs + letters(body, i, outline.letters, opacity, colour)
  const fill = outline.closed ? body.get('fillAlpha', i) * opacity : 0
  if (fill > 0) {
    const holes = outline.drawn?.holes ?? (outline.hole ? [outline.hole] : [])
    const d = [outline.points, ...holes].map(p => path(p, true, m)).join('')
    const more = (outline.more ?? []).map(p => path(p, true, m)).join('')
    out += `${defs}<path d="${d}" fill="${colour}" fill-opacity="${short(fill)}" fill-rule="evenodd"/>`
    if (more) out += `<path d="${more}" fill="${colour}" fill-opacity="${short(fill)}"/>`
  }
  const width = body.get('strokeWidth', i) * scaleOf(m)
  const stroke = body.get('strokeAlpha', i) * opacity
  if (width > 0 && stroke > 0) {
    const line = cutOutline(outline, body.get('lineStart', i), body.get('lineEnd', i))
    const edge = hex(paintOf(body, 'stroke', i))
    const lines = [line, ...(outline.drawn?.holes ?? []).map(points => ({ points, closed: true }))]
    const d = lines.map(l => path(l.points, l.closed, m)).join('')
    out += `<path d="${d}" fill="none" stroke="${edge}" stroke-width="${short(width)}" stroke-opacity="${short(stroke)}"/>`
  }
  return out
}

/** Letters as one path; their sides are left out. */
function letters(
  body: Body,
  i: number,
  { setting, size }: NonNullable<Outline['letters']>,
  opacity: number,
  colour: string,
): string {
  const m = body.worlds[i]!.map((x, k) => (k % 4 === 3 ? x : (x * size) / 1000))
  const d = setting.areas.flatMap(a => [a.outline, ...a.holes]).map(p => path(p, true, m))
  const width = body.get('strokeWidth', i) * scaleOf(body.worlds[i]!)
  const edge = width > 0 ? ` stroke="${hex(paintOf(body, 'stroke', i))}" stroke-width="${short(width)}"` : ''
  const fill = `fill="${colour}" fill-opacity="${short(body.get('fillAlpha', i) * opacity)}"`
  return d.length === 0 ? '' : `<path d="${d.join('')}" ${fill} fill-rule="evenodd"${edge}/>`
}

/** The picture of a piece at a moment, in seconds. */
export function stillSvg(piece: Piece, seconds: Rational): string {
  const program = new Program(piece)
  const moment = momentOfSeconds(seconds, program.measures.frameRate)
  const scene = new Scene(program).update(program.moment(moment, new Float64Array(program.size)), moment)
  const { width, height, background } = piece.stage
  const box = `${-width / 2} ${-height / 2} ${width} ${height}`
  const ground = hex(rgbOf(background.lightness, background.chroma, background.hue / 360))
  let bodies = ''
  limited(() => {
    for (const { body, instance } of scene.paint)
      if (bodies.length <= LARGEST) bodies += drawn(body, instance, piece.stage)
  })
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${box}" width="${width}" height="${height}"><rect x="${-width / 2}" y="${-height / 2}" width="${width}" height="${height}" fill="${ground}"/>${bodies}</svg>`
}
