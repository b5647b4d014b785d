/**
 * The table of instances: for each row where it stands and how it is painted, filled anew every frame into one list that
 * is kept. Six times four numbers a row:
 *
 *   0  m₀ m₁ m₃, how solid its fill is          3  red, green, blue of the line, whether its fill is graded:
 *                                                          on the stage (1), on the part (2)
 *   1  m₄ m₅ m₇, how solid its line is          4  the colour the fill goes over to, how solid that is against it
 *   2  red, green, blue, half the line's width  5  x, y and base of the gradient
 */
import { putRgb, rgbOf } from '../colour.ts'
import type { PropertyColumn } from '../property-column.ts'
import type { LaidOutline } from './laid-outline.ts'
import { gradientOf } from '../gradient.ts'
import type { Body } from '../body.ts'
import type { Scene } from '../scene.ts'
import { sizingOf, type Sizing } from '../sizing.ts'
import { ageOf, hasTail, tailOf } from '../tail.ts'
import { inDepth, toEye, type Eye } from '../depth/eye.ts'
import { matrix, scaleOf, sizeOf, type Matrix } from '../../piece/transform.ts'
import type { Laying } from '../outline/points-laid.ts'

const ONSTAGE = matrix()

export const PER_ROW = 24
/** The card takes rows in lines of so many. */
export const ROWS_ACROSS = 128
const SIDE = 0.62

/** What a body's rows are made of, looked up once. */
export interface Paints {
  /** For which of the settings of its body. */
  readonly settings: number
  readonly strokeWidth: PropertyColumn
  readonly fillAlpha: PropertyColumn
  readonly strokeAlpha: PropertyColumn
  readonly lineStart: PropertyColumn
  readonly lineEnd: PropertyColumn
  readonly thickness: PropertyColumn
  readonly taper: PropertyColumn
  readonly particleEnd: PropertyColumn
  readonly particleFade: PropertyColumn
  readonly gradient: PropertyColumn
  /** Whether any instance may ever have a line, or a graded fill. */
  readonly lines: boolean
  readonly grades: boolean
  /** Whether the line of any instance may change along itself. */
  readonly tails: boolean
  readonly sizing: Sizing
  readonly fill: Colour
  readonly stroke: Colour
}

/** A colour that is worked out again only when what it is made of has changed: three numbers an instance. */
interface Colour {
  readonly lightness: PropertyColumn
  readonly chroma: PropertyColumn
  readonly hue: PropertyColumn
  readonly last: Float64Array
  readonly rgb: Float64Array
}

const kept = new WeakMap<Body, Paints>()

export function paintsOf(body: Body): Paints {
  const known = kept.get(body)
  if (known?.settings === body.settings) return known
  const { column, driven, count } = body
  const colour = (name: 'fill' | 'stroke'): Colour => ({
    lightness: column(`${name}Lightness`),
    chroma: column(`${name}Chroma`),
    hue: column(`${name}Hue`),
    last: new Float64Array(count * 3).fill(NaN),
    rgb: new Float64Array(count * 3),
  })
  const ever = (name: string): boolean =>
    driven.has(name) || Array.from({ length: count }, (_, i) => column(name).at(i)).some(v => v > 0)
  const made: Paints = {
    settings: body.settings,
    strokeWidth: column('strokeWidth'),
    fillAlpha: column('fillAlpha'),
    strokeAlpha: column('strokeAlpha'),
    lineStart: column('lineStart'),
    lineEnd: column('lineEnd'),
    thickness: column('thickness'),
    taper: column('taper'),
    particleEnd: column('particleEnd'),
    particleFade: column('particleFade'),
    gradient: column('gradient'),
    lines: ever('strokeWidth'),
    grades: ever('gradient'),
    tails: hasTail(body),
    sizing: sizingOf(body),
    fill: colour('fill'),
    stroke: colour('stroke'),
  }
  kept.set(body, made)
  return made
}

/** Writes the colour of an instance into a row, so light. */
function colour(data: Float32Array, to: number, { lightness, chroma, hue, last, rgb }: Colour, i: number, light = 1) {
  const l = lightness.at(i)
  const c = chroma.at(i)
  const h = hue.at(i)
  const at = 3 * i
  if (l !== last[at] || c !== last[at + 1] || h !== last[at + 2]) {
    last[at] = l
    last[at + 1] = c
    last[at + 2] = h
    putRgb(rgb, at, l, c, h)
  }
  data[to] = rgb[at]! * light
  data[to + 1] = rgb[at + 1]! * light
  data[to + 2] = rgb[at + 2]! * light
}

