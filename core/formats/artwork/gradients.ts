/** Gradients of SVG as ours: from the colour of the first stop to that of the last, along one direction. */
import { atanTurns } from '../../signal/maths.ts'
import { colourOf, shareOf, type Colour } from './style.ts'
import type { Element } from './tree.ts'

export interface Gradient {
  readonly from: Colour
  readonly to: Colour
  /** Which way it runs on the stage, degrees. */
  readonly turn: number
  readonly round: boolean
}

export function gradientsOf(byId: ReadonlyMap<string, Element>): ReadonlyMap<string, Gradient> {
  const found = new Map<string, Gradient>()
  for (const [id, e] of byId) {
    if (e.name !== 'linearGradient' && e.name !== 'radialGradient') continue
    const stops = stopsOf(e, byId)
    const [from, to] = [stops[0], stops.at(-1)]
    if (!from || !to) continue
    const at = (name: string, otherwise: number) => {
      const text = e.attributes[name]
      const value = Number.parseFloat(text ?? '')
      return Number.isFinite(value) ? value / (text!.trim().endsWith('%') ? 100 : 1) : otherwise
    }
    const [dx, dy] = [at('x2', 1) - at('x1', 0), at('y2', 0) - at('y1', 0)]
    const turn = dx === 0 && dy === 0 ? 0 : Number((atanTurns(-dy, dx) * 360).toFixed(2))
    found.set(id, { from, to, turn, round: e.name === 'radialGradient' })
  }
  return found
}

/** Its own stops, or those of the one that it is made after. */
function stopsOf(e: Element, byId: ReadonlyMap<string, Element>): Colour[] {
  let [at, turns]: [Element | undefined, number] = [e, 0]
  while (at && turns++ < 8) {
    const own = at.children.filter(c => c.name === 'stop')
    if (own.length > 0)
      return own.flatMap(s => {
        const style = Object.fromEntries(
          (s.attributes.style ?? '').split(';').map(d => d.split(':').map(x => x.trim()) as [string, string]),
        )
        const colour = colourOf(style['stop-color'] ?? s.attributes['stop-color'] ?? 'black', undefined)
        const share = shareOf(style['stop-opacity'] ?? s.attributes['stop-opacity'], 1)
        return colour ? [{ ...colour, alpha: colour.alpha * share }] : []
      })
    const href: string = at.attributes.href ?? at.attributes['xlink:href'] ?? ''
    at = href.startsWith('#') ? byId.get(href.slice(1)) : undefined
  }
  return []
}
