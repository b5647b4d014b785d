/** What is given out is made here, beside the page: drawn with the stage's own renderer, or written by the core alone. */
import { formatOf } from '~~/core/formats/give/formats.ts'
import { planOf } from '~~/core/formats/give/plan.ts'
import { written, type Asked } from '~~/core/formats/give/written.ts'
import { picturesFrom } from '~/stage/pictures.ts'

export interface Ordered extends Asked {
  /** Where pictures are asked for by their hash. */
  readonly assets: string
}
export type Told =
  | { readonly is: 'frame'; readonly done: number; readonly of: number }
  | { readonly is: 'made'; readonly bytes: Uint8Array<ArrayBuffer>; readonly type: string }
  | { readonly is: 'failed'; readonly says: string }

addEventListener('message', ({ data }: MessageEvent<Ordered>) => {
  const { type } = formatOf(data.wanted.as)
  void made(data).then(
    bytes => postMessage({ is: 'made', bytes, type } satisfies Told, { transfer: [bytes.buffer] }),
    (e: unknown) => postMessage({ is: 'failed', says: e instanceof Error ? e.message : String(e) } satisfies Told),
  )
})

async function made(asked: Ordered): Promise<Uint8Array<ArrayBuffer>> {
  const plan = planOf(asked.piece, asked.wanted)
  if (plan.problem !== null) throw new Error(plan.problem)
  const tell = (done: number) => postMessage({ is: 'frame', done, of: plan.frames } satisfies Told)
  const file = await written(asked, plan, {
    async picture(hash) {
      const answer = await fetch(`${asked.assets}/${hash}`)
      if (!answer.ok) return null
      const bytes = new Uint8Array(await answer.arrayBuffer())
      return { type: answer.headers.get('content-type') ?? '', bytes }
    },
    async runner() {
      const answer = await fetch('/runner.txt')
      if (!answer.ok) throw new Error('The server cannot be reached. Is Open Tide still running?')
      return answer.text()
    },
    async hash(text) {
      const sum = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(text))
      return btoa(String.fromCharCode(...new Uint8Array(sum)))
    },
    tell,
  })
  if (file) return file
  const { drawn } = await import('./drawing.ts')
  return drawn(asked, plan, picturesFrom(asked.assets), tell)
}
