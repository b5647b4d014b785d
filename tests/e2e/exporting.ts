/** What tests do in *Export*, and how they compare what comes of it. */
import type { Page } from '@playwright/test'
import { expect } from './fair.ts'

export const dialog = (page: Page) => page.getByRole('dialog')
export const chip = (page: Page, group: string, name: string) =>
  dialog(page).getByRole('radiogroup', { name: group, exact: true }).getByRole('radio', { name, exact: true }).click()

/** Chooses what is exported. */
export const kind = (page: Page, name: RegExp) => dialog(page).getByRole('button', { name }).click()

/** Gives something out as it is set and takes it away. */
export async function given(page: Page): Promise<Buffer> {
  await dialog(page).getByRole('button', { name: 'Export', exact: true }).click()
  const link = page.getByRole('link', { name: 'Download' })
  await expect(link).toBeVisible({ timeout: 100_000 })
  const [file] = await Promise.all([page.waitForEvent('download'), link.click()])
  const parts: Buffer[] = []
  for await (const part of await file.createReadStream()) parts.push(part as Buffer)
  return Buffer.concat(parts)
}
export const give = (page: Page) =>
  page.getByRole('banner').getByRole('button', { name: 'Export', exact: true }).click()
export async function across(page: Page, width: number): Promise<void> {
  await dialog(page).getByLabel('Pixels wide').fill(String(width))
}

/** How far two pictures differ: the largest difference of a colour, and how many points differ; at their corners the page is round. */
export const apart = (page: Page, a: Buffer, b: Buffer) =>
  page.evaluate(
    async ([a, b]) => {
      const read = async (text: string) => {
        const bytes = Uint8Array.from(atob(text), c => c.charCodeAt(0))
        const bitmap = await createImageBitmap(new Blob([bytes], { type: 'image/png' }))
        const c = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d')!
        c.drawImage(bitmap, 0, 0)
        return c.getImageData(0, 0, bitmap.width, bitmap.height)
      }
      const [p, q] = [await read(a), await read(b)]
      let [most, count, clear] = [0, 0, 0]
      for (let y = 4; y < Math.min(p.height, q.height) - 4; y++)
        for (let x = 4; x < Math.min(p.width, q.width) - 4; x++) {
          const d = Math.max(
            ...[0, 1, 2].map(k => Math.abs(p.data[4 * (y * p.width + x) + k]! - q.data[4 * (y * q.width + x) + k]!)),
          )
          most = Math.max(most, d)
          if (d > 0) count++
          if (q.data[4 * (y * q.width + x) + 3] === 0) clear++
        }
      return { most, count, clear, width: q.width, height: q.height }
    },
    [a.toString('base64'), b.toString('base64')] as const,
  )
