/** What shows the scene of what runs, kept from frame to frame: which parts of it are shown, and from where it is seen. */
import { AHEAD, eyeOf, FLAT, type Eye, type Look } from '~~/core/rig/depth/eye.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import { Scene } from '~~/core/rig/scene.ts'
import type { PlayerSnapshot } from '~/player/player.ts'

export class Staged {
  private scene: Scene | null = null
  /** Parts that are shown; null for all. */
  only: ReadonlySet<string> | null = null
  /** How one looks round a piece in depth. */
  look: Look = AHEAD
  /** The scene as it was last updated. */
  current(): Scene | null {
    return this.scene
  }
  private eye: Eye = FLAT
  private looked: Look | null = null
  private seen: Piece['camera'] = null

  protected stage({ program, values, moment }: Pick<PlayerSnapshot, 'program' | 'values' | 'moment'>): Scene {
    if (!this.scene?.adopt(program)) this.scene = new Scene(program)
    const { scene } = this
    scene.only = this.only
    if (this.looked !== this.look || this.seen !== program.piece.camera) {
      this.looked = this.look
      this.seen = program.piece.camera
      this.eye = eyeOf(program.piece, this.look)
    }
    scene.eye = this.eye
    return scene.update(values, moment)
  }
}
