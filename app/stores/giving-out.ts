/** Giving out: what is being made in a worker, how far it is, and the file when it is there. */
import { defineStore } from 'pinia'
import type { Wanted } from '~~/core/formats/give/plan.ts'
import type { Asked, Told } from '~/give/give.worker.ts'
import { usePiece } from './piece.ts'

export const useGivingOut = defineStore('giving-out', () => {
  const store = usePiece()
  const progress = shallowRef<{ done: number; of: number; began: number } | null>(null)
  /** The last file that was made. */
  const file = shallowRef<{ url: string; name: string; bytes: number } | null>(null)
  const wrong = ref('')
  let worker: Worker | null = null

  const named = (as: string) => `${store.piece!.title.replace(/[^\p{L}\p{N} _-]/gu, '').trim() || 'piece'}.${as}`

  function begin(wanted: Wanted): void {
    stop()
    forget()
    wrong.value = ''
    progress.value = { done: 0, of: 1, began: performance.now() }
    worker = new Worker(new URL('../give/give.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<Told>) => {
      if (data.is === 'frame') progress.value = { ...progress.value!, done: data.done, of: data.of }
      else stop()
      if (data.is === 'failed') wrong.value = `Nothing was made. ${data.says}`
      if (data.is !== 'made') return
      const blob = new Blob([data.bytes], { type: data.type })
      file.value = { url: URL.createObjectURL(blob), name: named(wanted.as), bytes: blob.size }
    }
    worker.onerror = e => {
      stop()
      wrong.value = `Nothing was made: the browser gave up. ${e.message}`
    }
    const piece = JSON.parse(JSON.stringify(store.piece!)) as Asked['piece']
    worker.postMessage({ piece, wanted: { ...wanted } } satisfies Asked)
  }

  /** Nothing half made is kept. */
  function stop(): void {
    worker?.terminate()
    worker = null
    progress.value = null
  }

  function forget(): void {
    if (file.value) URL.revokeObjectURL(file.value.url)
    file.value = null
  }

  return { progress, file, wrong, begin, stop, forget }
})
