/** `eval`: the values of one formula at some moments. */
import { check as checkFormula } from '../core/formula/check.ts'
import { parse } from '../core/formula/parse.ts'
import type { Problem } from '../core/formula/problem.ts'
import { Names } from '../core/formula/scope.ts'
import { Program } from '../core/engine/program.ts'
import { signalKey } from '../core/piece/drive-key.ts'
import { Builder } from '../core/acts/build.ts'
import { momentOfSeconds } from '../core/time/moment.ts'
import { rational, toNumber } from '../core/time/rational.ts'
import { ANGLE, FREQUENCY, LENGTH, PLAIN, TIME, kindName, sameKind, type Kind } from '../core/units/kinds.ts'
import { inUnit, unitOfKind } from '../core/units/units.ts'
import { WrongCall, numbersOfFraction, optionsOf, positiveOf, timeOf } from './call.ts'

const HELP = `open-tide eval FORMULA [options]

Prints one value a line, in full precision, in degrees, px, seconds, hertz or as a plain number.

  --for KIND       angle, length, number, time or frequency; the formula’s own kind by default
  --at TIMES       moments, separated by commas: 0s,0.25s,1lap,372f (0s)
  --fps N          frames a second (30)
  --lap TIME       length of a lap (8s)
  --copies N       number of copies in a ring: index, count and along can be used (none)
  --dial NAME=V    a dial, such as fairPace=65%; may be repeated
  --json           everything as JSON, with what is known for all time

  ./open-tide eval "sine(every: 2s, amp: 24px)" --at 0s,0.5s
  ./open-tide eval "time * 45deg/s * fairPace" --dial fairPace=65% --at 1lap`

/** The kinds that can be asked for, and the property a formula of it is tried on. */
const KINDS: Readonly<Record<string, { kind: Kind; property: string | null }>> = {
  angle: { kind: ANGLE, property: 'rotation' },
  length: { kind: LENGTH, property: 'x' },
  number: { kind: PLAIN, property: 'fillChroma' },
  time: { kind: TIME, property: null },
  frequency: { kind: FREQUENCY, property: null },
}

