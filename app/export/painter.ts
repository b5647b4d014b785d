/** How frames are painted: by the graphics card, or where a worker has none, as drawings that the page makes pictures of. */
import { sceneSvg } from '~~/core/formats/svg.ts'
import type { PlayerSnapshot } from '~/player/player.ts'
import type { Pictures } from '~/stage/card.ts'
import { StageRenderer } from '~/stage/renderer.ts'
import { Staged } from '~/stage/staged.ts'

type Shown = Pick<PlayerSnapshot, 'program' | 'values' | 'moment'>

export interface Painter {
  /** What it paints on, where that is one canvas. */
  readonly canvas: OffscreenCanvas | null
  /** Done when all that is brought for it is there. */
  ready(): Promise<void>
  /** Shows a moment. Asked again until all that it needs is worked out. */
  show(shown: Shown): void
  /** The picture of what was shown last; good until the next one. */
  picture(): Promise<OffscreenCanvas | ImageBitmap> | OffscreenCanvas
}

/** What a painter is asked for. */
export interface Commission {
  /** In pixels, as is `height`. */
  readonly width: number
  readonly height: number
  /** Without the stage's background. */
  readonly seeThrough: boolean
  /** Hashes of all pictures that are shown. */
  readonly shown: readonly string[]
  readonly pictures: (again: () => void) => Pictures
}

/** What the page lends to a worker that has no graphics card. */
export interface Page {
  /** Addresses of the piece's pictures by their hash, good inside of a drawing. */
  readonly addresses: () => Promise<ReadonlyMap<string, string>>
  /** A drawing in pixels. */
  readonly rasterize: (svg: string, width: number, height: number) => Promise<ImageBitmap>
}

/** @param page asked only where there is no graphics card */
export function painterFor(wanted: Commission, page: Page): Painter {
  const canvas = new OffscreenCanvas(wanted.width, wanted.height)
  try {
    return new CardPainter(canvas, wanted)
  } catch {
    return new DrawnPainter(wanted, page)
  }
}

class CardPainter implements Painter {
  private readonly renderer: StageRenderer
  private readonly known: Pictures
  private come: (() => void) | null = null

  /** @throws without WebGL 2 */
  constructor(
    readonly canvas: OffscreenCanvas,
    private readonly wanted: Commission,
  ) {
    const { width, height, seeThrough } = wanted
    this.known = wanted.pictures(() => this.come?.())
    this.renderer = new StageRenderer(canvas, () => {}, this.known)
    this.renderer.clear = seeThrough
    this.renderer.resize(width, height)
  }

  /** All pictures are there, or known to be gone. */
  async ready(): Promise<void> {
    for (const hash of this.wanted.shown) {
      while (this.known(hash) === 'coming') await new Promise<void>(done => (this.come = done))
    }
  }

  show(shown: Shown): void {
    this.renderer.draw(shown)
  }

  picture(): OffscreenCanvas {
    return this.canvas
  }
}

/** Slower, and without a graphics card: a worker can't make a picture of an SVG, its page can. */
class DrawnPainter extends Staged implements Painter {
  readonly canvas = null
  private known: ReadonlyMap<string, string> = new Map()
  private svg = ''
  private last: ImageBitmap | null = null

  constructor(
    private readonly wanted: Commission,
    private readonly page: Page,
  ) {
    super()
  }

  async ready(): Promise<void> {
    this.known = await this.page.addresses()
  }

  show(shown: Shown): void {
    this.svg = sceneSvg(this.stage(shown), this.known, { ground: !this.wanted.seeThrough, longest: Infinity })
  }

  async picture(): Promise<ImageBitmap> {
    const { width, height } = this.wanted
    this.last?.close()
    return (this.last = await this.page.rasterize(this.svg, width, height))
  }
}
