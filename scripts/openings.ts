/**
 * Opens hostile documents in the browser, those that were thought of and made-up ones that are taken: how long until
 * the page answers, and whether anything breaks. `npx jiti scripts/openings.ts [40] [seed] [words]`
 */
import { chromium } from '@playwright/test'
import { readPiece } from '../core/piece/migrate.ts'
import { document } from '../tests/hostile/documents.ts'
import { THOUGHT_OF } from '../tests/hostile/thought.ts'
import { random } from '../tests/random.ts'
import { clear, dataFolder, start, stop } from '../tests/e2e/server.ts'

const count = Number(process.argv[2] ?? 40)
const r = random(Number(process.argv[3] ?? 1))
/** Only those whose name has this in it. */
const only = process.argv[4] ?? ''
/** Milliseconds that the page may be taken up in one go. */
const MOST = 2000

const all: [string, unknown][] = Object.entries(THOUGHT_OF).map(([name, made]) => [name, made()])
for (let n = 0; all.length < count + Object.keys(THOUGHT_OF).length; n++) {
  const made = document(r)
  if (readPiece(made).piece) all.push([`document ${n}`, made])
}

const data = dataFolder()
const server = await start(data)
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM || '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu'],
})
let [broken, slow, opened] = [0, 0, 0]
try {
  for (const [name, made] of all) {
    if (!name.includes(only)) continue
    const answer = await fetch(`${server.url}/api/pieces`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ document: made }),
    })
    if (!answer.ok) {
      if (answer.status >= 500) broken++
      continue
    }
    const { id } = (await answer.json()) as { id: string }
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
    const page = await context.newPage()
    const wrong: string[] = []
    page.on('pageerror', e => wrong.push(String(e)))
    page.on('crash', () => wrong.push('the tab crashed'))
    await page.addInitScript(() => {
      const longest = { ms: 0 }
      new PerformanceObserver(list => {
        for (const e of list.getEntries()) longest.ms = Math.max(longest.ms, e.duration)
      }).observe({ type: 'longtask', buffered: true })
      Object.assign(window, { longest })
    })
    const began = performance.now()
    let there = Infinity
    let longest = Infinity
    try {
      await page.goto(`${server.url}/piece/${id}`)
      await page.waitForFunction(() => 'openTide' in window && globalThis.document.querySelector('canvas'), null, {
        timeout: 30_000,
      })
      there = performance.now() - began
      await page.waitForTimeout(2500)
      page.setDefaultTimeout(30_000)
      longest = await page.locator('body').evaluate(() => (window as unknown as { longest: { ms: number } }).longest.ms)
    } catch (e) {
      wrong.push(String(e).split('\n')[0]!)
    }
    opened++
    if (wrong.length > 0) broken++
    if (longest > MOST) slow++
    console.log(
      `${name}: there after ${Math.round(there)} ms, longest task ${Math.round(longest)} ms${wrong.length > 0 ? `, ${wrong[0]}` : ''}`,
    )
    await context.close()
    await fetch(`${server.url}/api/pieces/${id}`, { method: 'DELETE' })
  }
} finally {
  await browser.close()
  await stop(server)
  clear(data)
}
console.log(`${opened} opened, ${broken} broken, ${slow} with a task of more than ${MOST} ms`)
process.exit(broken + slow > 0 ? 1 : 0)
