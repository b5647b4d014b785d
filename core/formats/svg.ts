/** One moment of a piece as an SVG picture (SVG 2), drawn from the same scene as the stage. */
import { Program } from '../engine/program.ts'
import type { Piece } from '../piece/schema.ts'
import { hex, paintOf, rgbOf } from '../rig/colour.ts'
import { gradientEnds, extent, gradientOf } from '../rig/gradient.ts'
import { cutOutline, holesIn, outlineOf, pointsOfDot, type Outline } from '../rig/outline/outline.ts'
import { particleOutline } from '../rig/particle.ts'
import { noSizes, sizesOf } from '../rig/sizing.ts'
import { ageOf, hasTail, runsOf, tailOf } from '../rig/tail.ts'
import { layerOf, reachesIn } from '../rig/stage-mesh/mesh-slot.ts'
import type { Body } from '../rig/body.ts'
import { Scene } from '../rig/scene.ts'
import { flattened, inDepth, seen, type Eye } from '../rig/depth/eye.ts'
import { asMatrix, scaleOf, type Matrix } from '../piece/transform.ts'
import { brightness, fromBehind, nearnessOf, sidesOf, waterOf, type DepthPainting } from './svg-depth.ts'
import { momentOfSeconds } from '../time/moment.ts'
import type { Rational } from '../time/rational.ts'

/** Characters of a picture, at most: what comes after is not drawn. */
const LARGEST = 3_000_000

const short = (x: number) => String(Math.round(x * 100) / 100)

function path(points: Float64Array, closed: boolean, m: Matrix, eye: Eye, heights?: Float64Array): string {
  let d = ''
  // In hundredths, each point against the one before: digits that repeat pack well, and whole numbers do not drift.
  let [px, py] = [0, 0]
  for (let i = 0; i < points.length; i += 2) {
    const at = seen(eye, m, points[i]!, points[i + 1]!, heights?.[i / 2] ?? 0)
    const [x, y] = [Math.round(at[0] * 100), Math.round(-at[1] * 100)]
    d += `${i === 0 ? 'M' : 'l'}${(x - px) / 100} ${(y - py) / 100}`
    px = x
    py = y
  }
  return d + (closed ? 'Z' : '')
}

const sizes = noSizes()

/** How a fill is painted: a colour, or a gradient that is defined before it. */
function paintFor(
  { body, i, outline, id, scene, m: at }: Drawn,
  stage: Piece['stage'],
): { readonly defs: string; readonly fill: string } {
  const near = paintOf(body, 'fill', i)
  const m = flattened(scene.eye, at, 0, 0)
  if (reachesIn(body, i) && inDepth(scene.eye)) {
    const [a, b, c] = [0, 1, 2].map(k => [at[3], at[7], at[11]].map((v, r) => v + (k > 0 ? at[4 * r + k - 1]! : 0)))
    const bright = brightness([a, b, c] as never, scene.eye)
    for (const k of ['r', 'g', 'b'] as const) near[k] = Math.min(1, near[k] * bright)
  }
  const g = gradientOf(body, i, near, extent(outline.points), stage, m)
  const ends = g && gradientEnds(g)
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
  readonly scene: Scene
}

function drawn(scene: Scene, body: Body, i: number, pictures: ReadonlyMap<string, string>, longest: number): string {
  const { stage } = scene.program.piece
  const m = body.worlds[i]!
  const id = `g-${body.id}-${i}`
  if (!(body.opacity[i]! > 0) || !Number.isFinite(m[0] + m[3] + m[7])) return ''
  const of = sizesOf(body, i, sizes)
  if (body.part.shape.type !== 'emitter') {
    const outline = outlineOf(body.part.shape, of)
    if (!outline) return ''
    if (body.part.shape.type === 'picture') return pictured(scene, body, i, pictures.get(body.part.shape.asset))
    if (!inDepth(scene.eye)) return one({ scene, body, i, outline, m, id }, stage)
    const layer = layerOf(body, i)
    const { under, over } = sidesOf(scene, body, i, outline)
    // Of joined layers only the first shows its face.
    return under + (layer && !layer.first ? '' : one({ scene, body, i, outline, m, id }, stage)) + over
  }
  const [{ points: places, heights, ages }, half] = [of.laying!, of.size! / 2]
  const outline = particleOutline(body.particle, pointsOfDot(of.size!))
  const [end, fade] = [body.get('particleEnd', i), body.get('particleFade', i)]
  let out = ''
  for (let k = 0; k < places.length && out.length <= longest; k += 2) {
    const age = ages[k / 2]!
    const size = half * (1 + (end - 1) * age)
    const there = asMatrix(
      new Float64Array([size, 0, 0, places[k]!, 0, size, 0, places[k + 1]!, 0, 0, 1, heights[k / 2]!]),
    )
    const dot = one({ scene, body, i, outline, m: there, id: `${id}-${k / 2}` }, stage)
    out += fade > 0 ? `<g opacity="${short(1 - fade * age)}">${dot}</g>` : dot
  }
  return out
}

