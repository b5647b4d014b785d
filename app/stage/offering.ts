/** What is offered after the hand has set a number that a formula drives. */
import { onTopOfHand, sourceName } from '~~/core/acts/sources.ts'
import { overruledProperties } from '~~/core/acts/stage-edits.ts'
import type { Operation } from '~~/core/piece/operation.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { useTuning } from '~/commands/tuning.ts'

/** What a gesture set although a formula drives it that does not read the set value: offered as `base +`. */
export function useOffer(): (op: Operation | null) => void {
  const store = useOpenPiece()
  const tuning = useTuning()
  return (op: Operation | null): void => {
    const keys = op ? overruledProperties(store.piece, op) : []
    if (keys.length === 0) return
    const names = keys.map(k => sourceName(store.piece, k)).join(' and ')
    store.say(
      `${names} ${keys.length > 1 ? 'follow their formulas, which do' : 'follows its formula, which does'} not read the set value.`,
      {
        label: 'Add it as base +',
        do: () => {
          store.beginGesture()
          for (const key of keys) {
            tuning.exactly(key, onTopOfHand(store.piece.drives[key]!.text))
          }
          store.endGesture()
        },
      },
    )
  }
}
