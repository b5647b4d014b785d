/** Reading a wave surface of the piece. */
import { joined, turning } from '../facts/bends.ts'
import { interval, plus, point, times } from '../facts/interval.ts'
import { everySeconds, together } from '../facts/repeats.ts'
import { foamAt, steepness, waveHeight } from '../signal/waves.ts'
import { absolute, over } from '../time/rational.ts'
import { LENGTH, PLAIN } from '../units/kinds.ts'
import { bendsOfArgs, costOfArgs, leapsOfArgs, repeatsOfArgs, type Call } from './prepared-call.ts'
import { entry } from './entry.ts'
import { parameter } from './parameter.ts'
import type { CompiledExpression } from '../form/compiled-expression.ts'

type OnSurface = Call & { readonly surface: NonNullable<Call['surface']> }

/** What drives a surface besides its waves. */
const moving = ({ surface: { tall, swell, crest, foam } }: OnSurface): CompiledExpression[] => [
  tall,
  swell,
  crest,
  foam,
]

const PLACE = [
  parameter({ name: 'surface', description: 'the wave surface', kind: 'any', thing: 'waves', required: true }),
  parameter({ name: 'x', description: 'the place across', kind: LENGTH, required: true }),
  parameter({ name: 'z', description: 'the place in depth, towards the camera', kind: LENGTH, initial: 0 }),
] as const

/** What is known of all that is read of a surface. */
const FACTS = {
  repeats: (call: OnSurface) => {
    const { rate } = call.surface.lap.affine!
    const read = moving(call).map(f => f.facts().repeats)
    return together([everySeconds(absolute(over({ n: 1n, d: 1n }, rate))), ...read, repeatsOfArgs(call)])
  },
  bends: (call: OnSurface) => joined(bendsOfArgs({ ...call, variadicArgs: moving(call) }), turning(PACE)),
  leaps: (call: OnSurface) => leapsOfArgs({ ...call, variadicArgs: moving(call) }),
  cost: (call: OnSurface) => costOfArgs(call, call.surface.waves.length),
  finite: () => true,
}

export const height = entry(
  {
    name: 'height',
    group: 'rig',
    description:
      'How high above its pivot a wave surface is at a place, so that parts with the same pivot height float on it: written after its name, as in basin.height(own.x). The place is counted from the middle of the surface.',
    example: { part: 'Duck', property: 'y', text: 'basin.height(own.x)' },
    parameters: PLACE,
    result: LENGTH,
  },
  {
    at: call => {
      const { x, z } = call.args
      const { waves, tall, swell, crest, lap } = call.surface
      return m =>
        tall.at(m) / 2 + swell.at(m) * waveHeight(waves, x.at(m), z.at(m), lap.splitAt(m).part, share(crest.at(m)))
    },
  },
  {
    bounds: call => {
      const { tall, swell } = call.surface
      const waves = times(swell.facts().bounds, plus(interval(-1, 1), interval(-1e-12, 1e-12)))
      return plus(times(tall.facts().bounds, point(0.5)), waves)
    },
    ...FACTS,
  },
)

export const foam = entry(
  {
    name: 'foam',
    group: 'rig',
    description:
      'How much foam lies on a wave surface at a place, 0 to 1: on crests, where the waves are steep. Written after its name, as in basin.foam(own.x).',
    example: { part: 'Duck', property: 'scale', text: '100% + basin.foam(own.x) * 20%' },
    parameters: PLACE,
    result: PLAIN,
  },
  {
    at: call => {
      const { x, z } = call.args
      const { waves, swell, crest, foam: much, lap } = call.surface
      const steep = steepness(waves)
      return m =>
        foamAt(
          waveHeight(waves, x.at(m), z.at(m), lap.splitAt(m).part, share(crest.at(m))),
          share(much.at(m)),
          steep * Math.max(0, swell.at(m)),
        )
    },
  },
  { ...FACTS, bounds: () => interval(0, 1) },
)

/** Turns a second that waves make at most, as far as adding them up goes. */
const PACE = 4

const share = (x: number): number => (x < 0 ? 0 : x > 1 ? 1 : x)
