/**
 * Waves of water in depth as the graphics card adds them up: a line for each body of water, four numbers a place:
 *
 *   0  half its height, its width, how far back it reaches, how high its waves may rise
 *   1  how sharp its crests are, how many waves, how much foam, how steep they are together
 *   2… of each wave: swings per px across and towards the eye, where it is in its swing, its share of the height
 */
import type { MeshSlot } from './mesh-slot.ts'
import type { Deep } from './deep.ts'
import { toEye, type Eye } from '../depth/eye.ts'
import { steepness } from '../../signal/waves.ts'
import { matrix } from '../../piece/transform.ts'

/** Waves of one water, most, and places of a line. */
const MOST_WAVES = 64
export const WATER_ACROSS = 2 + MOST_WAVES

export class Waters {
  readonly data: Float32Array
  readonly count: number
  /** How far the lap is on, 0 to 1. */
  progress = 0
  private readonly lines = new Map<MeshSlot, number>()
  private readonly seat = matrix()

  constructor(slots: readonly MeshSlot[]) {
    for (const slot of slots) if (slot.body.waves) this.lines.set(slot, this.lines.size)
    this.count = this.lines.size
    this.data = new Float32Array(WATER_ACROSS * 4 * this.count)
  }

  /** Fills the line of a body of water; gives how far it reaches about its middle. */
  put(slot: MeshSlot, row: number, deep: Deep, eye: Eye): number {
    const { body, instance } = slot
    const line = this.lines.get(slot)!
    const { data } = this
    const read = (name: string) => body.get(name, instance)
    const [width, height, far] = [read('width'), read('height'), read('thickness')]
    const [swell, crest] = [read('swell'), read('crest')]
    let at = line * WATER_ACROSS * 4
    const waves = body.waves!
    for (const v of [height / 2, width, far, swell, crest, waves.length, read('foam'), steepness(waves) * swell])
      data[at++] = v
    for (const w of waves) {
      const turns = w.start - w.swings * this.progress
      data[at++] = w.x
      data[at++] = w.z
      data[at++] = turns - Math.floor(turns)
      data[at++] = w.share
    }
    // The third axis, which a flat outline does not need.
    const m = toEye(eye, body.worlds[instance]!, this.seat)
    deep.back(row, m[2], m[6], m[10], line)
    return width + height + far + swell
  }
}
