/** Tries a document as the product would: read, stored and read again, opened, run, drawn. */
import { Program } from '../../core/engine/program.ts'
import { stillSvg } from '../../core/formats/svg.ts'
import { driveFacts, driveJumps } from '../../core/insight/drive-facts.ts'
import { readPiece } from '../../core/piece/migrate.ts'
import { StageMesh } from '../../core/rig/stage-mesh/stage-mesh.ts'
import { Scene } from '../../core/rig/scene.ts'
import { momentOfFrame } from '../../core/time/moment.ts'
import { rational } from '../../core/time/rational.ts'
import { isDeepStrictEqual } from 'node:util'

export interface Tried {
  readonly taken: boolean
  /** What went wrong, or null. */
  readonly wrong: string | null
  /** Milliseconds of the longest single thing that a page or the server does in one go. */
  readonly longest: number
  readonly what: string
  /** The same of what is done in workers, which are ended when they take too long. */
  readonly beside: number
}

/** The largest of what is done in one go. `read` reads and stores alone, `briefly` looks at a few moments only. */
export function tryDocument(document: unknown, how: 'read' | 'briefly' | 'whole'): Tried {
  const whole = how === 'whole'
  let [longest, what, beside] = [0, '', 0]
  const timed = <T>(name: string, act: () => T, worker = false): T => {
    const began = performance.now()
    const made = act()
    const took = performance.now() - began
    if (worker) beside = Math.max(beside, took)
    else if (took > longest) [longest, what] = [took, name]
    return made
  }
  let taken = false
  try {
    const { piece, problem } = timed('reading', () => readPiece(document))
    if (!piece) {
      const wrong = problem.length > 8 && problem.length < 600 ? null : `says ${problem.slice(0, 200)}`
      return { taken, wrong, longest, what, beside }
    }
    taken = true
    if (!isDeepStrictEqual(normal(document), normal(piece)))
      return { taken, wrong: 'stored otherwise than sent', longest, what, beside }
    const again = readPiece(JSON.parse(JSON.stringify(piece)))
    if (!again.piece) return { taken, wrong: `not taken again: ${again.problem}`, longest, what, beside }
    if (how === 'read') return { taken, wrong: null, longest, what, beside }
    const program = timed('opening', () => new Program(piece))
    const values = new Float64Array(program.size)
    const scene = timed('scene', () => new Scene(program))
    const mesh = new StageMesh()
    for (const frame of whole ? [0, 1, 2, -7, 37, 100_000] : [0, 100_000]) {
      const moment = momentOfFrame(frame, program.measures.frameRate)
      timed(`frame ${frame}`, () => program.moment(moment, values))
      if (values.some(v => !Number.isFinite(v)))
        return { taken, wrong: `a value that is none at frame ${frame}`, longest, what, beside }
      timed(`picture ${frame}`, () => mesh.build(scene.update(values, moment), 1))
      timed('working out', () => program.queue.advance(1))
      program.queue.clear()
    }
    for (const slot of [...program.slots.values()].slice(0, whole ? 12 : 2))
      if (slot.offset >= 0)
        timed(`report of ${slot.key}`, () => [driveFacts(program, slot.key), driveJumps(program, slot.key)], true)
    if (whole) timed('still', () => stillSvg(piece, rational(5, 4)), true)
    return { taken, wrong: null, longest, what, beside }
  } catch (e) {
    return { taken, wrong: String((e as Error).stack ?? e).slice(0, 600), longest, what, beside }
  }
}

/** −0 is 0, as in every text of numbers. */
const normal = (x: unknown): unknown => JSON.parse(JSON.stringify(x))
