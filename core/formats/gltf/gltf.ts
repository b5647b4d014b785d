/**
 * A stretch of a piece as shapes in depth with their motion, in glTF 2.0 (Khronos): a node for each fill, line and picture of
 * each instance, moved, turned and stretched frame by frame. One px of the stage is a hundredth of a metre.
 */
import { Program } from '../../engine/program.ts'
import type { Piece } from '../../piece/schema.ts'
import { matrix } from '../../piece/transform.ts'
import { paintOf, rgbOf } from '../../rig/colour.ts'
import { placedOutline, type LaidOutline } from '../../rig/stage-mesh/laid-outline.ts'
import type { Outline } from '../../rig/outline/outline.ts'
import { Scene } from '../../rig/scene.ts'
import { power } from '../../signal/maths.ts'
import { momentOfSeconds } from '../../time/moment.ts'
import { over, plus, rational, times, toNumber, type Rational } from '../../time/rational.ts'
import { thinTrack } from '../moving/thin-track.ts'
import { unitsOf } from '../moving/sampling.ts'
import { ringsOfLine } from '../moving/ring-paths.ts'
import type { DrawnUnit } from '../moving/drawn-units.ts'
import { Bytes, CORNERS, TRIANGLES } from './binary.ts'
import { outlineAreas, bandOf, solidOf, type TriangleForm } from './triangle-forms.ts'
import { isThick, laid, unitMatrix, unitStretch } from './unit-placing.ts'
import { eyeFor } from './seeing.ts'
import { standingOf, type Standing } from './standing.ts'

/** Metres a px. */
const SCALE = 0.01
/** Looked at so many times a frame: what is straight between is left out again. */
const FINER = 4
/** Px, and parts of a quaternion and of a stretch, that a frame may be off when it is left out. */
const PLACE = 0.02
const PART = 1e-5

export interface Spatial {
  readonly piece: Piece
  readonly from: Rational
  readonly span: Rational
  readonly frames: number
  /** Bytes and type of its pictures, by hash. */
  readonly pictures: ReadonlyMap<string, { readonly type: string; readonly bytes: Uint8Array }>
}

interface Thing {
  readonly unit: DrawnUnit
  readonly mesh: number
  readonly order: number
  readonly stretch: readonly [number, number]
  readonly stands: Standing[]
}

/** @param done is told how many frames are there */
export function gltfOf(given: Spatial, done: (n: number) => void = () => {}): Uint8Array<ArrayBuffer> {
  const { piece, from, span, frames } = given
  const program = new Program(piece)
  const scene = new Scene(program)
  const values = new Float64Array(program.size)
  const whole = frames * FINER
  const show = (step: number) => {
    const share = rational(BigInt(step), BigInt(whole))
    const moment = momentOfSeconds(plus(from, times(span, share)), program.measures.frameRate)
    scene.update(program.moment(moment, values), moment)
  }
  return program.queue.settle(() => {
    show(0)
    const made = new Making(given)
    const things = unitsOf(scene).flatMap((unit, order) => {
      const mesh = made.mesh(unit)
      return mesh === null ? [] : [{ unit, mesh, order, stretch: unitStretch(unit), stands: [] } as Thing]
    })
    const out = matrix()
    for (let n = 0; n <= whole; n++) {
      show(n)
      for (const thing of things) {
        const { unit, stretch, order, stands } = thing
        unitMatrix(scene, unit, stretch, order, out)
        stands.push(standingOf(out, stands.at(-1) ?? null, !isThick(unit)))
      }
      if (n % FINER === 0) done(n / FINER)
    }
    return made.file(things, toNumber(over(span, rational(BigInt(whole)))))
  })
}

/** What is on the screen, as light: the transfer function of sRGB (IEC 61966-2-1) undone. */
const light = (v: number): number => (v <= 0.04045 ? v / 12.92 : power((v + 0.055) / 1.055, 2.4))

class Making {
  private readonly bytes = new Bytes()
  private readonly meshes: object[] = []
  private readonly materials: object[] = []
  private readonly images: object[] = []
  private readonly textures: object[] = []
  private readonly known = new Map<string, number>()

  constructor(private readonly given: Spatial) {}

