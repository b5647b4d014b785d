/** What traces and emitters lay on the stage, made ready once a program: the path of a point, the places of particles. */
import { propertyKey } from '../piece/drive-key.ts'
import { MOST_PARTICLES, emitterOf } from './motion/emitter.ts'
import { MOST_LAID, traceOf } from './motion/trace.ts'
import { NO_POINTS, type Laying } from './outline/points-laid.ts'
import { everyCopy } from '../engine/every-copy.ts'
import { propertyNamed } from '../piece/properties.ts'
import type { Body } from './body.ts'
import type { Program } from '../engine/program.ts'
import type { Part } from '../piece/schema.ts'
import type { Moment } from '../time/moment.ts'

export interface Laid {
  /** The parts whose formulas it is made from. */
  readonly of: ReadonlySet<string>
  readonly at: (instance: number, now: Moment) => Laying
}

/** Particles of an emitter below which it is not worth having. */
const LEAST_PARTICLES = 60

export const lays = ({ shape }: Part): boolean => shape.type === 'trace' || shape.type === 'emitter'

/** Of a part that lays. */
export function laidBy(program: Program, { id, part, get, count }: Body): Laid {
  const { shape } = part
  const of = carriers(program, shape.type === 'trace' && shape.of !== null ? shape.of : id).add(id)
  if (shape.type === 'trace') {
    const trace = traceOf(program, part, share(program, 'trace', MOST_LAID))
    return { of, at: (i, now) => trace(now, get('trail', i)) }
  }
  const most = mostParticles(program)
  const laying = copiesLaying(most, count)
  const emitters = Array.from({ length: laying }, (_, i) => emitterOf(program, id, part, i, most))
  return { of, at: (i, now) => emitters[i]?.(now) ?? NO_POINTS }
}

/** Particles that each emitter of a piece may show. */
const mostParticles = (program: Program): number => Math.max(LEAST_PARTICLES, share(program, 'emitter', MOST_PARTICLES))

/** Of a great many copies those that have room for some particles lay any. */
const copiesLaying = (most: number, count: number): number => Math.min(count, Math.floor(MOST_PARTICLES / most))

export interface ParticlesAtOnce {
  /** The most that any copy of an emitter may have; Infinity where that is not known. */
  readonly alive: number
  /** How many of them it may show, the youngest. */
  readonly shown: number
  /** How many of its copies show any: the first. */
  readonly copies: number
}

/** How many particles an emitter has at once. */
export function particlesAtOnce(program: Program, id: string): ParticlesAtOnce {
  const { count } = program.instancesOf(id)
  const high = (property: string): number => {
    const key = propertyKey(id, property)
    const every = everyCopy(program, key)
    const forms = new Set(
      every ? [every] : (program.slots.get(key)?.readers ?? program.handForms(id, propertyNamed(property)!)),
    )
    return Math.max(0, ...[...forms].map(f => f.facts().bounds.high))
  }
  // Bounds may be wider by a rounding. A product with 0 is none, however long they live.
  const alive = Math.ceil(high('births') * high('life') * (1 - 1e-9)) || 0
  const most = mostParticles(program)
  return { alive, shown: Math.min(alive, most), copies: copiesLaying(most, count) }
}

/** What one of all parts of a kind may lay of what all of them may. */
function share(program: Program, type: Part['shape']['type'], all: number): number {
  const { parts } = program.piece
  const count = Object.keys(parts).reduce(
    (n, id) => n + (parts[id]!.shape.type === type ? program.instancesOf(id).count : 0),
    0,
  )
  return Math.floor(all / Math.max(1, count))
}

/** A part and all that it hangs on. */
function carriers(program: Program, id: string): Set<string> {
  const found = new Set<string>()
  for (let at: string | null = id; at !== null; at = program.piece.parts[at]?.parent ?? null) found.add(at)
  return found
}
