/** The place on some rings of points that is nearest to another. */

/** A point of a ring; those of one ring come in their order. */
export interface RingPoint {
  readonly ring: number
  readonly nth: number
  readonly x: number
  readonly y: number
}

export interface OnRing {
  readonly ring: number
  /** The point before it, and how much of the way to the next, 0 to 1. */
  readonly after: number
  readonly share: number
}

/**
 * The nearest place on the straight lines between neighbours, the last and the first of a ring among them; null where
 * none is nearer than `within`, in the unit of the points.
 */
export function nearestOnRings(
  points: readonly RingPoint[],
  [x, y]: readonly [number, number],
  within: number,
): OnRing | null {
  const rings = new Map<number, RingPoint[]>()
  for (const p of points) rings.set(p.ring, [...(rings.get(p.ring) ?? []), p])
  let best: OnRing | null = null
  let reach = within
  for (const [ring, all] of rings)
    all.forEach((a, k) => {
      const b = all[(k + 1) % all.length] ?? a
      const [dx, dy] = [b.x - a.x, b.y - a.y]
      const square = dx * dx + dy * dy
      const share = square > 0 ? Math.min(1, Math.max(0, ((x - a.x) * dx + (y - a.y) * dy) / square)) : 0
      const [ax, ay] = [a.x + dx * share - x, a.y + dy * share - y]
      const far = Math.sqrt(ax * ax + ay * ay)
      if (far >= reach) return
      reach = far
      best = { ring, after: a.nth, share }
    })
  return best
}