export class InstanceTable {
  data = new Float32Array(PER_ROW * ROWS_ACROSS)
  count = 0
  /** Where the instance that was last put stands, in eye space. */
  at: Matrix = matrix()
  /** How wide the line of that instance is, px, and how solid, before it is held to what can be seen. */
  private width = 0
  private stroke = 0
  private readonly seat = matrix()

  /** Room for so many rows. */
  hold(count: number): void {
    this.count = count
    const lines = Math.ceil(count / ROWS_ACROSS)
    if (this.data.length < lines * ROWS_ACROSS * PER_ROW) this.data = new Float32Array(lines * ROWS_ACROSS * PER_ROW)
  }

  /** Rows that show nothing. */
  clear(from: number, to: number): void {
    for (let row = from; row < to; row++) {
      this.data[row * PER_ROW + 3] = 0
      this.data[row * PER_ROW + 7] = 0
    }
  }

  /** How solid what a row shows is: the more solid of its fill and its line. */
  solidity(row: number): number {
    const at = row * PER_ROW
    return Math.max(this.data[at + 3]!, this.data[at + 7]!)
  }

  /** Where the instance of a row stands, and how its outline is stretched. */
  stand(m: Matrix, sx: number, sy: number, row: number): void {
    const { data } = this
    const at = row * PER_ROW
    data[at] = m[0] * sx
    data[at + 1] = m[1] * sy
    data[at + 2] = m[3]
    data[at + 4] = m[4] * sx
    data[at + 5] = m[5] * sy
    data[at + 6] = m[7]
  }

  /**
   * What one row shows, at many places of the stage: in the rows up to it, the first place first.
   *
   * @param end how large each is at the end of its life, against its beginning
   * @param fade how far it has faded by then, 0 to 1
   */
  scatter(body: Body, from: number, row: number, laying: Laying, end: number, fade: number, eye: Eye): void {
    const { data } = this
    const { points, ages, heights } = laying
    const [like, count] = [row * PER_ROW, points.length / 2]
    const [gx, gy, base] = [data[like + 20]!, data[like + 21]!, data[like + 22]!]
    const rides = data[like + 15] === 1 && body.part.gradientFrame !== 'stage'
    const [wide, high, solid] = [data[like]!, data[like + 5]!, data[like + 3]!]
    const { turned } = eye
    this.repeat(row, from, Math.min(row, from + count))
    this.clear(from + count, row + 1)
    for (let k = 0; k < count; k++) {
      const at = (from + k) * PER_ROW
      let [x, y] = [points[2 * k]!, points[2 * k + 1]!]
      if (turned) {
        const z = heights[k]!
        ;[x, y] = [turned[0] * x + turned[1] * y + turned[2] * z, turned[4] * x + turned[5] * y + turned[6] * z]
      }
      data[at + 2] = x
      data[at + 6] = y
      const size = 1 + (end - 1) * ages[k]!
      data[at] = wide * size
      data[at + 5] = high * size
      data[at + 3] = solid * (1 - fade * ages[k]!)
      if (rides) data[at + 22] = base - gx * x - gy * y
    }
  }

  /** Copies a row to those from `from` up to `to`: in runs, each as long as all before it. */
  private repeat(row: number, from: number, to: number): void {
    if (to <= from) return
    const [begin, end] = [from * PER_ROW, to * PER_ROW]
    this.data.copyWithin(begin, row * PER_ROW, (row + 1) * PER_ROW)
    for (let done = begin + PER_ROW; done < end; done += done - begin)
      this.data.copyWithin(done, begin, Math.min(done, begin + end - done))
  }

