/** The place of one instance on the mesh: which corners and rows are its own, and what was laid there. */
import { isSolid } from '../depth/layers.ts'
import { KEY } from './laid-outline.ts'
import { inDepth } from '../depth/eye.ts'
import { paintsOf, type Paints } from './instance-table.ts'
import type { Body } from '../body.ts'
import type { Scene } from '../scene.ts'

/** What an outline is made of, and what decides whether fill and line are laid. */
const FORMING = [
  ...['width', 'height', 'corners', 'radius', 'innerRadius', 'size', 'value', 'particle', 'pose'],
  ...['lineStart', 'lineEnd', 'strokeWidth', 'strokeAlpha', 'fillAlpha', 'thickness'],
  ...['dash', 'dashGap', 'dashOffset'],
]
/** What moves a part and changes nothing else of it. */
const MOVING = ['x', 'y', 'z', 'rotation', 'rotationX', 'rotationY', 'scale', 'scaleX', 'scaleY', 'scaleZ']

/** Layers that the sides of thick letters are made of, at most. */
export const MOST_LAYERS = 60

export interface MeshSlot {
  readonly body: Body
  readonly instance: number
  paints: Paints
  readonly key: Float64Array
  text: string
  /** Whether fill and line were laid; once laid they stay. */
  fills: boolean
  strokes: boolean
  corner: number
  corners: number
  index: number
  indices: number
  row: number
  rows: number
  reach: readonly [number, number]
  /** Whether its form never changes: what was laid of it at first. */
  readonly fixed: boolean
  /** Whether its form stays as laid while it is stretched to its sizes; see `stretchOf`. */
  supple: boolean
  /** Whether nothing of its row ever changes but where it stands. */
  steady: boolean
  /** Whether its row is filled and seen. */
  shown: boolean
  sx: number
  sy: number
  /** Which of the mesh's pictures lies on it; −1 for none. */
  picture: number
  /** Room that it was found to need. */
  wants: number
  /** Whether it reaches back in depth, so that its sides were laid. */
  solid: boolean
  /** Of what stands in layers joined by a skin: whether it is the first, and how many places on the next is. */
  readonly layer: Layer | null
}

export interface Layer {
  readonly first: boolean
  /** The instance behind it; −1 for the last. */
  readonly next: number
}

/** The layer that an instance is of, where layers are joined. */
export function layerOf({ layers }: Body, instance: number): Layer | null {
  if (!layers) return null
  const layer = Math.floor(instance / layers.stride) % layers.count
  return { first: layer === 0, next: layer + 1 < layers.count ? instance + layers.stride : -1 }
}

/** A place for every instance, in painting order. */
export function meshSlotsOf(scene: Scene): MeshSlot[] {
  const keys = new Float64Array(KEY * scene.paint.length).fill(NaN)
  return scene.paint.map(({ body, instance }, k) => {
    const fixed: boolean = !body.lay && !body.rise && !FORMING.some(name => body.driven.has(name))
    const slot: MeshSlot = {
      body,
      instance,
      paints: paintsOf(body),
      key: keys.subarray(KEY * k, KEY * k + KEY),
      text: '',
      fills: false,
      strokes: false,
      corner: 0,
      corners: -1,
      index: 0,
      indices: 0,
      row: 0,
      rows: 1,
      reach: [0, 0],
      fixed,
      supple: false,
      steady: false,
      shown: false,
      sx: 1,
      sy: 1,
      wants: 0,
      picture: -1,
      solid: false,
      layer: layerOf(body, instance),
    }
    shorten(slot)
    return slot
  })
}

/** Goes by what is set by hand now: whether that was anything else. */
export function settleSlot(slot: MeshSlot): boolean {
  if (slot.paints.settings === slot.body.settings) return false
  slot.paints = paintsOf(slot.body)
  shorten(slot)
  return true
}

/** Finds the short ways that may be gone. */
function shorten(slot: MeshSlot): void {
  const { body, instance, fixed, paints } = slot
  slot.supple = !fixed && isSupple(body, instance, paints)
  slot.steady = fixed && isSteady(body, instance, paints)
}

function isSupple({ lay, rise, driven }: Body, instance: number, paints: Paints): boolean {
  const cuts = driven.has('lineStart') || driven.has('lineEnd') || paints.sizing.dashes !== null
  return !lay && !rise && !cuts && paints.lineStart.at(instance) === 0 && paints.lineEnd.at(instance) === 1
}

function isSteady(body: Body, instance: number, paints: Paints): boolean {
  if (body.fades || ![...body.driven].every(name => MOVING.includes(name))) return false
  // A line grows with its part, a gradient is told on the stage, letters in depth have sides.
  if (!body.rigid && paints.strokeWidth.at(instance) > 0) return false
  return !(paints.gradient.at(instance) > 0) && !(paints.thickness.at(instance) > 0)
}

/** Whether an instance is there to be seen. */
export function isShown(scene: Scene, { body, instance }: MeshSlot): boolean {
  if (scene.only && !scene.only.has(body.id)) return false
  if (!(body.opacity[instance]! > 0)) return false
  const m = body.worlds[instance]!
  const flat = m[0] + m[1] + m[3] + m[4] + m[5] + m[7]
  return Number.isFinite(flat) && (!inDepth(scene.eye) || Number.isFinite(m[8] + m[9] + m[11]))
}

export function fillsNow({ body, paints, instance }: MeshSlot): boolean {
  const { type } = body.part.shape
  // A picture is as solid as its part.
  return type === 'picture' || (type !== 'line' && type !== 'trace' && paints.fillAlpha.at(instance) > 0)
}

export const strokesNow = ({ paints, instance }: MeshSlot): boolean =>
  paints.strokeWidth.at(instance) > 0 && paints.strokeAlpha.at(instance) > 0

/** Whether it reaches back in depth. */
export const reachesBack = ({ body, paints, instance, layer }: MeshSlot): boolean =>
  layer !== null || (isSolid(body.part) && paints.thickness.at(instance) > 0)
/** The same of any instance. */
export const reachesIn = (body: Body, i: number): boolean =>
  layerOf(body, i) !== null || (isSolid(body.part) && body.get('thickness', i) > 0)

/** How many layers make the sides of text that reaches back and is turned. */
export function textLayers({ body, instance, paints }: MeshSlot, pixel: number): number {
  if (body.part.shape.type !== 'text' || !(paints.fillAlpha.at(instance) > 0)) return 0
  const m = body.worlds[instance]!
  const back = paints.thickness.at(instance)
  const [dx, dy] = [m[2] * back, m[6] * back]
  return Math.min(MOST_LAYERS, Math.ceil(Math.sqrt(dx * dx + dy * dy) / (2 * pixel)))
}
