/** Films, packed pictures and stills of a piece, each frame painted one by one. */
import { Program } from '~~/core/engine/program.ts'
import { frameDelay, exportedMoment, type ExportPlan } from '~~/core/formats/export/export-plan.ts'
import type { TextExportRequest } from '~~/core/formats/export/text-exports.ts'
import { shownIn } from '~~/core/formats/piece-file/piece-file.ts'
import type { StreamTargetChunk } from 'mediabunny'
import { painterFor, type Commission, type Page, type Painter } from './painter.ts'
import { Appending, type Sink } from './sink.ts'

/** Seconds from one whole frame of a film to the next. */
export const KEY_EVERY = 2

/** What drawing is lent: pictures by their hash, and the page. */
export interface DrawingHost extends Page {
  readonly pictures: Commission['pictures']
}

/** Frames one by one, each drawn on a canvas. */
export class Frames {
  readonly canvas: OffscreenCanvas
  private readonly program: Program
  private readonly values: Float64Array
  private readonly painter: Painter
  /** A canvas to draw on again; null where the painter's own is good as it is. */
  private readonly flat: OffscreenCanvasRenderingContext2D | null

  constructor(
    private readonly asked: TextExportRequest,
    readonly plan: ExportPlan,
    lent: DrawingHost,
  ) {
    const { piece, wanted } = asked
    const { width, height } = plan
    this.program = new Program(piece)
    this.values = new Float64Array(this.program.size)
    const shown = shownIn(piece)
    this.painter = painterFor({ width, height, seeThrough: wanted.seeThrough, shown, pictures: lent.pictures }, lent)
    // The card's own canvas is read at once; what is averaged or written is drawn on another.
    const readBack = wanted.blur > 1 || wanted.as === 'gif'
    const own = readBack ? null : this.painter.canvas
    this.canvas = own ?? new OffscreenCanvas(width, height)
    this.flat = own ? null : this.canvas.getContext('2d', { willReadFrequently: readBack })
  }

  /** Waits until all pictures of the piece are there, or known to be gone. */
  ready(): Promise<void> {
    return this.painter.ready()
  }

  async draw(frame: number): Promise<void> {
    const { blur } = this.asked.wanted
    const { width, height } = this.canvas
    const sum = blur > 1 ? new Float32Array(width * height * 4) : null
    for (let nth = 0; nth < blur; nth++) {
      const picture = await this.picture(frame, nth, blur)
      if (!this.flat) return
      this.flat.clearRect(0, 0, width, height)
      this.flat.drawImage(picture, 0, 0)
      if (!sum) continue
      const { data } = this.flat.getImageData(0, 0, width, height)
      for (let k = 0; k < sum.length; k++) sum[k]! += data[k]!
    }
    if (!this.flat || !sum) return
    const mean = new ImageData(width, height)
    for (let k = 0; k < sum.length; k++) mean.data[k] = Math.round(sum[k]! / blur)
    this.flat.putImageData(mean, 0, 0)
  }

  private picture(frame: number, nth: number, of: number): ReturnType<Painter['picture']> {
    const { program, values, painter } = this
    const moment = exportedMoment(program.piece, this.plan, frame, nth, of)
    // Everything that a frame needs is worked out, however long it takes.
    program.queue.settle(() => {
      program.moment(moment, values)
      painter.show({ program, values, moment })
    })
    return painter.picture()
  }

  pixels(): Uint8ClampedArray {
    return this.flat!.getImageData(0, 0, this.canvas.width, this.canvas.height).data
  }
}

async function still(frames: Frames, k: number): Promise<Uint8Array<ArrayBuffer>> {
  await frames.draw(k)
  return new Uint8Array(await (await frames.canvas.convertToBlob({ type: 'image/png' })).arrayBuffer())
}

async function packed(frames: Frames, tell: (done: number) => void, sink: Sink): Promise<void> {
  const { Zip, ZipPassThrough } = await import('fflate')
  const out = new Appending(sink)
  let writing = Promise.resolve()
  const zip = new Zip((e, bytes) => {
    if (e) throw e
    writing = writing.then(() => out.write(bytes as Uint8Array<ArrayBuffer>))
  })
  for (let k = 0; k < frames.plan.frames; k++) {
    const file = new ZipPassThrough(`frame-${String(k).padStart(5, '0')}.png`)
    zip.add(file)
    file.push(await still(frames, k), true)
    await writing
    tell(k + 1)
  }
  zip.end()
  await writing
}

async function gif(frames: Frames, tell: (done: number) => void, sink: Sink): Promise<void> {
  const { plan, canvas } = frames
  const { applyPalette, GIFEncoder, quantize } = await import('gifenc')
  const encoder = GIFEncoder()
  const out = new Appending(sink)
  const written = async (): Promise<void> => {
    await out.write(encoder.bytes())
    encoder.stream.reset()
  }
  for (let k = 0; k < plan.frames; k++) {
    await frames.draw(k)
    const pixels = frames.pixels()
    const palette = quantize(pixels, 256, { format: 'rgba4444', oneBitAlpha: true })
    const indices = applyPalette(pixels, palette, 'rgba4444')
    const clear = palette.findIndex(c => c[3] === 0)
    encoder.writeFrame(indices, canvas.width, canvas.height, {
      palette,
      delay: 10 * frameDelay(plan, k),
      transparent: clear >= 0,
      transparentIndex: Math.max(0, clear),
      dispose: clear >= 0 ? 2 : -1,
    })
    await written()
    tell(k + 1)
  }
  encoder.finish()
  await written()
}

async function film(frames: Frames, as: 'webm' | 'mp4', tell: (done: number) => void, sink: Sink): Promise<void> {
  const { plan, canvas } = frames
  if (typeof VideoEncoder === 'undefined')
    throw new Error('This browser can’t encode films. Export a GIF or PNGs instead.')
  const { CanvasSource, Mp4OutputFormat, Output, QUALITY_HIGH, StreamTarget, WebMOutputFormat } =
    await import('mediabunny')
  const target = new StreamTarget(
    new WritableStream({ write: ({ data, position }: StreamTargetChunk) => sink.write(data, position) }),
    { chunked: true, chunkSize: 2 ** 20 },
  )
  const output = new Output({ format: as === 'webm' ? new WebMOutputFormat() : new Mp4OutputFormat(), target })
  const source = new CanvasSource(canvas, {
    codec: as === 'webm' ? 'vp9' : 'avc',
    bitrate: QUALITY_HIGH,
    keyFrameInterval: KEY_EVERY,
    sizeChangeBehavior: 'deny',
  })
  const rate = Number(plan.rate.n) / Number(plan.rate.d)
  output.addVideoTrack(source, { frameRate: rate })
  await output.start()
  for (let k = 0; k < plan.frames; k++) {
    await frames.draw(k)
    // The encoder works beside the drawing of the next ones; it is waited for when it is some frames behind.
    await source.add(k / rate, 1 / rate)
    tell(k + 1)
  }
  await output.finalize()
}

/** What is drawn of a piece, as a file, piece by piece. @throws with a sentence when it cannot be made */
export async function drawFile(
  asked: TextExportRequest,
  plan: ExportPlan,
  lent: DrawingHost,
  tell: (done: number) => void,
  sink: Sink,
): Promise<void> {
  const { as } = asked.wanted
  const frames = new Frames(asked, plan, lent)
  await frames.ready()
  if (as === 'png') await sink.write(await still(frames, 0), 0)
  else if (as === 'zip') await packed(frames, tell, sink)
  else if (as === 'gif') await gif(frames, tell, sink)
  else await film(frames, as as 'webm' | 'mp4', tell, sink)
}
