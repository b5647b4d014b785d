/** Draws a piece, flat or in depth: its outlines lie on the graphics card, a table of its instances is sent a frame. */
import { rgbOf } from '~~/core/rig/colour.ts'
import { StageMesh } from '~~/core/rig/stage-mesh/stage-mesh.ts'
import { GraphicsCard, type Pictures } from './card.ts'
import { pictureOf } from './pictures.ts'
import { Staged } from './staged.ts'
import { FITTED, type View } from './view.ts'
import type { PlayerSnapshot } from '~/player/player.ts'

export class StageRenderer extends Staged {
  private readonly card: GraphicsCard
  private readonly mesh = new StageMesh()
  /** The window of the stage that is seen. */
  view: View = FITTED
  /** Without its ground. */
  clear = false
  private width = 0

  /**
   * @param again asks for the picture anew, when the graphics card had lost it
   * @param pictures gives pictures by their hash
   * @throws when the browser has no WebGL 2
   */
  constructor(
    private readonly canvas: HTMLCanvasElement | OffscreenCanvas,
    again: () => void,
    pictures: Pictures = hash => pictureOf(hash, again),
  ) {
    super()
    this.card = new GraphicsCard(canvas, again, pictures)
  }

  /** @param width in real screen pixels, as is `height` */
  resize(width: number, height: number): void {
    this.width = width
    this.canvas.width = width
    this.canvas.height = height
  }

  /** Whether there was more than is drawn. */
  get full(): boolean {
    return this.mesh.full
  }

  draw(snapshot: Pick<PlayerSnapshot, 'program' | 'values' | 'moment'>): void {
    if (this.width === 0) return
    const { stage } = snapshot.program.piece
    const scene = this.stage(snapshot)
    const pixel = stage.width / this.width / this.view.zoom
    this.mesh.build(scene, pixel)
    const { lightness, chroma, hue } = stage.background
    const ground = this.clear ? null : rgbOf(lightness, chroma, hue / 360)
    this.card.draw(this.mesh, stage, ground, pixel, scene.eye, this.view)
  }

  dispose(): void {
    this.card.stop()
  }
}
