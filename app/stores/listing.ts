/** What the tide table lists: everything in common first, then the parts with what drives them; searched, filtered, rolled up. */
import { signalKey } from '~~/core/piece/drive-key.ts'
import { defineStore } from 'pinia'
import { sourceName, sourceOf } from '~~/core/acts/sources.ts'
import { linksOf } from '~~/core/insight/links.ts'
import type { TimedIn } from '~~/core/insight/sentence.ts'
import { PROPERTIES } from '~~/core/piece/properties.ts'
import { sameEntries } from '~~/core/piece/operation.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import { useSelection } from './selection.ts'
import { useOpenPiece } from './open-piece.ts'
import { useVerdicts } from './verdicts.ts'

export const FILTERS = ['all', 'in hand', 'open', 'broken', 'wrong', 'off'] as const
export type Filter = (typeof FILTERS)[number]

/** A part, or null for what is in common; with the entries that stand under it. */
export interface Group {
  readonly part: string | null
  readonly entries: readonly string[]
}

/** A line of the table: the head of a group, what moves a part that has no formula, or an entry. */
export type ListingRow =
  | { readonly id: string; readonly head: Group }
  | { readonly id: string; readonly nothing: string }
  | { readonly id: string; readonly entry: string }

const TIMED: readonly TimedIn[] = ['cues', 'clocks', 'curves']
/** The collection and id of a clock, cue or curve; null for a formula. */
export function timedOf(key: string): { collection: TimedIn; id: string } | null {
  const [collection, id] = key.split('/')
  return id === undefined ? null : { collection: collection as TimedIn, id }
}

/** Within a part, in the order of the property table. */
const rank = (key: string) => PROPERTIES.findIndex(p => key.endsWith(`.${p.name}`))
const made = (id: string) => Number(id.replace(/\D/g, '')) || 0

