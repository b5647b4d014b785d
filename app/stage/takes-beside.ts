/** Takes of a drive that move beside what runs. */
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

/** So many, most; what runs stands on the stage itself. */
const MOST = 3

export function useBeside() {
  const store = useOpenPiece()
  const hand = useSelection()
  return computed(() => {
    const drive = hand.beside === null ? undefined : store.piece.drives[hand.beside]
    return (drive?.takes ?? [])
      .filter(t => t.text !== drive!.text)
      .slice(0, MOST)
      .map(t => ({ drive: hand.beside!, ...t }))
  })
}
