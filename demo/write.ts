/** Writes the demo to `demo/lantern-pier.json`, checked: every formula of it must run. */
import { writeFileSync } from 'node:fs'
import { Program } from '../core/engine/program.ts'
import { readPiece } from '../core/piece/migrate.ts'
import { lanternPier } from './lantern-pier.ts'

const { piece, problem } = readPiece(lanternPier())
if (!piece) throw new Error(problem)
for (const [key, slot] of new Program(piece).slots) {
  if (slot.problems.length > 0) throw new Error(`${key}: ${slot.problems[0]!.says}`)
}
writeFileSync(new URL('./lantern-pier.json', import.meta.url), `${JSON.stringify(piece, null, 1)}\n`)
