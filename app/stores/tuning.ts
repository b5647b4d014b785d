/** The gestures that tune a running piece, made at the moment that is shown. */
import { dialOf, numberAt } from '~~/core/acts/dialling.ts'
import { sourceOf } from '~~/core/acts/sources.ts'
import { rewrite, type Shift } from '~~/core/engine/rewrite.ts'
import { setDial, setLap, setLapStart, settleFrom0 } from '~~/core/engine/retime.ts'
import { parse } from '~~/core/formula/parse.ts'
import { setHandle } from '~~/core/formula/edit.ts'
import { propertyOf, showValue } from '~~/core/insight/report.ts'
import { printNumber } from '~~/core/units/units.ts'
import { usePiece } from './piece.ts'

export function useTuning() {
  const store = usePiece()
  const now = () => store.player!.now()

  /** Another text for a drive. Says so, and by how much, when a value jumps although jumps are to be avoided. */
  function commit(key: string, text: string): void {
    const program = store.program!
    if (sourceOf(program.piece, key)?.text === text) return
    const made = rewrite(program, key, text, now(), store.noJump())
    store.act(made.op, made.program)
    if (made.shift) store.notice = { says: shiftText(key, made.jumps, made.shift) }
  }

  /** Another text as it is, which may make the value jump: that is what was asked for. */
  function exactly(key: string, text: string): void {
    const made = rewrite(store.program!, key, text, now(), false)
    store.act(made.op, made.program)
  }

  function shiftText(key: string, reason: string | null, { copy, from, to }: Shift): string {
    const { measures, slots } = store.program!
    const show = (v: number) => showValue(v, propertyOf(store.program!, key), measures, 2)
    const which = (slots.get(key)?.forms.length ?? 1) > 1 ? ` (copy ${copy + 1})` : ''
    return `${reason ?? 'This change cannot keep the value.'} It jumps from ${show(from)} to ${show(to)}${which}.`
  }

  /** The n-th number of a drive's formula, while it is dragged. */
  function number(key: string, nth: number, value: number, decimals: number): void {
    const { formula } = parse(sourceOf(store.piece!, key)!.text)
    if (formula) commit(key, setHandle(formula, nth, value, decimals))
  }

  function dial(id: string, value: number): void {
    const { name, locked } = store.piece!.dials[id]!
    if (locked) store.notice = { says: `${name} is locked. Its form unlocks it.` }
    else if (store.piece!.dials[id]!.value !== value)
      store.act(setDial(store.program!, id, value, now(), store.noJump()))
  }

  /** The number of a formula at a place of its text becomes a dial. */
  function dialOut(key: string, place: number): void {
    const made = dialOf(store.piece!, key, numberAt(sourceOf(store.piece!, key)?.text ?? '', place))
    if (!made) {
      store.notice = { says: 'There is no number in this formula to make a dial of.' }
      return
    }
    store.act(made.op)
    store.notice = { says: `${made.name} is a dial now.`, act: { says: 'Undo', do: store.undo } }
  }

  const settle = (id: string) => store.act(settleFrom0(store.piece!, id))
  /** The length of the lap; with `keep` its start moves too, which is said. */
  function lap(n: number, d: number, keep: boolean): void {
    const before = store.piece!.lap.start
    store.act(setLap(store.piece!, { n, d }, now(), keep))
    const { start } = store.piece!.lap
    if (start !== before)
      store.notice = { says: `The lap now starts at ${printNumber(start, 3)} s, where it is as far along as before.` }
    else if (!keep && store.noJump())
      store.notice = {
        says: 'The lap starts where it did, so what runs per lap may have jumped.',
        act: {
          says: 'Keep lap position',
          do: () => {
            store.undo()
            lap(n, d, true)
          },
        },
      }
  }
  /** The start of the lap, on the nearest whole frame: that it was moved there is said. */
  function lapStart(seconds: number): void {
    store.act(setLapStart(store.piece!, seconds))
    const { start } = store.piece!.lap
    if (Math.abs(start - seconds) > 1e-9)
      store.notice = { says: `The lap starts on a whole frame: at ${printNumber(start, 4)} s.` }
  }

  return { commit, exactly, number, dial, dialOut, settle, lap, lapStart }
}
