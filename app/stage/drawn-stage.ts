/** The stage where there is no graphics card to be had: the moment as a drawing, some times a second. */
import { sceneSvg } from '~~/core/formats/svg.ts'
import type { PlayerSnapshot } from '~/player/player.ts'
import { ASSETS } from './pictures.ts'
import { Staged } from './staged.ts'
import { FITTED, type View } from './view.ts'

/** Milliseconds between two drawings, at least; and how many times as long as one took. */
const BETWEEN = 120
const REST = 3

export class DrawnStage extends Staged {
  view: View = FITTED
  readonly full = false
  private waiting: ReturnType<typeof setTimeout> | undefined
  private next = 0

  /** @param again asks for the moment anew, once a drawing is due that was passed over */
  constructor(
    private readonly room: HTMLElement,
    private readonly again: () => void,
  ) {
    super()
  }

  resize(): void {}

  draw(snapshot: Pick<PlayerSnapshot, 'program' | 'values' | 'moment'>): void {
    const scene = this.stage(snapshot)
    const now = performance.now()
    if (now < this.next) {
      this.waiting ??= setTimeout(() => {
        this.waiting = undefined
        this.again()
      }, this.next - now)
      return
    }
    const { piece } = snapshot.program
    const { width, height } = piece.stage
    const { zoom, x, y } = this.view
    const addresses = new Map(Object.keys(piece.assets).map(hash => [hash, `${ASSETS}/${hash}`]))
    // The drawing is ours from end to end: numbers, colours and hashes, no words of the piece.
    this.room.innerHTML = sceneSvg(scene, addresses, { window: { x, y, width: width / zoom, height: height / zoom } })
    const svg = this.room.firstElementChild!
    svg.setAttribute('width', '100%')
    svg.setAttribute('height', '100%')
    this.next = performance.now() + Math.max(BETWEEN, REST * (performance.now() - now))
  }

  dispose(): void {
    clearTimeout(this.waiting)
    this.room.replaceChildren()
  }
}
