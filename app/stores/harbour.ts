/** The harbour: which pieces lie there, sorted, searched, by folder; and what is done with one or several of them. */
import { defineStore } from 'pinia'
import * as v from 'valibot'
import { PieceSummary, Stored } from '~~/core/piece/api.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import { create, get, patch, post, remove } from '../services/request.ts'
import { allUnsaved } from '../services/unsaved.ts'

export type Sorting = 'changed' | 'title'

export const useHarbour = defineStore('harbour', () => {
  const cards = shallowRef<PieceSummary[] | null>(null)
  const deleted = shallowRef<PieceSummary[]>([])
  const trouble = ref('')
  const notice = ref<{ says: string; act?: { says: string; do: () => void } } | null>(null)
  /** Pieces with changes that wait in this browser. */
  const waiting = shallowRef<{ id: string; title: string }[]>([])
  const search = ref('')
  const sorting = ref<Sorting>('changed')
  /** Null for all. */
  const folder = ref<string | null>(null)
  const chosen = ref<readonly string[]>([])

  async function load(): Promise<void> {
    waiting.value = (await allUnsaved()).map(([id, u]) => ({ id, title: u.document.title }))
    const [answer, gone] = await Promise.all([
      get('/api/pieces', v.array(PieceSummary)),
      get('/api/deleted', v.array(PieceSummary)),
    ])
    if (answer.ok) cards.value = answer.value
    if (gone.ok) deleted.value = gone.value
    trouble.value = answer.ok ? '' : answer.says
    const there = new Set(cards.value?.map(c => c.id))
    chosen.value = chosen.value.filter(id => there.has(id))
    if (folder.value !== null && !folders.value.includes(folder.value)) folder.value = null
  }

  const folders = computed(() =>
    [...new Set(cards.value?.map(c => c.folder) ?? [])].filter(f => f !== '').sort((a, b) => a.localeCompare(b)),
  )
  const shown = computed(() => {
    const words = search.value.trim().toLowerCase()
    const found = (cards.value ?? []).filter(
      c => c.title.toLowerCase().includes(words) && (folder.value === null || c.folder === folder.value),
    )
    // They come with the latest first.
    return sorting.value === 'title'
      ? found.sort((a, b) => a.title.localeCompare(b.title, 'en', { numeric: true }))
      : found
  })

  const choose = (id: string, on: boolean): void => {
    chosen.value = on ? [...chosen.value, id] : chosen.value.filter(c => c !== id)
  }

  /** Asks for each, one after another; what went wrong is said, and the rest is done. */
  async function each(ids: readonly string[], ask: (id: string) => ReturnType<typeof get>): Promise<string[]> {
    const done: string[] = []
    let says = ''
    for (const id of ids) {
      const answer = await ask(id)
      if (answer.ok) done.push(id)
      else says = answer.says
    }
    await load()
    if (says) trouble.value = says
    return done
  }

  const titled = (ids: readonly string[]) =>
    ids.length === 1 ? (cards.value?.find(c => c.id === ids[0])?.title ?? 'The piece') : `${ids.length} pieces`

  const copy = (ids: readonly string[]) => each(ids, id => post('/api/pieces', { copyOf: id }))
  const move = (ids: readonly string[], to: string) => each(ids, id => patch(`/api/pieces/${id}`, { folder: to }))
  const bringBack = (ids: readonly string[]) => each(ids, id => post(`/api/pieces/${id}/restore`))

  async function drop(ids: readonly string[]): Promise<void> {
    const says = titled(ids)
    const done = await each(ids, id => remove(`/api/pieces/${id}`))
    if (done.length === 0) return
    notice.value = {
      says: `${says} ${done.length === 1 ? 'was' : 'were'} deleted.`,
      act: {
        says: done.length === 1 ? 'Restore' : 'Restore them',
        do: () => {
          notice.value = null
          void bringBack(done)
        },
      },
    }
  }

  /** Takes piece files in, each whole or not at all. */
  async function takeIn(files: readonly File[]): Promise<void> {
    const made: string[] = []
    const wrong: string[] = []
    for (const file of files) {
      const answer = await create('/api/pieces/file', Stored, new Uint8Array(await file.arrayBuffer()))
      if (answer.ok) made.push(answer.value.document.title)
      else wrong.push(`${file.name}: ${answer.says}`)
    }
    await load()
    if (made.length > 0) notice.value = { says: `${made.join(', ')} ${made.length === 1 ? 'is' : 'are'} imported.` }
    if (wrong.length > 0) trouble.value = wrong.join(' ')
  }

  /** A piece with its document. */
  async function documentOf(id: string): Promise<Piece | null> {
    const answer = await get(`/api/pieces/${id}`, Stored)
    if (!answer.ok) trouble.value = answer.says
    return answer.ok ? answer.value.document : null
  }

  return {
    cards, deleted, trouble, notice, waiting, search, sorting, folder, chosen, folders, shown,
    load, choose, copy, move, bringBack, drop, takeIn, documentOf,
  } // prettier-ignore
})
