/** What many properties have in common: the shapes that have them, and lengths, shares, angles and colours. */
import { LENGTH, PLAIN, type Kind, ANGLE } from '../units/kinds.ts'
import type { ShapeType } from './schema.ts'

export interface Property {
  readonly name: string
  /** A heading to stand under. */
  readonly group: 'place' | 'turn' | 'size' | 'fill' | 'gradient' | 'stroke'
  readonly description: string
  readonly kind: Kind
  /** The unit it is shown and kept by hand in. */
  readonly unit: 'px' | 'deg' | '%' | 's' | 'Hz' | 'px/s' | 'deg/s' | ''
  /** By hand, in `unit`, when nothing is set. */
  readonly initial: number | ((shape: ShapeType) => number)
  /** What it is drawn within, in `unit`; a value beyond is drawn as the nearest. */
  readonly range?: readonly [number, number]
  /**
   * The value after which it looks the same again, in `unit`; `part`: a turn over the part's symmetry,
   * `poses`: as many as the part has poses.
   */
  readonly symmetry?: number | 'part' | 'poses'
  /** A sensible hand-drag step and first swing, in `unit`. */
  readonly stride: number
  /** Shapes that have it; all when not given. */
  readonly on?: readonly ShapeType[]
}

export const OUTLINED: readonly ShapeType[] = [
  'rectangle',
  'ellipse',
  'polygon',
  'star',
  'ring',
  'gear',
  'line',
  'waves',
  'text',
  'trace',
  'path',
]
/** What has a fill, or is one. */
export const FILLED: readonly ShapeType[] = [
  'rectangle',
  'ellipse',
  'polygon',
  'star',
  'ring',
  'gear',
  'waves',
  'text',
  'emitter',
  'path',
]
/** What may reach back. */
export const SOLID: readonly ShapeType[] = FILLED.filter(s => s !== 'emitter')
export const ROUND: readonly ShapeType[] = ['polygon', 'star', 'ring']

export const length = (p: Omit<Property, 'kind' | 'unit' | 'stride'>): Property => ({
  ...p,
  kind: LENGTH,
  unit: 'px',
  stride: 20,
})
export const share = (
  p: Omit<Property, 'kind' | 'unit' | 'stride' | 'initial'> & { initial?: Property['initial'] },
): Property => ({
  initial: 100,
  ...p,
  kind: PLAIN,
  unit: '%',
  stride: 20,
})
export const angle = (p: Omit<Property, 'kind' | 'unit' | 'stride'>): Property => ({
  ...p,
  kind: ANGLE,
  unit: 'deg',
  stride: 20,
})

export const colour = (of: 'fill' | 'gradient' | 'stroke', on: readonly ShapeType[]): Property[] => [
  angle({
    name: `${of}Hue`,
    group: of,
    description: `Hue of the ${of}; wraps around at 360°.`,
    initial: 215,
    symmetry: 360,
    on,
  }),
  share({
    name: `${of}Lightness`,
    group: of,
    description: `How light the ${of} is.`,
    initial: 55,
    range: [0, 100],
    on,
  }),
  {
    name: `${of}Chroma`,
    group: of,
    description: `How strong the colour of the ${of} is: 0 is grey.`,
    kind: PLAIN,
    unit: '',
    initial: 0.09,
    range: [0, 0.4],
    stride: 0.02,
    on,
  },
  share({ name: `${of}Alpha`, group: of, description: `Opacity of the ${of}.`, range: [0, 100], on }),
]