  /** What the front row of a trace shows, in pieces from its old end to now: the rows up to it. */
  taper(body: Body, i: number, paints: Paints, from: number, front: number, pixel: number): void {
    const { data } = this
    const { width, fade, hue } = tailOf(body, i)
    const { lightness, chroma, hue: now } = paints.stroke
    const pieces = front - from + 1
    for (let k = 0; k < pieces; k++) {
      const age = ageOf(k, pieces)
      const at = (from + k) * PER_ROW
      if (from + k < front) data.copyWithin(at, front * PER_ROW, front * PER_ROW + PER_ROW)
      const wide = this.width * Math.max(0, 1 + (width - 1) * age)
      const shown = Math.max(wide, pixel)
      data[at + 11] = shown / 2
      data[at + 7] = this.stroke * (wide / shown) * Math.max(0, 1 - fade * age)
      if (hue === 0) continue
      const { r, g, b } = rgbOf(lightness.at(i), chroma.at(i), now.at(i) + hue * age)
      data[at + 12] = r
      data[at + 13] = g
      data[at + 14] = b
    }
  }

  /**
   * The row of an instance; of text with depth its front, and the `layers` rows before it are its sides.
   *
   * @param reach how far its laid outline reaches across and up
   * @param pixel how many stage pixels a screen pixel covers
   */
  put(
    scene: Scene,
    body: Body,
    i: number,
    paints: Paints,
    laidOutline: LaidOutline,
    reach: readonly [number, number],
    pixel: number,
    front: number,
    layers: number,
  ): void {
    const { data } = this
    const { eye } = scene
    const deep = inDepth(eye)
    // Particles look at the eye wherever it stands.
    const world = body.worlds[i]!
    const m = body.part.shape.type === 'emitter' ? ONSTAGE : eye.turned ? toEye(eye, world, this.seat) : world
    this.at = m
    const opacity = Math.min(1, body.opacity[i]!)
    const fill = (body.part.shape.type === 'picture' ? 1 : paints.fillAlpha.at(i)) * opacity
    const width = paints.lines ? paints.strokeWidth.at(i) * (deep ? (eye.even ? 1 : sizeOf(m)) : scaleOf(m)) : 0
    // A line thinner than a pixel is drawn a pixel wide and fainter.
    const shown = Math.max(width, pixel)
    this.width = width
    this.stroke = paints.tails ? paints.strokeAlpha.at(i) * opacity : 0
    const stroke = width > 0 ? paints.strokeAlpha.at(i) * opacity * (width / shown) : 0
    const at = front * PER_ROW
    this.stand(m, laidOutline.sx, laidOutline.sy, front)
    data[at + 3] = fill > 0 ? fill : 0
    data[at + 7] = stroke > 0 ? stroke : 0
    colour(data, at + 8, paints.fill, i)
    data[at + 11] = shown / 2
    data[at + 15] = 0
    if (stroke > 0) colour(data, at + 12, paints.stroke, i)
    if (paints.grades && fill > 0 && paints.gradient.at(i) > 0)
      this.grade(scene, body, i, paints, laidOutline, reach, at)
    for (let k = 0; k < layers; k++) {
      // Seen flat, depth moves a layer aside as far as the part is turned; the furthest comes first.
      const share = (layers - k) / layers
      const back = -paints.thickness.at(i) * share
      const side = (front - layers + k) * PER_ROW
      data.copyWithin(side, at, at + PER_ROW)
      data[side + 2]! += m[2] * back
      data[side + 6]! += m[6] * back
      data[side + 7] = 0
      colour(data, side + 8, paints.fill, i, SIDE)
    }
  }

  private grade(
    scene: Scene,
    body: Body,
    i: number,
    { fill: { rgb } }: Paints,
    laidOutline: LaidOutline,
    [across, up]: readonly [number, number],
    at: number,
  ): void {
    const { stage } = scene.program.piece
    // In depth what rides with its part is told on the part.
    const near = { r: rgb[3 * i]!, g: rgb[3 * i + 1]!, b: rgb[3 * i + 2]! }
    const own = inDepth(scene.eye) && body.part.gradientFrame !== 'stage'
    const g = gradientOf(
      body,
      i,
      near,
      [across * laidOutline.sx, up * laidOutline.sy],
      stage,
      own ? ONSTAGE : body.worlds[i]!,
    )
    if (!g) return
    const { data } = this
    data[at + 15] = own ? 2 : 1
    data[at + 16] = g.far.r
    data[at + 17] = g.far.g
    data[at + 18] = g.far.b
    data[at + 19] = g.alpha
    data[at + 20] = own ? g.x * laidOutline.sx : g.x
    data[at + 21] = own ? g.y * laidOutline.sy : g.y
    data[at + 22] = g.base
  }
}
