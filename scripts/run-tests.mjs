// Runs all checks and counts what they found. What does not need all of the machine runs side by side.
import { spawn } from 'node:child_process'
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'

const results = { passed: 0, failed: 0 }
/** The steps that went wrong, told again at the end: a line of the first minute is far up by then. */
const wrong = []
/** Seconds of each step, for `npm run slowest`. */
const steps = []
rmSync('test-results', { recursive: true, force: true })
mkdirSync('test-results', { recursive: true })

/** Runs a command; true when it went well. `beside` others, what it prints is kept until it ends. */
function run(title, [command, args], beside = false) {
  const began = Date.now()
  if (!beside) process.stdout.write(`\n── ${title}\n`)
  const child = spawn(command, args, { stdio: beside ? ['ignore', 'pipe', 'pipe'] : ['ignore', 'inherit', 'inherit'] })
  let said = ''
  child.stdout?.on('data', d => (said += d))
  child.stderr?.on('data', d => (said += d))
  return new Promise(done => {
    const end = well => {
      const seconds = (Date.now() - began) / 1000
      steps.push({ title, seconds })
      if (beside) process.stdout.write(well ? '' : said)
      console.log(`── ${title}: ${well ? 'well' : 'FAILED'} (${Math.round(seconds)} s)`)
      if (!well) wrong.push(title)
      done(well)
    }
    child.on('error', () => end(false))
    child.on('exit', code => end(code === 0))
  })
}
const npx = (...args) => ['npx', ['--no-install', ...args]]
const setUp = what => ['bash', ['scripts/set-up.sh', what]]

/** Adds the counts of a report and the names of what failed; a runner that broke before it counted is one failure. */
function count(file, well, read) {
  try {
    const { passed, failed, names } = read(JSON.parse(readFileSync(file, 'utf8')))
    wrong.push(...names)
    results.passed += passed
    results.failed += failed
    if (!well && failed === 0) results.failed++
  } catch {
    results.failed++
  }
}

/** What failed in a file of unit tests, each with the first line of why. */
function failing(file) {
  const name = file.name.replace(`${process.cwd()}/`, '')
  const tests = file.assertionResults.filter(t => t.status === 'failed')
  if (tests.length === 0 && file.status === 'failed') return [`${name}: ${first(file.message)}`]
  return tests.map(t => `${name}: ${t.fullName}: ${first(t.failureMessages[0])}`)
}
const first = text => (text ?? '').split('\n')[0].slice(0, 300)
/** Every end-to-end test of a report, out of the suites that lie in one another. */
const specs = suite => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specs)]

/** Runs steps one after another. */
async function inTurn(...all) {
  for (const step of all) await step()
}
/** A check counts as one. */
const check = (title, command) => async () => {
  if (await run(title, command, true)) results.passed++
  else results.failed++
}

for (const what of ['postgres', 'ffmpeg', 'chromium', 'shell']) await run(what, setUp(what))
await run('prepare', npx('nuxt', 'prepare'))
// A build writes the types anew that the page's own check and the linter read.
const building = run('build', setUp('build'), true)
await Promise.all([
  inTurn(() => building, check('types of the rest', npx('vue-tsc', '--build', '--noEmit'))),
  inTurn(
    check('format', npx('prettier', '--check', '--log-level', 'warn', '.')),
    check('types of the core', npx('tsc', '-p', 'core/tsconfig.json')),
    check('types of the tests', npx('tsc', '-p', 'tests/tsconfig.json')),
    check('hostile formulas', npx('jiti', 'scripts/fuzz.ts', '8000', '20261')),
    check('docs/formula.md is current', npx('jiti', 'scripts/manual.ts', '--check')),
    check('the JSON Schema is current', npx('jiti', 'scripts/json-schema.ts', '--check')),
    check('the grammar is current', ['node', ['scripts/grammar-is-current.mjs']]),
    () => building,
    check('lint', npx('eslint', '.')),
  ),
])

const unit = await run(
  'unit tests',
  npx('vitest', 'run', '--reporter=default', '--reporter=json', '--outputFile.json=test-results/unit.json'),
)
count('test-results/unit.json', unit, r => ({
  passed: r.numPassedTests,
  failed: r.numFailedTests + r.numFailedTestSuites * (r.numFailedTests ? 0 : 1),
  names: r.testResults.flatMap(file => failing(file)),
}))

if (await building) {
  const e2e = await run('end-to-end tests', npx('playwright', 'test', '-c', 'tests/e2e/playwright.config.ts'))
  count('test-results/e2e.json', e2e, r => ({
    passed: r.stats.expected + r.stats.flaky,
    failed: r.stats.unexpected,
    names: specs(r).flatMap(spec => (spec.ok ? [] : [`${spec.file}: ${spec.title}`])),
  }))
} else results.failed++

writeFileSync('test-results/steps.json', JSON.stringify(steps))
if (wrong.length > 0) console.log(`\nWrong:\n${wrong.map(w => `  ${w}`).join('\n')}`)
console.log(`\n${results.passed} passed, ${results.failed} failed`)
process.exit(results.failed === 0 ? 0 : 1)
