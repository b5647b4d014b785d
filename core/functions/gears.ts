/** Gears: one turned by another, by their teeth and by where both stand. */
import { add, constant, scale } from '../time/affine.ts'
import { interval, plus, point, times } from '../facts/interval.ts'
import { fromNumber, negate, toNumber } from '../time/rational.ts'
import { ANGLE } from '../units/kinds.ts'
import { entry } from './entry.ts'

export const engage = entry(
  {
    name: 'engage',
    group: 'rig',
    description:
      'Rotates this gear with another one it engages: the opposite way, in the ratio of their teeth, from their current positions.',
    example: { part: 'Idler', property: 'rotation', text: 'engage(pinion)' },
    parameters: [{ name: 'gear', description: 'the gear it is turned by', kind: 'any', thing: 'gear', required: true }],
    result: ANGLE,
  },
  {
    at: call => {
      const { rotation, ratio, offset } = call.gear
      const by = -toNumber(ratio)
      return m => rotation.at(m) * by + offset
    },
    exact: call => {
      const { rotation, ratio, offset } = call.gear
      const turned = rotation.exact && scale(rotation.exact, negate(ratio))
      return turned && add(turned, constant(fromNumber(offset)))
    },
  },
  {
    bounds: call =>
      plus(
        times(call.gear.rotation.facts().bounds, point(-toNumber(call.gear.ratio))),
        interval(call.gear.offset, call.gear.offset),
      ),
    repeats: call => {
      const { every, gain, from } = call.gear.rotation.facts().repeats
      const { ratio } = call.gear
      return { every, gain: { n: -gain.n * ratio.n, d: gain.d * ratio.d }, from }
    },
    bends: call => call.gear.rotation.facts().bends,
    leaps: call => call.gear.rotation.facts().leaps,
  },
)