export const useListing = defineStore('listing', () => {
  const store = useOpenPiece()
  const hand = useSelection()
  const verdicts = useVerdicts()
  const search = ref('')
  const filter = ref<Filter>('all')
  /** Groups that show their name alone. */
  const rolled = shallowRef<ReadonlySet<string | null>>(new Set())

  const common = (piece: Piece): string[] => [
    ...Object.entries(piece.signals)
      .sort(([, a], [, b]) => a.order - b.order)
      .map(([id]) => signalKey(id)),
    ...TIMED.flatMap(c =>
      Object.entries(piece[c])
        .sort(([, a], [, b]) => a.order - b.order)
        .map(([id]) => `${c}/${id}`),
    ),
  ]

  /** The same list stays the same object, so that a changed number changes nothing here. */
  let listed: { of: Piece; driven: string; keys: string; groups: Group[] } | null = null
  const all = computed<Group[]>(() => {
    const piece = store.piece
    const driven =
      listed && sameEntries(listed.of.drives, piece.drives) ? listed.driven : Object.keys(piece.drives).join()
    const keys = `${common(piece).join()} ${driven} ${hand.part}`
    const same = listed?.keys === keys && listed.of.parts === piece.parts
    listed = { of: piece, driven, keys, groups: same ? listed!.groups : grouped(piece) }
    return listed.groups
  })

  function grouped(piece: Piece): Group[] {
    const { parts, drives } = piece
    const byPart = new Map<string, string[]>()
    for (const [key, drive] of Object.entries(drives)) {
      const of = byPart.get(drive.part)
      if (of) of.push(key)
      else byPart.set(drive.part, [key])
    }
    // What nothing drives stands below, so that its first function is one step away; the part in hand in its place.
    const rests = (id: string) => (byPart.has(id) || id === hand.part ? 0 : 1)
    const order = Object.keys(parts).sort((a, b) => rests(a) - rests(b) || made(a) - made(b))
    return [
      { part: null, entries: common(piece) },
      ...order.map(id => ({ part: id, entries: (byPart.get(id) ?? []).sort((a, b) => rank(a) - rank(b)) })),
    ]
  }

  /** The formula in hand with all that it reads and all that reads it. */
  const near = computed<ReadonlySet<string>>(() => {
    const key = hand.drive
    if (!key || filter.value !== 'in hand') return new Set()
    const links = linksOf(store.program).get(key)
    return new Set([key, ...(links?.reads ?? []), ...(links?.readBy ?? [])])
  })

  function passes(key: string): boolean {
    const piece = store.piece
    const timed = timedOf(key)
    const source = timed ? null : sourceOf(piece, key)
    const name = timed ? (piece[timed.collection][timed.id]?.name ?? '') : sourceName(piece, key)
    const words = search.value.trim().toLowerCase()
    const text = `${name} ${source?.text ?? timed?.collection ?? ''}`.toLowerCase()
    if (words !== '' && !words.split(/\s+/).every(w => text.includes(w))) return false
    if (filter.value === 'in hand') return near.value.has(key)
    if (filter.value === 'open') return verdicts.running.includes(key) && !verdicts.closes(key)
    if (filter.value === 'broken') return (verdicts.known(key)?.promises ?? []).some(p => p.verdict === 'broken')
    if (filter.value === 'off') return !!source && 'off' in source && source.off
    if (filter.value === 'wrong') return (store.program.slots.get(key)?.problems ?? []).some(p => p.level === 'error')
    return true
  }

  /** Whether a part without formulas is searched by its name. */
  function called(part: string | null): boolean {
    const words = search.value.trim().toLowerCase()
    if (part === null || filter.value !== 'all' || words === '') return false
    return words.split(/\s+/).every(w => store.piece.parts[part]!.name.toLowerCase().includes(w))
  }

  const narrowed = computed(() => search.value.trim() !== '' || filter.value !== 'all')
  const groups = computed<Group[]>(() =>
    narrowed.value
      ? all.value.flatMap(g => {
          const entries = g.entries.filter(passes)
          return entries.length > 0 || (g.entries.length === 0 && called(g.part)) ? [{ part: g.part, entries }] : []
        })
      : all.value,
  )
  /** Every entry that is shown, from above down. */
  const flat = computed(() => groups.value.flatMap(g => (rolled.value.has(g.part) ? [] : g.entries)))

  const anyDriven = computed(() => Object.keys(store.piece.drives).length > 0)
  /** Every line of the table from above down. */
  const rows = computed<ListingRow[]>(() =>
    groups.value.flatMap((g): ListingRow[] => {
      const head: ListingRow = { id: `head ${g.part ?? ''}`, head: g }
      if (rolled.value.has(g.part)) return [head]
      if (g.entries.length > 0) return [head, ...g.entries.map(entry => ({ id: entry, entry }))]
      // Of those that nothing drives only the one in hand tells more than its name.
      const told = g.part !== null && (g.part === hand.part || !anyDriven.value)
      return told ? [head, { id: `nothing ${g.part}`, nothing: g.part }] : [head]
    }),
  )
  /** The entry that was last revealed; the table scrolls to it. */
  const sought = shallowRef<{ readonly key: string } | null>(null)

  function roll(part: string | null, every: boolean): void {
    const is = !rolled.value.has(part)
    const next = new Set(rolled.value)
    for (const p of every ? all.value.map(g => g.part) : [part]) {
      if (is) next.add(p)
      else next.delete(p)
    }
    rolled.value = next
  }

  /** Shows an entry, whatever hides it. */
  function reveal(key: string): void {
    if (narrowed.value && !groups.value.some(g => g.entries.includes(key))) {
      search.value = ''
      filter.value = 'all'
    }
    const at = all.value.find(g => g.entries.includes(key))
    if (at && rolled.value.has(at.part)) roll(at.part, false)
    hand.take(key)
    sought.value = { key }
  }
  /** Selects the entry before or after the selected one. */
  function step(by: 1 | -1): void {
    const at = hand.drive ? flat.value.indexOf(hand.drive) : by > 0 ? -1 : flat.value.length
    const key = flat.value[Math.min(flat.value.length - 1, Math.max(0, at + by))]
    if (key) reveal(key)
  }

  return { search, filter, groups, rows, flat, rolled, narrowed, sought, roll, reveal, step }
})
