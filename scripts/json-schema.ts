/** Writes docs/piece.schema.json, the JSON Schema (draft 7) of a piece's document; with --check it must be current. */
import { readFileSync, writeFileSync } from 'node:fs'
import { toJsonSchema } from '@valibot/to-json-schema'
import { PieceSchema } from '../core/piece/schema.ts'

const schema = {
  $id: 'open-tide-piece-1',
  title: 'A piece of Open Tide',
  ...toJsonSchema(PieceSchema, { errorMode: 'ignore' }),
}
const text = `${JSON.stringify(schema, null, 2)}\n`
const file = new URL('../docs/piece.schema.json', import.meta.url)
if (!process.argv.includes('--check')) writeFileSync(file, text)
else if (readFileSync(file, 'utf8') !== text) {
  console.error('docs/piece.schema.json is not what core/piece/schema.ts says. Run npm run json-schema.')
  process.exit(1)
}
