/** What to export is made here, beside the page: drawn with the stage's own renderer, or written by the core alone. */
import { formatOf } from '~~/core/formats/export/formats.ts'
import { exportPlan } from '~~/core/formats/export/export-plan.ts'
import {
  addressesOf,
  exportWithoutDrawing,
  type TextExportRequest,
  type ExportSources,
} from '~~/core/formats/export/text-exports.ts'
import { picturesFrom } from '~/stage/pictures.ts'
import type { DrawingHost } from './drawing.ts'
import type { Rasterized } from './hired.ts'
import { PrivateFile } from './private-file.ts'
import { InMemory } from './sink.ts'
import { trialOf, type Trial } from './trial.ts'

export interface Ordered extends TextExportRequest {
  /** Where pictures are asked for by their hash. */
  readonly assets: string
  /** What the file is called in private storage while it is made. */
  readonly name: string
}
/** Asks what will come out, before it is made. */
export interface Tried extends Omit<Ordered, 'name'> {
  readonly trial: true
}
export type ExportReply =
  | ({ readonly is: 'tried' } & Trial)
  | { readonly is: 'svg'; readonly svg: string; readonly width: number; readonly height: number }
  | { readonly is: 'frame'; readonly done: number; readonly of: number }
  | { readonly is: 'made'; readonly file: Blob }
  | { readonly is: 'failed'; readonly says: string }

/** Who waits for the page. */
let asking: PromiseWithResolvers<ImageBitmap> | null = null

/** The page makes one picture after another. */
function rasterize(svg: string, width: number, height: number): Promise<ImageBitmap> {
  asking = Promise.withResolvers()
  postMessage({ is: 'svg', svg, width, height } satisfies ExportReply)
  return asking.promise
}

const pictureFrom =
  (assets: string): ExportSources['picture'] =>
  async hash => {
    const answer = await fetch(`${assets}/${hash}`)
    if (!answer.ok) return null
    const bytes = new Uint8Array(await answer.arrayBuffer())
    return { type: answer.headers.get('content-type') ?? '', bytes }
  }

const lentTo = ({ piece, assets }: Pick<Ordered, 'piece' | 'assets'>): DrawingHost => ({
  pictures: picturesFrom(assets),
  addresses: () => addressesOf(piece, { picture: pictureFrom(assets) }),
  rasterize,
})

addEventListener('message', ({ data }: MessageEvent<Ordered | Tried | Rasterized>) => {
  if ('picture' in data) return asking?.resolve(data.picture)
  if ('failed' in data) return asking?.reject(new Error(data.failed))
  if ('trial' in data) {
    void tried(data).then(
      trial => postMessage({ is: 'tried', ...trial } satisfies ExportReply, { transfer: [trial.first, trial.last] }),
      (e: unknown) => postMessage({ is: 'failed', says: String(e) } satisfies ExportReply),
    )
    return
  }
  const { type } = formatOf(data.wanted.as)
  void made(data).then(
    file => postMessage({ is: 'made', file: file.slice(0, file.size, type) } satisfies ExportReply),
    (e: unknown) =>
      postMessage({ is: 'failed', says: e instanceof Error ? e.message : String(e) } satisfies ExportReply),
  )
})

async function tried(asked: Tried): Promise<Trial> {
  const plan = exportPlan(asked.piece, asked.wanted)
  if (plan.problem !== null) throw new Error(plan.problem)
  return trialOf(asked, plan, lentTo(asked))
}

async function made(asked: Ordered): Promise<Blob> {
  const plan = exportPlan(asked.piece, asked.wanted)
  if (plan.problem !== null) throw new Error(plan.problem)
  const tell = (done: number) => postMessage({ is: 'frame', done, of: plan.frames } satisfies ExportReply)
  const file = await exportWithoutDrawing(asked, plan, {
    picture: pictureFrom(asked.assets),
    async runner() {
      const answer = await fetch('/runner-bundle.txt')
      if (!answer.ok) throw new Error('The server isn’t responding. Is Open Tide still running?')
      return answer.text()
    },
    async hash(text) {
      const sum = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(text))
      return btoa(String.fromCharCode(...new Uint8Array(sum)))
    },
    tell,
  })
  if (file) return new Blob([file])
  const { drawFile } = await import('./drawing.ts')
  const onDisk = await PrivateFile.begun(asked.name)
  const inMemory = new InMemory()
  await drawFile(asked, plan, lentTo(asked), tell, onDisk ?? inMemory)
  return onDisk ? onDisk.done() : inMemory.file
}
