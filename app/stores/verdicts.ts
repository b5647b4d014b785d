/**
 * What is known of every drive for all time, asked of the worker one by one while somebody looks: for the lap's page,
 * the lap's state in the masthead, and the table's filters; and what the values cost a frame.
 */
import { defineStore } from 'pinia'
import type { Costs } from '~~/core/insight/costs.ts'
import { isCounted, loopCountOf } from '~~/core/insight/loop-count.ts'
import type { DriveFacts } from '~~/core/insight/drive-facts.ts'
import type { Slot } from '~~/core/engine/slot.ts'
import { entriesChanged } from '~~/core/piece/operation.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import { usePiece } from './piece.ts'

interface Verdict {
  readonly of: Slot
  /** The length of the lap it is of. */
  readonly lap: string
  readonly known: DriveFacts | null
}

/** Milliseconds after a change before it is asked, and between two times that it is told. */
const REST = 500
const TELL = 300
/** Drives that are asked about at a time: each answer waits for the page, and what others ask meanwhile for all of them. */
const TOGETHER = 16

export const useVerdicts = defineStore('verdicts', () => {
  const store = usePiece()
  const found = new Map<string, Verdict>()
  /** Counts up when what is known has changed: told at most so often. */
  const told = ref(0)
  let telling: ReturnType<typeof setTimeout> | undefined
  const tell = (): void => {
    telling ??= setTimeout(() => {
      telling = undefined
      told.value++
    }, TELL)
  }
  /** What the values cost a frame, measured once all else is known; those of the piece before until then. */
  const costs = shallowRef<Costs | null>(null)
  let asking = 0
  /** Whether something is not known yet: also while there is no program to ask about. */
  const busy = ref(true)

  const lapOf = () => {
    const { lap, frameRate } = store.piece!
    return `${lap.length.n}/${lap.length.d} ${lap.start} ${frameRate.n}`
  }

  /** Asks for what is not known yet or has changed, a few at a time, so that others are answered in between. */
  async function ask(): Promise<void> {
    const mine = ++asking
    const { piece, program } = store
    if (!piece || !program) return
    const lap = lapOf()
    for (const key of found.keys()) if (!piece.drives[key]) found.delete(key)
    const due = Object.keys(piece.drives).flatMap(key => {
      const of = program.slots.get(key)
      const old = found.get(key)
      return of && (old?.of !== of || old.lap !== lap) ? [{ key, of }] : []
    })
    for (let i = 0; i < due.length; i += TOGETHER) {
      const some = due.slice(i, i + TOGETHER)
      const known = await Promise.all(some.map(({ key }) => store.ask(key, 'known')))
      if (mine !== asking) return
      for (const [n, { key, of }] of some.entries()) found.set(key, { of, lap, known: known[n] ?? null })
      tell()
    }
    // What is counted is told before it is said to be all.
    clearTimeout(telling)
    telling = undefined
    told.value++
    busy.value = false
    const measured = await store.ask('', 'costs')
    if (mine === asking && measured) costs.value = measured
  }

  let waiting: ReturnType<typeof setTimeout> | undefined
  watch(
    () => store.program,
    () => {
      clearTimeout(waiting)
      asking++
      busy.value = true
      if (store.program) waiting = setTimeout(ask, REST)
    },
    { immediate: true },
  )
  watch(
    () => store.id,
    () => {
      found.clear()
      costs.value = null
      tell()
    },
  )

  const known = (key: string): DriveFacts | null => (told.value >= 0 ? (found.get(key)?.known ?? null) : null)
  const closes = (key: string): boolean => {
    const verdict = known(key)?.report.closure.verdict
    return verdict === 'yes' || verdict === 'symmetry'
  }
  /** Drives that are not off; the same list as long as these are the same, so that a changed number changes nothing here. */
  let counting: { readonly of: Piece; readonly keys: readonly string[] } | null = null
  const counted = computed<readonly string[]>(() => {
    const { piece } = store
    if (!piece) return []
    const changed = counting && entriesChanged(counting.of.drives, piece.drives)
    const before = counting?.keys
    const same = changed?.every(k => isCounted(counting!.of, k) === isCounted(piece, k))
    const keys = same ? before! : Object.keys(piece.drives).filter(k => isCounted(piece, k))
    const alike = same || (before?.length === keys.length && keys.every((k, i) => k === before[i]))
    counting = { of: piece, keys: alike ? before! : keys }
    return counting.keys
  })
  /** Those that are known. */
  const running = computed(() => counted.value.filter(k => known(k) !== null))
  const count = computed(() => loopCountOf(running.value.map(k => known(k)!.report.closure)))

  /** Those that loop neither in this lap nor in a later one. */
  const open = computed(() =>
    running.value.filter(k => !['yes', 'symmetry', 'later'].includes(known(k)!.report.closure.verdict)),
  )

  /** Whether every drive that runs has been looked at. */
  const all = computed(() => store.piece !== null && told.value >= 0 && counted.value.every(k => found.has(k)))

  return { known, closes, running, open, count, all, busy, costs }
})
