/**
 * Whether the page's memory stays flat while it plays: `npx jiti scripts/page-heap.ts [minutes 10]` plays the demo, 1,000 drives
 * and 10,000 copies side by side and prints the JavaScript heap of each after garbage collection, once a minute.
 */
import { chromium, type CDPSession } from '@playwright/test'
import type { Piece } from '../core/piece/schema.ts'
import { heavy } from '../demo/heavy.ts'
import { bulbsInAGrid, stored } from './bench/pieces.ts'
import { clear, dataFolder, start, stop } from '../tests/e2e/server.ts'

const minutes = Number(process.argv[2] ?? 10)
const pieces: readonly (readonly [string, Piece | null])[] = [
  ['demo', null],
  ['1,000 drives', heavy(1000)],
  ['10,000 copies', bulbsInAGrid(10_000)],
]
const data = dataFolder()
const server = await start(data)
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM || '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu'],
})

async function megabytes(cdp: CDPSession): Promise<string> {
  for (let k = 0; k < 3; k++) await cdp.send('HeapProfiler.collectGarbage')
  const { usedSize } = await cdp.send('Runtime.getHeapUsage')
  return (usedSize / 1e6).toFixed(1)
}

try {
  const open: { readonly name: string; readonly cdp: CDPSession; readonly now: () => Promise<number> }[] = []
  for (const [name, document] of pieces) {
    const id = document ? await stored(server.url, document) : 'lantern-pier'
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
    const page = await context.newPage()
    await page.goto(`${server.url}/piece/${id}`)
    const now = () => page.evaluate(() => (window as unknown as { openTide: { now: () => number } }).openTide.now())
    await page.locator('canvas').first().waitFor({ timeout: 200_000 })
    await page.locator('[data-handle]').first().waitFor({ timeout: 200_000 })
    open.push({ name, cdp: await context.newCDPSession(page), now })
  }
  for (let minute = 0; minute <= minutes; minute++) {
    const rows = await Promise.all(
      open.map(async ({ name, cdp, now }) => `${name} ${await megabytes(cdp)} MB at ${(await now()).toFixed(0)} s`),
    )
    console.log(`${minute} min: ${rows.join(' · ')}`)
    if (minute < minutes) await new Promise(done => setTimeout(done, 60_000))
  }
} finally {
  await browser.close()
  await stop(server)
  clear(data)
}
