/** Reading a wave surface of the piece. */
import { joined, turning } from '../facts/bends.ts'
import { interval, plus, times } from '../facts/interval.ts'
import { everySeconds, together } from '../facts/repeats.ts'
import { waveHeight } from '../signal/waves.ts'
import { absolute, over } from '../time/rational.ts'
import { LENGTH } from '../units/kinds.ts'
import { bendsOfArgs, costOfArgs, leapsOfArgs, repeatsOfArgs, type Entry } from './entry.ts'

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
    const { swell, crest, lap } = call.surface!
    const { rate } = lap.affine!
    const read = [swell, crest].map(f => f.facts().repeats)
    return together([everySeconds(absolute(over({ n: 1n, d: 1n }, rate))), ...read, repeatsOfArgs(call)])
  },
  bends: call => joined(bendsOfArgs({ ...call, many: [call.surface!.swell, call.surface!.crest] }), turning(PACE)),
  leaps: call => leapsOfArgs({ ...call, many: [call.surface!.swell, call.surface!.crest] }),
  cost: call => costOfArgs(call, call.surface!.waves.length),
  finite: () => true,
}

/** Turns a second that waves make at most, as far as adding them up goes. */
const PACE = 4

const share = (x: number): number => (x < 0 ? 0 : x > 1 ? 1 : x)
