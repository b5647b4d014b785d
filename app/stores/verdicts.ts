/**
 * What is known of every drive for all time, asked of the worker one by one while somebody looks: for the lap's page,
 * the lap's state in the masthead, and the table's filters.
 */
import { defineStore } from 'pinia'
import type { Known } from '~~/core/insight/telling.ts'
import type { Slot } from '~~/core/engine/slot.ts'
import { usePiece } from './piece.ts'

interface Verdict {
  readonly of: Slot
  /** The length of the lap it is of. */
  readonly lap: string
  readonly known: Known | null
}

export const useVerdicts = defineStore('verdicts', () => {
  const store = usePiece()
  const all = shallowRef<ReadonlyMap<string, Verdict>>(new Map())
  let asking = false

  const lapOf = () => `${store.piece!.lap.length.n}/${store.piece!.lap.length.d} ${store.piece!.frameRate.n}`
  const fresh = (key: string): boolean => {
    const v = all.value.get(key)
    return v !== undefined && v.of === store.program?.slots.get(key) && v.lap === lapOf()
  }

  /** Asks for what is not known yet or has changed, one after another, so that others are answered in between. */
  async function ask(): Promise<void> {
    if (asking) return
    asking = true
    try {
      for (;;) {
        const { piece, program } = store
        const key =
          piece && program ? Object.keys(piece.drives).find(k => program.slots.has(k) && !fresh(k)) : undefined
        if (key === undefined) return
        const of = program!.slots.get(key)!
        const lap = lapOf()
        const known = await store.ask(key, 'known')
        if (store.piece === null) return
        all.value = new Map([...all.value, [key, { of, lap, known }]])
      }
    } finally {
      asking = false
    }
  }

  let waiting: ReturnType<typeof setTimeout> | undefined
  watch(
    () => store.program,
    () => {
      clearTimeout(waiting)
      if (store.program) waiting = setTimeout(ask, 400)
    },
    { immediate: true },
  )
  watch(
    () => store.id,
    () => (all.value = new Map()),
  )

  const known = (key: string): Known | null => all.value.get(key)?.known ?? null
  const closes = (key: string): boolean => {
    const verdict = known(key)?.report.closure.verdict
    return verdict === 'yes' || verdict === 'symmetry' || verdict === 'from'
  }
  /** Drives that run and are known. */
  const running = computed(() =>
    Object.keys(store.piece?.drives ?? {}).filter(k => !store.piece!.drives[k]!.off && known(k) !== null),
  )
  const closing = computed(() => running.value.filter(closes).length)

  return { known, closes, running, closing }
})
