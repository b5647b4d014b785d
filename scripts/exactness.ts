/** Prints how exact the engine is, row by row; `npm run exactness -- --write` keeps it in docs/exactness.md. */
import { writeFileSync } from 'node:fs'
import { Program } from '../core/engine/program.ts'
import { rewrite } from '../core/engine/rewrite.ts'
import { setDial } from '../core/engine/retime.ts'
import { apply } from '../core/piece/operation.ts'
import { fair, at, RATE } from '../core/testing.ts'
import { lanternPier } from '../demo/lantern-pier.ts'
import { isBounded } from '../core/insight/interval.ts'
import { Moment, momentOfFrame, momentOfSeconds, momentOfTicks } from '../core/time/moment.ts'
import { evaluateAffine } from '../core/time/affine.ts'
import { rational, toNumber, fraction } from '../core/time/rational.ts'

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
  row('frames that lie exactly on a leap fall on the right side', 'always', `${wrong} of ${all} on the wrong side`)
}
{
  const program = new Program(lanternPier())
  let differing = 0
  let all = 0
  for (const [key, slot] of program.slots) {
    const moments = Array.from({ length: 200 }, (_, k) => momentOfFrame(k * 997 - 4000, RATE))
    for (let i = 0; i < slot.readers.length; i++) {
      const stretch = program.stretch(key, i, moments)
      moments.forEach((m, k) => {
        all++
        if (!Object.is(program.moment(m, new Float64Array(program.size))[slot.offset + i], stretch[k])) differing++
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
    'accumulate of a rate that leaps, after 100,000 s',
    '≤ 1e-8 turn',
    Math.abs(square.value(100000.5) - 50000.5).toExponential(1),
  )
}
{
  const program = new Program(lanternPier())
  let broken = 0
  let all = 0
  let widest = 0
  for (const [key, slot] of program.slots) {
    const noisy = /noise|load|before/.test(program.meanings.all.get(key)!.source.text)
    for (const form of slot.forms) {
      const { bounds } = form.facts()
      let [low, high] = [Infinity, -Infinity]
      const n = Math.ceil(10_000_000 / program.size)
      for (let k = 0; k < n; k++) {
        const v = form.at(momentOfTicks(k * 7919 - 1e6, RATE))
        all++
        if (v < bounds.low || v > bounds.high) broken++
        low = Math.min(low, v)
        high = Math.max(high, v)
      }
      if (isBounded(bounds) && high - low > 1e-9 && !noisy)
        widest = Math.max(widest, (bounds.high - bounds.low) / (high - low))
    }
  }
  row('bounds over the demo', 'never broken', `${broken} of ${all.toLocaleString('en')} samples outside`)
  row('bounds against the true range, of drives without noise', '≤ 1.3 times', `${widest.toFixed(2)} times`)
}
{
  let worst = 0
  for (const [a, b] of [
    ['time * 45deg/s * fairPace', 'time * 60deg/s * fairPace'],
    ['sine(every: 2s, amp: 1turn)', 'sine(every: 3s, amp: 1turn)'],
    ['noise(2Hz, 1turn)', 'noise(3.1Hz, 1turn)'],
    ['triangle(0.5Hz, 1turn)', 'triangle(0.9Hz, 1turn)'],
    ['accumulate(30deg/s)', 'accumulate(50deg/s)'],
    ['random(0turn, 1turn, rate: 3Hz)', 'random(0turn, 1turn, rate: 5Hz)'],
  ] as const) {
    for (const s of [0.4, 12.4, 3600.1, 86400.7]) {
      const f = fair(a)
      const after = rewrite(f.program, f.key, b, at(s), true).program
      worst = Math.max(worst, Math.abs(after.slots.get(f.key)!.readers[0]!.at(at(s)) - f.value(s)))
    }
  }
  row('a number that sets a pace, changed while it plays', '≤ 1e-9 of the amplitude', worst.toExponential(1))
  let dial = 0
  for (const s of [0.4, 12.4, 86400.7]) {
    const f = fair('time * 45deg/s * fairPace')
    const next = new Program(apply(f.piece, setDial(f.program, 'd1', 65, at(s))), f.program)
    dial = Math.max(dial, Math.abs(next.slots.get(f.key)!.readers[0]!.at(at(s)) - f.value(s)))
  }
  row('a dial, turned while it plays', '≤ 1e-9 of the amplitude', dial.toExponential(1))
}
if (process.argv.includes('--write')) {
  const table = ['| what | wanted | seen |', '|---|---|---|', ...rows.map(r => `| ${r.join(' | ')} |`)].join('\n')
  writeFileSync(
    new URL('../docs/exactness.md', import.meta.url),
    `# How exact the engine is\n\nWritten by \`npm run exactness -- --write\`; run it to see the figures on your machine.\n\n${table}\n`,
  )
}
