/** Reading a wave surface of the piece. */
import { joined, turning } from '../facts/bends.ts'
import { interval, plus, point, times } from '../facts/interval.ts'
import { everySeconds, together } from '../facts/repeats.ts'
import { foamAt, steepness, waveHeight } from '../signal/waves.ts'
import { absolute, over } from '../time/rational.ts'
import { LENGTH, PLAIN } from '../units/kinds.ts'
import { bendsOfArgs, costOfArgs, leapsOfArgs, repeatsOfArgs, type Call, type Entry } from './entry.ts'
import type { CompiledExpression } from '../form/compiled-expression.ts'

/** What drives a surface besides its waves. */
const moving = (call: Call): CompiledExpression[] => {
  const { tall, swell, crest, foam } = call.surface!
  return [tall, swell, crest, foam]
}

export const height: Entry = {
  name: 'height',
  group: 'rig',
  description:
    'How high above its pivot a wave surface is at a place, so that parts with the same pivot height float on it: written after its name, as in basin.height(own.x). The place is counted from the middle of the surface.',
  example: { part: 'Duck', property: 'y', text: 'basin.height(own.x)' },
  parameters: [
    { name: 'surface', description: 'the wave surface', kind: 'any', thing: 'waves', required: true },
    { name: 'x', description: 'the place across', kind: LENGTH, required: true },
    { name: 'z', description: 'the place in depth, towards the camera', kind: LENGTH, initial: 0 },
  ],
  result: LENGTH,
  value: call => {
    const { x, z } = call.args
    const { waves, tall, swell, crest, lap } = call.surface!
    return m =>
      tall.at(m) / 2 + swell.at(m) * waveHeight(waves, x!.at(m), z!.at(m), lap.splitAt(m).part, share(crest.at(m)))
  },
  bounds: call => {
    const { tall, swell } = call.surface!
    const waves = times(swell.facts().bounds, plus(interval(-1, 1), interval(-1e-12, 1e-12)))
    return plus(times(tall.facts().bounds, point(0.5)), waves)
  },
  repeats: call => {
    const { rate } = call.surface!.lap.affine!
    const read = moving(call).map(f => f.facts().repeats)
    return together([everySeconds(absolute(over({ n: 1n, d: 1n }, rate))), ...read, repeatsOfArgs(call)])
  },
  bends: call => joined(bendsOfArgs({ ...call, variadicArgs: moving(call) }), turning(PACE)),
  leaps: call => leapsOfArgs({ ...call, variadicArgs: moving(call) }),
  cost: call => costOfArgs(call, call.surface!.waves.length),
  finite: () => true,
}

export const foam: Entry = {
  ...height,
  name: 'foam',
  description:
    'How much foam lies on a wave surface at a place, 0 to 1: on crests, where the waves are steep. Written after its name, as in basin.foam(own.x).',
  example: { part: 'Duck', property: 'scale', text: '100% + basin.foam(own.x) * 20%' },
  result: PLAIN,
  value: call => {
    const { x, z } = call.args
    const { waves, swell, crest, foam: much, lap } = call.surface!
    const steep = steepness(waves)
    return m =>
      foamAt(
        waveHeight(waves, x!.at(m), z!.at(m), lap.splitAt(m).part, share(crest.at(m))),
        share(much.at(m)),
        steep * Math.max(0, swell.at(m)),
      )
  },
  bounds: () => interval(0, 1),
}

/** Turns a second that waves make at most, as far as adding them up goes. */
const PACE = 4

const share = (x: number): number => (x < 0 ? 0 : x > 1 ? 1 : x)
