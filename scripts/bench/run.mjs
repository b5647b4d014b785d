// npm run bench [-- --beside folder] [section]: every row of the benchmark, here and, turn about, in another checkout.
import { execFileSync } from 'node:child_process'
import { mkdirSync } from 'node:fs'
import { resolve } from 'node:path'
import { build } from 'esbuild'

const args = process.argv.slice(2)
const beside = args[0] === '--beside' ? args.splice(0, 2)[1] : null
const root = resolve(import.meta.dirname, '../..')
mkdirSync(resolve(root, '.data'), { recursive: true })

/** The rows of a checkout, bundled with its core. */
async function bundled(checkout, name) {
  const outfile = resolve(root, `.data/bench-${name}.mjs`)
  const entry = resolve(checkout, 'scripts/bench/rows.ts')
  await build({ entryPoints: [entry], bundle: true, platform: 'node', format: 'esm', outfile, logLevel: 'error' })
  return outfile
}

function rowsOf(file) {
  const printed = execFileSync(process.execPath, ['--expose-gc', file, args[0] ?? ''], {
    cwd: root,
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'inherit'],
    maxBuffer: 1e8,
  })
  return printed
    .trim()
    .split('\n')
    .filter(Boolean)
    .map(line => JSON.parse(line))
}

const show = row =>
  !row ? '' : row.fault ? 'false' : row.value === null ? '–' : `${row.value.toPrecision(3)} ${row.unit}`
const before = beside ? new Map(rowsOf(await bundled(resolve(beside), 'beside')).map(r => [r.name, r])) : null
const rows = rowsOf(await bundled(root, 'here'))
let wrong = 0
console.log(`${'row'.padEnd(62)}${before ? 'before'.padStart(12) : ''}${'now'.padStart(12)}${'reach'.padStart(10)}`)
for (const row of rows) {
  if (row.fault) wrong++
  const missed = row.reach !== null && !row.fault && row.value > row.reach ? '  not reached' : ''
  const cells = [...(before ? [show(before.get(row.name))] : []), show(row)].map(c => c.padStart(12)).join('')
  console.log(`${row.name.padEnd(62)}${cells}${(row.reach === null ? '' : `≤ ${row.reach}`).padStart(10)}${missed}`)
  if (row.fault) console.log(`    this row measures nothing: ${row.fault}`)
}
process.exitCode = wrong > 0 ? 1 : 0
