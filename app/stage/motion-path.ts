/** The way of the part in hand through the coming lap, kept until it is another. */
import type { Program } from '~~/core/engine/program.ts'
import { POSED } from '~~/core/piece/transform.ts'
import type { Body } from '~~/core/rig/body.ts'
import type { Eye } from '~~/core/rig/depth/eye.ts'
import { travelOf } from '~~/core/rig/travel.ts'
import { toNumber } from '~~/core/time/rational.ts'
import { useSelection } from '~/stores/selection.ts'
import { usePiece } from '~/stores/piece.ts'

interface Way {
  readonly program: Program
  readonly eye: Eye
  readonly id: string
  readonly instance: number
  /** The second at which it begins. */
  readonly from: number
  /** Null where it would take too long to work out. */
  readonly points: Float64Array | null
}

/** Gives the points of it on the stage, x and y in turn; null where it stands still, or is not asked for. */
export function useMotionPath(): (body: Body, instance: number, eye: Eye) => Float64Array | null {
  const store = usePiece()
  const hand = useSelection()
  let way: Way | null = null
  return (body, instance, eye) => {
    const { player, program } = store
    const moves = POSED.some(name => body.driven.has(name)) || body.parent?.rests === false
    if (!hand.path || !moves || body.lay || !program || !player) return null
    const moment = player.now()
    const now = moment.seconds
    const known = way?.program === program && way.eye === eye && way.id === body.id && way.instance === instance
    // Standing still it begins at what is shown; playing it goes on until a lap is over.
    const gone = way ? now - way.from : 0
    const over = gone < 0 || gone > toNumber(program.measures.lapLength) || (!player.playing && gone !== 0)
    if (!way || !known || over)
      way = {
        program,
        eye,
        id: body.id,
        instance,
        from: now,
        points: travelOf(program, body.id, instance, moment, eye),
      }
    return way.points
  }
}
