/** Draws a piece, flat or in depth: its outlines lie on the graphics card, a table of its instances is sent a frame. */
import { rgbOf } from '~~/core/rig/colour.ts'
import { AHEAD, eyeOf, FLAT, type Eye, type Look } from '~~/core/rig/eye.ts'
import { Plate } from '~~/core/rig/plate.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import { Scene } from '~~/core/rig/scene.ts'
import { Card, type Pictures } from './card.ts'
import { pictureOf } from './pictures.ts'
import { FITTED, type View } from './view.ts'
import type { Snapshot } from '~/player/player.ts'

export class StageRenderer {
  private readonly card: Card
  private readonly plate = new Plate()
  private scene: Scene | null = null
  /** Parts that are shown; null for all. */
  only: ReadonlySet<string> | null = null
  /** The window of the stage that is seen. */
  view: View = FITTED
  /** How one looks round a piece in depth. */
  look: Look = AHEAD
  /** Without its ground. */
  clear = false
  private width = 0
  private eye: Eye = FLAT
  private looked: Look | null = null
  private seen: Piece['camera'] = null

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
    this.card = new Card(canvas, again, pictures)
  }

  /** @param width in real screen pixels, as is `height` */
  resize(width: number, height: number): void {
    this.width = width
    this.canvas.width = width
    this.canvas.height = height
  }

  /** Whether there was more than is drawn. */
  get full(): boolean {
    return this.plate.full
  }

  /** The scene as it was last drawn. */
  current(): Scene | null {
    return this.scene
  }

  draw({ program, values, moment }: Pick<Snapshot, 'program' | 'values' | 'moment'>): void {
    if (this.width === 0) return
    if (!this.scene?.adopt(program)) this.scene = new Scene(program)
    const { scene, plate } = this
    scene.only = this.only
    const { stage } = program.piece
    if (this.looked !== this.look || this.seen !== program.piece.camera) {
      this.looked = this.look
      this.seen = program.piece.camera
      this.eye = eyeOf(program.piece, this.look)
    }
    scene.eye = this.eye
    const pixel = stage.width / this.width / this.view.zoom
    plate.build(scene.update(values, moment), pixel)
    const { lightness, chroma, hue } = stage.background
    const ground = this.clear ? null : rgbOf(lightness, chroma, hue / 360)
    this.card.draw(plate, stage, ground, pixel, scene.eye, this.view)
  }

  dispose(): void {
    this.card.stop()
  }
}
