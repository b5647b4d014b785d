/**
 * The hand on the tape of time: pulled by its middle it moves the moment; a mark in its upper edge is dragged (with Alt
 * doubled); along the ruler at its foot a stretch is marked. Marks and ends snap to whole frames.
 */
import { setMarks, setStretch } from '~~/core/acts/timing.ts'
import { toNumber } from '~~/core/time/rational.ts'
import { follow } from '~/editor/follow.ts'
import { EDGE, RULER, marksBetween, type TapeMark } from '~/player/tape-marks.ts'
import { useHand } from '~/stores/hand.ts'
import { usePiece } from '~/stores/piece.ts'

/** Pixels about a mark within which it is taken hold of. */
const REACH = 7

/**
 * @param perSecond px a second, as it is zoomed now
 * @param nib px from the left at which the moment stands
 */
export function useTape(perSecond: () => number, nib: () => number) {
  const store = usePiece()
  const hand = useHand()
  const player = store.player!

  const secondAt = (e: { offsetX: number }) => player.now().seconds + (e.offsetX - nib()) / perSecond()
  const onFrame = (second: number) => {
    const rate = toNumber(store.program!.measures.frameRate)
    return Number((Math.round(second * rate) / rate).toFixed(6))
  }

  function markAt(e: { offsetX: number; offsetY: number }): TapeMark | null {
    if (e.offsetY > EDGE + 12) return null
    const [at, reach] = [secondAt(e), REACH / perSecond()]
    const near = marksBetween(store.piece!, at - reach, at + reach)
    near.sort((a, b) => Math.abs(a.second - at) - Math.abs(b.second - at))
    return near[0] ?? null
  }

  function dragMark(e: PointerEvent, mark: TapeMark): void {
    const { marks, every } = store.piece!.cues[mark.cue]!
    // Of a cue that comes again the mark that this one repeats is moved.
    const own = marks.reduce((best, m) => {
      const off = (v: number) => (every ? Math.abs(((mark.second - v) / every) % 1) : Math.abs(mark.second - v))
      const size = (v: number) => (every ? Math.min(off(v), 1 - off(v)) : off(v))
      return size(m) < size(best) ? m : best
    }, marks[0]!)
    const rest = e.altKey ? marks : marks.filter(m => m !== own)
    const from = e.clientX
    let moved = false
    hand.take(`cues/${mark.cue}`)
    store.beginGesture()
    player.hold(true)
    follow(
      e,
      m => {
        const by = (m.clientX - from) / perSecond()
        if (!moved && Math.abs(m.clientX - from) < 3) return
        moved = true
        store.act(setMarks(store.piece!, mark.cue, [...rest, onFrame(own + by)]))
      },
      () => {
        player.hold(false)
        store.endGesture()
      },
    )
  }

  function drawStretch(e: PointerEvent): void {
    const from = onFrame(secondAt(e))
    const began = e.clientX
    const now = player.now().seconds
    store.beginGesture()
    player.hold(true)
    let drawn = false
    follow(
      e,
      m => {
        if (!drawn && Math.abs(m.clientX - began) < 4) return
        drawn = true
        store.act(setStretch([from, onFrame(now + (m.offsetX - nib()) / perSecond())]))
      },
      () => {
        player.hold(false)
        store.endGesture()
      },
    )
  }

  /** The tape follows the hand: pulled to the left, time goes on. */
  function pullTape(e: PointerEvent): void {
    let last = e.clientX
    player.hold(true)
    follow(
      e,
      m => {
        player.move((last - m.clientX) / perSecond())
        last = m.clientX
      },
      () => player.hold(false),
    )
  }

  function press(e: PointerEvent): void {
    if (e.button !== 0) return
    const mark = markAt(e)
    if (mark) dragMark(e, mark)
    else if (e.offsetY > (e.currentTarget as HTMLElement).clientHeight - RULER) drawStretch(e)
    else pullTape(e)
  }

  /** What lies under the pointer, in words. */
  function says(e: { offsetX: number; offsetY: number; height: number }): string {
    const mark = markAt(e)
    if (mark) return `${mark.name}: drag to move, Alt doubles`
    return e.offsetY > e.height - RULER ? 'Drag along here to mark a stretch' : ''
  }

  return { press, says, onFrame }
}
