/**
 * The rows of `npm run bench`: what values, copies, chains, particles and the picture cost in Node, each as a ratio to a loop
 * by hand in the same run. A row whose piece does not do what it names fails. Prints a line of JSON a row.
 */
import type { Piece } from '../../core/piece/schema.ts'
import { Program } from '../../core/engine/program.ts'
import { rewrite } from '../../core/engine/rewrite.ts'
import { driveFacts, driveJumps } from '../../core/insight/drive-facts.ts'
import { momentOfTicks } from '../../core/time/moment.ts'
import { rational } from '../../core/time/rational.ts'
import { heavy } from '../../demo/heavy.ts'
import { bulbLoop, chainLoop, followerLoop, fourOscillators, mixedLoop, oneOscillator, threeOctaves } from './loops.ts'
import { bulbsInAGrid, chain, followers, players, single } from './pieces.ts'
import { pictureRows } from './picture.ts'
import { faultOf, held, played, stretchFault, took } from './proof.ts'

export interface Row {
  readonly name: string
  /** Milliseconds, bytes or a ratio. */
  readonly value: number
  readonly unit: 'ms' | '×' | 'MB' | 'kB'
  /** What is to be reached at most; null for what is only told. */
  readonly reach: number | null
  /** Why the piece does not do what the row names. */
  readonly fault: string | null
}

const tell = (row: Row): void => console.log(JSON.stringify(row))
const wanted = process.argv[2] ?? ''
const section = (name: string, run: () => void): void => {
  if (!name.startsWith(wanted)) return
  try {
    run()
  } catch (e) {
    tell({ name, value: NaN, unit: 'ms', reach: null, fault: e instanceof Error ? e.message : String(e) })
  }
}

const loopTime = (loop: (t: number, out: Float64Array) => void, size: number): number => {
  const out = new Float64Array(size)
  return took(k => loop(20 + k / 61, out), 240)
}

/** What it takes to open a piece, with a way to tell more of it. */
function opening(name: string, piece: Piece, driven: number, ms: number | null, megabytes: number | null) {
  const { made: program, bytes } = held(() => new Program(piece))
  const fault = faultOf(program, driven)
  const row = (what: string, value: number, unit: Row['unit'], reach: number | null) =>
    tell({ name: `${name}: ${what}`, value, unit, reach, fault })
  const opened = took(() => new Program(piece), 200, 3)
  row('opened', opened, 'ms', ms)
  row('memory', bytes / 1e6, 'MB', megabytes)
  const out = new Float64Array(program.size)
  return { program, fault, row, moment: took(k => program.moment(played(program, k), out), 400) }
}

for (const count of [1, 250, 1000, 10_000, 100_000])
  section(`copies ${count}`, () => {
    const piece = bulbsInAGrid(count)
    const many = count >= 10_000
    const reach = count === 10_000 ? 300 : count === 100_000 ? 2000 : null
    const { program, fault, row, moment } = opening(
      `${count.toLocaleString('en')} copies, four driven`,
      piece,
      4,
      reach,
      count === 10_000 ? 16 : null,
    )
    row('a moment', moment, 'ms', null)
    if (count > 1) row('a moment ÷ loop', moment / loopTime(bulbLoop(count), 4 * count), '×', many ? 2 : null)
    const key = [...program.slots.keys()].find(k => k.endsWith('.x'))!
    const { text } = piece.drives[key]!
    const at = played(program, 100)
    for (const [what, from, to] of [
      ['reach', '3px', (k: number) => `${3 + (k % 50) / 10}px`],
      ['period', 'every: 2s', (k: number) => `every: ${2 + (k % 50) / 10}s`],
    ] as const) {
      if (fault) continue
      let now = program
      const drag = took(k => (now = rewrite(now, key, text.replace(from, to(k)), at, true).program), 300, 3)
      row(`its ${what} dragged, a move`, drag, 'ms', null)
    }
  })

