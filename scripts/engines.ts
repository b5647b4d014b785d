/**
 * Whether every browser engine gives the same values, to the bit: of all copies of all formulas of the demo's pieces, and
 * of formulas made up at random. `npm run engines -- [how many] [seed]`; Node, Chromium, Firefox and WebKit are asked.
 * Then the demo is used in each: opened, played, a number dragged, saved, exported. It needs a build.
 */
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { build } from 'esbuild'
import fc from 'fast-check'
import { anAngle, anAngleOfCopies } from '../core/testing/made-up-formulas.ts'
import { fair } from '../core/testing/fair.ts'
import { browsersIn, type Ends } from './engines/browsers.ts'
import { used } from './engines/used.ts'
import { valuesOf, type Bits, type Work } from './engines/values.ts'

const COUNT = Number(process.argv[2] ?? 2000)
const SEED = Number(process.argv[3] ?? 1)
/** Milliseconds that an engine may take for all of it. */
const PATIENCE = 20 * 60_000

execFileSync('bash', ['scripts/set-up.sh', 'engines'], { stdio: 'inherit' })

const demo = new URL('../demo/', import.meta.url)
const names = readdirSync(demo).filter(f => f.endsWith('.json'))
/** What is too much to be worked out has no value to compare. */
const runs = (text: string) => fair(text).slot.forms.length > 0
const made = fc.sample(fc.oneof(anAngle, anAngleOfCopies), { numRuns: COUNT * 2, seed: SEED }).filter(runs)
const work: Work = {
  pieces: names.map(name => [name.replace('.json', ''), JSON.parse(readFileSync(new URL(name, demo), 'utf8'))]),
  formulas: made.slice(0, COUNT),
}
const expected = valuesOf(work)

const bundle = await build({
  entryPoints: ['scripts/engines/page.ts'],
  bundle: true,
  write: false,
  format: 'esm',
  logLevel: 'error',
})
const script = bundle.outputFiles[0]!.text

interface Answer {
  readonly engine: string
  readonly bits?: Bits
  readonly failed?: string
}
let answered: (a: Answer) => void = () => undefined
const server = createServer((request, response) => {
  const say = (type: string, text: string) => response.setHeader('content-type', type).end(text)
  if (request.url === '/work') return void say('application/json', JSON.stringify(work))
  if (request.url === '/page.js') return void say('text/javascript', script)
  if (request.url !== '/done')
    return void say('text/html', '<!doctype html><script type="module" src="/page.js"></script>')
  const parts: Buffer[] = []
  request.on('data', d => parts.push(d as Buffer))
  request.on('end', () => {
    say('text/plain', 'thanks')
    answered(JSON.parse(Buffer.concat(parts).toString()) as Answer)
  })
})
await new Promise<void>(done => server.listen(0, '127.0.0.1', done))
const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`

const folder = mkdtempSync(join(tmpdir(), 'open-tide-engines-'))
let wrong = 0
const count = expected.reduce((sum, [, bits]) => sum + bits.split(' ').length, 0)
console.log(`${names.length} pieces and ${work.formulas.length} formulas: ${count} values`)
for (const [name, open] of Object.entries(browsersIn(folder))) {
  const began = Date.now()
  const answer = new Promise<Answer>(done => {
    answered = done
    setTimeout(() => done({ engine: name, failed: 'no answer' }), PATIENCE).unref()
  })
  let end: Ends = () => undefined
  try {
    end = await open(url, says => answered({ engine: name, failed: says }))
    const { engine, bits, failed } = await answer
    if (!bits) throw new Error(failed)
    if (bits.length !== expected.length) throw new Error(`${bits.length} rows instead of ${expected.length}`)
    const others = expected.flatMap(([what, is], k) => {
      const [ours, theirs] = [is.split(' '), bits[k]![1].split(' ')]
      const off = ours.filter((v, j) => v !== theirs[j]).length
      return off > 0 || ours.length !== theirs.length ? [{ what, off }] : []
    })
    const off = others.reduce((sum, o) => sum + o.off, 0)
    wrong += off
    console.log(`${name}: ${off} others (${Math.round((Date.now() - began) / 1000)} s; ${engine})`)
    for (const o of others.slice(0, 10)) console.log(`  ${o.off} of ${o.what}`)
  } catch (e) {
    wrong++
    console.log(`${name}: ${(e as Error).message}`)
  } finally {
    end()
  }
}
server.close()
wrong += await used(browsersIn(folder))
rmSync(folder, { recursive: true, force: true, maxRetries: 5, retryDelay: 200 })
process.exit(wrong > 0 ? 1 : 0)