  /** The form of a unit as it is now, in its colour; null for what has none. */
  mesh(unit: DrawnUnit): number | null {
    const { body, i, what } = unit
    // What a gear has within lies in its fill.
    if (what === 'more') return null
    const made = what === 'picture' ? null : this.outline(unit)
    if (made === null && what !== 'picture') return null
    const material = this.material(unit)
    if (material === null) return null
    if (made === null)
      return this.kept(`picture ${material} ${unitStretch(unit).join()}`, () => this.card(unit, material))
    const { laidOutline, outline } = made
    const [sx, sy] = unitStretch(unit)
    const scaled = (p: ArrayLike<number>) => Array.from(p, (v, k) => v * (k % 2 === 0 ? sx : sy))
    const width = body.get('strokeWidth', i)
    const taper = body.get('taper', i)
    const name = `${what} ${material} ${width} ${taper} ${isThick(unit)} ${JSON.stringify(body.part.shape)} ${laidOutline.text} ${Array.from(laidOutline.key).join()} ${sx} ${sy}`
    return this.kept(name, () => {
      const form =
        what === 'line'
          ? bandOf(
              ringsOfLine(outline).map(r => ({ points: scaled(r.points), closed: r.closed })),
              width,
            )
          : solidOf(
              outlineAreas(outline).map(a => ({ outline: scaled(a.outline), holes: a.holes.map(scaled) })),
              isThick(unit),
              taper,
            )
      return this.primitive(form, material)
    })
  }

  /** Its outline as it is now; null for what is laid anew all the time. */
  private outline(unit: DrawnUnit): { laidOutline: LaidOutline; outline: Outline } | null {
    const laidOutline = laid(unit)
    const outline = laidOutline.places ? null : placedOutline(unit.body, laidOutline)
    return outline && outline.points.length > 0 && unit.body.part.shape.type !== 'trace'
      ? { laidOutline, outline }
      : null
  }

  private kept(name: string, make: () => object | null): number | null {
    const found = this.known.get(name)
    if (found !== undefined) return found < 0 ? null : found
    const made = make()
    this.known.set(name, made ? this.meshes.push({ primitives: [made] }) - 1 : -1)
    return this.known.get(name)! < 0 ? null : this.known.get(name)!
  }

  private primitive({ corners, triangles }: TriangleForm, material: number): object | null {
    if (triangles.length === 0) return null
    const POSITION = this.bytes.list(corners, 'VEC3', { target: CORNERS, bounds: true })
    return { attributes: { POSITION }, indices: this.bytes.list(triangles, 'SCALAR', { target: TRIANGLES }), material }
  }

  private card(unit: DrawnUnit, material: number): object {
    const [w, h] = unitStretch(unit).map(v => v / 2) as [number, number]
    const at = this.bytes.list([-w, -h, 0, w, -h, 0, w, h, 0, -w, h, 0], 'VEC3', { target: CORNERS, bounds: true })
    const TEXCOORD_0 = this.bytes.list([0, 1, 1, 1, 1, 0, 0, 0], 'VEC2', { target: CORNERS })
    const indices = this.bytes.list([0, 1, 2, 0, 2, 3], 'SCALAR', { target: TRIANGLES })
    return { attributes: { POSITION: at, TEXCOORD_0 }, indices, material }
  }

  private material({ body, i, what }: DrawnUnit): number | null {
    const { shape } = body.part
    const solid = Math.min(1, Math.max(0, body.opacity[i]!))
    let pbr: Record<string, unknown>
    let alpha = solid
    if (what === 'picture' && shape.type === 'picture') {
      const texture = this.texture(shape.asset)
      if (texture === null) return null
      pbr = { baseColorFactor: [1, 1, 1, solid], baseColorTexture: { index: texture } }
      alpha = Math.min(alpha, 0.999)
    } else {
      const of = what === 'line' ? 'stroke' : 'fill'
      alpha = solid * body.get(`${of}Alpha`, i)
      const { r, g, b } = paintOf(body, of, i)
      pbr = { baseColorFactor: [light(r), light(g), light(b), alpha].map(v => Math.round(v * 1e5) / 1e5) }
    }
    const lit = this.given.piece.camera !== null
    const made = {
      pbrMetallicRoughness: { ...pbr, metallicFactor: 0, roughnessFactor: 1 },
      doubleSided: true,
      ...(alpha < 1 && { alphaMode: 'BLEND' }),
      ...(!lit && { extensions: { KHR_materials_unlit: {} } }),
    }
    const name = JSON.stringify(made)
    const known = this.known.get(name)
    if (known !== undefined) return known
    this.known.set(name, this.materials.push(made) - 1)
    return this.materials.length - 1
  }

