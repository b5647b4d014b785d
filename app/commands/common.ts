/** What many formulas share: signals, cues, clocks and curves, newly made and taken in hand. */
import { signalKey } from '~~/core/piece/drive-key.ts'
import { addSignal } from '~~/core/acts/drives.ts'
import { freeName } from '~~/core/acts/parts.ts'
import { addClock, addCue, addCurve } from '~~/core/acts/time-edits.ts'
import type { Operation } from '~~/core/piece/operation.ts'
import { focusFormula } from '~/editor/focus.ts'
import { useListing } from '../stores/listing.ts'
import { useOpenPiece } from '../stores/open-piece.ts'

export const COMMON = {
  signal: 'A named formula that others can read',
  cue: 'Marks on time that gestures play on',
  clock: 'A separate time: slower, back and forth, restarting',
  curve: 'Drawn point by point, to be played',
} as const

const HUMP = [
  { time: 0, value: 0, shape: 'smooth' },
  { time: 0.4, value: 1, shape: 'smooth' },
  { time: 1, value: 0, shape: 'smooth' },
] as const

export function useCommon() {
  const store = useOpenPiece()
  const listing = useListing()

  function make(kind: keyof typeof COMMON): void {
    const piece = store.piece
    const name = freeName(piece, kind)
    const made: Record<typeof kind, () => { id: string; op: Operation; place: string }> = {
      signal: () => ({ ...addSignal(piece, name, 'sine(every: 4s)'), place: '~' }),
      cue: () => ({ ...addCue(piece, { name }), place: 'cues/' }),
      clock: () => ({ ...addClock(piece, { name }), place: 'clocks/' }),
      curve: () => ({ ...addCurve(piece, { name, channels: { value: [...HUMP] } }), place: 'curves/' }),
    }
    const { id, op, place } = made[kind]()
    store.act(op)
    listing.reveal(place + id)
    if (kind === 'signal') void nextTick(() => focusFormula(signalKey(id)))
  }

  return { make }
}
