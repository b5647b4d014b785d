/**
 * The hand on the tape of time: pulled by its middle it moves the moment; a mark in its upper edge is dragged (with Alt
 * doubled); along the ruler at its foot a stretch is marked. Marks and ends snap to whole frames, marks also to
 * other marks and to where the formula leaps that was in hand last.
 */
import { setMarks, setStretch } from '~~/core/acts/time-edits.ts'
import { toNumber } from '~~/core/time/rational.ts'
import { follow } from '~/editor/follow.ts'
import { EDGE, TAPE_RULER, marksBetween, type TapeMark } from '~/player/tape-marks.ts'
import { leapsWithin } from '~/player/scope-layers.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { useTuning } from '~/commands/tuning.ts'

/** Pixels about a mark within which it is taken hold of. */
const REACH = 7

/**
 * @param perSecond px a second, as it is zoomed now
 * @param nib px from the left at which the moment stands
 */
export function useTape(perSecond: () => number, nib: () => number) {
  const store = useOpenPiece()
  const hand = useSelection()
  const tuning = useTuning()
  const player = store.player

  const secondAt = (e: { offsetX: number }) => player.now().seconds + (e.offsetX - nib()) / perSecond()
  const onFrame = (second: number) => {
    const rate = toNumber(store.program.measures.frameRate)
    return Number((Math.round(second * rate) / rate).toFixed(6))
  }

  function markAt(e: { offsetX: number; offsetY: number }): TapeMark | null {
    if (e.offsetY > EDGE + 12) return null
    const [at, reach] = [secondAt(e), REACH / perSecond()]
    const near = marksBetween(store.piece, at - reach, at + reach)
    // Where some stand on one another: in the edge a moment by its tab, below it a cue, what is in hand first.
    const rank = (m: TapeMark) =>
      (hand.drive === `${m.of}/${m.id}` ? 0 : 1) + ((m.of === 'dials') === e.offsetY <= EDGE ? 0 : 2)
    near.sort((a, b) => rank(a) - rank(b) || Math.abs(a.second - at) - Math.abs(b.second - at))
    return near[0] ?? null
  }

  /** What a mark is drawn to besides frames: other marks, and where the formula leaps that was in hand. */
  async function places(mark: TapeMark, from: number, to: number): Promise<number[]> {
    const others = marksBetween(store.piece, from, to).filter(m => m.of !== mark.of || m.id !== mark.id)
    const drive = hand.formula
    const leaping = drive ? await store.ask(drive, 'leaping') : null
    return [...others.map(m => m.second), ...leapsWithin(leaping?.at ?? [], from, to).map(l => l.second)]
  }

  /** Follows a mark from where it stands, drawn to what is near; `put` says where it is. */
  function pull(e: PointerEvent, mark: TapeMark, own: number, put: (second: number) => void): void {
    const from = e.clientX
    let moved = false
    let near: readonly number[] = []
    const span = 4000 / perSecond()
    void places(mark, own - span, own + span).then(found => (near = found))
    store.beginGesture()
    player.hold(true)
    follow(
      e,
      m => {
        if (!moved && Math.abs(m.clientX - from) < 3) return
        moved = true
        const at = own + (m.clientX - from) / perSecond()
        const reach = REACH / perSecond()
        const place = m.ctrlKey ? undefined : near.find(p => Math.abs(p - at) < reach)
        put(place === undefined ? onFrame(at) : Number(place.toFixed(6)))
      },
      () => {
        player.hold(false)
        store.endGesture()
      },
    )
  }

  function dragMark(e: PointerEvent, mark: TapeMark): void {
    if (mark.of === 'dials') {
      const { low, high, value, locked } = store.piece.dials[mark.id]!
      if (locked) store.say(`${mark.name} is locked.`)
      else pull(e, mark, value, s => tuning.dial(mark.id, Math.min(high, Math.max(low, s))))
      return
    }
    const { marks, every } = store.piece.cues[mark.id]!
    // Of a cue that comes again the mark that this one repeats is moved.
    const own = marks.reduce((best, m) => {
      const off = (v: number) => (every ? Math.abs(((mark.second - v) / every) % 1) : Math.abs(mark.second - v))
      const size = (v: number) => (every ? Math.min(off(v), 1 - off(v)) : off(v))
      return size(m) < size(best) ? m : best
    }, marks[0]!)
    const rest = e.altKey ? marks : marks.filter(m => m !== own)
    hand.take(`cues/${mark.id}`)
    pull(e, mark, own, s => store.act(setMarks(store.piece, mark.id, [...rest, s])))
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
    else if (e.offsetY > (e.currentTarget as HTMLElement).clientHeight - TAPE_RULER) drawStretch(e)
    else pullTape(e)
  }

  /** What lies under the pointer, in words. */
  function says(e: { offsetX: number; offsetY: number; height: number }): string {
    const mark = markAt(e)
    if (mark)
      return mark.of === 'cues'
        ? `${mark.name}: drag to move, Alt duplicates, Ctrl turns snapping off`
        : `${mark.name}: drag to move`
    return e.offsetY > e.height - TAPE_RULER ? 'Drag here to mark a stretch' : ''
  }

  return { press, says, onFrame }
}
