/**
 * A piece that runs by itself: its program, the one frame loop, the stage's own renderer on a canvas. Nothing here can
 * change the piece but the dials that were lent, within their locks.
 */
import { splitDriveKey } from '~~/core/piece/drive-key.ts'
import { apply } from '~~/core/piece/operation.ts'
import { setDial } from '~~/core/engine/retime.ts'
import { Program } from '~~/core/engine/program.ts'
import { limitToLent, type DialLoan } from '~~/core/piece/lent.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import { momentOfSeconds } from '~~/core/time/moment.ts'
import { fromNumber } from '~~/core/time/rational.ts'
import { Player } from '~/player/player.ts'
import type { Pictures } from '~/stage/card.ts'
import { StageRenderer } from '~/stage/renderer.ts'

export class Runner {
  readonly player: Player
  private program: Program
  private readonly renderer: StageRenderer
  private readonly sized: ResizeObserver

  /**
   * @param canvas lies in a box whose width it takes; as high as the stage asks
   * @param pictures gives pictures by their hash; called again when one has come
   * @throws when the browser has no WebGL 2
   */
  constructor(
    private readonly canvas: HTMLCanvasElement,
    private piece: Piece,
    readonly lent: readonly DialLoan[],
    pictures?: (again: () => void) => Pictures,
  ) {
    this.program = new Program(piece)
    this.player = new Player(this.program)
    const again = () => this.player.refresh()
    try {
      this.renderer = new StageRenderer(canvas, again, pictures?.(again))
    } catch (e) {
      this.player.stop()
      throw e
    }
    this.player.watch(snapshot => this.renderer.draw(snapshot))
    this.sized = new ResizeObserver(() => this.fit())
    this.sized.observe(canvas)
  }

  private fit(): void {
    const { stage } = this.piece
    const ratio = devicePixelRatio || 1
    const width = Math.max(1, Math.round(this.canvas.clientWidth * ratio))
    this.renderer.resize(width, Math.max(1, Math.round((width * stage.height) / stage.width)))
    this.player.refresh()
  }

  /** The piece as it is now, with its dials as they were turned. */
  current(): Piece {
    return this.piece
  }

  seek(seconds: number): void {
    if (Number.isFinite(seconds)) this.player.goto(fromNumber(seconds))
  }

  /** Turns a lent dial as far as it may go, without a jump while it plays. Gives the value it has then. */
  turn(id: string, value: number): number {
    const lent = this.lent.find(l => l.dial === id)
    const dial = this.piece.dials[id]!
    const next = lent ? limitToLent(dial, lent, value) : null
    if (next === null || next === dial.value) return dial.value
    this.run(apply(this.piece, setDial(this.program, id, next, this.player.now(), this.player.playing)))
    return next
  }

  /** Another state of the piece; the moment stays. */
  run(piece: Piece): void {
    this.piece = piece
    this.program = new Program(piece, this.program)
    this.player.run(this.program)
  }

  /**
   * The values of a driven property at a moment, one a copy, as the engine gives them: turns, px, shares of one.
   * @param property as `part.property`, with the names of the piece
   */
  values(property: string, seconds = this.player.now().seconds): number[] {
    const [name, prop] = splitDriveKey(property)
    const part = Object.entries(this.piece.parts).find(([, p]) => p.name === name)?.[0]
    const slot = this.program.slots.get(`${part}.${prop}`)
    if (!slot) throw new Error(`${property} isn’t driven in this piece.`)
    const at = momentOfSeconds(fromNumber(seconds), this.program.measures.frameRate)
    return slot.readers.map(r => this.program.queue.settle(() => r.at(at)))
  }

  dispose(): void {
    this.sized.disconnect()
    this.player.stop()
    this.renderer.dispose()
  }
}
