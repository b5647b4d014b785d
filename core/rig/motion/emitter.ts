/**
 * Particles along one direction. Particle k sets off when the births have added up to k, so that where it is at any
 * moment is known without looking at the moments before; chance is hashed from k.
 */
import { constantOf, constantNumber, expressionOf, type CompiledExpression } from '../../form/compiled-expression.ts'
import { RETRY, type WorkQueue } from '../../form/work-queue.ts'
import { integralOf } from '../../form/integral.ts'
import type { Program } from '../../engine/program.ts'
import * as I from '../../facts/interval.ts'
import type { Part, Shape } from '../../piece/schema.ts'
import { hashSigned, hashUnit } from '../../signal/hash.ts'
import { cosineOfTurns, sineOfTurns } from '../../signal/sine.ts'
import { momentOfSeconds, type Moment } from '../../time/moment.ts'
import { floor, fraction, fromNumber, rational, times, toNumber, type Rational } from '../../time/rational.ts'
import { Births, Settled, type Birth } from './births.ts'
import { NO_POINTS, type Laying } from '../outline/points-laid.ts'
import { propertyExpression, partTransform } from './part-transform.ts'

type Emitter = Extract<Shape, { type: 'emitter' }>

/** Particles of all emitters of a piece, at most. */
export const MOST_PARTICLES = 100_000

/** Gives the particles of an emitter at a moment, the oldest first; the youngest `most` of them. */
export function emitterOf(
  program: Program,
  id: string,
  part: Part,
  instance: number,
  most = MOST_PARTICLES,
): (now: Moment) => Laying {
  const { shape } = part
  if (shape.type !== 'emitter') return () => NO_POINTS
  const { queue } = program
  const { frameRate } = program.measures
  const deep = program.piece.camera !== null
  const read = (property: string) => propertyExpression(program, id, property, instance)
  const [life, spread, variety] = [read('life'), read('spread'), read('variety')]
  const span = read('birthSize')
  const speed = shape.reverses ? read('speed') : forwards(read('speed'), frameRate, queue)
  const births = forwards(read('births'), frameRate, queue)
  const [born, gone] = [integralOf(births, frameRate, queue), integralOf(speed, frameRate, queue)]
  const stand = partTransform(program, id, instance)
  const when = new Births(births, born, frameRate)
  const isFixed = shape.flight === 'fixed'
  // Where nothing changes from birth to birth, no moment has to be made for one.
  const isStill = isFixed && [...stand.of, spread, variety, span, speed].every(f => constantOf(f) !== null)
  const settled = new Settled()
  const birthOf = (k: number, from: number, now: Moment): Birth => {
    const seconds = when.secondOf(k, from, now.seconds)
    const m = isStill ? now : when.momentOf(k, seconds)
    const w = stand.at(m)
    const turned = spread.at(m) * hashSigned(2 * k, shape.seed)
    const [c, s] = [cosineOfTurns(turned), sineOfTurns(turned)]
    // The direction in which the part points: its own x; across it, on the stage or, in depth, all round.
    const long = deep ? w[0] * w[0] + w[4] * w[4] + w[8] * w[8] : w[0] * w[0] + w[4] * w[4]
    const share = (1 + variety.at(m) * hashSigned(2 * k + 1, shape.seed)) / (Math.sqrt(long) || 1)
    const round = deep ? hashUnit(3 * k + 1, shape.seed ^ AROUND) / 2 : 0
    const [up, near] = [cosineOfTurns(round) * s, sineOfTurns(round) * s]
    const across = (j: number) => (deep ? w[j + 1]! * up + w[j + 2]! * near : j === 0 ? -w[4] * s : w[0] * s)
    const [bx, by] = bornAt(shape, k, span.at(m))
    return {
      seconds: isStill ? seconds : m.seconds,
      x: w[3] + w[0] * bx + w[1] * by,
      y: w[7] + w[4] * bx + w[5] * by,
      z: w[11] + w[8] * bx + w[9] * by,
      towardsX: (w[0] * c + across(0)) * share,
      towardsY: (w[4] * c + across(4)) * share,
      towardsZ: deep ? (w[8] * c + across(8)) * share : 0,
      speed: speed.at(m),
      gone: isFixed ? 0 : gone(m),
    }
  }
  return now => {
    const age = Math.max(0, life.at(now))
    const start = now.seconds - age
    const [before, last] = [Math.floor(born(at(start, frameRate))), Math.floor(born(now))]
    // Beyond whole numbers that a double tells apart there is no counting.
    if (!(Math.abs(last) < Number.MAX_SAFE_INTEGER)) return NO_POINTS
    const first = Math.max(before + 1, last - most + 1)
    // Where it is still being worked out how many there were, there are none.
    const count = first <= last ? last - first + 1 : 0
    settled.hold(count)
    const { x, y, z, towardsX, towardsY, towardsZ, speed: speeds, seconds, gone: had } = settled.columns
    const here = isFixed ? 0 : gone(now)
    const [points, heights, ages] = [2, 1, 1].map(n => new Float64Array(n * count)) as [
      Float64Array,
      Float64Array,
      Float64Array,
    ]
    let n = 0
    for (let k = first, j = count && settled.place(first); k <= last; k++, j = settled.after(j)) {
      if (!settled.has(k, j)) {
        // What takes too long is drawn in the next frames.
        if (queue.isExhausted) {
          queue.enqueue(RETRY)
          break
        }
        const asked = queue.requestCount
        const birth = birthOf(k, start, now)
        // What is still being worked out is asked for again.
        settled.put(k, j, birth, queue.requestCount === asked)
      }
      const far = isFixed ? speeds[j]! * (now.seconds - seconds[j]!) : here - had[j]!
      // Where the sums end, a day and more away, there is nothing to draw.
      if (!Number.isFinite(far)) continue
      points[2 * n] = x[j]! + towardsX[j]! * far
      points[2 * n + 1] = y[j]! + towardsY[j]! * far
      heights[n] = z[j]! + towardsZ[j]! * far
      ages[n] = age > 0 ? Math.min(1, Math.max(0, (now.seconds - seconds[j]!) / age)) : 0
      n++
    }
    if (n === count) return { points, heights, ages }
    return { points: points.subarray(0, 2 * n), heights: heights.subarray(0, n), ages: ages.subarray(0, n) }
  }
}

