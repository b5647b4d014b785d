/** Gradients of SVG as ours: from the colour of the first stop to that of the last, along one direction. */
import { atanTurns } from '../../signal/maths.ts'
import { cosineOfTurns, sineOfTurns } from '../../signal/sine.ts'
import { joinFlat, transformOf, SAME, type Flat } from './path-data.ts'
import { colourOf, shareOf, type ArtworkColour } from './style.ts'
import type { SvgElement } from './svg-tree.ts'

export interface SvgGradient {
  readonly from: ArtworkColour
  readonly to: ArtworkColour
  /** From the first stop to the last, in its own measure. */
  readonly ends: readonly [x1: number, y1: number, x2: number, y2: number]
  /** From its own measure to that of the box round what it fills, or to that of the element. */
  readonly transform: Flat
  readonly boxed: boolean
  readonly round: boolean
  /** What of it is not taken, in words. */
  readonly left: readonly string[]
}

type Points = readonly (readonly [number, number])[]

export function gradientsOf(byId: ReadonlyMap<string, SvgElement>): ReadonlyMap<string, SvgGradient> {
  const found = new Map<string, SvgGradient>()
  for (const [id, e] of byId) {
    if (e.name !== 'linearGradient' && e.name !== 'radialGradient') continue
    const chain = madeAfter(e, byId)
    const stops = stopsOf(chain)
    const [from, to] = [stops[0], stops.at(-1)]
    if (!from || !to) continue
    const written = (name: string) => chain.find(c => c.attributes[name] !== undefined)?.attributes[name]
    const at = (name: string, otherwise: number) => {
      const text = written(name)
      const value = Number.parseFloat(text ?? '')
      return Number.isFinite(value) ? value / (text!.trim().endsWith('%') ? 100 : 1) : otherwise
    }
    const [x1, y1, x2, y2] = [at('x1', 0), at('y1', 0), at('x2', 1), at('y2', 0)]
    const along = (share: number) => [x1 + (x2 - x1) * share, y1 + (y2 - y1) * share] as const
    const round = e.name === 'radialGradient'
    found.set(id, {
      from: from.colour,
      to: to.colour,
      ends: [...along(from.at), ...along(to.at)],
      transform: transformOf(written('gradientTransform')) ?? SAME,
      boxed: round || written('gradientUnits') !== 'userSpaceOnUse',
      round,
      left: [
        ...(round ? ['radial gradients (imported as linear ones)'] : []),
        ...(stops.length > 2 ? ['gradients with more than two colours (the first and the last are kept)'] : []),
        ...((written('spreadMethod') ?? 'pad') !== 'pad' ? ['repeating gradients (imported once)'] : []),
      ],
    })
  }
  return found
}

/** It and those that it is made after. */
function madeAfter(e: SvgElement, byId: ReadonlyMap<string, SvgElement>): SvgElement[] {
  const all: SvgElement[] = []
  for (let at: SvgElement | undefined = e; at && all.length < 8;) {
    all.push(at)
    const href: string = at.attributes.href ?? at.attributes['xlink:href'] ?? ''
    at = href.startsWith('#') ? byId.get(href.slice(1)) : undefined
  }
  return all
}

/** The stops of the first that has any, none before the one that it follows. */
function stopsOf(chain: readonly SvgElement[]): { at: number; colour: ArtworkColour }[] {
  const own = chain.map(e => e.children.filter(c => c.name === 'stop')).find(s => s.length > 0) ?? []
  let last = 0
  return own.flatMap(s => {
    const style = Object.fromEntries(
      (s.attributes.style ?? '').split(';').map(d => d.split(':').map(x => x.trim()) as [string, string]),
    )
    const colour = colourOf(style['stop-color'] ?? s.attributes['stop-color'] ?? 'black', undefined)
    const share = shareOf(style['stop-opacity'] ?? s.attributes['stop-opacity'], 1)
    last = Math.max(last, shareOf(s.attributes.offset, 0))
    return colour ? [{ at: last, colour: { ...colour, alpha: colour.alpha * share } }] : []
  })
}

/** How far a point of the stage is on the way of a gradient: `x`·x + `y`·y + `base`, 0 at its first stop, 1 at its last. */
export interface Way {
  readonly x: number
  readonly y: number
  readonly base: number
}

/**
 * @param points what it fills, on the stage
 * @param m from the measure of the element to the stage
 * @returns null where its stops fall together, or all is seen from the side
 */
export function wayOf({ ends, transform, boxed }: SvgGradient, points: Points, m: Flat): Way | null {
  const back = inverse(m)
  if (!back) return null
  let to = joinFlat(m, transform)
  if (boxed) {
    const own = points.map(
      ([x, y]) => [back[0] * x + back[2] * y + back[4], back[1] * x + back[3] * y + back[5]] as const,
    )
    const [xs, ys] = [own.map(p => p[0]), own.map(p => p[1])]
    const [left, low] = [Math.min(...xs), Math.min(...ys)]
    to = joinFlat(joinFlat(m, [Math.max(...xs) - left, 0, 0, Math.max(...ys) - low, left, low]), transform)
  }
  const flat = inverse(to)
  const [x1, y1, x2, y2] = ends
  const [dx, dy] = [x2 - x1, y2 - y1]
  const square = dx * dx + dy * dy
  if (!flat || !(square > 1e-18)) return null
  return {
    x: (flat[0] * dx + flat[1] * dy) / square,
    y: (flat[2] * dx + flat[3] * dy) / square,
    base: ((flat[4] - x1) * dx + (flat[5] - y1) * dy) / square,
  }
}

/** The same as set values of a part that stands at a place and reaches so far to either side of it. */
export function gradientSetValues(
  { x, y, base }: Way,
  [px, py]: readonly [number, number],
  [w, h]: readonly [number, number],
) {
  const turns = atanTurns(y, x)
  const long = (Math.abs(cosineOfTurns(turns)) * w + Math.abs(sineOfTurns(turns)) * h) / 2
  const run = 1 / (2 * long * Math.sqrt(x * x + y * y))
  const start = 0.5 - (base + x * px + y * py) * run
  const rounded = (v: number) => Number(v.toFixed(2))
  return [
    ['gradientTurn', rounded(turns * 360)],
    ['gradientStart', rounded(100 * start)],
    ['gradientEnd', rounded(100 * (start + run))],
  ] as const
}

function inverse([a, b, c, d, e, f]: Flat): Flat | null {
  const det = a * d - b * c
  if (!(Math.abs(det) > 1e-18)) return null
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det]
}
