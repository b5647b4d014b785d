// Runs all checks one after another and counts what they found.
import { spawnSync } from 'node:child_process'
import { mkdirSync, readFileSync, rmSync } from 'node:fs'

const results = { passed: 0, failed: 0 }
/** The steps that went wrong, told again at the end: a line of the first minute is far up by then. */
const wrong = []
rmSync('test-results', { recursive: true, force: true })
mkdirSync('test-results', { recursive: true })

/** Runs a command; true when it went well. */
function run(title, command, args, env = {}) {
  const began = Date.now()
  process.stdout.write(`\n── ${title}\n`)
  const { status } = spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, ...env } })
  console.log(`── ${title}: ${status === 0 ? 'well' : 'FAILED'} (${Math.round((Date.now() - began) / 1000)} s)`)
  if (status !== 0) wrong.push(title)
  return status === 0
}
/** A check counts as one. */
function check(title, command, args) {
  if (run(title, command, args)) results.passed++
  else results.failed++
}
const npx = (...args) => ['npx', ['--no-install', ...args]]

/** Adds the counts of a report; a runner that broke before it counted is one failure. */
function count(file, well, read) {
  try {
    const { passed, failed } = read(JSON.parse(readFileSync(file, 'utf8')))
    results.passed += passed
    results.failed += failed
    if (!well && failed === 0) results.failed++
  } catch {
    results.failed++
  }
}

check('format', ...npx('prettier', '--check', '--log-level', 'warn', '.'))
run('prepare', ...npx('nuxt', 'prepare'))
check('lint', ...npx('eslint', '.'))
check('types of the core', ...npx('tsc', '-p', 'core/tsconfig.json'))
check('types of the rest', ...npx('vue-tsc', '--build', '--noEmit'))
check('types of the tests', ...npx('tsc', '-p', 'tests/tsconfig.json'))
check('the grammar is current', 'node', ['scripts/grammar-is-current.mjs'])

check('the JSON Schema is current', ...npx('jiti', 'scripts/json-schema.ts', '--check'))
check('docs/formula.md is current', ...npx('jiti', 'scripts/manual.ts', '--check'))
check('hostile formulas', ...npx('jiti', 'scripts/fuzz.ts', '8000', '20261'))

run('PostgreSQL', 'bash', ['scripts/set-up.sh', 'postgres'])
const unit = run(
  'unit tests',
  ...npx('vitest', 'run', '--reporter=default', '--reporter=json', '--outputFile.json=test-results/unit.json'),
)
count('test-results/unit.json', unit, r => ({
  passed: r.numPassedTests,
  failed: r.numFailedTests + r.numFailedTestSuites * (r.numFailedTests ? 0 : 1),
}))

if (
  run('build', 'bash', ['scripts/set-up.sh', 'build']) &&
  run('Chromium', 'bash', ['scripts/set-up.sh', 'chromium']) &&
  run('FFmpeg', 'bash', ['scripts/set-up.sh', 'ffmpeg'])
) {
  const e2e = run('end-to-end tests', ...npx('playwright', 'test', '-c', 'tests/e2e/playwright.config.ts'))
  count('test-results/e2e.json', e2e, r => ({ passed: r.stats.expected + r.stats.flaky, failed: r.stats.unexpected }))
} else results.failed++

if (wrong.length > 0) console.log(`\nWrong: ${wrong.join('; ')}`)
console.log(`\n${results.passed} passed, ${results.failed} failed`)
process.exit(results.failed === 0 ? 0 : 1)
