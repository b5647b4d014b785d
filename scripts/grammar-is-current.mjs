// The parser that is checked in must be the one its grammar makes.
import { readFileSync } from 'node:fs'
import { buildParserFile } from '@lezer/generator'

const folder = 'core/formula/'
const grammar = readFileSync(`${folder}formula.grammar`, 'utf8')
const made = buildParserFile(grammar, { fileName: 'formula.grammar', moduleStyle: 'es', typeScript: true })
const same = (file, text) => readFileSync(folder + file, 'utf8').trim() === text.trim()
if (!same('formula.parser.terms.ts', made.terms) || !same('formula.parser.ts', made.parser)) {
  console.error('formula.parser.ts is not what formula.grammar makes. Run npm run grammar.')
  process.exit(1)
}
