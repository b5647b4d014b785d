/** Reads large bodies apart from the serving thread: text comes in, what it says comes out, its document checked. */
import { parentPort } from 'node:worker_threads'
import { readPiece } from '../../core/piece/migrate.ts'
import { READY } from '../bounded-worker.ts'

/** What was read; `checked` where it has a document, which is sound. Or what is wrong, with the status that fits. */
export type ReadBody =
  | { readonly value: unknown; readonly checked: boolean }
  | { readonly value?: undefined; readonly status: number; readonly says: string }

function read(text: string): ReadBody {
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch {
    return { status: 400, says: 'The request isn’t valid JSON.' }
  }
  if (typeof value !== 'object' || value === null || !('document' in value)) return { value, checked: false }
  const { piece, problem } = readPiece(value.document)
  return piece ? { value: { ...value, document: piece }, checked: true } : { status: 422, says: problem }
}

parentPort!.postMessage(READY)
parentPort!.on('message', (text: string) => {
  try {
    parentPort!.postMessage(read(text))
  } catch (e) {
    parentPort!.postMessage({ status: 422, says: `This can’t be read. ${String(e).slice(0, 200)}` })
  }
})