function one(it: Drawn, stage: Piece['stage']): string {
  const { body, i, outline, m, scene } = it
  const { eye } = scene
  const opacity = Math.min(1, body.opacity[i]!)
  let out = ''
  const { defs, fill: colour } = paintFor(it, stage)
  if (outline.letters) return defs + letters(it, outline.letters, opacity, colour)
  const fill = outline.closed ? body.get('fillAlpha', i) * opacity : 0
  if (fill > 0) {
    const d = [outline.points, ...holesIn(outline)].map(p => path(p, true, m, eye)).join('')
    const more = (outline.more ?? []).map(p => path(p, true, m, eye)).join('')
    out += `${defs}<path d="${d}" fill="${colour}" fill-opacity="${short(fill)}" fill-rule="evenodd"/>`
    if (more) out += `<path d="${more}" fill="${colour}" fill-opacity="${short(fill)}"/>`
  }
  const width = body.get('strokeWidth', i) * scaleOf(flattened(eye, m, 0, 0))
  const stroke = body.get('strokeAlpha', i) * opacity
  if (width > 0 && stroke > 0) {
    const line = cutOutline(outline, body.get('lineStart', i), body.get('lineEnd', i))
    const edge = hex(paintOf(body, 'stroke', i))
    if (hasTail(body) && line.ages) return out + tailed(it, line, width, stroke)
    const lines: Outline[] = [line, ...(outline.drawn?.holes ?? []).map(points => ({ points, closed: true }))]
    const d = lines.map(l => path(l.points, l.closed, m, eye, l.heights)).join('')
    out += `<path d="${d}" fill="none" stroke="${edge}" stroke-width="${short(width)}" stroke-opacity="${short(stroke)}"${ends(body, i, scaleOf(flattened(eye, m, 0, 0)))}/>`
  }
  return out
}

/** Pieces of a line that changes along itself, in a picture. */
const TAIL_PIECES = 40

function tailed({ body, i, m, scene }: Drawn, line: Outline, width: number, solid: number): string {
  const tail = tailOf(body, i)
  const [l, c, h] = ['Lightness', 'Chroma', 'Hue'].map(name => body.get(`stroke${name}`, i)) as [number, number, number]
  // What lets nothing through may reach over the next piece, so that no seam is seen.
  const cap = solid >= 1 && tail.fade === 0 ? ' stroke-linecap="round"' : ''
  return runsOf(line, line.ages!, TAIL_PIECES)
    .map(({ nth, spots }) => {
      const age = ageOf(nth, TAIL_PIECES)
      const d = path(
        new Float64Array(spots.flatMap(([x, y]) => [x, y])),
        false,
        m,
        scene.eye,
        new Float64Array(spots.map(s => s[2])),
      )
      const wide = short(width * Math.max(0, 1 + (tail.width - 1) * age))
      const alpha = short(solid * Math.max(0, 1 - tail.fade * age))
      return `<path d="${d}" fill="none" stroke="${hex(rgbOf(l, c, h + tail.hue * age))}" stroke-width="${wide}" stroke-opacity="${alpha}" stroke-linejoin="round"${cap}/>`
    })
    .join('')
}

/** How a line is dashed and ends. */
function ends({ part: { cap, join }, get }: Body, i: number, scale: number): string {
  const [dash, gap] = [get('dash', i), get('dashGap', i)]
  const bends = join ? ` stroke-linejoin="${join}"` : ''
  const caps = (cap && cap !== 'flat' ? ` stroke-linecap="${cap}"` : '') + bends
  if (!(dash > 0 && gap > 0)) return caps
  const at = (v: number) => short(v * scale)
  return `${caps} stroke-dasharray="${at(dash)} ${at(gap)}" stroke-dashoffset="${at(get('dashOffset', i))}"`
}

