/** A worker that exports, and what its page does for it. */
import type { ExportReply } from './export.worker.ts'
import { rasterized } from './rasterized.ts'

/** What the page answers a worker that asked for a drawing in pixels. */
export type Rasterized = { readonly picture: ImageBitmap } | { readonly failed: string }

/**
 * @param told what it tells, but for what the page does for it
 * @param gaveUp when the browser ended it
 */
export function hired(
  told: (it: Exclude<ExportReply, { is: 'svg' }>) => void,
  gaveUp: (e: ErrorEvent) => void,
): Worker {
  const worker = new Worker(new URL('./export.worker.ts', import.meta.url), { type: 'module' })
  worker.onmessage = ({ data }: MessageEvent<ExportReply>) => {
    if (data.is !== 'svg') return told(data)
    void rasterized(data.svg, data.width, data.height).then(
      picture => worker.postMessage({ picture } satisfies Rasterized, { transfer: [picture] }),
      (e: unknown) => worker.postMessage({ failed: String(e) } satisfies Rasterized),
    )
  }
  worker.onerror = gaveUp
  return worker
}
