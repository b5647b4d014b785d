/** Outlines as the path data of a drawing, y downwards. */
import { linesIn, type Outline } from '../../rig/outline/outline.ts'

/** A number with so many decimals and no more digits than it needs. */
export const short = (x: number, decimals = 2): string => {
  const text = x.toFixed(decimals)
  const cut = text.includes('.') ? text.replace(/\.?0+$/, '') : text
  return cut === '-0' || cut === '' ? '0' : cut
}

/** Points that are moved from where they are laid onto the stage; x, y in turn, y upwards. */
export type Rings = readonly { readonly points: ArrayLike<number>; readonly closed: boolean }[]

export const ringsOfFill = (outline: Outline): Rings => linesIn(outline).map(points => ({ points, closed: true }))

/** The line of an outline: its own, and that of drawn holes and of letters; of gears and rings the outer one alone. */
export const ringsOfLine = (o: Outline): Rings =>
  o.letters
    ? ringsOfFill(o)
    : [{ points: o.points, closed: o.closed }, ...(o.drawn?.holes ?? []).map(points => ({ points, closed: true }))]

/** How far from their middle points lie, at most. */
export function ringsReach(rings: Rings): number {
  let far = 0
  for (const { points } of rings)
    for (let k = 0; k < points.length; k += 2)
      far = Math.max(far, points[k]! * points[k]! + points[k + 1]! * points[k + 1]!)
  return Math.sqrt(far)
}

/** @param values x and y of all rings in turn */
export function ringsPathData(shape: Rings, values: ArrayLike<number>, decimals: number): string {
  let d = ''
  let k = 0
  for (const { points, closed } of shape) {
    for (let n = 0; n < points.length; n += 2, k += 2)
      d += `${n === 0 ? 'M' : 'L'}${short(values[k]!, decimals)} ${short(-values[k + 1]!, decimals)}`
    if (closed) d += 'Z'
  }
  return d === '' ? 'M0 0' : d
}

export function flat(rings: Rings): number[] {
  const out: number[] = []
  for (const { points } of rings) for (let k = 0; k < points.length; k++) out.push(points[k]!)
  return out
}
