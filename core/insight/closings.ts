/**
 * Everything that would close a drive at the lap, each tried before it is proposed: numbers of its formula, and what it
 * also depends on: cues that repeat, clocks, keyframes, signals it reads.
 */
import { drivenSignal, isSignal, splitDriveKey } from '../piece/drive-key.ts'
import { formulasNaming, changeNamed } from '../acts/named-things.ts'
import { setText, sourceName } from '../acts/sources.ts'
import { setKeys } from '../acts/parts.ts'
import { reshapeGear } from '../acts/gear-train.ts'
import { symmetryIn, symmetryOf } from '../piece/symmetry.ts'
import { Program } from '../engine/program.ts'
import { parse } from '../formula/parse.ts'
import { change, type Change, type Fix } from '../formula/problem.ts'
import { everyNode } from '../formula/tree.ts'
import { apply, type Operation } from '../piece/operation.ts'
import type { Clock, Piece, Shape } from '../piece/schema.ts'
import { times, toNumber } from '../time/rational.ts'
import { printNumber } from '../units/units.ts'
import { closes, closingNumbers, closingSpokes, closingTeeth } from './proposals.ts'

/** A change of its text, or of something else in the piece. */
export type Closing = Fix | { readonly label: string; readonly op: Operation }

/** What is tried in all, most. */
const MOST_TRIED = 24

export function closingsOf(program: Program, key: string): Closing[] {
  if (!program.piece.drives[key] || closes(program, key)) return []
  const own = [...closingNumbers(program, key), ...gearClosings(program, key)]
  if (own.length > 0) return own
  const { piece } = program
  const lap = toNumber(program.measures.lapLength)
  // Where one number does not do it, all that goes round may do it together.
  const changes = wholeRounds(piece.drives[key]!.text, lap)
  const together = change(piece.drives[key]!.text, changes)
  if (changes.length > 0 && closes(trial(program, setText(piece, key, together, true), key), key))
    return [{ label: together, changes }]
  const found: Closing[] = []
  const ways = waysOf(program, key, lap).slice(0, MOST_TRIED)
  const tried = ways.map(way => ({ way, made: trial(program, way.op, key) }))
  for (const { way, made } of tried) if (closes(made, key)) found.push(way)
  if (found.length > 0) return found
  // One change alone is not enough: with it, a number of the formula may do the rest.
  for (const { way, made } of tried) {
    const [fix] = closingNumbers(made, key)
    if (!fix) continue
    const text = setText(piece, key, change(piece.drives[key]!.text, fix.changes), true)
    found.push({ label: `${way.label}, and ${fix.label}`, op: { ...way.op, puts: [...way.op.puts, ...text.puts] } })
  }
  return found
}

/** Other counts of spokes and teeth with which a gear closes, the nearest to what it has first: all up to 60. */
export function gearClosings(program: Program, key: string): Closing[] {
  const [id, property] = splitDriveKey(key)
  const { piece } = program
  const shape = isSignal(key) ? undefined : piece.parts[id]?.shape
  const exact = program.slots.get(key)?.forms[0]?.exact
  if (shape?.type !== 'gear' || property !== 'rotation' || !exact) return []
  const turns = times(exact.rate, program.measures.lapLength)
  const symmetry = (to: Shape) => (symmetryIn(piece, id).typed ? piece.parts[id]!.symmetry : symmetryOf(to))
  const ways = (is: 'spokes' | 'teeth', counts: readonly number[]): Closing[] =>
    [...counts]
      .sort((a, b) => Math.abs(a - shape[is]) - Math.abs(b - shape[is]) || a - b)
      .map(n => ({ n, shape: { ...shape, [is]: n } }))
      .map(to => ({ label: `${to.n} ${is}`, op: reshapeGear(piece, id, to.shape, symmetry(to.shape)).op }))
      .filter(way => closes(trial(program, way.op, key), key))
  return [...ways('spokes', closingSpokes(shape.teeth, turns)), ...ways('teeth', closingTeeth(shape.spokes, turns))]
}

const trial = (program: Program, op: Operation, key: string): Program =>
  new Program(apply(program.piece, op), program, program.live, key)

interface Way {
  readonly label: string
  readonly op: Operation
}

function waysOf(program: Program, key: string, lap: number): Way[] {
  const { piece } = program
  const reads = allRead(program, key)
  const named = (name: string) => formulasNaming(piece, name).some(k => reads.has(k))
  const clocks = new Set(Object.keys(piece.clocks).filter(id => named(piece.clocks[id]!.name)))
  for (const id of clocks) {
    const { on } = piece.clocks[id]!
    if (on !== null && piece.clocks[on]) clocks.add(on)
  }
  const cues = Object.keys(piece.cues).filter(
    id =>
      named(piece.cues[id]!.name) ||
      [...clocks].some(c => {
        const { way } = piece.clocks[c]!
        return way.type === 'cue' && way.cue === id
      }),
  )
  return [
    ...cues.flatMap(id => cueWays(piece, id, lap)),
    ...[...clocks].flatMap(id => clockWays(piece, id, lap)),
    ...[...reads].flatMap(k => (piece.bases[k]?.keys ? keysWays(piece, k, lap) : [])),
    ...[...reads].flatMap(k => (k !== key && isSignal(k) ? signalWays(program, k, lap) : [])),
  ]
}