/** Salts of chance that is drawn apart from what it was before. */
const AROUND = 0x51a3c0de
const PLACED = 0x7d1f00d5

/** Where particle k sets off, px from its emitter's middle: on a point, a line across its direction, a ring, or an area. */
function bornAt({ birth = 'point', seed }: Emitter, k: number, size: number): readonly [number, number] {
  if (birth === 'point') return [0, 0]
  const [a, b] = [hashUnit(2 * k, seed ^ PLACED), hashUnit(2 * k + 1, seed ^ PLACED)]
  if (birth === 'line') return [0, (a - 0.5) * size]
  // A root spreads them evenly over the area.
  const radius = ((birth === 'area' ? Math.sqrt(b) : 1) * size) / 2
  return [radius * cosineOfTurns(a), radius * sineOfTurns(a)]
}

const at = (seconds: number, frameRate: Rational): Moment => momentOfSeconds(fromNumber(seconds), frameRate)

/** Steps in a second at which a speed that is held to 0 is read. */
const STEPS = 64n
/** Steps that are added up, to either side, at most. */
const MOST_STEPS = 16_000_000

/**
 * Held to 0 and above: what does not turn back. It’s read at fixed steps and runs straight between them, so that what
 * it adds up to never falls, not by a rounding either.
 */
function forwards(f: CompiledExpression, frameRate: Rational, queue: WorkQueue): CompiledExpression {
  const { low, high } = f.facts().bounds
  if (low >= 0) return f
  if (high <= 0) return constantNumber(0, frameRate)
  const step = (k: number) => Math.max(0, f.at(momentOfSeconds(rational(BigInt(k), STEPS), frameRate)))
  const size = 1 / Number(STEPS)
  /** Sums of whole steps from 0 up, and down. */
  const [up, down] = [[0], [0]]
  const sum = (k: number): number => {
    const [list, sign] = k >= 0 ? [up, 1] : [down, -1]
    while (list.length <= Math.abs(k)) {
      // A moment far away is added up in the next frames.
      if (queue.isExhausted) {
        queue.enqueue(RETRY)
        return NaN
      }
      queue.consume()
      const n = sign * (list.length - 1)
      list.push(list.at(-1)! + (sign * size * (step(n) + step(n + sign))) / 2)
    }
    return list[Math.abs(k)]!
  }
  const split = (m: Moment): readonly [number, number] => {
    const steps = times(m.exactSeconds, rational(STEPS))
    return [Number(floor(steps)), toNumber(fraction(steps))]
  }
  return expressionOf(
    m => {
      const [k, part] = split(m)
      return step(k) + (step(k + 1) - step(k)) * part
    },
    {
      bounds: () => I.meet(f.facts().bounds, 0, Infinity),
      repeats: () => f.facts().repeats,
      bends: () => f.facts().bends,
      cost: () => f.facts().cost,
      finite: () => f.facts().finite,
    },
    {
      integral: m => {
        const [k, part] = split(m)
        if (Math.abs(k) > MOST_STEPS) return NaN
        const [a, b] = [step(k), step(k + 1)]
        return sum(k) + size * part * (a + ((b - a) * part) / 2)
      },
    },
  )
}
