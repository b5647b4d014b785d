/** What a formula finds around it: dials, clocks, cues, curves, parts and their copies, what is held by hand. */
import { propertyKey, signalKey } from '../piece/drive-key.ts'
import { dialUnit, featureOf, relative } from '../formula/scope.ts'
import type { Piece } from '../piece/schema.ts'
import { propertyNamed, type Property } from '../piece/properties.ts'
import { gearing, standsBy } from '../piece/gearing.ts'
import { POSED } from '../piece/transform.ts'
import { seedOf } from '../signal/hash.ts'
import { marksOf } from '../signal/marks.ts'
import { wavesOf } from '../signal/waves.ts'
import { fromNumber, rational, times, toNumber, type Rational } from '../time/rational.ts'
import type { Measures } from '../units/units.ts'
import { PIECE_CLOCK, type ActiveClock } from '../form/active-clock.ts'
import { dialsOfClock, lostBy } from '../form/clock.ts'
import { slipKey, type DialFactors, type ElapsedTime } from '../form/dial-factors.ts'
import { constantExpression, type CompiledExpression } from '../form/compiled-expression.ts'
import type { WorkQueue } from '../form/work-queue.ts'
import { channelOf } from './curve-channel.ts'
import { dialExpression, setValueExpression, cannotRun, type Env } from './env.ts'
import { copyWords, indicesOf, instanceRead, instancesOf, type Instances } from './instances.ts'
import type { SetValueExpressions } from './keyframes.ts'
import type { Meaning, Meanings } from './meaning.ts'
import type { Pace } from './slot.ts'
import { windowsOf, type Times } from './time-words.ts'
import { spotOf } from './instance-transform.ts'

/** What a slot hangs on, gathered while it is made. */
export interface Tracked {
  readonly paces: Map<string, Pace>
  readonly dials: Set<string>
  readonly slots: Set<string>
  readonly setValueKeys: Set<string>
}

/** What is asked of the program that a formula stands in. */
export interface Ground {
  readonly piece: Piece
  readonly measures: Measures
  readonly meanings: Meanings
  readonly lapStart: Rational
  readonly times: Times
  readonly queue: WorkQueue
  instancesOf(part: string): Instances
  handForms(part: string, property: Property, beat?: ActiveClock): readonly CompiledExpression[]
  /** What is set on a part without copies, exactly; null where keyframes move it. */
  handConstant(part: string, property: Property): Rational | null
}

/** How a formula reads others: what drives them, else what is set on them. */
interface Reading {
  /** A driven value or signal by its key, at an instance; null when nothing drives it. */
  readonly read: (key: string, which: number) => CompiledExpression | null
  readonly held: (of: string, name: string, which: number, beat?: ActiveClock) => CompiledExpression
  readonly formOf: (of: string, name: string, which: number) => CompiledExpression
  /** The id of a part that is named; `near`: by a word such as `own`. */
  readonly partOf: (of: string, near: boolean) => string
}

function readingOf(host: Ground, m: Meaning, tracked: Tracked, read: Reading['read']): Reading {
  const held: Reading['held'] = (of, name, which, beat) => {
    tracked.setValueKeys.add(propertyKey(of, name))
    return host.handForms(of, propertyNamed(name)!, beat)[which]!
  }
  return {
    read,
    held,
    formOf: (of, name, which) => read(propertyKey(of, name), which) ?? held(of, name, which),
    partOf: (of, near) =>
      near ? (relative(host.piece, of, m.target.part) as string) : host.meanings.names.named(of)!.id,
  }
}

/** What all instances share, made once. */
type Shared = Omit<Env, 'place' | 'builtin' | 'property' | 'spot' | 'seed'>

function sharedSurroundings(host: Ground, m: Meaning, tracked: Tracked, { read, formOf, partOf }: Reading): Shared {
  const { piece, measures } = host
  const { part } = m.target
  const span = part === null ? null : piece.parts[part]!.span
  const { lap, stretch } = windowsOf(piece, measures, host.lapStart)
  const idOf = (name: string): string => host.meanings.names.named(name)!.id
  return {
    frameRate: measures.frameRate,
    queue: host.queue,
    lapLength: measures.lapLength,
    lapStart: host.lapStart,
    slip: (dials: DialFactors, pace: Rational, run: ElapsedTime) => {
      const key = slipKey(dials, run)
      tracked.paces.set(key, { pace, run: run.at })
      return fromNumber(piece.slips[key] ?? 0)
    },
    clock: name => {
      const id = idOf(name)
      const lost = lostBy(piece, id)
      if (lost)
        return cannotRun(
          'unknown-name',
          { from: 0, to: m.source.text.length },
          `The clock ${name} follows ${lost}, which doesn’t exist.`,
        )
      for (const dial of dialsOfClock(piece, id)) tracked.dials.add(dial)
      return host.times.beat(id)
    },
    cue: name => {
      const { marks, every } = host.times.piece.cues[idOf(name)]!
      return marksOf(marks, every)
    },
    gear: name => {
      const other = idOf(name)
      for (const id of standsBy(piece, other, part!))
        for (const name of POSED) tracked.setValueKeys.add(propertyKey(id, name))
      return { rotation: formOf(other, 'rotation', 0), ...gearing(piece, other, part!) }
    },
    surface: name => {
      const id = idOf(name)
      const { shape } = piece.parts[id]!
      const waves = shape.type === 'waves' ? wavesOf(shape, toNumber(measures.lapLength)) : []
      const of = (name: 'height' | 'swell' | 'crest' | 'foam') => formOf(id, name, 0)
      return { waves, tall: of('height'), swell: of('swell'), crest: of('crest'), foam: of('foam') }
    },
    hasCurve: name => host.meanings.names.named(name)?.type === 'curve',
    channels: name => Object.keys(piece.curves[idOf(name)]!.channels),
    curve: (name, channel) => channelOf(piece, idOf(name), channel, measures),
    windows: { lap, stretch, span: span ? [fromNumber(span.from), fromNumber(span.to)] : lap },
    dial: id => {
      tracked.dials.add(id)
      const dial = piece.dials[id]!
      return dialExpression(
        id,
        times(fromNumber(dial.value), dialUnit(dial.unit)?.size(measures) ?? rational(1)),
        measures.frameRate,
      )
    },
    signal: id => read(signalKey(id), 0)!,
    feature: (of, name, near) => {
      const found = partOf(of, near)
      const feature = featureOf(piece, found, name)
      return feature && ('setting' in feature ? feature : { part: found, property: feature.name })
    },
  }
}

