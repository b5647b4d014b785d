/** Every wall of the house: an import through it fails the linter, and the file as it stands passes. */
import { readFileSync } from 'node:fs'
import { ESLint } from 'eslint'
import { beforeAll, expect, it } from 'vitest'

/** A file, what it must not import, and what the linter says. */
const WALLS: readonly (readonly [file: string, path: string, says: string])[] = [
  ['core/time/rational.ts', '../engine/program.ts', 'stands below core/engine'],
  ['core/piece/schema.ts', '../functions/index.ts', 'stands below core/functions'],
  ['core/rig/outline/outline.ts', '../scene.ts', 'stands below core/rig'],
  ['core/formula/parse.ts', '../engine/program.ts', 'stands below core/engine'],
  ['core/insight/report.ts', '../formats/svg.ts', 'stands below core/formats'],
  ['core/time/moment.ts', './affine.ts', 'Files in a circle'],
  ['core/time/rational.ts', '../../app/services/request.ts', 'The core imports none'],
  ['core/formats/svg.ts', '../../server/request.ts', 'The core imports none'],
  ['core/acts/parts.ts', '../../cli/main.ts', 'The core imports none'],
  ['app/services/request.ts', '~/stores/piece.ts', 'A service knows neither'],
  ['app/services/keeper.ts', '../commands/tuning.ts', 'A service knows neither'],
  ['app/stores/listing.ts', '~/components/quay/FindAnything.vue', 'A store holds what is shown'],
  ['app/stores/listing.ts', '../commands/driving.ts', 'A store holds what is shown'],
  ['app/commands/driving.ts', '~/components/quay/FindAnything.vue', 'Components stand above'],
  ['app/stage/pen/pen.ts', '~/components/quay/FindAnything.vue', 'Components stand above'],
  ['app/player/scope.ts', '~/pages/index.vue', 'Components stand above'],
  ['app/stage/threads.ts', '~~/server/request.ts', 'The app imports the core alone'],
  ['app/composables/useTape.ts', '~~/server/request.ts', 'imports the core alone'],
  ['app/components/quay/FindAnything.vue', '~~/cli/main.ts', 'imports the core alone'],
  ['server/request.ts', '../app/services/request.ts', 'The server imports the core alone'],
  ['server/database/pieces.ts', '../../cli/main.ts', 'The server imports the core alone'],
  ['cli/main.ts', '../app/services/request.ts', 'The prompt imports the core alone'],
  ['cli/main.ts', '../scripts/words.ts', 'The prompt imports the core alone'],
  ['demo/write.ts', '../app/services/request.ts', 'The demo is written with the core alone'],
]
const ABOUT_IMPORTS = /^(no-restricted-imports|floors\/)/

let linter: ESLint
beforeAll(() => {
  // What needs types is left out: it says nothing about imports.
  const untyped = { languageOptions: { parserOptions: { project: null } } }
  const off = ['no-floating-promises', 'switch-exhaustiveness-check'].map(r => [`@typescript-eslint/${r}`, 'off'])
  linter = new ESLint({ overrideConfig: [{ ...untyped, rules: Object.fromEntries(off) }] })
})

/** What the linter says of the imports of a file with this text. */
async function saidOf(file: string, text: string): Promise<string[]> {
  const [result] = await linter.lintText(text, { filePath: file })
  return result!.messages.filter(m => m.fatal || ABOUT_IMPORTS.test(m.ruleId ?? '')).map(m => m.message)
}

it.each(WALLS)('%s may not import %s', async (file, path, says) => {
  const text = readFileSync(file, 'utf8')
  expect(await saidOf(file, text)).toEqual([])
  const planted = `import '${path}'\n`
  const at = file.endsWith('.vue') ? text.indexOf('\n', text.indexOf('<script')) + 1 : 0
  const said = await saidOf(file, text.slice(0, at) + planted + text.slice(at))
  expect(said.join('\n')).toContain(says)
})
