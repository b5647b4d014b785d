/** Three short hints on the demo at a first visit, each gone once it was done; kept in this browser. */
import { storage } from '../services/storage.ts'
import { useSelection } from './selection.ts'
import { usePiece } from './piece.ts'

const PLACE = 'open-tide-hints'
/** The piece that a newcomer sees. */
const DEMO = 'lantern-pier'

/** `KEY` is replaced by the current shortcut of the search. */
export const HINTS = {
  drag: 'Drag 45deg/s of Carousel rotation sideways while it plays: nothing jumps.',
  scope: 'Press a curve: it opens large in the scope, where you can drag its crests.',
  find: 'Press KEY to find any part, property or command.',
} as const
export type Hint = keyof typeof HINTS

function doneBefore(): Hint[] {
  try {
    const kept: unknown = JSON.parse(storage.getItem(PLACE) ?? '[]')
    return Array.isArray(kept) ? (kept as Hint[]) : []
  } catch {
    return []
  }
}

export function useHints() {
  const store = usePiece()
  const hand = useSelection()
  const done = ref<readonly Hint[]>(doneBefore())
  const left = computed(() =>
    store.id === DEMO ? (Object.keys(HINTS) as Hint[]).filter(h => !done.value.includes(h)) : [],
  )
  function did(...hints: Hint[]): void {
    const next = [...new Set([...done.value, ...hints])]
    if (next.length === done.value.length) return
    done.value = next
    storage.tryItem(PLACE, JSON.stringify(next))
  }
  const opened = store.piece?.drives
  watch(
    () => store.piece?.drives,
    drives => drives && drives !== opened && did('drag'),
  )
  watch(
    () => hand.desk === 'scope' && hand.drive !== null,
    is => is && did('scope'),
  )
  return { left, did, all: () => did('drag', 'scope', 'find') }
}