/** A picture where it lies; in depth as it looks about its middle. */
function pictured({ eye }: Scene, body: Body, i: number, data: string | undefined): string {
  const m = flattened(eye, body.worlds[i]!, 0, 0)
  const [w, h] = [body.get('width', i), body.get('height', i)]
  const at = [m[0], -m[4], -m[1], m[5], m[3], -m[7]].map(short).join(' ')
  const box = `x="${short(-w / 2)}" y="${short(-h / 2)}" width="${short(w)}" height="${short(h)}" transform="matrix(${at})" opacity="${short(Math.min(1, body.opacity[i]!))}"`
  // What is too large to carry along is shown as its place.
  return data
    ? `<image ${box} preserveAspectRatio="none" href="${data}"/>`
    : `<rect ${box} fill="#b3b3b3" fill-opacity="0.6"/>`
}

/** Letters as one path; their sides are left out. */
function letters(
  { body, i, scene: { eye } }: Drawn,
  { setting, size }: NonNullable<Outline['letters']>,
  opacity: number,
  colour: string,
): string {
  const m = asMatrix(body.worlds[i]!.map((x, k) => (k % 4 === 3 ? x : (x * size) / 1000)))
  const d = setting.areas.flatMap(a => [a.outline, ...a.holes]).map(p => path(p, true, m, eye))
  const width = body.get('strokeWidth', i) * scaleOf(flattened(eye, body.worlds[i]!, 0, 0))
  const edge = width > 0 ? ` stroke="${hex(paintOf(body, 'stroke', i))}" stroke-width="${short(width)}"` : ''
  const fill = `fill="${colour}" fill-opacity="${short(body.get('fillAlpha', i) * opacity)}"`
  return d.length === 0 ? '' : `<path d="${d.join('')}" ${fill} fill-rule="evenodd"${edge}/>`
}

/** The picture of a piece at a moment, in seconds. */
export function stillSvg(piece: Piece, seconds: Rational, pictures: ReadonlyMap<string, string> = new Map()): string {
  const program = new Program(piece)
  const moment = momentOfSeconds(seconds, program.measures.frameRate)
  return sceneSvg(new Scene(program).update(program.moment(moment, new Float64Array(program.size)), moment), pictures)
}

/** A window of the stage, px. */
interface Window {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** How a scene is drawn. */
interface Drawing {
  /** What is seen of the stage; all of it unless said. */
  readonly window?: Window
  /** Whether the stage's background is drawn; it is unless said. */
  readonly ground?: boolean
  /** Characters at most. */
  readonly longest?: number
}

/**
 * The picture of a scene as it stands.
 * @param pictures addresses by hash
 */
export function sceneSvg(
  scene: Scene,
  pictures: ReadonlyMap<string, string>,
  { window, ground = true, longest = LARGEST }: Drawing = {},
): string {
  const { piece, queue } = scene.program
  const { width, height, background } = piece.stage
  const { x, y, width: wide, height: high } = window ?? { x: 0, y: 0, width, height }
  const box = `${x - wide / 2} ${-y - high / 2} ${wide} ${high}`
  const colour = hex(rgbOf(background.lightness, background.chroma, background.hue / 360))
  const under = ground
    ? `<rect x="${-width / 2}" y="${-height / 2}" width="${width}" height="${height}" fill="${colour}"/>`
    : ''
  let bodies = ''
  queue.withinBudget(() => {
    const deep = inDepth(scene.eye)
    const painted: DepthPainting[] = []
    let long = 0
    for (const { body, instance } of scene.paint) {
      if (long > longest) break
      if (scene.only && !scene.only.has(body.id)) continue
      if (deep && body.waves && body.opacity[instance]! > 0) painted.push(...waterOf(scene, body, instance))
      else {
        const svg = drawn(scene, body, instance, pictures, longest)
        long += svg.length
        painted.push({ near: deep ? nearnessOf(scene, body, instance) : 0, svg })
      }
    }
    bodies = fromBehind(painted)
  })
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${box}" width="${width}" height="${height}">${under}${bodies}</svg>`
}
