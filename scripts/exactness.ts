/** Prints how exact the engine is, row by row; `npm run exactness -- --write` keeps it in docs/exactness.md. */
import { writeFileSync } from 'node:fs'
import { Program } from '../core/engine/program.ts'
import { rewrite } from '../core/engine/rewrite.ts'
import { setDial } from '../core/engine/retime.ts'
import { apply } from '../core/piece/operation.ts'
import { fair, at, RATE } from '../core/testing/fair.ts'
import { lanternPier } from '../demo/lantern-pier.ts'
import { isBounded, point, union, type Interval } from '../core/facts/interval.ts'
import { anAngle } from '../core/testing/made-up-formulas.ts'
import fc from 'fast-check'
import { Moment, momentOfFrame, momentOfSeconds, momentOfTicks } from '../core/time/moment.ts'
import { evaluateAffine } from '../core/time/affine.ts'
import { over, plus, rational, toNumber, fraction } from '../core/time/rational.ts'
import { tryClaims } from '../tests/oracle/claims.ts'
import { tryFixes } from '../tests/oracle/fixes.ts'
import { KINDS } from '../tests/oracle/made.ts'
import { tryKind } from '../tests/oracle/values.ts'

const rows: [string, string, string][] = []
const row = (what: string, reach: string, seen: string) => {
  rows.push([what, reach, seen])
  console.log(`${what}: ${seen} (wanted: ${reach})`)
}