  private texture(hash: string): number | null {
    const known = this.known.get(`texture ${hash}`)
    if (known !== undefined) return known
    const picture = this.given.pictures.get(hash)
    // The format holds PNG and JPEG.
    if (!picture || !/^image\/(png|jpeg)$/.test(picture.type)) return null
    this.images.push({ bufferView: this.bytes.view(picture.bytes), mimeType: picture.type })
    this.textures.push({ source: this.images.length - 1 })
    this.known.set(`texture ${hash}`, this.textures.length - 1)
    return this.textures.length - 1
  }

  /** @param step seconds a frame */
  file(things: readonly Thing[], step: number): Uint8Array<ArrayBuffer> {
    const { piece } = this.given
    const channels: object[] = []
    const samplers: object[] = []
    // What is slanted at any time has a node within its own, which is turned before it is stretched.
    const within: object[] = []
    const nodes = things.map(({ unit, mesh, stands }, node) => {
      const { place, turn, stretch } = stands[0]!
      const slanted = stands.some(s => s.inner !== null)
      const inner = things.length + within.length
      const name = `${unit.body.part.name}${unit.body.count > 1 ? ` ${unit.i + 1}` : ''}${unit.what === 'line' ? ', line' : ''}`
      const at = stands.map((_, k) => k * step)
      const inners = stands.map(s => s.inner ?? ([0, 0, 0, 1] as const))
      const tracks = [
        ['translation', 'VEC3', stands.map(s => s.place), [PLACE], node],
        ['rotation', 'VEC4', stands.map(s => s.turn), [PART], node],
        ['scale', 'VEC3', stands.map(s => s.stretch), [PART], node],
        ['rotation', 'VEC4', inners, [PART], inner],
      ] as const
      for (const [path, kind, rows, tolerance, target] of tracks) {
        const track = thinTrack({ at, rows }, tolerance)
        if (track.rows.length < 2) continue
        const input = this.times(track.at)
        const output = this.bytes.list(track.rows.flat(), kind)
        channels.push({
          sampler: samplers.push({ input, output, interpolation: 'LINEAR' }) - 1,
          target: { node: target, path },
        })
      }
      const seat = { translation: place, rotation: turn, scale: stretch }
      if (!slanted) return { name, mesh, ...seat }
      within.push({ name, mesh, rotation: inners[0] })
      return { name: `${name}, seat`, ...seat, children: [inner] }
    })
    const eye = eyeFor(piece, SCALE)
    const seen = nodes.length + within.length
    const all = [
      ...nodes,
      ...within,
      eye.node,
      { name: piece.title, scale: [SCALE, SCALE, SCALE], children: [...nodes.keys(), seen] },
    ]
    const { lightness, chroma, hue } = piece.stage.background
    const ground = rgbOf(lightness, chroma, hue / 360)
    return this.bytes.file({
      asset: { version: '2.0', generator: 'Open Tide' },
      ...(piece.camera === null && this.materials.length > 0 && { extensionsUsed: ['KHR_materials_unlit'] }),
      scene: 0,
      scenes: [{ nodes: [all.length - 1], extras: { ground: [ground.r, ground.g, ground.b] } }],
      nodes: all,
      cameras: [eye.camera],
      ...Object.fromEntries(
        Object.entries({
          meshes: this.meshes,
          materials: this.materials,
          images: this.images,
          textures: this.textures,
        }).filter(([, list]) => list.length > 0),
      ),
      ...(channels.length > 0 && { animations: [{ name: 'lap', channels, samplers }] }),
    })
  }

  private times(at: readonly number[]): number {
    const name = `times ${at.join()}`
    const found = this.known.get(name)
    if (found !== undefined) return found
    const made = this.bytes.list(at, 'SCALAR', { bounds: true })
    this.known.set(name, made)
    return made
  }
}
