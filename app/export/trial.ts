/** What will come out, tried out before: the first and the last frame, and about how many bytes the file will have. */
import { formatOf } from '~~/core/formats/export/formats.ts'
import type { ExportPlan } from '~~/core/formats/export/export-plan.ts'
import type { TextExportRequest } from '~~/core/formats/export/text-exports.ts'
import { over, rational, toNumber } from '~~/core/time/rational.ts'
import { drawFile, Frames, KEY_EVERY, type DrawingHost } from './drawing.ts'

/** Px across of the two frames. */
const WIDE = 560
/** Frames that are made for the estimate. */
const SAMPLE = 4
/** Pixels of a frame from which on nothing is tried out: it would take too long. */
const LARGEST = 4_000_000

export interface Trial {
  readonly first: ImageBitmap
  readonly last: ImageBitmap
  /** Bytes of the whole file, near enough; null where that is not tried out. */
  readonly bytes: number | null
}

export async function trialOf(asked: TextExportRequest, plan: ExportPlan, lent: DrawingHost): Promise<Trial> {
  const width = Math.min(WIDE, plan.width)
  const small = { ...plan, width, height: Math.max(1, Math.round((width * plan.height) / plan.width)) }
  const frames = new Frames({ ...asked, wanted: { ...asked.wanted, blur: 1, as: 'png' } }, small, lent)
  await frames.ready()
  const picture = async (frame: number) => {
    await frames.draw(frame)
    return createImageBitmap(frames.canvas)
  }
  const [first, last] = [await picture(0), await picture(plan.frames - 1)]
  return { first, last, bytes: await bytesOf(asked, plan, lent) }
}

async function bytesOf(asked: TextExportRequest, plan: ExportPlan, lent: DrawingHost): Promise<number | null> {
  const { as, blur } = asked.wanted
  if (!formatOf(as).drawn || plan.width * plan.height * blur > LARGEST) return null
  const made = async (of: Partial<ExportPlan>): Promise<number> => {
    let bytes = 0
    await drawFile(asked, { ...plan, ...of }, lent, () => {}, {
      write: (part, at) => void (bytes = Math.max(bytes, at + part.length)),
    })
    return bytes
  }
  const { frames } = plan
  const sample = Math.min(SAMPLE, frames)
  if (as === 'webm' || as === 'mp4') {
    // Whole frames come now and then, and what has changed between them.
    const [one, some] = [await made({ frames: 1 }), await made({ frames: sample })]
    const whole = Math.ceil(toNumber(plan.span) / KEY_EVERY)
    return Math.round(whole * one + (sample > 1 ? ((frames - whole) * (some - one)) / (sample - 1) : 0))
  }
  // Frames from all over the span.
  const rate = over(rational(BigInt(sample)), plan.span)
  return Math.round(((await made({ frames: sample, rate })) / sample) * frames)
}
