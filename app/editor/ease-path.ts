/** Pictures of easings, and of the other ways from one point to the next. */
import { easingNamed } from '~~/core/signal/easing.ts'

/** The picture, in its own units: 48 × 34, with room for what goes beyond its ends. */
export const EASE_BOX = '0 0 48 34'
const [WIDE, HIGH, SIDE, PAD] = [48, 34, 4, 9]
const STEPS = 40

/** An SVG path from the lower left to the upper right; '' for a name that is no way. */
export function easePath(name: string): string {
  const x = (u: number) => (SIDE + (WIDE - 2 * SIDE) * u).toFixed(1)
  const y = (v: number) => (HIGH - PAD - (HIGH - 2 * PAD) * v).toFixed(1)
  if (name === 'stepped') return `M${x(0)} ${y(0)}L${x(1)} ${y(0)}L${x(1)} ${y(1)}`
  const found = easingNamed(name === 'straight' ? 'linear' : name)
  if (!found) return ''
  const points = Array.from({ length: STEPS + 1 }, (_, k) => `${x(k / STEPS)} ${y(found.ease(k / STEPS))}`)
  return `M${points.join('L')}`
}

/** The same as an element, for where no template draws it. */
export function easePicture(name: string): SVGElement {
  const space = 'http://www.w3.org/2000/svg'
  const svg = document.createElementNS(space, 'svg')
  svg.setAttribute('viewBox', EASE_BOX)
  svg.setAttribute('class', 'ease-picture')
  svg.setAttribute('aria-hidden', 'true')
  const path = document.createElementNS(space, 'path')
  path.setAttribute('d', easePath(name))
  svg.append(path)
  return svg
}
