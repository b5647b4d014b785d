/** A table becomes a drawn curve, whose channels are its columns, or the marks of a cue. */
import { freeName } from '../../acts/parts.ts'
import { addCue, addCurve } from '../../acts/time-edits.ts'
import type { Operation } from '../../piece/operation.ts'
import type { Curve, Piece } from '../../piece/schema.ts'
import { thinTrack } from '../moving/thin-track.ts'
import type { TableColumn, Table } from './table.ts'

/** In what times are told. */
export const TIME_UNITS = ['s', 'ms', 'frames'] as const
export type TimeUnit = (typeof TIME_UNITS)[number]

/** Points of a channel, most. */
const MOST_POINTS = 2000
const MOST_CHANNELS = 16
const MOST_MARKS = 10_000
const FAR = 1e9

const size = (piece: Piece, unit: TimeUnit): number =>
  unit === 's' ? 1 : unit === 'ms' ? 0.001 : piece.frameRate.d / piece.frameRate.n

const plain = (name: string): string =>
  name
    .replace(/[`\p{Control}\p{Surrogate}]/gu, ' ')
    .trim()
    .slice(0, 56) || 'column'

export interface AsCurve {
  readonly name: string
  /** The column that tells the times; null for one row a frame. */
  readonly time: string | null
  readonly timeUnit: TimeUnit
  readonly channels: readonly string[]
  readonly unit: Curve['unit']
  /** How far a point that is left out may lie from the straight way, in that unit. */
  readonly within: number
}

export type ImportResult =
  | { readonly id: string; readonly op: Operation; readonly says: string }
  | { readonly says: string; readonly op?: undefined }

export function curveOf(piece: Piece, table: Table, as: AsCurve): ImportResult {
  const chosen = table.columns.filter(c => as.channels.includes(c.name))
  if (chosen.length === 0) return { says: 'Choose a column for the curve.' }
  if (chosen.length > MOST_CHANNELS) return { says: `A curve can have up to ${MOST_CHANNELS} channels.` }
  const at = timesOf(piece, table, as.time, as.timeUnit)
  const back = at.findIndex((t, k) => k > 0 && t <= at[k - 1]!)
  if (back > 0)
    return {
      says: `Times must increase from row to row; in row ${back + 1} they don’t. Choose another column for the times.`,
    }
  if (chosen.some(c => c.values.some(v => Math.abs(v) > FAR)))
    return { says: 'There are numbers beyond 1,000,000,000 in it.' }
  const channels: Record<string, Curve['channels'][string]> = {}
  let kept = 0
  for (const column of chosen) {
    const points = fewer(at, column, as.within)
    kept += points.length
    let name = plain(column.name)
    for (let n = 2; channels[name]; n++) name = `${plain(column.name)} ${n}`
    channels[name] = points
  }
  const made = addCurve(piece, {
    name: freeName(piece, plain(as.name)),
    unit: as.unit,
    channels,
    first: Object.keys(channels)[0]!,
  })
  return { ...made, says: `${kept} of ${table.rows * chosen.length} points were kept.` }
}

/** Points within a tolerance of all rows: as many as a curve holds, the tolerance being raised until they do. */
function fewer(at: readonly number[], { values }: TableColumn, within: number): Curve['channels'][string] {
  const rows = values.map(v => [v])
  let track = { at, rows: rows as readonly (readonly number[])[] }
  for (let by = Math.max(within, 1e-12); ; by *= 2) {
    if (within > 0 || rows.length > MOST_POINTS) track = thinTrack({ at, rows }, [by])
    if (track.at.length <= MOST_POINTS) break
  }
  return track.at.map((time, k) => ({ time, value: track.rows[k]![0]!, shape: 'straight' as const }))
}

function timesOf(piece: Piece, table: Table, time: string | null, unit: TimeUnit): number[] {
  const column = table.columns.find(c => c.name === time)
  const by = column ? size(piece, unit) : size(piece, 'frames')
  return (column?.values ?? Array.from({ length: table.rows }, (_, k) => k)).map(t => Number((t * by).toFixed(9)))
}

/** Marks from a column of times, put in order, each once. */
export function cueOf(
  piece: Piece,
  table: Table,
  { name, time, timeUnit }: Pick<AsCurve, 'name' | 'time' | 'timeUnit'>,
): ImportResult {
  if (time === null) return { says: 'Choose the column of times.' }
  const all = [...new Set(timesOf(piece, table, time, timeUnit))].sort((a, b) => a - b)
  if (all.length > MOST_MARKS)
    return { says: `A cue can have up to ${MOST_MARKS.toLocaleString('en')} marks; this has ${all.length}.` }
  if (all.some(t => Math.abs(t) > FAR)) return { says: 'There are times beyond 1,000,000,000 seconds in it.' }
  return { ...addCue(piece, { name: freeName(piece, plain(name)), marks: all }), says: `${all.length} marks.` }
}
