/** What is dropped on the stage: an entry on a part drives it too; files become parts. */
import type { hit } from '~~/core/rig/hit.ts'
import { dropped } from '~/editor/carry.ts'
import { useLinking } from '~/stores/linking.ts'
import { useListing } from '~/stores/listing.ts'
import { usePiece } from '~/stores/piece.ts'
import { useTaking } from '~/stores/taking.ts'

/** @param under gives what lies under the pointer */
export function useStageDrop(under: (e: MouseEvent) => ReturnType<typeof hit>): (e: DragEvent) => void {
  const store = usePiece()
  const linking = useLinking()
  const listing = useListing()
  const taking = useTaking()
  return e => {
    const files = [...(e.dataTransfer?.files ?? [])]
    if (files.length > 0) {
      e.preventDefault()
      void taking.takeIn(files)
      return
    }
    const driver = dropped(e)
    if (!driver) return
    const found = under(e)
    if (!found) store.notice = { says: 'There is no part there. Drop it on one, and that follows it.' }
    const key = found && linking.follow(driver, found.id)
    if (key) listing.reveal(key)
  }
}
