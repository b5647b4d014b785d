/** The pen: outlines drawn on the stage point by point, and the points of a path that is chosen, pose by pose. */
import { addCorner, addPath, drawnOf, removeCorner, setCorner, type OutlinePoint } from '~~/core/acts/path-edits.ts'
import type { Matrix } from '~~/core/piece/transform.ts'
import { seen, unseen, type Eye } from '~~/core/rig/depth/eye.ts'
import { ringsOfPose } from '~~/core/rig/outline/posing.ts'
import type { Scene } from '~~/core/rig/scene.ts'
import { pointDrawnTo, ruledLines } from '~~/core/rig/snapping.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { pullFrom } from './pull.ts'
import type { Lens } from './view.ts'

/** A point of the path in hand, on the page. */
export interface PenPoint {
  readonly ring: number
  readonly nth: number
  readonly smooth: boolean
  readonly x: number
  readonly y: number
}

const NEAR = 7

export function usePen(scene: () => Scene | null, lens: () => Lens, redraw: () => void) {
  const store = useOpenPiece()
  const hand = useSelection()
  /** Points laid so far, on the stage. */
  let laid: OutlinePoint[] = []
  /** Where the pointer is, on the stage, while it draws. */
  let tip: readonly [number, number] | null = null
  let picked: { ring: number; nth: number } | null = null
  watch(
    () => [hand.part, hand.pose],
    () => (picked = null),
  )
  watch(
    () => hand.pen,
    () => {
      laid = []
      tip = null
      redraw()
    },
  )

  /** The path in hand with where it stands; null for anything else. */
  function held(): { id: string; world: Matrix; eye: Eye } | null {
    const id = hand.others.length > 0 ? null : hand.part
    if (id === null || !drawnOf(store.piece, id)) return null
    const drawn = scene()
    const body = drawn?.bodies.get(id)
    return drawn && body ? { id, world: body.worlds[Math.min(hand.instance, body.count - 1)]!, eye: drawn.eye } : null
  }
  const poseOf = (id: string) => Math.min(hand.pose, drawnOf(store.piece, id)!.poses.length - 1)

  function nodes(): PenPoint[] {
    const it = held()
    if (!it || hand.pen) return []
    const { poses } = drawnOf(store.piece, it.id)!
    return poses[poseOf(it.id)]!.flatMap((ring, k) =>
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
    return ringsOfPose(drawn, poseOf(it.id)).map(r => {
      const out: [number, number][] = []
      for (let k = 0; k < r.length; k += 2) out.push(lens().toScreen(...seen(it.eye, it.world, r[k]!, r[k + 1]!)))
      return out
    })
  }

  function pull(e: PointerEvent, node: PenPoint): void {
    const it = held()!
    picked = node
    const [before, pose] = [store.piece, poseOf(it.id)]
    const world = it.world.slice()
    let moved = false
    pullFrom(e, {
      begin: () => store.beginGesture(),
      move: (dx, dy, m) => {
        const to = unseen(it.eye, world, ...ruled([node.x + dx, node.y + dy], m))
        if (!to) return
        moved = true
        store.act(setCorner(before, it.id, pose, node.ring, node.nth, { x: to[0], y: to[1] }))
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

  /** A place on the stage, drawn to its guides and grid where there are any; Ctrl lets go. */
  function ruled(at: readonly [number, number], e: MouseEvent): [number, number] {
    const to = lens().toStage(...at)
    const { stage } = store.piece
    const free = e.ctrlKey || e.metaKey || (!stage.guides && !stage.grid)
    return free ? to : pointDrawnTo(...to, ruledLines(stage), NEAR / lens().scale)
  }

  /** While it draws: a press lays a point, pulled it is smooth; on the first point it closes. */
  function lay(e: PointerEvent, at: readonly [number, number]): void {
    const [first] = laid
    const start = first && lens().toScreen(first.x, first.y)
    if (start && laid.length > 2 && Math.hypot(start[0] - at[0], start[1] - at[1]) <= NEAR + 2) return end(true)
    const [x, y] = ruled(at, e)
    laid = [...laid, { x, y, smooth: e.altKey }]
    pullFrom(e, {
      move: () => {
        laid = [...laid.slice(0, -1), { ...laid.at(-1)!, smooth: true }]
        redraw()
      },
      end: () => redraw(),
    })
    redraw()
  }

  /** What was laid becomes a part. */
  function end(closed: boolean): void {
    const points = laid
    hand.pen = false
    if (points.length < 2) {
      store.say('A path needs at least two points, so nothing was drawn.')
      return
    }
    const { id, op } = addPath(store.piece, points, closed && points.length > 2)
    store.act(op)
    hand.choose(id)
  }

  /** A point more where the outline was pressed twice; a point that was pressed twice bends, or runs smoothly. */
  function twice(at: readonly [number, number]): boolean {
    const it = held()
    if (!it || hand.pen) return false
    const node = nodeAt(at)
    if (node) {
      store.act(setCorner(store.piece, it.id, poseOf(it.id), node.ring, node.nth, { smooth: !node.smooth }))
      return true
    }
    const all = nodes()
    const rings = new Map<number, PenPoint[]>()
    for (const n of all) rings.set(n.ring, [...(rings.get(n.ring) ?? []), n])
    let best: { ring: number; after: number; share: number; far: number } | null = null
    for (const [ring, list] of rings)
      list.forEach((a, k) => {
        const b = list[(k + 1) % list.length]!
        const [dx, dy] = [b.x - a.x, b.y - a.y]
        const square = dx * dx + dy * dy
        const share = square > 0 ? Math.min(1, Math.max(0, ((at[0] - a.x) * dx + (at[1] - a.y) * dy) / square)) : 0
        const far = Math.hypot(a.x + dx * share - at[0], a.y + dy * share - at[1])
        if (far < (best?.far ?? 24)) best = { ring, after: a.nth, share, far }
      })
    if (!best) return false
    const { ring, after, share } = best as { ring: number; after: number; share: number }
    store.act(addCorner(store.piece, it.id, ring, after, share))
    picked = { ring, nth: after + 1 }
    return true
  }

  /** Keys on the stage; whether one was meant for the pen. */
  function key(e: KeyboardEvent): boolean {
    if (hand.pen) {
      if (e.key === 'Enter') end(false)
      else if (e.key === 'Escape') hand.pen = false
      else if (e.key === 'Backspace' || e.key === 'Delete') laid = laid.slice(0, -1)
      else return false
      redraw()
      return true
    }
    const it = held()
    const all = nodes()
    if (!it || all.length === 0) return false
    if (e.key === 'n' || e.key === 'N') {
      const at = all.findIndex(isPicked)
      picked = all[(at + (e.shiftKey ? all.length - 1 : 1) + (at < 0 && e.shiftKey ? 1 : 0)) % all.length]!
      redraw()
      return true
    }
    const node = all.find(isPicked)
    if (!node) return false
    const pose = poseOf(it.id)
    const arrow = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[e.key]
    const corner = drawnOf(store.piece, it.id)!.poses[pose]![node.ring]![node.nth]!
    if (arrow) {
      const by = e.shiftKey ? 10 : 1
      const to = { x: corner.x + arrow[0]! * by, y: corner.y + arrow[1]! * by }
      store.act(setCorner(store.piece, it.id, pose, node.ring, node.nth, to))
    } else if (e.key === 's')
      store.act(setCorner(store.piece, it.id, pose, node.ring, node.nth, { smooth: !node.smooth }))
    else if (e.key === 'Delete') {
      const op = removeCorner(store.piece, it.id, node.ring, node.nth)
      if (op) store.act(op)
      else store.say('An outline needs at least that many points.')
      picked = null
    } else if (e.key === 'Escape') picked = null
    else return false
    redraw()
    return true
  }

  function hover(at: readonly [number, number], e: MouseEvent): void {
    if (!hand.pen) return
    tip = ruled(at, e)
    redraw()
  }

  /** Points laid so far and the pointer, on the page. */
  const drawing = (): { points: (readonly [number, number])[]; tip: readonly [number, number] | null } => ({
    points: laid.map(p => lens().toScreen(p.x, p.y)),
    tip: tip && lens().toScreen(...tip),
  })

  return { nodes, nodeAt, isPicked, ghost, pull, lay, end, twice, key, hover, drawing }
}
