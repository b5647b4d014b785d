/**
 * What the page costs the processor: opening pieces of many drives, a frame while they play, dragging a number, and
 * the bytes of a first load. `npx jiti scripts/page-cost.ts [folder of another built Open Tide] [drives] [copies]`, to compare.
 */
import { resolve } from 'node:path'
import { chromium, type CDPSession, type Page } from '@playwright/test'
import type { Piece } from '../core/piece/schema.ts'
import { heavy } from '../demo/heavy.ts'
import { bulbsInAGrid, stored } from './bench/pieces.ts'
import { clear, dataFolder, start, stop } from '../tests/e2e/server.ts'

const root = resolve(process.argv[2] ?? '.')

const data = dataFolder()
const server = await start(data, root)
const { url } = server
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM || '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu'],
})

/** Seconds of the main thread so far: in all, in scripts, in layout and styles. */
async function spent(cdp: CDPSession): Promise<{ all: number; script: number; layout: number }> {
  const { metrics } = await cdp.send('Performance.getMetrics')
  const of = (name: string) => metrics.find(m => m.name === name)!.value
  return {
    all: of('TaskDuration'),
    script: of('ScriptDuration'),
    layout: of('LayoutDuration') + of('RecalcStyleDuration'),
  }
}
const ms = (s: number) => `${(1000 * s).toFixed(1)} ms`

/** Milliseconds of script of a frame while it plays, and of layout. */
async function frames(page: Page, cdp: CDPSession, count: number): Promise<{ script: number; layout: number }> {
  const before = await spent(cdp)
  await page.evaluate(
    n =>
      new Promise<void>(done => {
        const step = () => (n-- > 0 ? requestAnimationFrame(step) : done())
        step()
      }),
    count,
  )
  const after = await spent(cdp)
  return { script: (after.script - before.script) / count, layout: (after.layout - before.layout) / count }
}

/** Counts the frames that are shown from now on. */
const countFrames = (page: Page) =>
  page.evaluate(() => {
    const seen = window as unknown as { framesSeen: number }
    const before = seen.framesSeen
    seen.framesSeen = 0
    const step = () => {
      seen.framesSeen++
      requestAnimationFrame(step)
    }
    if (before === undefined) requestAnimationFrame(step)
  })
const framesSeen = (page: Page) => page.evaluate(() => (window as unknown as { framesSeen: number }).framesSeen)

try {
  const open = async (document: Piece | null, counts: boolean) => {
    const id = document ? await stored(url, document) : 'lantern-pier'
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
    const page = await context.newPage()
    const cdp = await context.newCDPSession(page)
    let bytes = 0
    await cdp.send('Network.enable')
    cdp.on('Network.loadingFinished', e => (bytes += e.encodedDataLength))
    await cdp.send('Performance.enable', { timeDomain: 'threadTicks' })
    await page.goto(`${url}/piece/${id}`)
    await page.waitForFunction(
      () =>
        (window as unknown as { openTide?: { now: () => number } }).openTide?.now !== undefined &&
        globalThis.document.querySelector('canvas'),
      null,
      { timeout: 200_000 },
    )
    await page.waitForFunction(
      () => (window as unknown as { openTide: { now: () => number } }).openTide.now() > 0.02,
      null,
      { timeout: 200_000 },
    )
    const opened = await spent(cdp)
    console.log(
      `  opened: ${ms(opened.all)} in all, ${ms(opened.script)} script, ${ms(opened.layout)} layout${counts ? `, ${Math.round(bytes / 1000)} kB` : ''}`,
    )
    await page.waitForTimeout(3000)
    const frame = await frames(page, cdp, 60)
    console.log(`  a frame: ${ms(frame.script)} script, ${ms(frame.layout)} layout`)
    const handle = page.locator('[data-handle]').first()
    const box = (await handle.boundingBox())!
    await page.mouse.move(box.x + 4, box.y + 4)
    await page.mouse.down()
    await page.mouse.move(box.x + 12, box.y + 4)
    await frames(page, cdp, 1)
    await countFrames(page)
    let moved = 0
    /** Moves on by 3 pixels each time, so that no text repeats. Script per move, without the frames that are drawn meanwhile. */
    const drag = async (moves: number) => {
      const still = await frames(page, cdp, 60)
      const shownBefore = await framesSeen(page)
      const before = await spent(cdp)
      for (let k = 0; k < moves; k++) await page.mouse.move(box.x + 12 + 3 * ++moved, box.y + 4)
      const after = await spent(cdp)
      const shown = (await framesSeen(page)) - shownBefore
      const stillAfter = await frames(page, cdp, 60)
      const frame = (still.script + stillAfter.script) / 2
      return `${ms((after.script - before.script - shown * frame) / moves)} (${shown} frames of ${ms(frame)} besides, ${ms((after.all - before.all) / moves)} of everything)`
    }
    console.log(`  dragging, script a move: the first 40 ${await drag(40)}`)
    console.log(`                           160 more ${await drag(160)}`)
    await page.mouse.up()
    await context.close()
  }
  console.log('demo')
  await open(null, true)
  for (const count of (process.argv[3] ?? '300,1000').split(',').filter(Boolean).map(Number)) {
    console.log(`${count} drives`)
    await open(heavy(count), false)
  }
  for (const count of (process.argv[4] ?? '250,1000,10000').split(',').filter(Boolean).map(Number)) {
    console.log(`${count} copies, four driven`)
    await open(bulbsInAGrid(count), false)
  }
} finally {
  await browser.close()
  await stop(server)
  clear(data)
}
