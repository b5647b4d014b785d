/** The values of a piece frame by frame, as CSV (RFC 4180) or JSON: bit for bit what the engine gives. */
import { drivenProperty } from '../../piece/drive-key.ts'
import type { Program } from '../../engine/program.ts'
import { driveLabel } from '../../formula/labels.ts'
import { propertyNamed } from '../../piece/properties.ts'
import { momentOfSeconds } from '../../time/moment.ts'
import { floor, over, plus, rational, times, toNumber, type Rational } from '../../time/rational.ts'
import { inUnit } from '../../units/units.ts'

export interface NumbersColumn {
  readonly name: string
  readonly unit: string
  readonly shown: (value: number) => number
  readonly place: number
}

/** Every driven property, of copies each; in degrees, px, or plain numbers (shares: 1 is 100 %). */
export function columnsOf(program: Program): NumbersColumn[] {
  const columns: NumbersColumn[] = []
  for (const slot of program.slots.values()) {
    if (slot.offset < 0) continue
    const name = drivenProperty(slot.key)
    const property = propertyNamed(name)!
    const unit = property.unit === '%' ? '' : property.unit
    const show = inUnit(unit, program.measures)
    slot.readers.forEach((_, i) => {
      const label = driveLabel(program.piece, slot.key)
      const at = label.lastIndexOf('.')
      const shown = slot.count > 1 ? `${label.slice(0, at)}[${i}]${label.slice(at)}` : label
      columns.push({ name: shown, unit, shown: show, place: slot.offset + i })
    })
  }
  return columns
}

export interface NumbersRow {
  readonly seconds: number
  readonly values: readonly number[]
}

/** @param done is told how many frames are there */
export function bakeRows(
  program: Program,
  columns: readonly NumbersColumn[],
  from: Rational,
  rate: Rational,
  frames: number,
  done: (n: number) => void,
): NumbersRow[] {
  const values = new Float64Array(program.size)
  return Array.from({ length: frames }, (_, k) => {
    const seconds = plus(from, over(rational(k), rate))
    program.queue.settle(() => program.moment(momentOfSeconds(seconds, program.measures.frameRate), values))
    done(k + 1)
    return { seconds: toNumber(seconds), values: columns.map(c => c.shown(values[c.place]!)) }
  })
}

const quoted = (s: string) => (/[",\n]/.test(s) ? `"${s.replaceAll('"', '""')}"` : s)

/** So many frames from a moment on, as the text of a file. */
export function numbersText(
  program: Program,
  as: 'csv' | 'json',
  from: Rational,
  rate: Rational,
  frames: number,
  done: (n: number) => void = () => {},
): string {
  const columns = columnsOf(program)
  const first = Number(floor(times(from, rate)))
  const rows = bakeRows(program, columns, from, rate, frames, done)
  const head = ['time', 'frame', ...columns.map(c => c.name)]
  const lines = rows.map((row, k) => [row.seconds, first + k, ...row.values])
  if (as === 'csv') return [head.map(quoted), ...lines].map(l => l.join(',')).join('\r\n') + '\r\n'
  const units = ['s', '', ...columns.map(c => c.unit)]
  return `${JSON.stringify({ title: program.piece.title, frameRate: toNumber(rate), columns: head, units, rows: lines })}\n`
}
