/**
 * Exporting: what is being made in a worker, how far it is, and the file when it is there. What is begun is noted in this browser
 * until it is done or stopped, so that after a closed window it is offered again.
 */
import { del, get, set } from 'idb-keyval'
import { defineStore } from 'pinia'
import { formatOf } from '~~/core/formats/export/formats.ts'
import type { ExportSettings } from '~~/core/formats/export/export-plan.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import type { Ordered } from '~/export/export.worker.ts'
import { hired } from '~/export/hired.ts'
import { freshName, thrownAway } from '~/export/private-file.ts'
import { ASSETS } from '~/stage/pictures.ts'
import { tried } from '../services/unsaved.ts'

export const useGivingOut = defineStore('giving-out', () => {
  const progress = shallowRef<{ done: number; of: number; began: number } | null>(null)
  /** The last file that was made. */
  const file = shallowRef<{ url: string; name: string; bytes: number } | null>(null)
  const wrong = ref('')
  /** What was begun for this piece in a window that was closed. */
  const unfinished = shallowRef<ExportSettings | null>(null)
  let worker: Worker | null = null
  let noted = ''
  /** Names in private storage: of what is being made, and of the last file. */
  let [making, made] = ['', '']

  const named = (title: string, { as }: ExportSettings) =>
    `${title.replace(/[^\p{L}\p{N} _-]/gu, '').trim() || 'piece'}.${formatOf(as).end}`
  const note = (id: string) => `giving-out/${id}`

  /** Looks whether something was begun and not finished. */
  async function look(id: string): Promise<void> {
    unfinished.value = progress.value ? null : ((await tried(() => get<ExportSettings>(note(id)), undefined)) ?? null)
  }

  /**
   * @param id of the piece, under which it is noted
   * @param assets where its pictures are asked for
   */
  function begin(document: Piece, wanted: ExportSettings, id: string, assets = ASSETS): void {
    stop()
    forget()
    wrong.value = ''
    unfinished.value = null
    const plain = JSON.parse(JSON.stringify({ piece: document, wanted })) as Pick<Ordered, 'piece' | 'wanted'>
    noted = note(id)
    void tried(() => set(noted, plain.wanted), undefined)
    const name = freshName()
    progress.value = { done: 0, of: 1, began: performance.now() }
    worker = hired(
      data => {
        if (data.is === 'frame') progress.value = { ...progress.value!, done: data.done, of: data.of }
        else ended()
        if (data.is === 'failed') {
          wrong.value = `The export failed. ${data.says}`
          void thrownAway(name)
        }
        if (data.is !== 'made') return
        made = name
        file.value = {
          url: URL.createObjectURL(data.file),
          name: named(plain.piece.title, wanted),
          bytes: data.file.size,
        }
      },
      e => {
        stop()
        wrong.value = `The export failed: the browser gave up. ${e.message}`
      },
    )
    worker.postMessage({ ...plain, assets, name } satisfies Ordered)
    making = name
  }

  /** Nothing half made is kept. */
  function stop(): void {
    const half = making
    ended()
    if (half) void thrownAway(half)
  }

  function ended(): void {
    making = ''
    worker?.terminate()
    worker = null
    progress.value = null
    if (noted) void tried(() => del(noted), undefined)
    noted = ''
  }

  /** What was left unfinished is not wanted any more. */
  function drop(id: string): void {
    unfinished.value = null
    void tried(() => del(note(id)), undefined)
  }

  function forget(): void {
    if (file.value) URL.revokeObjectURL(file.value.url)
    if (made) void thrownAway(made)
    file.value = null
    made = ''
  }

  return { progress, file, wrong, unfinished, look, begin, stop, drop, forget }
})
