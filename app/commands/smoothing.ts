/** What is done so that values stay at the moment that is shown, or else with a word about how far they jump. */
import { keepingSet, shiftOf, type Shift } from '~~/core/engine/shift.ts'
import { sourceName } from '~~/core/acts/sources.ts'
import type { Program } from '~~/core/engine/program.ts'
import { propertyOf, showValue } from '~~/core/insight/report.ts'
import type { Operation } from '~~/core/piece/operation.ts'
import { useOpenPiece } from '../stores/open-piece.ts'

/** `from 270.00° to 0.00° (copy 3)`. */
export function fromTo(program: Program, { key, copy, from, to }: Shift): string {
  const show = (v: number) => showValue(v, propertyOf(program, key), program.measures, 2)
  const copies = program.slots.get(key)?.count ?? 1
  return `from ${show(from)} to ${show(to)}${copies > 1 ? ` (copy ${copy + 1})` : ''}`
}

export function useSmoothing() {
  const store = useOpenPiece()
  const nameOf = (key: string) => sourceName(store.piece, key)
  const jumped = (shift: Shift): string => `${nameOf(shift.key)} jumps ${fromTo(store.program, shift)}.`

  /** Does an operation, and says what it did and which value jumps by it most. Without a word where there is neither. */
  function told(op: Operation, says = '', made?: Program): void {
    const before = store.program
    store.act(op, made)
    const shift = store.noJump() ? shiftOf(before, store.program, store.player.now()) : null
    const words = [says, shift ? jumped(shift) : ''].filter(w => w !== '').join(' ')
    if (words !== '') store.sayWithUndo(words)
  }

  /**
   * Takes away what drove properties: they stay where they are by their set values, and it is said what could not.
   * While tuning isn't smooth they fall back to what was set, and can be kept by a press.
   */
  function takeAway(op: Operation, says = '', keep = store.noJump()): void {
    const before = store.program
    const at = store.player.now()
    const kept = keepingSet(before, op, at)
    if (keep) store.act(kept.op, kept.program)
    else store.act(op)
    const step = store.done.at(-1)
    // Pressed later, it must not undo something else.
    const again = (keep: boolean) => () => {
      if (store.done.at(-1) !== step) store.say('Something else has changed since. Undo that first.')
      else {
        store.undo()
        takeAway(op, says, keep)
      }
    }
    const shift = keep ? kept.shift : shiftOf(before, store.program, at)
    const names = kept.held.map(nameOf)
    const stays =
      keep && names.length > 0
        ? `${names.join(' and ')} ${names.length > 1 ? 'stay where they were' : 'stays where it was'}.`
        : ''
    const words = [says, stays, shift ? jumped(shift) : ''].filter(w => w !== '').join(' ')
    const other = keep
      ? { label: 'Apply without smoothing', do: again(false) }
      : { label: 'Keep the value', do: again(true) }
    if (words !== '') store.say(words, names.length > 0 ? other : store.undoAction)
  }

  return { told, takeAway, jumped }
}
