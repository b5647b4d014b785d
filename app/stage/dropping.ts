/** What is dropped on the stage: an entry on a part drives it too; files become parts. */
import type { Hit } from '~~/core/rig/hit.ts'
import { dropped } from '~/editor/carry.ts'
import { useLinking } from '~/commands/linking.ts'
import { usePiece } from '~/stores/piece.ts'
import { useTaking } from '~/commands/taking.ts'

/** Several parts lie where an entry was dropped: which of them is to follow it is asked there. */
export interface DropQuestion {
  readonly driver: string
  /** Ids, from above down. */
  readonly parts: readonly string[]
  /** Px of the window. */
  readonly at: readonly [number, number]
}

/** @param pile gives what lies under the pointer, from above down */
export function useStageDrop(pile: (e: MouseEvent) => Hit[]) {
  const store = usePiece()
  const linking = useLinking()
  const taking = useTaking()
  const asked = shallowRef<DropQuestion | null>(null)

  function drop(e: DragEvent): void {
    const files = [...(e.dataTransfer?.files ?? [])]
    if (files.length > 0) {
      e.preventDefault()
      void taking.takeIn(files)
      return
    }
    const driver = dropped(e)
    if (!driver) return
    const parts = pile(e).map(found => found.id)
    const [first] = parts
    if (!first) store.say('There’s no part there. Drop it on a part to make that follow it.')
    else if (parts.length > 1) asked.value = { driver, parts, at: [e.clientX, e.clientY] }
    else linking.followed(driver, first)
  }
  return { drop, asked }
}
