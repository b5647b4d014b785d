/**
 * The property table: everything of a part that can be set by hand or driven. Checker, engine, rig, the Part
 * desk and completion all read it.
 */
import { FILLED, OUTLINED, ROUND, SOLID, angle, colour, length, share } from './property-kinds.ts'
import type { Property } from './property-kinds.ts'

import { PLAIN } from '../units/kinds.ts'
import { TRACE_AND_EMITTER } from './trace-emitter-properties.ts'
import type { Shape, ShapeType } from './schema.ts'

export type { Property }

export const PROPERTIES: readonly Property[] = [
  length({ name: 'x', group: 'place', description: 'Distance to the right, from its parent.', initial: 0 }),
  length({ name: 'y', group: 'place', description: 'Distance upwards, from its parent.', initial: 0 }),
  length({ name: 'z', group: 'place', description: 'Towards the camera.', initial: 0 }),
  angle({
    name: 'rotation',
    group: 'turn',
    description: 'Rotation around the pivot; positive is anticlockwise.',
    initial: 0,
    symmetry: 'part',
  }),
  angle({
    name: 'rotationX',
    group: 'turn',
    description: 'Rotation around the horizontal axis.',
    initial: 0,
    symmetry: 360,
  }),
  angle({
    name: 'rotationY',
    group: 'turn',
    description: 'Rotation around the vertical axis.',
    initial: 0,
    symmetry: 360,
  }),
  share({ name: 'scale', group: 'size', description: 'Scale in x and y together.' }),
  share({ name: 'scaleX', group: 'size', description: 'Horizontal scale, on top of scale.' }),
  share({ name: 'scaleY', group: 'size', description: 'Vertical scale, on top of scale.' }),
  share({ name: 'scaleZ', group: 'size', description: 'Scale in depth.' }),
  share({ name: 'opacity', group: 'size', description: 'Opacity of the part and its children.', range: [0, 100] }),
  length({
    name: 'width',
    group: 'size',
    description: 'Width, from side to side.',
    initial: s => (s === 'waves' ? 600 : s === 'line' ? 200 : 120),
    range: [0, 1e6],
    on: ['rectangle', 'ellipse', 'line', 'waves', 'picture'],
  }),
  length({
    name: 'height',
    group: 'size',
    description: 'From bottom to top; for waves, up to the water at rest.',
    initial: 120,
    range: [0, 1e6],
    on: ['rectangle', 'ellipse', 'waves', 'picture'],
  }),
  length({
    name: 'corners',
    group: 'size',
    description: 'Radius of the rounded corners.',
    initial: 0,
    range: [0, 1e6],
    on: ['rectangle'],
  }),
  length({
    name: 'radius',
    group: 'size',
    description: 'Distance from the middle to the outline.',
    initial: 60,
    range: [0, 1e6],
    on: ROUND,
  }),
  length({
    name: 'innerRadius',
    group: 'size',
    description: 'From the middle to the hole, or to the notches of a star.',
    initial: s => (s === 'ring' ? 45 : 28),
    range: [0, 1e6],
    on: ['ring', 'star'],
  }),
  length({
    name: 'swell',
    group: 'size',
    description: 'How high the highest waves may rise.',
    initial: 20,
    range: [0, 1e6],
    on: ['waves'],
  }),
  share({
    name: 'crest',
    group: 'size',
    description: 'How sharp the crests are.',
    initial: 30,
    range: [0, 100],
    on: ['waves'],
  }),
  length({
    name: 'size',
    group: 'size',
    description: 'Size of the letters.',
    initial: 64,
    range: [0, 1e5],
    on: ['text'],
  }),
  {
    name: 'value',
    group: 'size',
    description: 'The number that is shown.',
    kind: PLAIN,
    unit: '',
    initial: 0,
    stride: 1,
    on: ['text'],
  },
  length({
    name: 'thickness',
    group: 'size',
    description: 'How far it is extruded backwards; visible in depth.',
    initial: s => (s === 'waves' ? 400 : 0),
    range: [0, 1e5],
    on: SOLID,
  }),
  share({
    name: 'taper',
    group: 'size',
    description: 'Size of its back, as a share of its front.',
    range: [0, 1000],
    on: SOLID.filter(s => s !== 'waves'),
  }),
  share({
    name: 'foam',
    group: 'size',
    description: 'How much foam there is where crests are steep; visible in depth.',
    initial: 40,
    range: [0, 100],
    on: ['waves'],
  }),
  ...TRACE_AND_EMITTER,
  {
    name: 'pose',
    group: 'size',
    description:
      'Which pose it is in: 0 is the first, 0.5 is halfway to the second, and after the last comes the first again.',
    kind: PLAIN,
    unit: '',
    initial: 0,
    symmetry: 'poses',
    stride: 1,
    on: ['path'],
  },
  ...colour('fill', FILLED),
  share({
    name: 'gradient',
    group: 'gradient',
    description: 'How much the fill blends into another colour at its far end.',
    initial: 0,
    range: [0, 100],
    on: FILLED,
  }),
  angle({
    name: 'gradientTurn',
    group: 'gradient',
    description: 'Direction of the blend: 0° to the right, 90° upwards.',
    initial: 90,
    symmetry: 360,
    on: FILLED,
  }),
  share({ name: 'gradientStart', group: 'gradient', description: 'Where the blend starts.', initial: 0, on: FILLED }),
  share({ name: 'gradientEnd', group: 'gradient', description: 'Where the blend ends.', on: FILLED }),
  ...colour('gradient', FILLED),
  length({
    name: 'strokeWidth',
    group: 'stroke',
    description: 'Width of the line around the outline.',
    initial: s => (s === 'line' || s === 'trace' ? 4 : 0),
    range: [0, 1e5],
    on: OUTLINED,
  }),
  ...colour('stroke', OUTLINED),
  share({
    name: 'lineStart',
    group: 'stroke',
    description: 'Where along the outline the line begins.',
    initial: 0,
    range: [0, 100],
    on: OUTLINED,
  }),
  share({
    name: 'lineEnd',
    group: 'stroke',
    description: 'Where along the outline the line ends.',
    range: [0, 100],
    on: OUTLINED,
  }),
  length({
    name: 'dash',
    group: 'stroke',
    description: 'Length of a dash of the line; 0 for none.',
    initial: 0,
    range: [0, 1e5],
    on: OUTLINED,
  }),
  length({
    name: 'dashGap',
    group: 'stroke',
    description: 'Length of the gap after a dash.',
    initial: 10,
    range: [0, 1e5],
    on: OUTLINED,
  }),
  length({
    name: 'dashOffset',
    group: 'stroke',
    description: 'Shifts the dashes along the line; drive it and they run.',
    initial: 0,
    on: OUTLINED,
  }),
]

