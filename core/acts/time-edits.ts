/** Operations on what shapes time: clocks, cues, drawn curves. */
import { apply, operation, type Operation } from '../piece/operation.ts'
import { freshId } from './ids.ts'
import { changeNamed } from './named-things.ts'
import { freeName } from './parts.ts'
import type { Clock, Cue, Curve, Piece } from '../piece/schema.ts'

const last = (entries: Readonly<Record<string, { order: number }>>) =>
  Math.max(0, ...Object.values(entries).map(e => e.order))

/** A clock; the piece's own time at its own pace unless said otherwise. */
export function addClock(piece: Piece, given: Partial<Clock> & { name: string }): { id: string; op: Operation } {
  const id = freshId(piece.clocks, 'k')
  const way = { type: 'steady', rate: 1, ahead: 0 } as const
  const value: Clock = { order: last(piece.clocks) + 1, on: null, way, hold: null, ...given }
  return { id, op: operation(`add clock ${value.name}`, { in: 'clocks', id, value }) }
}

export function addCue(piece: Piece, given: Partial<Cue> & { name: string }): { id: string; op: Operation } {
  const id = freshId(piece.cues, 'q')
  const value: Cue = { order: last(piece.cues) + 1, marks: [], every: null, ...given }
  return { id, op: operation(`add cue ${value.name}`, { in: 'cues', id, value }) }
}

export function addCurve(
  piece: Piece,
  given: Partial<Curve> & { name: string; channels: Curve['channels'] },
): { id: string; op: Operation } {
  const id = freshId(piece.curves, 'v')
  const value: Curve = { order: last(piece.curves) + 1, unit: '', hit: 0, ...given }
  return { id, op: operation(`add curve ${value.name}`, { in: 'curves', id, value }) }
}

/** Marks of a cue, put in order, each once. */
export function setMarks(piece: Piece, id: string, marks: readonly number[]): Operation {
  const op = changeNamed(piece, 'cues', id, { marks: [...new Set(marks)].sort((a, b) => a - b) })
  return { ...op, undoLabel: `move marks of ${piece.cues[id]!.name}` }
}

/** The marked stretch of time, whichever end is named first; null for none. */
export function setStretch(ends: readonly [number, number] | null): Operation {
  const value = ends && { from: Math.min(...ends), to: Math.max(...ends) }
  return operation(value ? 'mark a stretch' : 'unmark the stretch', { set: 'stretch', value })
}

/** First and last time of a curve, over all its channels. */
export function curveEnds({ channels }: Curve): readonly [number, number] {
  const all = Object.values(channels).flatMap(points => points.map(p => p.time))
  return [Math.min(...all), Math.max(...all)]
}

/** A curve made longer or shorter as a whole: points and hit point keep their share of it. */
export function lastingUntil(piece: Piece, id: string, end: number): Operation {
  const curve = piece.curves[id]!
  const [first, last] = curveEnds(curve)
  if (!(last > first) || !(end > first)) return operation(`change ${curve.name}`)
  const moved = (t: number) => Number((first + ((t - first) * (end - first)) / (last - first)).toFixed(6))
  const channels = Object.fromEntries(
    Object.entries(curve.channels).map(([c, points]) => [c, points.map(p => ({ ...p, time: moved(p.time) }))]),
  )
  return changeNamed(piece, 'curves', id, { channels, hit: moved(curve.hit) })
}

/** Whether a clock runs on another, by way of others too. */
export function runsOn(piece: Piece, id: string, on: string): boolean {
  const seen = new Set<string>()
  for (let at: string | null = id; at !== null && !seen.has(at); at = piece.clocks[at]?.on ?? null) {
    if (at === on) return true
    seen.add(at)
  }
  return false
}

/**
 * A clock begins again at a moment, in seconds: a mark on the cue that it begins again at, or that a clock under it
 * does. Where there is none, such a clock is put under it, which begins at 0 too: so nothing before the moment changes,
 * and what else the clock does goes on from there.
 */
export function restartClock(piece: Piece, id: string, at: number): { op: Operation; cue: string } {
  const says = `restart ${piece.clocks[id]!.name}`
  for (let k: string | null = id; k !== null; k = piece.clocks[k]?.on ?? null) {
    const { way } = piece.clocks[k]!
    const cue = way.type === 'cue' ? piece.cues[way.cue] : undefined
    if (way.type === 'cue' && cue && cue.every === null)
      return { cue: way.cue, op: { ...setMarks(piece, way.cue, [...cue.marks, at]), undoLabel: says } }
  }
  const clock = piece.clocks[id]!
  const cue = addCue(piece, { name: freeName(piece, `${clock.name} taps`), marks: at > 0 ? [0, at] : [at] })
  const withCue = apply(piece, cue.op)
  const under = addClock(withCue, {
    name: freeName(withCue, `${clock.name} again`),
    on: clock.on,
    way: { type: 'cue', cue: cue.id },
  })
  const onIt = changeNamed(piece, 'clocks', id, { on: under.id })
  return { cue: cue.id, op: { undoLabel: says, puts: [...cue.op.puts, ...under.op.puts, ...onIt.puts] } }
}
