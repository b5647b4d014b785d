/** Gestures on time, made at the moment that is shown: a mark here, an end of the stretch here. */
import { freeName } from '~~/core/acts/parts.ts'
import { addCue, restartClock, setMarks, setStretch } from '~~/core/acts/time-edits.ts'
import { longestLead } from '~~/core/engine/taps.ts'
import { printNumber } from '~~/core/units/units.ts'
import { useSelection } from '../stores/selection.ts'
import { useOpenPiece } from '../stores/open-piece.ts'

export function useTiming() {
  const store = useOpenPiece()
  const hand = useSelection()
  const now = () => Number(store.player.now().seconds.toFixed(3))

  /** A mark on the cue in hand, else on the first there is, else on a new one. While it plays, gestures on it begin now. */
  function cueHere(): void {
    const piece = store.piece
    const held = hand.drive?.startsWith('cues/') ? hand.drive.slice('cues/'.length) : undefined
    const id = held ?? Object.keys(piece.cues).find(c => piece.cues[c]!.every === null)
    if (id === undefined) {
      const made = addCue(piece, { name: freeName(piece, 'cue'), marks: [now()] })
      store.act(made.op)
      hand.take(`cues/${made.id}`)
      store.sayWithUndo(`A new cue with a mark at ${printNumber(now(), 2)} s.`)
      return
    }
    const cue = piece.cues[id]!
    const lead = store.player.playing ? longestLead(store.program, id) : 0
    const at = Number((now() + lead).toFixed(3))
    store.act(setMarks(piece, id, [...cue.marks, at]))
    const ahead = lead > 0 ? `, ${printNumber(lead, 2)} s ahead, so that the gesture on it begins now` : ''
    store.sayWithUndo(`${cue.name} has a mark at ${printNumber(at, 2)} s${ahead}.`)
  }

  /** The first or the last end of the marked stretch; a lap long where the other is not there or lies beyond. */
  function endHere(first: boolean): void {
    const { stretch, lap } = store.piece
    const length = (lap.length.n / lap.length.d) * (first ? 1 : -1)
    const other = stretch ? (first ? stretch.to : stretch.from) : now() + length
    const beyond = first ? other <= now() : other >= now()
    store.act(setStretch([now(), beyond ? now() + length : other]))
  }

  /** A clock begins again now. */
  function restart(id: string): void {
    const piece = store.piece
    const { op, cue } = restartClock(piece, id, now())
    const made = !piece.cues[cue]
    store.act(op)
    const how = made ? ` Its taps are in the cue ${store.piece.cues[cue]!.name}.` : ''
    store.sayWithUndo(`${piece.clocks[id]!.name} restarts at ${printNumber(now(), 2)} s.${how}`)
  }

  return { cueHere, endHere, restart }
}
