/**
 * A stretch of a piece as motion of its elements: looked at frame by frame and, where a straight way between two frames is not
 * near enough to what the stage shows, in between, down to where a leap is. What a straight way says is left out again.
 */
import { Program } from '../../engine/program.ts'
import type { Piece } from '../../piece/schema.ts'
import { Scene } from '../../rig/scene.ts'
import { momentOfSeconds } from '../../time/moment.ts'
import { plus, rational, times, type Rational } from '../../time/rational.ts'
import { straight, thinTrack, type Tolerance, type Track } from './thin-track.ts'
import { even, unitForm, lay, rowOf, settleUnit, type UnitRow, type DrawnUnit } from './drawn-units.ts'

/** A unit with how it moves; times are shares of the whole. */
export interface Moving {
  readonly unit: DrawnUnit
  readonly move: Track
  readonly turn: Track
  readonly stretch: Track
  readonly slant: Track
  /** Of what changes its form; else empty. */
  readonly points: Track
  readonly solid: Track
  readonly colour: Track
  readonly width: Track
  readonly dash: Track
  readonly cut: Track
  /** Ends of the form of what is stepped, by frame. */
  readonly forms: readonly DrawnUnit['rings'][]
}

/** Px, turns, and parts of a colour's whole that may be off. */
const OFF = 0.05
const TURN = 0.05 / 360
const PART = 1 / 512
/** Each interval between frames is cut in half so many times: to 1/4096 of a frame. */
const FINEST = 12
const MOST = 6000
/** Numbers that are held at once. */
const MOST_HELD = 3e7

interface Sample {
  /** In 1/4096 of a frame of the whole. */
  readonly at: number
  readonly rows: readonly UnitRow[]
}

const UNITS = ['picture', 'fill', 'more', 'line'] as const

/**
 * @param span seconds; a whole lap closes
 * @param frames how many frames it has
 * @param done is told how many frames are there
 * @throws with a sentence when there is too much of it
 */
export function motionOf(
  piece: Piece,
  from: Rational,
  span: Rational,
  frames: number,
  done: (n: number) => void = () => {},
): Moving[] {
  const program = new Program(piece)
  const scene = new Scene(program)
  const values = new Float64Array(program.size)
  const whole = frames << FINEST
  const show = (at: number) => {
    const moment = momentOfSeconds(
      plus(from, times(span, rational(BigInt(at), BigInt(whole)))),
      program.measures.frameRate,
    )
    scene.update(program.moment(moment, values), moment)
  }
  return program.queue.settle(() => {
    show(0)
    const units = unitsOf(scene)
    units.forEach(settleUnit)
    sort(units, frames, at => show(at << FINEST))
    show(0)
    for (const unit of units) if (unit.mode === 'posed') lay(unit)
    const take = (at: number, before: Sample | null): Sample => {
      show(at)
      const rows = units.map((u, k) => {
        if (before && u.body.still) return before.rows[k]!
        return rowOf(u, before?.rows[k] ?? null, u.mode === 'stepped' && at % (1 << FINEST) !== 0)
      })
      return { at, rows }
    }
    const samples = [take(0, null)]
    const held = samples[0]!.rows.reduce((n, r) => n + r.where.length + 8, 0)
    if (held * frames > MOST_HELD)
      throw new Error('That’s too much for one drawing. Export a film or a live page, or fewer laps.')
    const tolerances = units.map(toleranceOf(samples[0]!))
    const between = (a: Sample, b: Sample): void => {
      const width = b.at - a.at
      if (width > 1 && samples.length < MOST) {
        const half = take(a.at + width / 2, a)
        if (
          units.some((u, k) => off(a.rows[k]!, b.rows[k]!, half.rows[k]!, u.mode === 'stepped' ? null : tolerances[k]!))
        ) {
          between(a, half)
          // Its turn may be told otherwise by now, from what lies before it.
          const there = samples.at(-1)!
          between(there, take(b.at, there))
          return
        }
      }
      samples.push(b)
    }
    for (let n = 1; n <= frames; n++) {
      const a = samples.at(-1)!
      between(a, take(n << FINEST, a))
      done(n)
    }
    return units
      .map((unit, k) => tracksOf(unit, k, samples, whole, tolerances[k]!))
      .filter(m => m.solid.rows.some(([s]) => s! > 0))
  })
}

