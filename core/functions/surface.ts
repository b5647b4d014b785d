/** Reading a wave surface of the piece. */
import { joined, turning } from '../facts/bends.ts'
import { interval, plus, times } from '../facts/interval.ts'
import { everySeconds, together } from '../facts/repeats.ts'
import { foamAt, steepness, waveHeight } from '../signal/waves.ts'
import { absolute, over } from '../time/rational.ts'
import { LENGTH, PLAIN } from '../units/kinds.ts'
import { bendsOfArgs, costOfArgs, leapsOfArgs, repeatsOfArgs, type Call, type Entry } from './entry.ts'
import type { Form } from '../form/form.ts'

/** What drives a surface besides its waves. */
const moving = (call: Call): Form[] => {
  const { swell, crest, foam } = call.surface!
  return [swell, crest, foam]
}

export const height: Entry = {
  name: 'height',
  group: 'rig',
  says: 'How high a wave surface stands at a place, so that things float on it: written behind its name, as in basin.height(own.x). The place is counted from the middle of the surface.',
  example: { part: 'Duck', property: 'y', text: 'basin.height(own.x)' },
  takes: [
    { name: 'surface', says: 'the wave surface', kind: 'any', thing: 'waves', required: true },
    { name: 'x', says: 'the place across', kind: LENGTH, required: true },
    { name: 'z', says: 'the place towards the eye', kind: LENGTH, initial: 0 },
  ],
  result: LENGTH,
  value: call => {
    const { x, z } = call.args
    const { waves, swell, crest, lap } = call.surface!
    return m => swell.at(m) * waveHeight(waves, x!.at(m), z!.at(m), lap.splitAt(m).part, share(crest.at(m)))
  },
  bounds: call => times(call.surface!.swell.facts().bounds, plus(interval(-1, 1), interval(-1e-12, 1e-12))),
  repeats: call => {
    const { rate } = call.surface!.lap.affine!
    const read = moving(call).map(f => f.facts().repeats)
    return together([everySeconds(absolute(over({ n: 1n, d: 1n }, rate))), ...read, repeatsOfArgs(call)])
  },
  bends: call => joined(bendsOfArgs({ ...call, many: moving(call) }), turning(PACE)),
  leaps: call => leapsOfArgs({ ...call, many: moving(call) }),
  cost: call => costOfArgs(call, call.surface!.waves.length),
  finite: () => true,
}

export const foam: Entry = {
  ...height,
  name: 'foam',
  says: 'How much foam lies on a wave surface at a place, 0 to 1: on crests, where the waves are steep. Written behind its name, as in basin.foam(own.x).',
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
