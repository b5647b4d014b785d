/** What lies over the stage: the outline of what is chosen, its pin and handles, its path, the circle it sweeps. */
import { pitchRadius } from '~~/core/piece/gearing.ts'
import { applyX, applyY } from '~~/core/piece/transform.ts'
import type { Body } from '~~/core/rig/body.ts'
import { flattened, seen, type Eye } from '~~/core/rig/depth/eye.ts'
import { outlineAt } from '~~/core/rig/outlined.ts'
import { sweptBy } from '~~/core/rig/travel.ts'
import type { Palette } from '~/composables/usePalette.ts'
import type { Handle } from './grips.ts'
import type { PenPoint } from './pen/path-points.ts'
import type { Thread } from './threads.ts'
import type { Lens } from './view.ts'

/** Where the pointer has pulled a frame round parts, on the page. */
export interface Marquee {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

export class Overlay {
  constructor(
    private readonly c: CanvasRenderingContext2D,
    private readonly lens: Lens,
    private readonly palette: Palette,
    private readonly eye: Eye,
  ) {
    // What was drawn before has left its ends and joints.
    c.lineCap = 'butt'
    c.lineJoin = 'miter'
  }

  /** A thin line just outside the edge, so that it hides nothing of it. */
  outline(body: Body, instance: number, strong: boolean): void {
    const drawn = outlineAt(body, instance)
    if (!drawn || drawn.points.length === 0) return
    const { c, palette } = this
    const m = body.worlds[instance]!
    const points: [number, number][] = []
    for (let k = 0; k < drawn.points.length; k += 2)
      points.push(
        this.lens.toScreen(...seen(this.eye, m, drawn.points[k]!, drawn.points[k + 1]!, drawn.heights?.[k / 2])),
      )
    c.beginPath()
    points.forEach(([x, y], k) => (k === 0 ? c.moveTo(x, y) : c.lineTo(x, y)))
    if (drawn.closed) c.closePath()
    c.lineJoin = 'round'
    for (const [colour, width] of [
      [palette.sheet, 3],
      [strong ? palette.sea : palette.faded, 1.2],
    ] as const) {
      c.strokeStyle = colour
      c.lineWidth = width
      c.stroke()
    }
  }

  /** A frame round what has no outline of its own, as a group. */
  box({ left, right, low, high }: { left: number; right: number; low: number; high: number }): void {
    const { c, palette } = this
    const [[x, y], [w, h]] = [this.lens.toScreen(left, high), this.lens.toScreen(right, low)]
    c.strokeStyle = palette.sea
    c.lineWidth = 1
    c.setLineDash([2, 3])
    c.strokeRect(x - 3, y - 3, w - x + 6, h - y + 6)
    c.setLineDash([])
  }

  /** The circle at which a gear's teeth meet those of another, and the one that what turns sweeps. */
  circles(body: Body, instance: number, turns: boolean): void {
    const { c, palette, lens } = this
    const m = flattened(this.eye, body.worlds[instance]!, 0, 0)
    const circle = (x: number, y: number, radius: number, colour: string, dash: number[]) => {
      const [cx, cy] = lens.toScreen(x, y)
      c.beginPath()
      c.arc(cx, cy, radius * lens.scale, 0, 2 * Math.PI)
      c.strokeStyle = colour
      c.lineWidth = 1.2
      c.setLineDash(dash)
      c.stroke()
      c.setLineDash([])
    }
    if (body.part.shape.type === 'gear')
      circle(m[3], m[7], pitchRadius(body.part.shape) * Math.hypot(m[0], m[4]), palette.coral, [])
    const swept = turns ? sweptBy(body, instance, this.eye) : null
    if (swept) circle(swept.x, swept.y, swept.radius, palette.brass, [1, 4])
  }

  /** Its way through the coming lap, a dot a frame: where dots lie close it goes slowly. */
  path(points: Float64Array): void {
    const { c, palette } = this
    c.fillStyle = palette.sea
    c.strokeStyle = palette.sheet
    for (let k = 0; k < points.length; k += 2) {
      const [x, y] = this.lens.toScreen(points[k]!, points[k + 1]!)
      c.beginPath()
      c.arc(x, y, k === 0 ? 3.4 : 1.7, 0, 2 * Math.PI)
      c.lineWidth = 1
      c.stroke()
      c.fill()
    }
  }

  /** What is read and what reads it: a dot stands at what reads. */
  threads(all: readonly Thread[]): void {
    const { c, palette, lens } = this
    for (const { from, to } of all) {
      const [[ax, ay], [bx, by]] = [lens.toScreen(...from), lens.toScreen(...to)]
      c.beginPath()
      c.moveTo(ax, ay)
      c.quadraticCurveTo((ax + bx) / 2, (ay + by) / 2 - Math.hypot(bx - ax, by - ay) * 0.12, bx, by)
      for (const [colour, width] of [
        [palette.sheet, 2.4],
        [palette.brass, 1],
      ] as const) {
        c.strokeStyle = colour
        c.lineWidth = width
        c.stroke()
      }
      c.beginPath()
      c.arc(bx, by, 3, 0, 2 * Math.PI)
      c.fillStyle = palette.brass
      c.fill()
    }
  }