for (const [name, piece, driven, loop] of [
  ['followers, each behind the one before', followers(), 3, followerLoop(10_000)],
  ['players of a curve and an envelope on a cue, each after the one before', players(), 2, null],
] as const)
  section(`copies behind one another: ${name}`, () => {
    const { row, moment } = opening(`10,000 ${name}`, piece, driven, 300, 16)
    row('a moment', moment, 'ms', null)
    if (loop) row('a moment ÷ loop', moment / loopTime(loop, 20_000), '×', 2)
  })

section('stretch', () => {
  for (const [name, text, loop] of [
    ['F1', 'sine(every: 2s, amp: 30deg)', oneOscillator],
    [
      'F2',
      'clamp((sine(every: 2s, amp: 10deg) + sine(every: 3s, amp: 8deg, phase: 36deg) + sine(every: 5s, amp: 6deg) + sine(every: 7s, amp: 4deg, phase: 108deg)) * smoothstep(1s, 4s, time), -20deg, 20deg)',
      fourOscillators,
    ],
    ['F3', 'noise(2Hz, 9deg, octaves: 3)', threeOctaves],
  ] as const) {
    const program = new Program(single(text))
    const key = [...program.slots.keys()][0]!
    const fault = faultOf(program, 1) ?? stretchFault(program, key)
    for (const count of [600, 100_000]) {
      const out = new Float64Array(count)
      const times = Float64Array.from({ length: count }, (_, i) => i / 60)
      const ours = took(k => {
        return program.stretch(key, 0, { from: rational(k), step: rational(1, 60), count }, out)
      })
      const by = took(() => loop(times, out))
      tell({ name: `${name} over ${count} times ÷ loop`, value: ours / by, unit: '×', reach: 1.75, fault })
    }
  }
})

section('drives', () => {
  const piece = heavy(1000)
  const { program, row, moment } = opening('1,000 mixed drives', piece, 1000, 150, 3)
  row('a moment ÷ data-driven loop', moment / loopTime(mixedLoop(1000), 1000), '×', 4)
  const key = [...program.slots.keys()][0]!
  const { text } = piece.drives[key]!
  let now = program
  const at = played(program, 100)
  row(
    'a number dragged, a move',
    took(k => (now = rewrite(now, key, text.replace('10px', `${10 + (k % 40)}px`), at, true).program), 300, 3),
    'ms',
    0.3,
  )
})

section('chains', () => {
  for (const [links, reach] of [
    [64, 1],
    [200, 4],
    [400, 12],
  ] as const) {
    const program = new Program(chain(links))
    const fault = faultOf(program, links)
    const out = new Float64Array(program.size)
    const live = took(k => program.moment(momentOfTicks(600_000 + k * 1037, program.measures.frameRate), out), 400, 3)
    tell({ name: `chain of ${links} with lag, live`, value: live, unit: 'ms', reach, fault })
    tell({
      name: `chain of ${links} with lag, live ÷ its readings by hand`,
      value: live / loopTime(chainLoop(links), 1),
      unit: '×',
      reach: 8,
      fault,
    })
  }
})

section('facts', () => {
  for (const count of [250, 10_000]) {
    const program = new Program(bulbsInAGrid(count))
    const from = performance.now()
    const known = [...program.slots.keys()].map(key => [driveFacts(program, key), driveJumps(program, key)] as const)
    const value = performance.now() - from
    // What is left open is not counted as found out.
    const open = known.some(([k, l]) => !k || !l || k.report.closure.verdict === 'unproven')
    const fault = faultOf(program, 4) ?? (open ? 'it is not known of every drive whether it loops' : null)
    tell({
      name: `facts of four drives on ${count.toLocaleString('en')} copies`,
      value,
      unit: 'ms',
      reach: count === 10_000 ? 300 : null,
      fault,
    })
  }
})

section('picture', () => pictureRows(tell))
