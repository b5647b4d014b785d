// Where the time of the last ./run-tests went: its steps, its slowest files and its slowest tests.
import { readFileSync } from 'node:fs'

const read = file => {
  try {
    return JSON.parse(readFileSync(`test-results/${file}`, 'utf8'))
  } catch {
    return null
  }
}
const [steps, unit, e2e] = ['steps.json', 'unit.json', 'e2e.json'].map(read)
if (!steps && !unit && !e2e) {
  console.log('There are no results yet. Run ./run-tests first.')
  process.exit(1)
}

/** Rows of seconds, a file and a title. */
const tests = []
for (const { name, assertionResults } of unit?.testResults ?? [])
  for (const t of assertionResults)
    tests.push({ seconds: (t.duration ?? 0) / 1000, file: name.replace(`${process.cwd()}/`, ''), title: t.title })
const walk = suite => {
  for (const { title, tests: all, file } of suite.specs ?? [])
    for (const t of all)
      tests.push({ seconds: t.results.reduce((s, r) => s + r.duration, 0) / 1000, file: `tests/e2e/${file}`, title })
  for (const inner of suite.suites ?? []) walk(inner)
}
if (e2e) walk({ suites: e2e.suites })

const files = new Map()
for (const { file, seconds } of tests) files.set(file, (files.get(file) ?? 0) + seconds)
const list = (title, rows, most) => {
  console.log(`\n${title}`)
  for (const [seconds, what] of rows.sort((a, b) => b[0] - a[0]).slice(0, most))
    console.log(`${seconds.toFixed(1).padStart(8)} s  ${what}`)
}
list(
  'Steps',
  (steps ?? []).map(s => [s.seconds, s.title]),
  30,
)
list(
  'Files (of two workers)',
  [...files].map(([file, seconds]) => [seconds, file]),
  25,
)
list(
  'Tests',
  tests.map(t => [t.seconds, `${t.file}: ${t.title}`]),
  40,
)
