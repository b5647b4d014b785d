/** What a first formula looks like: drawn from the formula itself, on a part of its own. */
import { addDrive } from '~~/core/acts/drives.ts'
import { addPart } from '~~/core/acts/parts.ts'
import { Program } from '~~/core/engine/program.ts'
import type { Property } from '~~/core/piece/property-kinds.ts'
import { apply } from '~~/core/piece/operation.ts'
import { emptyPiece } from '~~/core/piece/schema.ts'
import { momentOfSeconds } from '~~/core/time/moment.ts'
import { rational } from '~~/core/time/rational.ts'

const WIDE = 120
const HIGH = 44
const PAD = 5
const STEPS = 60
/** Seconds that are drawn. */
const LENGTH = 8

const made = new Map<string, string>()

/** An SVG path of 120 × 44; '' where the formula does not run. */
export function previewPath(text: string, property: Property): string {
  const known = made.get(`${property.name} ${text}`)
  if (known !== undefined) return known
  const empty = emptyPiece('Preview', 7)
  const shape = property.on?.[0] ?? 'rectangle'
  const part = addPart(
    empty,
    (shape === 'gear' ? { type: 'gear', teeth: 24, spokes: 5, module: 6 } : { type: 'rectangle' }) as never,
  )
  const piece = apply(empty, part.op)
  const drive = addDrive(piece, part.id, property.name, text)
  const program = new Program(apply(piece, drive))
  const slot = program.slots.get(`${part.id}.${property.name}`)
  let path = ''
  if (slot?.running === 'text') {
    const values = Array.from({ length: STEPS + 1 }, (_, k) =>
      slot.readers[0]!.at(momentOfSeconds(rational(k * LENGTH, STEPS), program.measures.frameRate)),
    )
    const turn = property.kind.angle === 1 && /time \* 45deg/.test(text) ? 1 : 0
    const shown = turn ? values.map(v => v - Math.floor(v)) : values
    const [low, high] = [Math.min(...shown), Math.max(...shown)]
    const y = (v: number) => PAD + (HIGH - 2 * PAD) * (1 - (v - low) / (high - low || 1))
    path = shown
      .map((v, k) => {
        const back = turn > 0 && k > 0 && v < shown[k - 1]!
        return `${k === 0 || back ? 'M' : 'L'}${((WIDE * k) / STEPS).toFixed(1)} ${y(v).toFixed(1)}`
      })
      .join('')
  }
  made.set(`${property.name} ${text}`, path)
  return path
}