/**
 * Surroundings for a formula, instance by instance; what all instances share is made once.
 *
 * @param read a driven value or signal by its key, at an instance; null when nothing drives it
 */
export function surroundings(
  host: Ground,
  m: Meaning,
  tracked: Tracked,
  read: Reading['read'],
): (instance: number) => Env {
  const { piece, measures } = host
  const { part, property } = m.target
  const here = part === null ? { levels: [], count: 1 } : host.instancesOf(part)
  const span = part === null ? null : piece.parts[part]!.span
  const reading = readingOf(host, m, tracked, read)
  const { held, formOf, partOf } = reading
  const shared = sharedSurroundings(host, m, tracked, reading)
  return instance => {
    const indices = indicesOf(here, instance)
    let copies: ReturnType<typeof copyWords> | undefined
    // Each by its name: what is spread in front of them would make the rest of it ten times as slow.
    return {
      frameRate: shared.frameRate,
      queue: shared.queue,
      lapLength: shared.lapLength,
      lapStart: shared.lapStart,
      slip: shared.slip,
      clock: shared.clock,
      cue: shared.cue,
      gear: shared.gear,
      surface: shared.surface,
      hasCurve: shared.hasCurve,
      channels: shared.channels,
      curve: shared.curve,
      windows: shared.windows,
      dial: shared.dial,
      signal: shared.signal,
      feature: shared.feature,
      place: here.count > 1 ? `${m.key}.${instance}` : m.key,
      builtin: (name, beat) => {
        const copy = (copies ??= copyWords(piece, here, instance)).get(name)
        if (copy) return constantExpression(copy, measures.frameRate)
        if (name === 'base') return held(part!, property!.name, instance, beat)
        if (span && name === 'spanStart') return setValueExpression(span.from, rational(1), measures.frameRate)
        if (span && name === 'spanEnd') return setValueExpression(span.to, rational(1), measures.frameRate)
        return host.times.words(beat).get(name)!
      },
      property: (of, name, copy) => {
        const there = host.instancesOf(of)
        if (copy === 'before' && indices.at(-1) === 0) return held(of, name, instance)
        const which = copy === 'before' ? instance - 1 : instanceRead(here, instance, there, copy)
        if (which === null) return null
        return formOf(of, name, which)
      },
      spot: (of, near, copy) => {
        const id = partOf(of, near)
        const which = instanceRead(here, instance, host.instancesOf(id), copy)
        if (which === null) return null
        return spotOf(piece, formOf, id, which)
      },
      seed: (name, nth, forAll = false) =>
        nth < 0 ? seedOf('shared', name) : seedOf(m.source.seed, name, nth, ...(forAll ? [] : indices)),
    }
  }
}

export const nothingTracked = (): Tracked => ({
  paces: new Map(),
  dials: new Set(),
  slots: new Set(),
  setValueKeys: new Set(),
})

/** What formulas find around them in a program, without its slots: what is compiled later must not keep those alive. */
export function surroundingsInProgram(
  piece: Piece,
  program: Pick<Ground, 'measures' | 'meanings' | 'lapStart' | 'times' | 'queue'>,
  instances: Map<string, Instances>,
  hands: SetValueExpressions,
): Ground {
  const { measures, meanings, lapStart, times, queue } = program
  const instancesIn = (part: string): Instances => {
    let found = instances.get(part)
    if (!found) instances.set(part, (found = instancesOf(piece, part)))
    return found
  }
  return {
    ...{ piece, measures, meanings, lapStart, times, queue },
    instancesOf: instancesIn,
    handConstant: (part, property) => hands.constant(part, property),
    handForms: (part, property, beat = PIECE_CLOCK) => hands.of(part, property, instancesIn(part).count, beat),
  }
}
