/** What an element of artwork is painted with, as set values of the part that it becomes. */
import type { SvgGradient } from './gradients.ts'
import type { Flat } from './path-data.ts'
import { colourOf, dashesOf, shareOf, type Style } from './style.ts'

export interface PaintedElement {
  readonly hand: readonly (readonly [property: string, value: number])[]
  /** What its fill goes over by, which is told for each area. */
  readonly gradient: SvgGradient | null
  readonly filled: boolean
  /** Of its line, px of the stage; 0 where it has none. */
  readonly width: number
  /** What of it is not taken, in words. */
  readonly left: readonly string[]
}

/** @param opacity how solid it is with all that it stands in; @param m from the file's measure to the stage */
export function painted(
  values: Style['values'],
  opacity: number,
  m: Flat,
  gradients: ReadonlyMap<string, SvgGradient>,
): PaintedElement {
  const left: string[] = []
  const ref = /^url\(["']?#([^"')]+)/.exec(values.fill ?? '')?.[1]
  const gradient = ref === undefined ? undefined : gradients.get(ref)
  if (ref !== undefined && !gradient) left.push('patterns')
  left.push(...(gradient?.left ?? []))
  const fill = gradient ? gradient.from : colourOf(ref === undefined ? values.fill : undefined, values.color)
  const stroke = colourOf(values.stroke, values.color)
  const scale = Math.sqrt(Math.abs(m[0] * m[3] - m[1] * m[2]))
  const width = stroke ? (Number.parseFloat(values['stroke-width'] ?? '1') || 0) * scale : 0
  const hand: [string, number][] = []
  const paint = (of: string, c: { lightness: number; chroma: number; hue: number; alpha: number }, share: number) =>
    hand.push(
      [`${of}Lightness`, c.lightness],
      [`${of}Chroma`, c.chroma],
      [`${of}Hue`, c.hue],
      [`${of}Alpha`, Number((100 * c.alpha * share).toFixed(2))],
    )
  if (fill) paint('fill', fill, shareOf(values['fill-opacity'], 1))
  else hand.push(['fillAlpha', 0])
  if (gradient) {
    paint('gradient', gradient.to, 1)
    hand.push(['gradient', 100])
  }
  if (stroke && width > 0) {
    paint('stroke', stroke, shareOf(values['stroke-opacity'], 1))
    hand.push(['strokeWidth', Number(width.toFixed(2))])
    const dashes = dashesOf(values)
    const px = (v: number) => Number((v * scale).toFixed(2))
    if (dashes) hand.push(['dash', px(dashes.dash)], ['dashGap', px(dashes.gap)], ['dashOffset', px(dashes.offset)])
    if (dashes?.more) left.push('dashes with more than two lengths (the first two are kept)')
  }
  if (opacity < 1) hand.push(['opacity', Number((100 * opacity).toFixed(2))])
  return { hand, gradient: gradient ?? null, filled: fill !== null, width, left }
}
