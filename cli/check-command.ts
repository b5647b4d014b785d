/** `check`: everything Open Tide knows about a piece’s drives for all time, and what is wrong with it. */
import { splitDriveKey } from '../core/piece/drive-key.ts'
import { driveLabel } from '../core/formula/labels.ts'
import { copyName } from '../core/engine/copy-name.ts'
import { Program } from '../core/engine/program.ts'
import type { Slot } from '../core/engine/slot.ts'
import { jumpFix, jumpText } from '../core/insight/jumps.ts'
import { leapsOf } from '../core/insight/leaps.ts'
import { isTooMany, neverLeaps } from '../core/insight/many-copies.ts'
import { linksOf, type Links } from '../core/insight/links.ts'
import type { Closure } from '../core/insight/closure.ts'
import { isCounted, laterText, loopCountOf, loopText, type LoopCount } from '../core/insight/loop-count.ts'
import { promiseState, promiseStateText, promiseText } from '../core/insight/promises.ts'
import { gearClosings } from '../core/insight/closings.ts'
import { closingNumbers, shortestLap } from '../core/insight/proposals.ts'
import { MOST_OVERLAPS, overlappingCopies } from '../core/insight/overlaps.ts'
import { propertyOf, reportOf, showValue, symmetriesOf, type Report } from '../core/insight/report.ts'
import type { Problem } from '../core/formula/problem.ts'
import { toNumber } from '../core/time/rational.ts'
import { kindName } from '../core/units/kinds.ts'
import { optionsOf, pieceIn } from './call.ts'
import { told } from './evaluate.ts'

const HELP = `open-tide check FILE [--touching] [--json]

Prints for every drive its kind, period, bounds, jumps, looping in the lap, promises, links both ways and cost, and
every error.
  --touching   also which copies of a part overlap during the lap (takes some seconds)

Exit code 0 when everything is fine, 1 when there is an error, 2 when the call is wrong.

  ./open-tide check demo/lantern-pier.json`

interface Row {
  readonly drive: string
  readonly formula: string
  readonly kind: string
  readonly period: string
  readonly bounds: string
  readonly jumps: readonly string[]
  readonly closes: string
  readonly proposals: readonly string[]
  readonly promises: readonly string[]
  readonly reads: readonly string[]
  readonly readBy: readonly string[]
  /** Of a drive that is counted among those that loop or do not. */
  readonly closure: Closure | null
  /** Operations a value takes. */
  readonly cost: number
  /** Whether it has a value at every moment. */
  readonly finite: boolean
  readonly problems: readonly Problem[]
}

export async function checkCommand(args: string[]): Promise<number> {
  const { values: o, positionals } = optionsOf(args, {
    json: { type: 'boolean' },
    touching: { type: 'boolean' },
  })
  if (o.help) {
    console.log(HELP)
    return 0
  }
  const piece = pieceIn(positionals[0])
  const program = new Program(piece)
  const links = linksOf(program)
  const rows = [...program.slots.values()].map(slot => rowOf(program, slot, links.get(slot.key)!))
  const touches = o.touching ? Object.keys(piece.parts).flatMap(part => touchText(program, part)) : []
  const wrong = rows.filter(r => r.problems.some(p => p.level === 'error')).length
  const count = loopCountOf(rows.flatMap(r => (r.closure ? [r.closure] : [])))
  const lap = shortestLap(program)
  if (o.json) {
    console.log(
      JSON.stringify(
        {
          title: piece.title,
          drives: rows.map(({ closure: _, ...row }) => row),
          touching: touches,
          errors: wrong,
          loops: countOf(count),
          shortestLap: lap && toNumber(lap),
        },
        null,
        2,
      ),
    )
    return wrong > 0 ? 1 : 0
  }
  for (const r of rows) print(r)
  for (const t of touches) console.log(t)
  const later = count.later > 0 ? `, ${laterText(count)}` : ''
  const lapText = lap ? ` The shortest lap in which everything that repeats loops is ${toNumber(lap)} s.` : ''
  console.log(
    `${wrong} ${wrong === 1 ? 'drive has' : 'drives have'} an error. In the lap of ${toNumber(program.measures.lapLength)} s ${loopText(count)}${later}.${lapText}`,
  )
  return wrong > 0 ? 1 : 0
}

const countOf = ({ after, ...rest }: LoopCount) => ({ ...rest, after: after && toNumber(after) })

