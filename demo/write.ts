/** Writes the demo's pieces to `demo/<id>.json`, checked: every formula of them must run. */
import { writeFileSync } from 'node:fs'
import { Program } from '../core/engine/program.ts'
import { readPiece } from '../core/piece/migrate.ts'
import { lanternPier } from './lantern-pier.ts'
import { driveRoom, duckBasin, skyLanterns, ticketArch } from './in-depth.ts'
import { swingTower, tenThousandBulbs } from './small-pieces.ts'

const pieces = {
  'drive-room': driveRoom(),
  'sky-lanterns': skyLanterns(),
  'ticket-arch': ticketArch(),
  'duck-basin': duckBasin(),
  'ten-thousand-bulbs': tenThousandBulbs(),
  'swing-tower': swingTower(),
  'lantern-pier': lanternPier(),
}
for (const [id, document] of Object.entries(pieces)) {
  const { piece, problem } = readPiece(document)
  if (!piece) throw new Error(`${id}: ${problem}`)
  for (const [key, slot] of new Program(piece).slots) {
    if (slot.problems.length > 0) throw new Error(`${id} ${key}: ${slot.problems[0]!.message}`)
  }
  writeFileSync(new URL(`./${id}.json`, import.meta.url), `${JSON.stringify(piece)}\n`)
}