{
  // The phase of oscillators after a year at 60 frames a second, against exact fractions.
  let worst = 0
  const year = 31557600 * 60
  for (const hz of [300000, 7770000, 333333, 123456000, 100]) {
    const pace = rational(hz, 1e6)
    const f = fair(`saw(freq: ${hz / 1e6}Hz, low: 0turn, high: 1turn)`)
    const form = new Program({ ...f.piece, frameRate: { n: 60, d: 1 } }).slots.get(f.key)!.forms[0]!
    for (let k = 0; k < 4000; k++) {
      const m = new Moment(rational(year + k), rational(60))
      const exact = toNumber(fraction(evaluateAffine({ rate: pace, base: rational(0) }, m)))
      worst = Math.max(worst, Math.abs(form.at(m) - exact))
    }
  }
  row('phase of an oscillator after one year at 60 frames a second', '≤ 1e-12 turn', worst.toExponential(1))
}
{
  let wrong = 0
  let all = 0
  for (const [n, d] of [
    [3, 10],
    [777, 100],
    [1, 3],
  ] as const) {
    for (const text of ['square', 'saw'] as const) {
      const form = fair(`${text}(freq: ${n}Hz / ${d}, amp: 1turn)`).slot.forms[0]!
      for (let k = 0; k < 20000; k++) {
        all++
        const m = momentOfSeconds(rational(k * d, n), RATE)
        if (form.at(m) !== (text === 'saw' ? -1 : 1)) wrong++
      }
    }
  }
  for (const rate of ['3Hz', '7.77Hz', '24/lap']) {
    const form = fair(`random(0turn, 1turn, rate: ${rate})`).slot.forms[0]!
    const pace = { '3Hz': rational(3), '7.77Hz': rational(777, 100), '24/lap': rational(3) }[rate]!
    for (let k = 0; k < 20000; k++) {
      all++
      const s = over(rational(k), pace)
      const later = plus(s, rational(1, 1 << 20))
      if (form.at(momentOfSeconds(s, RATE)) !== form.at(momentOfSeconds(later, RATE))) wrong++
    }
  }
  row('frames exactly on a jump take the value after it', 'always', `${wrong} of ${all} on the wrong side`)
}
{
  const program = new Program(lanternPier())
  let differing = 0
  let all = 0
  const values = new Float64Array(program.size)
  for (const [key, slot] of program.slots) {
    // A signal has no place among the values of a moment.
    if (slot.offset < 0) continue
    const moments = Array.from({ length: 200 }, (_, k) => momentOfFrame(k * 997 - 4000, RATE))
    for (let i = 0; i < slot.readers.length; i++) {
      const stretch = program.stretch(key, i, {
        from: over(rational(-4000), RATE),
        step: over(rational(997), RATE),
        count: 200,
      })
      moments.forEach((m, k) => {
        all++
        if (!Object.is(program.moment(m, values)[slot.offset + i], stretch[k])) differing++
      })
      if (i > 2) break
    }
  }
  row('a moment and a stretch', 'bit for bit', `${differing} of ${all} values differ`)
}
{
  let differing = 0
  let all = 0
  for (const text of [
    'sine(freq: 3/lap, amp: 1turn)',
    'noise(freq: 8/lap, amp: 1turn, octaves: 3)',
    'random(0turn, 1turn, rate: 24/lap)',
    'saw(freq: 5/lap, amp: 1turn)',
  ]) {
    const form = fair(text).slot.forms[0]!
    for (let k = 0; k < 4000; k++) {
      all++
      if (!Object.is(form.at(momentOfFrame(k, RATE)), form.at(momentOfFrame(k + 240, RATE)))) differing++
    }
  }
  row('a per-lap source at t and t + lap', 'bit for bit', `${differing} of ${all} values differ`)
}
{
  const f = fair('flag[0].rotation * -0.3', { with: { 'Flag.rotation': 'time * 45deg/s' } })
  const year = f.value(31557612.4)
  row(
    'a ratio link after a year',
    'exact, no drift',
    `${Math.abs(year - toNumber(rational(-3 * 394470155, 1000))).toExponential(1)} turn off`,
  )
}
{
  const exactly = (t: number) => (30 * t + (80 * (1 - Math.cos(2 * Math.PI * ((t / 4) % 1)))) / (2 * Math.PI)) / 360
  const f = fair('accumulate(30deg/s + sine(every: 4s, amp: 20deg/s))')
  row(
    'accumulate of a varying rate after 100,000 s',
    '≤ 1e-8 turn',
    Math.abs(f.value(100000.7) - exactly(100000.7)).toExponential(1),
  )
  const square = fair('accumulate(square(every: 2s, low: 0turn/s, high: 1turn/s))')
  row(
    'accumulate of a rate that jumps, after 100,000 s',
    '≤ 1e-8 turn',
    Math.abs(square.value(100000.5) - 50000.5).toExponential(1),
  )
}
{
  // ∫ sin at · sin bt dt = sin((a − b) t) / 2(a − b) − sin((a + b) t) / 2(a + b); the two never come back together.
  const [a, b] = [(2 * Math.PI) / 4, (2 * Math.PI) / 2.7182818]
  const exactly = (t: number) => Math.sin((a - b) * t) / (2 * (a - b)) - Math.sin((a + b) * t) / (2 * (a + b))
  const f = fair('accumulate(1turn/s * sine(every: 4s) * sine(every: 2.7182818s))')
  row(
    'accumulate of a rate without a closed form, after 100,000 s',
    '≤ 1e-8 turn',
    Math.abs(f.value(100000.7) - exactly(100000.7)).toExponential(1),
  )
}
{
  const program = new Program(lanternPier())
  let broken = 0
  let all = 0
  let widest = 0
  const samples = Math.ceil(10_000_000 / program.size)
  for (const slot of program.slots.values()) {
    let seen: Interval | null = null
    for (const form of slot.readers) {
      const { bounds } = form.facts()
      for (let k = 0; k < samples; k++) {
        const v = program.queue.settle(() => form.at(momentOfTicks(k * 7919 - 1e6, RATE)))
        all++
        if (v < bounds.low || v > bounds.high) broken++
        seen = seen ? union(seen, point(v)) : point(v)
      }
    }
    // Copies of noise have one range, which all of them together come nearer to than one alone.
    const bounds = slot.readers.map(f => f.facts().bounds).reduce(union)
    const range = seen!.high - seen!.low
    if (isBounded(bounds) && range > 1e-9) widest = Math.max(widest, (bounds.high - bounds.low) / range)
  }
  row('bounds over the demo', 'never broken', `${broken} of ${all.toLocaleString('en')} samples outside`)
  row('bounds against the range reached, over all drives of the demo', '≤ 1.3 times', `${widest.toFixed(2)} times`)
}
{
  let broken = 0
  let all = 0
  const formulas = fc.sample(anAngle, { numRuns: 2000, seed: 20417 })
  formulas.forEach((text, n) => {
    const { slot, program } = fair(text)
    const reader = slot.readers[0]!
    const { bounds } = reader.facts()
    for (let k = 0; k < 1000; k++) {
      const v = program.queue.settle(() => reader.at(momentOfTicks(k * 7919 + n * 104729 - 1e7, RATE)))
      all++
      if (!(v >= bounds.low && v <= bounds.high)) broken++
    }
  })
  row('bounds of 2,000 random formulas', 'never broken', `${broken} of ${all.toLocaleString('en')} samples outside`)
}
{
  let worst = 0
  for (const [a, b] of [
    ['time * 45deg/s * fairPace', 'time * 60deg/s * fairPace'],
    ['sine(every: 2s, amp: 1turn)', 'sine(every: 3s, amp: 1turn)'],
    ['noise(2Hz, 1turn)', 'noise(3.1Hz, 1turn)'],
    ['triangle(0.5Hz, 1turn)', 'triangle(0.9Hz, 1turn)'],
    ['accumulate(30deg/s)', 'accumulate(50deg/s)'],
    [
      'sine(freq: 1Hz * (1 + 0.2 * sine(every: 2s)), amp: 1turn)',
      'sine(freq: 2Hz * (1 + 0.2 * sine(every: 2s)), amp: 1turn)',
    ],
    ['random(0turn, 1turn, rate: 3Hz)', 'random(0turn, 1turn, rate: 5Hz)'],
  ] as const) {
    for (const s of [0.4, 12.4, 3600.1, 86400.7]) {
      const f = fair(a)
      const after = rewrite(f.program, f.key, b, at(s), true).program
      worst = Math.max(worst, Math.abs(after.slots.get(f.key)!.readers[0]!.at(at(s)) - f.value(s)))
    }
  }
  row('a number that sets a pace, changed while playing', '≤ 1e-9 of the amplitude', worst.toExponential(1))
  let dial = 0
  for (const s of [0.4, 12.4, 86400.7]) {
    for (const text of [
      'time * 45deg/s * fairPace',
      'accumulate(fairPace * (45deg/s + sine(every: 4s, amp: 20deg/s)))',
      'sine(freq: 1Hz * fairPace, amp: 1turn) on toAndFro',
    ]) {
      const f = fair(text)
      const next = new Program(apply(f.piece, setDial(f.program, 'd1', 65, at(s))), f.program)
      dial = Math.max(dial, Math.abs(next.slots.get(f.key)!.readers[0]!.at(at(s)) - f.value(s)))
    }
  }
  row('a dial, turned while playing', '≤ 1e-9 of the amplitude', dial.toExponential(1))
}
/** Formulas that are tried of each kind: values, and claims. */
const TRIED = 60
const CLAIMED = 12
const trials: string[][] = []
KINDS.forEach((kind, i) => {
  const v = tryKind(kind, TRIED, 9000 + i)
  const [c] = tryClaims(kind.far ? CLAIMED : 1, 7000 + i, kind.name)
  for (const example of [...v.examples, ...c!.examples.filter(e => !/bounds .* are|not proven|no bounds/.test(e))])
    console.log('  ', example)
  trials.push([
    kind.name,
    `${v.formulas}`,
    v.values.toLocaleString('en'),
    `${v.wrong + v.refused}`,
    `${v.unsure}`,
    `${c!.claims}`,
    `${c!.wrong}`,
    `${c!.unproven}`,
    `${c!.loose}`,
  ])
  console.log(trials.at(-1)!.join(' | '))
})
const fixes = tryFixes()
row(
  'first fixes offered for formulas in other notations that run and mean the same',
  'all',
  `${fixes.filter(f => !f.fault).length} of ${fixes.length}`,
)
if (process.argv.includes('--write')) {
  const table = ['| what | target | seen |', '|---|---|---|', ...rows.map(r => `| ${r.join(' | ')} |`)].join('\n')
  const sum = (k: number) => trials.reduce((n, t) => n + Number(t[k]!.replaceAll(',', '')), 0).toLocaleString('en')
  const all = ['**all**', ...[1, 2, 3, 4, 5, 6, 7, 8].map(sum)]
  const tried = [
    '| kind | formulas | values | wrong | not sure | claims | wrong | plain, not proven | loose |',
    '|---|---|---|---|---|---|---|---|---|',
    ...[...trials, all].map(t => `| ${t.join(' | ')} |`),
  ].join('\n')
  const told =
    'Random formulas of many kinds, compared with an evaluator that was written from the description of the language alone and shares nothing with the core (`tests/oracle`, exact fractions). _Not sure_: the comparison itself depends on two doubles that hardly differ. Claims are bounds, looping at the lap, and jumps; _loose_ are bounds more than 1.5 times the range reached.'
  writeFileSync(
    new URL('../docs/exactness.md', import.meta.url),
    `# How exact the engine is\n\nWritten by \`npm run exactness -- --write\`; run it to see the figures on your machine.\n\n${table}\n\n## Compared with an evaluator of its own\n\n${told}\n\n${tried}\n`,
  )
}
