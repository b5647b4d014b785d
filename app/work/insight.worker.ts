/** Works out what is known of drives for all time, beside the page: it holds the same piece, and follows each change. */
import { Program } from '~~/core/engine/program.ts'
import { driveFacts, driveJumps } from '~~/core/insight/drive-facts.ts'
import { costsOf } from '~~/core/insight/costs.ts'
import { closingsOf } from '~~/core/insight/closings.ts'
import { shortestLap } from '~~/core/insight/proposals.ts'
import { partsOffStage } from '~~/core/insight/off-stage.ts'
import { overlappingCopies } from '~~/core/insight/overlaps.ts'
import { apply } from '~~/core/piece/operation.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import type { About, Answered, InsightRequest } from './asking.ts'

let piece: Piece | null = null
let version = 0
let program: Program | null = null
/** What is still to be told, the oldest first; asked again it is told once. */
const waiting = new Map<string, { readonly key: string; readonly about: About }>()
let woken = false

const TELL = {
  known: driveFacts,
  leaping: driveJumps,
  closing: closingsOf,
  shortest: shortestLap,
  touching: overlappingCopies,
  leaving: partsOffStage,
  costs: (of: Program) => costsOf(of, () => performance.now()),
} as const

/** One answer at a time, so that what changes meanwhile is heard in between. */
function tell(): void {
  woken = false
  const [first] = waiting
  if (!first || !piece) return
  const [place, { key, about }] = first
  waiting.delete(place)
  if (program?.piece !== piece) program = new Program(piece, program)
  const answer: Answered = { key, about, version, answer: TELL[about](program, key) }
  postMessage(answer)
  wake()
}

function wake(): void {
  if (woken || waiting.size === 0) return
  woken = true
  setTimeout(tell)
}

addEventListener('message', ({ data }: MessageEvent<InsightRequest>) => {
  if (data.is === 'opened') {
    piece = data.piece
    version = data.version
    program = null
    waiting.clear()
  } else if (data.is === 'done') {
    piece = piece && apply(piece, data.op)
    version = data.version
  } else waiting.set(`${data.about} ${data.key}`, { key: data.key, about: data.about })
  wake()
})