const BY_NAME = new Map(PROPERTIES.map(p => [p.name.toLowerCase(), p]))
/** A property by its name, whatever its capitals. */
export const propertyNamed = (name: string): Property | undefined => BY_NAME.get(name.toLowerCase())
/** Whether parts of a shape have a property. */
export const has = (shape: ShapeType, property: Property): boolean => !property.on || property.on.includes(shape)
/** The properties that parts of a shape have, in table order. */
export function propertiesOf(shape: ShapeType): readonly Property[] {
  let known = BY_SHAPE.get(shape)
  if (!known) BY_SHAPE.set(shape, (known = PROPERTIES.filter(p => has(shape, p))))
  return known
}
const BY_SHAPE = new Map<ShapeType, readonly Property[]>()
/** What a property holds by hand when nothing is set, in its unit. */
export const initialOf = (property: Property, shape: ShapeType): number =>
  typeof property.initial === 'number' ? property.initial : property.initial(shape)

/** Settings of a shape that formulas may read but not drive: name and value. */
export function settingsOf(shape: Shape): Record<string, number> {
  if (shape.type === 'polygon') return { sides: shape.sides }
  if (shape.type === 'star') return { points: shape.points }
  if (shape.type === 'waves') {
    const { longest, depth, wind, waves, tile, seed } = shape
    return { longest, depth, wind, waves, tile, seed, ...(shape.noise && { pace: shape.noise.pace }) }
  }
  if (shape.type === 'trace') return { every: shape.every }
  if (shape.type === 'path') return { poses: shape.poses.length }
  return shape.type === 'gear' ? { teeth: shape.teeth, spokes: shape.spokes, module: shape.module } : {}
}
