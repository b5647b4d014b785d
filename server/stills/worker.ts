/** Draws stills apart from the serving thread: a document as text comes in, a picture goes out. */
import { parentPort } from 'node:worker_threads'
import { READY } from '../bounded-worker.ts'
import { stillSvg } from '../../core/formats/svg.ts'
import { readPiece } from '../../core/piece/migrate.ts'
import { posterOf } from '../../core/piece/poster.ts'

/** A document as text, and the pictures it shows as data addresses, by their hashes. */
export interface StillRequest {
  readonly text: string
  readonly pictures: readonly (readonly [string, string])[]
}

export type DrawnStill = { readonly svg: string } | { readonly svg?: undefined; readonly why: string }

// Its loading is no part of the time that a picture may take.
parentPort!.postMessage(READY)

parentPort!.on('message', ({ text, pictures }: StillRequest) => {
  try {
    const { piece, problem } = readPiece(JSON.parse(text))
    parentPort!.postMessage(piece ? { svg: stillSvg(piece, posterOf(piece), new Map(pictures)) } : { why: problem })
  } catch (e) {
    parentPort!.postMessage({ why: String(e) })
  }
})
