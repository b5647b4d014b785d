/** The gestures that tune a running piece, made at the moment that is shown. */
import { dialOf, numberAt, widened } from '~~/core/acts/number-to-dial.ts'
import { changeNamed } from '~~/core/acts/named-things.ts'
import { sourceName, sourceOf } from '~~/core/acts/sources.ts'
import { rewrite } from '~~/core/engine/rewrite.ts'
import { setDial, setLap, setLapStart, settleFrom0 } from '~~/core/engine/retime.ts'
import { shiftOf, type Shift } from '~~/core/engine/shift.ts'
import { parse, plainly } from '~~/core/formula/parse.ts'
import { setHandle } from '~~/core/formula/edit.ts'
import { propertyOf, showValue } from '~~/core/insight/report.ts'
import { printNumber } from '~~/core/units/units.ts'
import { useOpenPiece } from '../stores/open-piece.ts'
import { fromTo, useSmoothing } from './smoothing.ts'

export function useTuning() {
  const store = useOpenPiece()
  const smoothing = useSmoothing()
  const now = () => store.player.now()

  /**
   * Another text for a drive. Says so, and by how much, when a value jumps although jumps are to be avoided.
   * @param typed it was written by hand: that more is written than that is said too
   */
  function commit(key: string, text: string, typed = false): void {
    const program = store.program
    if (sourceOf(program.piece, key)?.text === text) return
    const made = rewrite(program, key, text, now(), store.noJump())
    store.act(made.op, made.program)
    const changed = typed && made.text !== plainly(text)
    if (!made.shift && !changed) return
    const name = sourceName(program.piece, key)
    store.say(
      made.shift
        ? `${made.jumps ?? 'The value can’t be kept with this change.'} It jumps ${fromTo(store.program, made.shift)}.`
        : `${name} continues from where it is: its formula was adjusted.`,
      changed ? { label: 'Apply without smoothing', do: () => exactly(key, text) } : store.undoAction,
    )
  }

  /** Another text as it is, which may make the value jump: by how much is said. */
  function exactly(key: string, text: string): void {
    const made = rewrite(store.program, key, text, now(), false)
    smoothing.told(made.op, '', made.program)
  }

  /** The n-th number of a drive's formula, while it is dragged. */
  function number(key: string, nth: number, value: number, decimals: number): void {
    const { formula } = parse(sourceOf(store.piece, key)!.text)
    if (formula) commit(key, setHandle(formula, nth, value, decimals))
  }

  /** What the dial in the hand has moved by itself, not by its pace, since it was taken: of one value the whole way. */
  let pulled: { shift: Shift; by: number } | null = null
  let pulling = false

  /** A dial at another value. What it sets paces goes on from where it is; what moves at once is said, while it is pulled at the end. */
  function dial(id: string, value: number, says = true): void {
    const { name, locked, value: old } = store.piece.dials[id]!
    if (locked) store.say(`${name} is locked. Unlock it in its settings.`)
    if (locked || old === value) return
    const before = store.program
    const at = now()
    store.act(setDial(before, id, value, at, store.noJump()))
    const shift = says && store.noJump() ? shiftOf(before, store.program, at) : null
    if (!shift) return
    const by = shift.to - shift.from + (pulling && pulled?.shift.key === shift.key ? pulled.by : 0)
    pulled = { shift, by }
    if (!pulling) sayPulled(id)
  }
  function sayPulled(id: string): void {
    if (!pulled) return
    const { shift, by } = pulled
    pulled = null
    const program = store.program
    const size = showValue(Math.abs(by), propertyOf(program, shift.key), program.measures, 2)
    store.sayWithUndo(
      `${sourceName(program.piece, shift.key)} jumped by ${size}: ${store.piece.dials[id]!.name} sets more than its pace.`,
    )
  }
  /** The dial goes as far as a value, and is set to it: one step to undo. */
  function widen(id: string, value: number): void {
    const dialled = store.piece.dials[id]!
    store.beginGesture()
    store.act(changeNamed(store.piece, 'dials', id, widened(dialled, value)))
    dial(id, value)
    store.endGesture()
    const { low, high, unit } = store.piece.dials[id]!
    store.sayWithUndo(
      `${dialled.name} goes from ${printNumber(low, 4)} to ${printNumber(high, 4)}${unit === '' ? '' : ` ${unit}`} now.`,
    )
  }
  /** The dial is taken in the hand, to be pulled: one step to undo; and let go. */
  function takeDial(): void {
    store.beginGesture()
    pulled = null
    pulling = true
  }
  function letDialGo(id: string): void {
    store.endGesture()
    pulling = false
    sayPulled(id)
  }

  /** The number of a formula at a place of its text becomes a dial. */
  function dialOut(key: string, place: number): void {
    const made = dialOf(store.piece, key, numberAt(sourceOf(store.piece, key)?.text ?? '', place))
    if (!made) {
      store.say('There’s no number in this formula to make a dial from.')
      return
    }
    store.act(made.op)
    store.sayWithUndo(`${made.name} is now a dial.`)
  }

  const settle = (id: string) => store.act(settleFrom0(store.piece, id))
  /** The length of the lap; with `keep` its start moves too, which is said. */
  function lap(n: number, d: number, keep: boolean): void {
    const before = store.piece.lap.start
    const ran = store.program
    const at = now()
    store.act(setLap(store.piece, { n, d }, at, keep))
    const { start } = store.piece.lap
    const shift = store.noJump() ? shiftOf(ran, store.program, at) : null
    const jumps = shift ? ` ${smoothing.jumped(shift)}` : ''
    if (start !== before)
      store.say(`The lap now starts at ${printNumber(start, 3)} s, so its position is as before.${jumps}`)
    else if (!keep && shift)
      store.say(`The lap starts where it did.${jumps}`, {
        label: 'Keep lap position',
        do: () => {
          store.undo()
          lap(n, d, true)
        },
      })
  }
  /** The start of the lap, on the nearest whole frame: that it was moved there is said. */
  function lapStart(seconds: number): void {
    store.act(setLapStart(store.piece, seconds))
    const { start } = store.piece.lap
    if (Math.abs(start - seconds) > 1e-9) store.say(`The lap starts on a whole frame: at ${printNumber(start, 4)} s.`)
  }

  return { commit, exactly, number, dial, takeDial, letDialGo, widen, dialOut, settle, lap, lapStart }
}
