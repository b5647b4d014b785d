/** What is ruled over the stage: the grid and guides of one's own, which are pulled out of the rulers and off the stage again. */
import { MOST_GUIDES } from '~~/core/piece/schema.ts'
import { dropGuide, guidesOf, layGuide, moveGuide, type GuideAxis } from '~~/core/acts/guides.ts'
import type { Scene } from '~~/core/rig/scene.ts'
import { snapLines, pointDrawnTo, SAFE, type SnapLines } from '~~/core/rig/snapping.ts'
import { printNumber } from '~~/core/units/units.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import type { Palette } from '~/composables/usePalette.ts'
import { pullFrom } from './pull.ts'
import type { Lens, Size } from './view.ts'

/** One of the guides of the piece. */
export interface Guide {
  readonly axis: GuideAxis
  readonly nth: number
}

/** Page pixels within which a guide is taken hold of, or drawn to something. */
const NEAR = 3
const REACH = 6
/** Lines of the grid nearer than this to one another are not drawn, px on the page. */
const CLOSEST = 5

/** @param size of the stage on the page */
export function useRuling(scene: () => Scene | null, lens: () => Lens, size: () => Size, redraw: () => void) {
  const store = useOpenPiece()
  /** The guide that is pulled, and whether it is off the stage. */
  let pulled: (Guide & { off: boolean }) | null = null

  const along = (axis: GuideAxis, at: readonly [number, number]) => lens().toStage(...at)[axis === 'x' ? 0 : 1]
  const isOff = (axis: GuideAxis, [x, y]: readonly [number, number]) =>
    axis === 'x' ? x < 0 || x > size().width : y < 0 || y > size().height

  function guideAt([x, y]: readonly [number, number]): Guide | null {
    const piece = store.piece
    if (!piece.stage.guides) return null
    for (const axis of ['x', 'y'] as const) {
      const nth = guidesOf(piece)[axis].findIndex(v => {
        const [sx, sy] = lens().toScreen(v, v)
        return Math.abs(axis === 'x' ? sx - x : sy - y) <= NEAR
      })
      if (nth >= 0) return { axis, nth }
    }
    return null
  }

  /** Where a guide would lie: on whole pixels, or drawn to what is there unless Ctrl is held. */
  function placeOf(axis: GuideAxis, at: readonly [number, number], lines: SnapLines | null): number {
    const to = along(axis, at)
    if (!lines) return Math.round(to * 10) / 10
    const near = pointDrawnTo(to, to, lines, REACH / lens().scale)[axis === 'x' ? 0 : 1]
    return near === to ? Math.round(to) : Math.round(near * 100) / 100
  }

  /**
   * Pulls a guide: one that lies there, or a new one out of a ruler. Off the stage it is deleted.
   *
   * @param at where the press was, page pixels from the stage's corner
   */
  function pull(e: PointerEvent, at: readonly [number, number], axis: GuideAxis, own: number | null): void {
    const before = store.piece
    const nth = own ?? guidesOf(before)[axis].length
    if (nth >= MOST_GUIDES) {
      store.say(`There are ${MOST_GUIDES} guides already; drag one off the stage first.`)
      return
    }
    const drawn = scene()
    // As they lay when it was taken hold of, without itself: it would stick to where it is.
    const all = drawn ? snapLines(drawn, new Set()) : null
    const held = own === null ? NaN : guidesOf(before)[axis][own]!
    const lines = all && { ...all, [axis]: all[axis].filter(v => v !== held) }
    let acted = false
    const end = (): void => {
      if (acted) store.endGesture()
      pulled = null
      redraw()
    }
    pullFrom(e, {
      begin: () => store.beginGesture(),
      move: (dx, dy, m) => {
        const to = [at[0] + dx, at[1] + dy] as const
        pulled = { axis, nth, off: isOff(axis, to) }
        const place = placeOf(axis, to, m.ctrlKey || m.metaKey ? null : lines)
        const op = own === null ? layGuide(before, axis, place) : moveGuide(before, axis, own, place)
        if (op) store.act(op)
        acted = true
        redraw()
      },
      end: (went, by) => {
        const gone = went && pulled?.off
        const givenUp = by instanceof KeyboardEvent
        if (gone && own !== null && !givenUp) store.act(dropGuide(before, axis, own))
        end()
        if (!went || givenUp) return
        // One that never came to lie on the stage leaves nothing behind.
        if (gone && own === null) return store.undo()
        const says = axis === 'x' ? 'vertical' : 'horizontal'
        if (gone) store.sayWithUndo(`The ${says} guide was deleted.`)
        else
          store.say(
            `The ${says} guide lies at ${printNumber(guidesOf(store.piece)[axis][nth]!, 2).replace('-', '−')}px.`,
          )
      },
      giveUp: () => {
        if (acted) store.undo()
        store.say('Cancelled: the guides are back as they were.')
      },
    })
  }

  function draw(c: CanvasRenderingContext2D, palette: Palette): void {
    const { stage } = store.piece
    const { width, height } = size()
    const { toScreen, scale } = lens()
    const line = (axis: GuideAxis, at: number) => {
      const [x, y] = toScreen(at, at)
      // On the middle of a pixel, so that it is one wide.
      const place = Math.floor(axis === 'x' ? x : y) + 0.5
      if (axis === 'x') {
        c.moveTo(place, 0)
        c.lineTo(place, height)
      } else {
        c.moveTo(0, place)
        c.lineTo(width, place)
      }
    }
    c.lineWidth = 1
    const stroke = (colour: string, alpha: number, dash: number[] = []) => {
      c.strokeStyle = colour
      c.globalAlpha = alpha
      c.setLineDash(dash)
      c.stroke()
      c.setLineDash([])
      c.globalAlpha = 1
    }
    if (stage.grid) {
      let step = stage.grid
      while (step * scale < CLOSEST) step *= 5
      const [[left, high], [right, low]] = [lens().toStage(0, 0), lens().toStage(width, height)]
      for (const fifth of [false, true]) {
        c.beginPath()
        for (const [axis, from, to] of [
          ['x', left, right],
          ['y', low, high],
        ] as const)
          for (let k = Math.ceil(from / step); k * step <= to; k++) if ((k % 5 === 0) === fifth) line(axis, k * step)
        stroke(palette.sea, fifth ? 0.42 : 0.2)
      }
    }
    if (!stage.guides) return
    c.beginPath()
    for (const share of SAFE) {
      const [x, y] = toScreen((-stage.width * share) / 2, (stage.height * share) / 2)
      c.rect(x, y, stage.width * share * scale, stage.height * share * scale)
      stroke(palette.sea, 1, share === SAFE[0] ? [6, 4] : [2, 4])
      c.beginPath()
    }
    const [mx, my] = toScreen(0, 0)
    c.moveTo(mx - 12, my)
    c.lineTo(mx + 12, my)
    c.moveTo(mx, my - 12)
    c.lineTo(mx, my + 12)
    stroke(palette.sea, 1)
    for (const axis of ['x', 'y'] as const)
      guidesOf(store.piece)[axis].forEach((at, nth) => {
        const held = pulled?.axis === axis && pulled.nth === nth
        c.beginPath()
        line(axis, at)
        // Light below it, so that it is seen on dark and on bright grounds.
        c.lineWidth = 3
        stroke(palette.sheet, 0.4)
        c.lineWidth = 1
        stroke(held ? palette.coral : palette.brass, held && pulled!.off ? 0.35 : 1)
      })
  }

  return { guideAt, pull, draw }
}
