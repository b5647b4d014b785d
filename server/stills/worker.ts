/** Draws stills apart from the serving thread: a document as text comes in, a picture goes out. */
import { parentPort } from 'node:worker_threads'
import { stillSvg } from '../../core/formats/svg.ts'
import { readPiece } from '../../core/piece/migrate.ts'
import { rational } from '../../core/time/rational.ts'

/** A little into the first lap, in seconds. */
const MOMENT = rational(5, 4)

parentPort!.on('message', (text: string) => {
  try {
    const { piece, problem } = readPiece(JSON.parse(text))
    parentPort!.postMessage(piece ? { svg: stillSvg(piece, MOMENT) } : { why: problem })
  } catch (e) {
    parentPort!.postMessage({ why: String(e) })
  }
})
