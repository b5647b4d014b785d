/** Where a part stands on the stage, with all it hangs on. */
import { joined } from '../facts/bends.ts'
import { ALL } from '../facts/interval.ts'
import { together } from '../facts/repeats.ts'
import { LENGTH } from '../units/kinds.ts'
import { bendsOfArgs, leapsOfArgs, repeatsOfArgs } from './prepared-call.ts'
import { type Entry, entry } from './entry.ts'

function place(name: 'stageX' | 'stageY', axis: 'x' | 'y', way: string): Entry {
  return entry(
    {
      name,
      group: 'rig',
      description: `How far ${way} on the stage a part's pivot is, its parents included, or a point some px from its pivot: written after its name, as in mallet.${name}, or flag[2].${name}(40px, 0px).`,
      example: { part: 'Carousel', property: axis, text: `idler.${name}(60px)` },
      parameters: [
        { name: 'part', description: 'the part', kind: 'any', thing: 'part', required: true },
        { name: 'x', description: 'px across from its pivot, turned as it is', kind: LENGTH, initial: 0 },
        { name: 'y', description: 'px upwards from its pivot', kind: LENGTH, initial: 0 },
      ],
      result: LENGTH,
    },
    {
      at: call => {
        const { x, y } = call.args
        const { pivot, [axis]: at } = call.spot
        return m => at(m, pivot.x + x.at(m), pivot.y + y.at(m))
      },
    },
    {
      bounds: () => ALL,
      repeats: call => together([repeatsOfArgs(call), ...call.spot.repeats()]),
      bends: call => joined(bendsOfArgs(call), ...call.spot.of.map(f => f.facts().bends)),
      leaps: call => joined(leapsOfArgs(call), ...call.spot.of.map(f => f.facts().leaps)),
      finite: call => call.spot.of.every(f => f.facts().finite),
    },
  )
}

export const stageX = place('stageX', 'x', 'across')
export const stageY = place('stageY', 'y', 'upwards')
