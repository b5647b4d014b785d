/** Points as they are typed: x and y a line, z where they lie in depth, and `smooth` where a line runs through. */
import { printNumber } from '../units/units.ts'

interface Typed {
  readonly x: number
  readonly y: number
  readonly z?: number
  readonly smooth: boolean
}

export const pointsWritten = (
  points: readonly { x: number; y: number; z?: number | undefined; smooth?: boolean }[],
): string =>
  points
    .map(p => [p.x, p.y, ...(p.z ? [p.z] : [])].map(v => printNumber(v, 2)).join(', ') + (p.smooth ? ' smooth' : ''))
    .join('\n')

/**
 * @param least how many there have to be, of 500 at most
 * @param smooth whether a point may be smooth, and lie in depth
 * @returns the points, or why they are none
 */
export function pointsTyped(
  text: string,
  least: number,
  smooth: boolean,
): { readonly points: readonly Typed[] } | { readonly says: string } {
  const lines = text
    .replaceAll('−', '-')
    .split(/[\n;]+/)
    .filter(l => l.trim() !== '')
  const points: Typed[] = []
  for (const line of lines) {
    const [x, y, ...more] = line.trim().split(/[\s,]+/)
    const deep = smooth && more[0] !== undefined && Number.isFinite(Number(more[0])) ? Number(more.shift()) : 0
    const [word, ...rest] = more
    const [px, py] = [Number(x), y === undefined ? NaN : Number(y)]
    const sound = [px, py, deep].every(n => Number.isFinite(n) && Math.abs(n) <= 1e9)
    const named = word === undefined || (smooth && word.toLowerCase() === 'smooth')
    if (!sound || !named || rest.length > 0) {
      const also = smooth ? ', plus “smooth” where needed' : ''
      return { says: `“${line.trim()}” isn’t a point: write x and y, such as 120, -40${also}.` }
    }
    points.push({ x: px, y: py, ...(deep !== 0 && { z: deep }), smooth: word !== undefined })
  }
  return points.length < least || points.length > 500 ? { says: `A path needs ${least} to 500 points.` } : { points }
}