function rowOf(program: Program, slot: Slot, links: Links): Row {
  const { piece } = program
  const meaning = program.meanings.all.get(slot.key)!
  const common = {
    drive: driveLabel(piece, slot.key),
    formula: meaning.source.text,
    reads: [...links.reads.map(k => driveLabel(piece, k)), ...links.dials.map(id => piece.dials[id]!.name)],
    readBy: links.readBy.map(k => driveLabel(piece, k)),
    problems: slot.problems,
  }
  if (slot.offset < 0) {
    const { cost, finite } = slot.forms[0]!.facts()
    const none = { kind: '', period: '', bounds: '', jumps: [], closes: '', proposals: [], promises: [] }
    return { ...common, ...none, closure: null, cost: cost.now, finite }
  }
  const property = propertyOf(program, slot.key)
  const report = reportOf(program, slot)
  const turn = toNumber(symmetriesOf(program, slot.key).natural)
  const found = isTooMany(slot)
    ? { jumps: [], more: !neverLeaps(program, slot.key) }
    : leapsOf(slot.forms, program, turn)
  const jumps = found.jumps.map(j => {
    const fix = jumpFix(program, slot.key, j)
    const copy = slot.count > 1 ? `, copy ${j.copy + 1}` : ''
    return jumpText(j, v => showValue(v, property, program.measures)) + copy + (fix ? ` (${fix.label})` : '')
  })
  return {
    ...common,
    kind: kindName(property.kind),
    period: report.period,
    bounds: report.range,
    jumps: found.more ? [...jumps, 'may jump at moments that can’t be predicted'] : jumps,
    closes: report.closes,
    closure: isCounted(piece, slot.key) ? report.closure : null,
    proposals: [...closingNumbers(program, slot.key).map(f => f.label), ...spokesText(program, slot, report)],
    promises: (piece.drives[slot.key]?.promises ?? []).map(
      p => `${promiseText(p, property)}: ${promiseStateText(promiseState(program, slot, p), p, property)}`,
    ),
    cost: report.cost,
    finite: report.finite,
  }
}

/** Counts of spokes and of teeth with which a gear that does not close would. */
function spokesText(program: Program, slot: Slot, { closure }: Report): string[] {
  const [part, name] = splitDriveKey(slot.key)
  if (program.piece.parts[part]!.shape.type !== 'gear' || name !== 'rotation') return []
  if (closure.verdict === 'yes' || closure.verdict === 'symmetry') return []
  const all = gearClosings(program, slot.key).map(c => c.label)
  return ['spokes', 'teeth'].flatMap(is => {
    const counts = all.flatMap(says => (says.endsWith(is) ? [parseInt(says)] : [])).sort((a, b) => a - b)
    return counts.length > 0 ? [`${counts.join(', ')} ${is}`] : []
  })
}

/** Pairs of copies of a part that are named, at most. */
const MOST_PAIRS = 3

function touchText(program: Program, part: string): string[] {
  const found = overlappingCopies(program, part)
  if (found.length === 0) return []
  const pairs = found
    .slice(0, MOST_PAIRS)
    .map(
      t =>
        `${copyName(program.piece, part, t.a)} and ${copyName(program.piece, part, t.b)} at ${Number(toNumber(t.at).toFixed(2))} s`,
    )
  const beyond = found.length >= MOST_OVERLAPS ? 'at least ' : ''
  const more = found.length > MOST_PAIRS ? ` and ${beyond}${found.length - MOST_PAIRS} pairs more` : ''
  return [`${program.piece.parts[part]!.name}: copies touch, ${pairs.join(', ')}${more}`]
}

function print(r: Row): void {
  console.log(r.drive)
  const line = (what: string, text: string) => text && console.log(`  ${what.padEnd(8)} ${text}`)
  line('formula', r.formula.replaceAll('\n', ' '))
  line('kind', r.kind)
  line('period', r.period)
  line('bounds', r.bounds || (r.period === 'still' ? 'one value' : r.kind ? 'none' : ''))
  line('jumps', r.jumps.join('; ') || (r.kind ? 'none' : ''))
  line('closure', r.closes)
  line('try', r.proposals.join('   or   '))
  for (const p of r.promises) line('promise', p)
  line('reads', r.reads.join(', '))
  line('read by', r.readBy.join(', '))
  line('cost', `${r.cost} ${r.cost === 1 ? 'operation' : 'operations'} a value`)
  if (!r.finite) line('value', 'may have no value at some moments; its set value is used then')
  for (const p of r.problems)
    console.log(
      told(r.formula, p)
        .split('\n')
        .map(l => `  ${p.level.padEnd(8)} ${l}`)
        .join('\n'),
    )
}
