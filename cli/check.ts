/** `check`: what is known of every drive of a piece for all time, and what is wrong with it. */
import { readKeys } from '../core/engine/meaning.ts'
import { labelOf } from '../core/formula/labels.ts'
import { Program, type Slot } from '../core/engine/program.ts'
import { jumpFix, jumpText, jumpsOf } from '../core/insight/jumps.ts'
import { closingNumbers, shortestLap } from '../core/insight/proposals.ts'
import { reportOf, showValue, symmetriesOf } from '../core/insight/report.ts'
import type { Problem } from '../core/formula/problem.ts'
import { propertyNamed } from '../core/rig/properties.ts'
import { toNumber } from '../core/time/rational.ts'
import { kindName } from '../core/units/kinds.ts'
import { optionsOf, pieceIn } from './call.ts'
import { told } from './evaluate.ts'

const HELP = `open-tide check FILE [--json]

Prints for every drive its kind, period, bounds, leaps, closing at the lap and what it reads, and every error.
Exit code 1 when there is an error.

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
  readonly reads: readonly string[]
  readonly problems: readonly Problem[]
}

export async function check(args: string[]): Promise<number> {
  const { values: o, positionals } = optionsOf(args, { json: { type: 'boolean' } })
  if (o.help) {
    console.log(HELP)
    return 0
  }
  const piece = pieceIn(positionals[0])
  const program = new Program(piece)
  const rows = [...program.slots.values()].map(slot => rowOf(program, slot))
  const wrong = rows.filter(r => r.problems.some(p => p.level === 'error')).length
  const lap = shortestLap(program)
  if (o.json) {
    console.log(
      JSON.stringify({ title: piece.title, drives: rows, errors: wrong, shortestLap: lap && toNumber(lap) }, null, 2),
    )
    return wrong > 0 ? 1 : 0
  }
  for (const r of rows) print(r)
  const open = rows.filter(r => r.closes.startsWith('gap')).length
  const lapText = lap ? ` The shortest lap that closes all that repeats is ${toNumber(lap)} s.` : ''
  console.log(
    `${rows.length} drives, ${wrong} with an error, ${open} that do not close at the lap of ${toNumber(program.measures.lapLength)} s.${lapText}`,
  )
  return wrong > 0 ? 1 : 0
}

function rowOf(program: Program, slot: Slot): Row {
  const { piece } = program
  const meaning = program.meanings.all.get(slot.key)!
  const common = {
    drive: labelOf(piece, slot.key),
    formula: meaning.source.text,
    reads: meaning.text
      ? [...new Set([...readKeys(meaning.text).map(k => labelOf(piece, k)), ...dialsRead(program, slot)])]
      : [],
    problems: slot.problems,
  }
  if (slot.offset < 0) return { ...common, kind: '', period: '', bounds: '', jumps: [], closes: '', proposals: [] }
  const [part, name] = slot.key.split('.') as [string, string]
  const property = propertyNamed(name)!
  const report = reportOf(piece, program.measures, slot)
  const turn = toNumber(symmetriesOf(piece, part, property).natural)
  const found = jumpsOf(slot.forms[0]!, program.measures, turn)
  const jumps = found.jumps.map(j => {
    const fix = jumpFix(program, slot.key, j)
    return jumpText(j, v => showValue(v, property, program.measures)) + (fix ? ` (${fix.says})` : '')
  })
  return {
    ...common,
    kind: kindName(property.kind),
    period: report.period,
    bounds: report.range,
    jumps: found.more ? [...jumps, 'may leap at moments that are not known beforehand'] : jumps,
    closes: report.closes,
    proposals: closingNumbers(program, slot.key).map(f => f.says),
  }
}

const dialsRead = (program: Program, slot: Slot): string[] => [...slot.dials].map(id => program.piece.dials[id]!.name)

function print(r: Row): void {
  console.log(r.drive)
  const line = (what: string, text: string) => text && console.log(`  ${what.padEnd(8)} ${text}`)
  line('formula', r.formula.replaceAll('\n', ' '))
  line('kind', r.kind)
  line('period', r.period)
  line('bounds', r.bounds || (r.kind ? 'none' : ''))
  line('jumps', r.jumps.join('; ') || (r.kind ? 'none' : ''))
  line('closure', r.closes)
  line('try', r.proposals.join('   or   '))
  line('reads', r.reads.join(', '))
  for (const p of r.problems)
    console.log(
      told(r.formula, p)
        .split('\n')
        .map(l => `  ${p.level.padEnd(8)} ${l}`)
        .join('\n'),
    )
}