/** Every fill, line and picture of a scene, in the order it is painted. */
export function unitsOf(scene: Scene): DrawnUnit[] {
  const units: DrawnUnit[] = []
  for (const { body, instance: i } of scene.paint) {
    const { type } = body.part.shape
    if (type === 'group') continue
    const ever = (name: string, than = 0) => body.driven.has(name) || body.get(name, i) > than
    const cut = ['lineStart', 'lineEnd'].some(n => body.driven.has(n)) || body.get('lineStart', i) > 0
    for (const what of UNITS) {
      if ((what === 'picture') !== (type === 'picture')) continue
      if (what === 'more' && type !== 'gear' && type !== 'emitter') continue
      if (what === 'line' && !(ever('strokeWidth') && ever('strokeAlpha'))) continue
      if (what !== 'line' && what !== 'picture' && (type === 'line' || type === 'trace' || !ever('fillAlpha'))) continue
      if (what === 'line' && type === 'emitter') continue
      units.push({
        id: `${body.id}-${i}-${what}`,
        body,
        i,
        what,
        mode: 'posed',
        rings: [],
        stretch: [1, 1],
        reach: 0,
        dashes: null,
        cut: what === 'line' && (cut || body.get('lineEnd', i) < 1),
      })
    }
  }
  return units
}

const staysOnStage = ({ body, i }: DrawnUnit): boolean =>
  body.part.gradientFrame === 'stage' && body.get('gradient', i) > 0

/** Says of each unit how it is carried, by looking at every frame once. */
function sort(units: readonly DrawnUnit[], frames: number, show: (frame: number) => void): void {
  const first = units.map(unitForm)
  const counts = units.map(() => -1)
  for (let n = 0; n <= frames; n++) {
    show(n)
    units.forEach((unit, k) => {
      if (unit.mode === 'stepped') return
      if (unit.mode === 'posed' && (unitForm(unit) !== first[k] || first[k].includes('NaN'))) unit.mode = 'formed'
      // A line that is stretched to one side would not be as wide all round.
      if (unit.mode === 'posed' && unit.what === 'line' && !even(unit)) unit.mode = 'formed'
      // A fill whose gradient stays on the stage is laid there, and moves over it by its points.
      if (unit.mode === 'posed' && unit.what === 'fill' && staysOnStage(unit)) unit.mode = 'formed'
    })
  }
  for (let n = 0; n <= frames; n++) {
    if (!units.some(u => u.mode === 'formed')) return
    show(n)
    units.forEach((unit, k) => {
      if (unit.mode !== 'formed') return
      const count = rowOf(unit, null).where.length
      if (counts[k]! >= 0 && counts[k] !== count) unit.mode = 'stepped'
      counts[k] = count
    })
  }
}

const toleranceOf =
  (first: Sample) =>
  (unit: DrawnUnit, k: number): Tolerance => {
    if (unit.mode !== 'posed') return [OFF]
    const [, , , sx, sy] = first.rows[k]!.where as number[]
    const size = Math.max(1e-3, unit.reach * Math.max(Math.abs(sx!), Math.abs(sy!), 1e-6))
    const stretch = OFF / Math.max(unit.reach, 1e-3)
    return [OFF, OFF, Math.min(TURN, OFF / (2 * Math.PI * size)), stretch, stretch, OFF / size]
  }

const PAINT: Tolerance = [PART]
const LINE: Tolerance = [OFF, OFF, 0.0005, 0.0005]

const off = (a: UnitRow, b: UnitRow, half: UnitRow, tolerance: Tolerance | null): boolean =>
  (tolerance !== null && straight(a.where, b.where, half.where, 0.5, tolerance) > 1) ||
  straight(a.paint, b.paint, half.paint, 0.5, PAINT) > 1 ||
  straight(a.line, b.line, half.line, 0.5, LINE) > 1

const NONE: Track = { at: [0], rows: [[]] }

function tracksOf(unit: DrawnUnit, k: number, samples: readonly Sample[], whole: number, tolerance: Tolerance): Moving {
  const at = samples.map(s => s.at / whole)
  const of = (part: 'where' | 'paint' | 'line', from: number, to: number, by: Tolerance): Track =>
    thinTrack({ at, rows: samples.map(s => s.rows[k]![part].slice(from, to)) }, by)
  const posed = unit.mode === 'posed'
  const where = (from: number, to: number) => (posed ? of('where', from, to, tolerance.slice(from, to)) : NONE)
  return {
    unit,
    move: where(0, 2),
    turn: where(2, 3),
    stretch: where(3, 5),
    slant: where(5, 6),
    points: posed ? NONE : unit.mode === 'formed' ? of('where', 0, Infinity, tolerance) : stepsOf(samples, k, whole),
    solid: of('paint', 0, 1, PAINT),
    colour: of('paint', 1, 4, PAINT),
    width: of('line', 0, 1, LINE),
    dash: of('line', 1, 2, LINE),
    cut: of('line', 2, 4, LINE.slice(2)),
    forms: posed ? [] : frames(samples).map(s => s.rows[k]!.rings!),
  }
}

/** The samples at whole frames, without the one that would begin again. */
const frames = (samples: readonly Sample[]): Sample[] => samples.filter(s => s.at % (1 << FINEST) === 0).slice(0, -1)

const stepsOf = (samples: readonly Sample[], k: number, whole: number): Track => ({
  at: frames(samples).map(s => s.at / whole),
  rows: frames(samples).map(s => s.rows[k]!.where),
})
