/** Drawing without the workbench: a browser without a window that the prompt starts, which brings the pictures itself. */
import { exportPlan } from '~~/core/formats/export/export-plan.ts'
import type { TextExportRequest } from '~~/core/formats/export/text-exports.ts'
import { carriedPictures } from '~/running/carried.ts'
import { drawFile } from './drawing.ts'
import { rasterized } from './rasterized.ts'

/** @param parts where pieces of the file are sent to, with the place of each behind it */
export async function give(
  asked: TextExportRequest,
  addresses: Readonly<Record<string, string>>,
  tell: (done: number) => void,
  parts: string,
): Promise<void> {
  const lent = {
    pictures: carriedPictures(addresses),
    addresses: () => Promise.resolve(new Map(Object.entries(addresses))),
    rasterize: rasterized,
  }
  await drawFile(asked, exportPlan(asked.piece, asked.wanted), lent, tell, {
    async write(bytes, at) {
      const answer = await fetch(`${parts}${at}`, { method: 'POST', body: bytes })
      if (!answer.ok) throw new Error(await answer.text())
    },
  })
}
