/** Columns of numbers from a file: CSV (RFC 4180, also with semicolons and commas for points) or JSON. */
import Papa from 'papaparse'

export interface TableColumn {
  readonly name: string
  readonly values: readonly number[]
}
export interface Table {
  readonly columns: readonly TableColumn[]
  readonly rows: number
}
type Read = Table | { readonly says: string }

const LARGEST = 20_000_000
const MOST_ROWS = 200_000
const MOST_COLUMNS = 200

/** A number as files write it; NaN for what is none. */
function numberOf(cell: unknown): number {
  if (typeof cell === 'number') return cell
  if (typeof cell !== 'string') return NaN
  const text = cell.trim().replace('−', '-')
  if (text === '') return NaN
  return Number(/^[+-]?\d+,\d+$/.test(text) ? text.replace(',', '.') : text)
}

/** Reads a file's text; a sentence with the place where it is none. @param name by which its kind is told */
export function tableOf(text: string, name: string): Read {
  if (text.length > LARGEST) return says('A table can have up to 20 MB.')
  return /\.json$/i.test(name) || /^\s*[[{]/.test(text) ? json(text) : csv(text)
}

function csv(text: string): Read {
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    // Where both would do, commas are points.
    delimitersToGuess: [';', '\t', ',', '|'],
    preview: MOST_ROWS + 2,
  })
  const wrong = errors.find(e => e.type === 'Quotes')
  if (wrong) return says(`In line ${(wrong.row ?? 0) + 1} a quoted value doesn’t end, or has text after its end.`)
  const rows = data.map(r => r.map(c => c.trim()))
  const [first] = rows
  if (!first) return says('This file is empty.')
  const headed = first.some(c => c !== '' && Number.isNaN(numberOf(c)))
  const names = headed ? first : first.map((_, k) => `column ${k + 1}`)
  return columns(names, headed ? rows.slice(1) : rows, headed ? 2 : 1)
}

function json(text: string): Read {
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch (e) {
    return says(`This isn’t valid JSON: ${(e as Error).message.slice(0, 120)}.`)
  }
  const is = (v: unknown): v is Record<string, unknown> => typeof v === 'object' && v !== null && !Array.isArray(v)
  // As Open Tide gives it out, a list of rows, a list of objects, or columns by their names.
  if (is(value) && Array.isArray(value.columns) && Array.isArray(value.rows))
    return columns(value.columns.map(String), value.rows as unknown[][], 1)
  if (Array.isArray(value) && value.every(Array.isArray)) {
    const rows = value as unknown[][]
    return columns(
      (rows[0] ?? []).map((_, k) => `column ${k + 1}`),
      rows,
      1,
    )
  }
  if (Array.isArray(value) && value.every(is)) {
    const names = [...new Set(value.flatMap(r => Object.keys(r)))]
    return columns(
      names,
      value.map(r => names.map(n => r[n])),
      1,
    )
  }
  if (Array.isArray(value))
    return columns(
      ['time'],
      value.map(v => [v]),
      1,
    )
  if (is(value)) {
    const names = Object.keys(value).filter(n => Array.isArray((value as Record<string, unknown>)[n]))
    const lists = names.map(n => (value as Record<string, unknown[]>)[n]!)
    const long = Math.max(0, ...lists.map(l => l.length))
    return columns(
      names,
      Array.from({ length: long }, (_, k) => lists.map(l => l[k])),
      1,
    )
  }
  return says('There are no rows of numbers in this file.')
}

/** @param line of the first row, as it is told */
function columns(names: readonly string[], rows: readonly (readonly unknown[])[], line: number): Read {
  if (rows.length === 0 || names.length === 0) return says('There are no rows of numbers in this file.')
  if (rows.length > MOST_ROWS) return says(`There are more than ${MOST_ROWS.toLocaleString('en')} rows in this file.`)
  if (names.length > MOST_COLUMNS) return says(`There are more than ${MOST_COLUMNS} columns in this file.`)
  const all: TableColumn[] = []
  let wrong = ''
  names.forEach((name, c) => {
    const values = rows.map(r => numberOf(r[c]))
    const odd = values.findIndex(v => !Number.isFinite(v))
    if (odd < 0) all.push({ name: name.trim() || `column ${c + 1}`, values })
    else
      wrong ||= `Line ${odd + line} of ${name || `column ${c + 1}`} has ${JSON.stringify(rows[odd]?.[c] ?? '').slice(0, 40)}, which isn’t a number.`
  })
  if (all.length === 0) return says(wrong || 'This file has no column of numbers.')
  return { columns: all, rows: rows.length }
}

const says = (text: string) => ({ says: text })
