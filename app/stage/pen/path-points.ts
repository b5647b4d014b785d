/** Edits the points of the selected path, with the pointer or the keyboard. */
import { addCorner, drawnOf, removeCorner, setCorner } from '~~/core/acts/path-edits.ts'
import type { Matrix } from '~~/core/piece/transform.ts'
import { seen, unseen, type Eye } from '~~/core/rig/depth/eye.ts'
import { ringsOfPose } from '~~/core/rig/outline/posing.ts'
import type { Scene } from '~~/core/rig/scene.ts'
import { nearestOnRings } from '~~/core/rig/outline/nearest-on-rings.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { pullFrom } from '../pull.ts'
import { NEAR, type PenGround } from './pen-ground.ts'

/** A point of the path in hand, on the page. */
export interface PenPoint {
  readonly ring: number
  readonly nth: number
  readonly smooth: boolean
  readonly x: number
  readonly y: number
}

/** A double click within this distance of an outline, in px of the page, adds a point to it. */
const NEAR_LINE = 24
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}

export function usePathPoints(scene: () => Scene | null, { lens, redraw, ruled }: PenGround) {
  const store = useOpenPiece()
  const hand = useSelection()
  let picked: { ring: number; nth: number } | null = null
  watch(
    () => [hand.part, hand.pose],
    () => (picked = null),
  )

  /** The path in hand with where it stands, and its pose in hand; null for anything else. */
  function held(): { id: string; pose: number; world: Matrix; eye: Eye } | null {
    const id = hand.others.length > 0 ? null : hand.part
    const path = id === null ? null : drawnOf(store.piece, id)
    const drawn = scene()
    const body = id === null ? undefined : drawn?.bodies.get(id)
    if (id === null || !path || !drawn || !body) return null
    const pose = Math.min(hand.pose, path.poses.length - 1)
    return { id, pose, world: body.worlds[Math.min(hand.instance, body.count - 1)]!, eye: drawn.eye }
  }

  function nodes(): PenPoint[] {
    const it = held()
    if (!it || hand.pen) return []
    const { poses } = drawnOf(store.piece, it.id)!
    return poses[it.pose]!.flatMap((ring, k) =>
      ring.map((c, nth) => {
        const [x, y] = lens().toScreen(...seen(it.eye, it.world, c.x, c.y))
        return { ring: k, nth, smooth: c.smooth, x, y }
      }),
    )
  }
  const nodeAt = (at: readonly [number, number]): PenPoint | null =>
    nodes().find(n => Math.hypot(n.x - at[0], n.y - at[1]) <= NEAR) ?? null
  const isPicked = (n: PenPoint) => picked?.ring === n.ring && picked.nth === n.nth

  /** The outline of the pose in hand where it is not the one that is seen, on the page. */
  function ghost(): [number, number][][] {
    const it = held()
    const drawn = it && drawnOf(store.piece, it.id)!
    if (!it || !drawn || drawn.poses.length < 2) return []
    return ringsOfPose(drawn, it.pose).map(r => {
      const out: [number, number][] = []
      for (let k = 0; k < r.length; k += 2) out.push(lens().toScreen(...seen(it.eye, it.world, r[k]!, r[k + 1]!)))
      return out
    })
  }

  function pull(e: PointerEvent, node: PenPoint): void {
    const it = held()!
    picked = node
    const before = store.piece
    const world = it.world.slice()
    let moved = false
    pullFrom(e, {
      begin: () => store.beginGesture(),
      move: (dx, dy, m) => {
        const to = unseen(it.eye, world, ...ruled([node.x + dx, node.y + dy], m))
        if (!to) return
        moved = true
        store.act(setCorner(before, it.id, it.pose, node.ring, node.nth, { x: to[0], y: to[1] }))
      },
      end: pulled => {
        if (pulled) store.endGesture()
        redraw()
      },
      giveUp: () => {
        if (moved) store.undo()
      },
    })
    redraw()
  }

  /** Double click: adds a point to the outline there, or makes the point there smooth or a corner. */
  function twice(at: readonly [number, number]): boolean {
    const it = held()
    if (!it || hand.pen) return false
    const node = nodeAt(at)
    if (node) {
      store.act(setCorner(store.piece, it.id, it.pose, node.ring, node.nth, { smooth: !node.smooth }))
      return true
    }
    const nearest = nearestOnRings(nodes(), at, NEAR_LINE)
    if (!nearest) return false
    const { ring, after, share } = nearest
    store.act(addCorner(store.piece, it.id, ring, after, share))
    picked = { ring, nth: after + 1 }
    return true
  }

  /** Picks the next or the previous point. */
  function pickNext(all: readonly PenPoint[], backwards: boolean): void {
    const at = all.findIndex(isPicked)
    const next = backwards ? (at < 0 ? all.length - 1 : at - 1) : at + 1
    picked = all[(next + all.length) % all.length]!
  }

  /** Applies a key to the picked point. @returns whether it means anything there */
  function keyOnPoint(e: KeyboardEvent, node: PenPoint, id: string, pose: number): boolean {
    const arrow = ARROWS[e.key]
    const set = (change: Parameters<typeof setCorner>[5]) =>
      store.act(setCorner(store.piece, id, pose, node.ring, node.nth, change))
    if (arrow) {
      const corner = drawnOf(store.piece, id)!.poses[pose]![node.ring]![node.nth]!
      const by = e.shiftKey ? 10 : 1
      set({ x: corner.x + arrow[0] * by, y: corner.y + arrow[1] * by })
    } else if (e.key === 's') set({ smooth: !node.smooth })
    else if (e.key === 'Delete') {
      const op = removeCorner(store.piece, id, node.ring, node.nth)
      if (op) store.act(op)
      else store.say('An outline needs at least that many points.')
      picked = null
    } else if (e.key === 'Escape') picked = null
    else return false
    return true
  }

  /** @returns whether the key was meant for a point */
  function key(e: KeyboardEvent): boolean {
    const it = held()
    const all = nodes()
    if (!it || all.length === 0) return false
    const node = all.find(isPicked)
    if (e.key === 'n' || e.key === 'N') pickNext(all, e.shiftKey)
    else if (!node || !keyOnPoint(e, node, it.id, it.pose)) return false
    redraw()
    return true
  }

  return { nodes, nodeAt, isPicked, ghost, pull, twice, key }
}