export async function evaluate(args: string[]): Promise<number> {
  const { values: o, positionals } = optionsOf(args, {
    for: { type: 'string' },
    at: { type: 'string', default: '0s' },
    fps: { type: 'string', default: '30' },
    lap: { type: 'string', default: '8s' },
    copies: { type: 'string' },
    dial: { type: 'string', multiple: true },
    json: { type: 'boolean' },
  })
  if (o.help) {
    console.log(HELP)
    return 0
  }
  const [text, ...more] = positionals
  if (text === undefined) throw new WrongCall('Name a formula, in quotes.')
  if (more.length > 0)
    throw new WrongCall(`This command takes one formula; "${more[0]}" is one too many. Put the formula in quotes.`)
  if (o.for !== undefined && !KINDS[o.for])
    throw new WrongCall(`--for ${o.for}: it can be ${Object.keys(KINDS).join(', ')}.`)

  const b = new Builder('At a prompt', 1)
  const frameRate = positiveOf(String(o.fps), '--fps')
  const lapLength = timeOf(String(o.lap), { frameRate, lapLength: rational(8) }, '--lap')
  if (lapLength.n <= 0n) throw new WrongCall(`--lap ${o.lap}: a lap must be longer than 0.`)
  b.piece = {
    ...b.piece,
    frameRate: numbersOfFraction(frameRate),
    lap: { length: numbersOfFraction(lapLength), start: 0 },
  }
  for (const dial of o.dial ?? []) addDial(b, dial)
  const copies = o.copies === undefined ? null : wholeOf(o.copies)
  const ring = { layout: 'ring', radius: 100, from: 0, sweep: 360, turn: true } as const
  const part = b.part('Thing', { type: 'ellipse' }, copies ? { copies: { ...ring, count: copies } } : {})

  const wanted = o.for ?? kindIn(b, part, text)
  const { property, kind } = KINDS[wanted] ?? KINDS.number!
  if (property) b.drive(part, property, text)
  else b.signal('value', text)
  const program = new Program(b.piece)
  const key = property ? `${part}.${property}` : signalKey('s1')
  const slot = program.slots.get(key)!
  const meaning = program.meanings.all.get(key)!
  const result = meaning.text?.result
  const problems: Problem[] = [...slot.problems]
  if (!property && problems.length === 0 && result && result !== 'any' && !sameKind(result, kind)) {
    problems.push({
      code: 'kind',
      level: 'error',
      from: 0,
      to: text.length,
      message: `This is ${kindName(result)}, but it should be ${kindName(kind)}.`,
      fixes: [],
    })
  }
  if (problems.length > 0) {
    if (o.json) console.log(JSON.stringify({ formula: text, problems }, null, 2))
    else for (const p of problems) console.error(told(text, p))
    return 1
  }
  const unit = unitOfKind(kind)!
  const shown = inUnit(unit, program.measures)
  const times = String(o.at)
    .split(',')
    .map(t => ({ text: t.trim(), seconds: timeOf(t, program.measures, '--at') }))
  const rows = times.map(t =>
    slot.forms.map(f => shown(program.queue.settle(() => f.at(momentOfSeconds(t.seconds, frameRate))))),
  )
  if (!o.json) {
    for (const row of rows) for (const v of row) console.log(String(v))
    return 0
  }
  const { bounds, repeats } = slot.forms[0]!.facts()
  const known = {
    kind: wanted,
    unit,
    low: shown(bounds.low),
    high: shown(bounds.high),
    period: repeats.every && toNumber(repeats.every),
  }
  const values = rows.map((row, i) => ({ at: times[i]!.text, seconds: toNumber(times[i]!.seconds), values: row }))
  console.log(
    JSON.stringify(
      { formula: text, ...known, values },
      (_k, v: unknown) => (typeof v === 'number' && !Number.isFinite(v) ? null : v),
      2,
    ),
  )
  return 0
}

/** A problem with its place: the text, a mark under it, the sentence and the first fix. */
export function told(text: string, p: Problem): string {
  const line = text.replaceAll('\n', ' ')
  const mark = ' '.repeat(p.from) + '^'.repeat(Math.max(1, p.to - p.from))
  const fix = p.fixes.map(f => f.label).join('   or   ')
  return [line, mark, p.message, ...(fix ? [`try: ${fix}`] : [])].join('\n')
}

function wholeOf(text: string): number {
  const n = Number(text)
  if (!Number.isInteger(n) || n < 1 || n > 2000)
    throw new WrongCall(`--copies ${text}: it must be a whole number from 1 to 2000.`)
  return n
}

function addDial(b: Builder, text: string): void {
  const found = /^([^=]+)=(-?[\d.]+)\s*([a-z%]*)$/i.exec(text)
  const units = ['', '%', 'deg', 'px', 's', 'Hz'] as const
  const unit = units.find(u => u.toLowerCase() === found?.[3]?.toLowerCase())
  if (!found || unit === undefined || !Number.isFinite(Number(found[2]))) {
    throw new WrongCall(`--dial ${text}: write it as name=value, such as fairPace=65%.`)
  }
  const value = Number(found[2])
  b.dial(found[1]!.trim(), { unit, value, low: Math.min(0, value), high: Math.max(200, value), initial: value })
}

/** What the formula gives by itself. */
function kindIn(b: Builder, part: string, text: string): string {
  const { formula } = parse(text)
  if (!formula) return 'number'
  const { result } = checkFormula(formula, new Names(b.piece), { part, property: null }, () => 'any', false)
  const found = Object.entries(KINDS).find(([, k]) => result !== 'any' && sameKind(k.kind, result))
  return found?.[0] ?? 'number'
}