/** A drive and everything whose formula it reads, also through others. */
function allRead(program: Program, key: string): Set<string> {
  const found = new Set([key])
  for (const k of found) for (const other of program.slots.get(k)?.slots ?? []) found.add(other)
  return found
}

/** Times of which a whole number fills a lap: the nearest below and above one, the nearer first; seconds. */
function fitting(seconds: number, lap: number): number[] {
  const times = [Math.ceil(lap / seconds), Math.floor(lap / seconds)].filter(k => k > 0).map(k => lap / k)
  return [...new Set(times.map(t => Number(t.toFixed(6))))]
    .filter(t => t !== seconds)
    .sort((a, b) => Math.abs(a - seconds) - Math.abs(b - seconds))
}

const s = (x: number) => `${printNumber(x, 6)} s`

function cueWays(piece: Piece, id: string, lap: number): Way[] {
  const { name, every } = piece.cues[id]!
  // What comes once is at rest after it, and closes from there on.
  return (every === null ? [] : fitting(every, lap)).map(to => ({
    label: `${name} every ${s(every!)} → ${s(to)}`,
    op: changeNamed(piece, 'cues', id, { every: to }),
  }))
}

function clockWays(piece: Piece, id: string, lap: number): Way[] {
  const { name, way, hold } = piece.clocks[id]!
  const to = (says: string, change: Partial<Clock>): Way => ({
    label: `${name} ${says}`,
    op: changeNamed(piece, 'clocks', id, change),
  })
  const ways: Way[] = []
  if (way.type === 'steady') {
    const sign = way.rate < 0 ? -1 : 1
    const near = [Math.floor(Math.abs(way.rate)), Math.ceil(Math.abs(way.rate))]
    for (const r of near)
      if (r > 0 && r !== Math.abs(way.rate))
        ways.push(to(`at ${printNumber(way.rate)} → ${sign * r} times the pace`, { way: { ...way, rate: sign * r } }))
  } else if (way.type === 'toAndFro')
    for (const t of fitting(way.length * 2, lap))
      ways.push(to(`${s(way.length)} → ${s(t / 2)} each way`, { way: { ...way, length: t / 2 } }))
  else if (way.type === 'restart')
    for (const t of fitting(way.every, lap))
      ways.push(to(`every ${s(way.every)} → ${s(t)}`, { way: { ...way, every: t } }))
  if (hold !== null)
    for (const t of fitting(1 / hold, lap))
      ways.push(to(`${printNumber(hold)} → ${printNumber(1 / t)} steps a second`, { hold: 1 / t }))
  return ways
}

/** Keyframes that begin again, stretched or drawn together so that they fit; what is held at the end closes by itself. */
function keysWays(piece: Piece, key: string, lap: number): Way[] {
  const { points, after } = piece.bases[key]!.keys!
  const [first, last] = [points[0]!.time, points.at(-1)!.time]
  const long = last - first
  if (!(long > 0) || after === 'hold') return []
  const [part, property] = splitDriveKey(key)
  const round = after === 'mirror' ? 2 : 1
  return fitting(long * round, lap).map(t => ({
    label: `keyframes of ${sourceName(piece, key)} over ${s(long)} → ${s(t / round)}`,
    op: setKeys(piece, part, property, {
      points: points.map(p => ({ ...p, time: Number((first + ((p.time - first) * t) / round / long).toFixed(6)) })),
      after,
    }),
  }))
}

/** A signal that closes, and so may what reads it. */
function signalWays({ piece }: Program, key: string, lap: number): Way[] {
  const { text } = piece.signals[drivenSignal(key)]!
  const changes = wholeRounds(text, lap)
  if (changes.length === 0) return []
  const to = change(text, changes)
  return [{ label: `${sourceName(piece, key)} = ${to}`, op: setText(piece, key, to, true) }]
}

/** The changes with which everything in a text that has a frequency or a period goes round whole times a lap. */
function wholeRounds(text: string, lap: number): Change[] {
  const { formula } = parse(text)
  if (!formula) return []
  const whole = (cycles: number) => `${Math.max(1, Math.round(cycles))}/lap`
  return everyNode(formula).flatMap(node => {
    if (node.type === 'number' && node.unit.toLowerCase() === 'hz' && node.value.n > 0n)
      return [{ from: node.from, to: node.to, insert: whole(toNumber(node.value) * lap) }]
    if (node.type !== 'call') return []
    return node.args.flatMap(({ label, value, from, to }) =>
      label?.toLowerCase() === 'every' &&
      value.type === 'number' &&
      value.unit.toLowerCase() === 's' &&
      value.value.n > 0n
        ? [{ from, to, insert: `freq: ${whole(lap / toNumber(value.value))}` }]
        : [],
    )
  })
}