  handles(all: readonly Handle[]): void {
    const { c, palette } = this
    c.strokeStyle = palette.ink
    c.lineWidth = 1.2
    for (const h of all) {
      if (h.is === 'pin') continue
      c.fillStyle = h.is === 'turn' ? palette.sea : palette.sheet
      c.beginPath()
      if (h.is === 'turn') c.arc(h.x, h.y, 4.5, 0, 2 * Math.PI)
      else c.rect(h.x - 3.5, h.y - 3.5, 7, 7)
      c.fill()
      c.stroke()
    }
  }

  /** Where it turns and scales about; the tail shows which way its own x goes. */
  pin(body: Body, instance: number): void {
    const { c, palette } = this
    const { x, y } = body.part.pivot
    const m = flattened(this.eye, body.worlds[instance]!, x, y)
    const [px, py] = this.lens.toScreen(applyX(m, x, y), applyY(m, x, y))
    const length = Math.hypot(m[0], m[4]) || 1
    c.lineCap = 'round'
    for (const [colour, width] of [
      [palette.ink, 5],
      [palette.sheet, 2],
    ] as const) {
      c.strokeStyle = colour
      c.lineWidth = width
      c.beginPath()
      c.moveTo(px, py)
      c.lineTo(px + (m[0] / length) * 20, py - (m[4] / length) * 20)
      c.stroke()
    }
    for (const [radius, colour] of [
      [5, palette.sheet],
      [1.6, palette.sea],
    ] as const) {
      c.beginPath()
      c.arc(px, py, radius, 0, 2 * Math.PI)
      c.fillStyle = colour
      c.fill()
      if (radius < 5) continue
      c.strokeStyle = palette.ink
      c.lineWidth = 2
      c.stroke()
    }
  }

  /** Lines that what is moved lies on. */
  lines(x: number | null, y: number | null, width: number, height: number): void {
    const { c, palette } = this
    c.strokeStyle = palette.coral
    c.lineWidth = 1
    const [sx, sy] = this.lens.toScreen(x ?? 0, y ?? 0)
    c.beginPath()
    if (x !== null) {
      c.moveTo(sx, 0)
      c.lineTo(sx, height)
    }
    if (y !== null) {
      c.moveTo(0, sy)
      c.lineTo(width, sy)
    }
    c.stroke()
  }

  /** Points of a path: bends are corners, what runs smoothly is round; the one in hand is filled. */
  nodes(
    all: readonly PenPoint[],
    picked: (n: PenPoint) => boolean,
    ghost: readonly (readonly [number, number])[][],
  ): void {
    const { c, palette } = this
    for (const line of ghost) this.line(line, palette.brass, [3, 3])
    c.strokeStyle = palette.ink
    c.lineWidth = 1.2
    for (const n of all) {
      c.fillStyle = picked(n) ? palette.brass : palette.sheet
      c.beginPath()
      if (n.smooth) c.arc(n.x, n.y, 4, 0, 2 * Math.PI)
      else {
        c.moveTo(n.x, n.y - 5)
        c.lineTo(n.x + 5, n.y)
        c.lineTo(n.x, n.y + 5)
        c.lineTo(n.x - 5, n.y)
        c.closePath()
      }
      c.fill()
      c.stroke()
    }
  }

  /** What the pen has laid so far, and on to the pointer. */
  drawing(points: readonly (readonly [number, number])[], tip: readonly [number, number] | null): void {
    const { c, palette } = this
    this.line(tip ? [...points, tip] : points, palette.brass, [])
    c.fillStyle = palette.sheet
    c.strokeStyle = palette.ink
    points.forEach(([x, y], k) => {
      c.beginPath()
      c.arc(x, y, k === 0 ? 5 : 3.5, 0, 2 * Math.PI)
      c.fill()
      c.stroke()
    })
  }

  private line(points: readonly (readonly [number, number])[], colour: string, dash: number[]): void {
    const { c } = this
    c.beginPath()
    points.forEach(([x, y], k) => (k === 0 ? c.moveTo(x, y) : c.lineTo(x, y)))
    c.strokeStyle = colour
    c.lineWidth = 1.4
    c.setLineDash(dash)
    c.stroke()
    c.setLineDash([])
  }

  marquee({ x, y, width, height }: Marquee): void {
    const { c, palette } = this
    c.strokeStyle = palette.sea
    c.lineWidth = 1
    c.setLineDash([4, 3])
    c.strokeRect(x, y, width, height)
    c.setLineDash([])
  }
}
