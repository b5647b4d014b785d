/** What every test needs: a running server, a page that may neither complain nor call anywhere else. */
import { test as base, expect, type Locator, type Page } from '@playwright/test'
import { lanternPier } from '../../demo/lantern-pier.ts'
import { clear, dataFolder, start, stop, type Running } from './server.ts'

interface Worker {
  server: Running
}
interface Each {
  /** Milliseconds between two frames of the pages, at least, while no hand is on it and while one is: 0 for as many as there are. */
  gap: readonly [number, number]
  watched: void
}

/**
 * Frames come less often than the machine could draw them, the more so while no hand is on the page: a card made of
 * software takes one and a half of two cores for as many as it can, and all that a test waits for waits for that.
 * Whoever waits for a frame sleeps until then: to ask at every refresh of the screen whether it is time draws it each time.
 */
function fewerFrames([resting, held]: readonly [number, number]): void {
  const real = window.requestAnimationFrame
  let [last, touched, taken, timer] = [-Infinity, -Infinity, 0, 0]
  let [waiting, running] = [new Map<number, FrameRequestCallback>(), new Map<number, FrameRequestCallback>()]
  const due = () => last + (performance.now() - touched > 500 ? resting : held)
  const frame = (now: number) => {
    ;[waiting, running, last, timer] = [new Map(), waiting, now, 0]
    // What one of them cancels is not called any more.
    for (const call of running.values()) call(now)
  }
  const wake = () => {
    clearTimeout(timer)
    timer = window.setTimeout(() => real.call(window, frame), Math.max(0, due() - performance.now()))
  }
  for (const type of ['pointerdown', 'pointermove', 'pointerup', 'keydown', 'keyup', 'wheel', 'input'])
    window.addEventListener(
      type,
      () => {
        const rested = performance.now() - touched > 500
        touched = performance.now()
        if (rested && timer) wake()
      },
      { capture: true, passive: true },
    )
  window.requestAnimationFrame = call => {
    waiting.set(++taken, call)
    if (!timer) wake()
    return taken
  }
  window.cancelAnimationFrame = id => void (waiting.delete(id) || running.delete(id))
}

/** Warnings of a browser whose graphics card is made of software, and of canvases that tests read: they say nothing of the page. */
const OF_THE_MACHINE = /GPU stall due to ReadPixels|software|swiftshader|GroupMarkerNotSet|willReadFrequently/i

export const test = base.extend<Each, Worker>({
  server: [
    async ({}, use) => {
      const folder = dataFolder()
      const server = await start(folder)
      await use(server)
      await stop(server)
      clear(folder)
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ server }, use) => use(server.url),
  gap: [[300, 75], { option: true }],
  watched: [
    async ({ context, gap }, use) => {
      if (gap[0] > 0) await context.addInitScript(fewerFrames, gap)
      const wrong: string[] = []
      context.on('console', m => {
        if (m.type() === 'error' || (m.type() === 'warning' && !OF_THE_MACHINE.test(m.text()))) wrong.push(m.text())
      })
      context.on('weberror', e => wrong.push(String(e.error())))
      context.on('request', r => {
        if (!/^(http:\/\/127\.0\.0\.1:|data:|blob:|file:)/.test(r.url())) wrong.push(`request to ${r.url()}`)
      })
      await use()
      // A refused save and a missing piece are told by status; the browser notes them itself.
      expect(wrong.filter(w => !/status of (401|403|404|409|413|422|503|507)|net::ERR_FAILED/.test(w))).toEqual([])
    },
    { auto: true },
  ],
})
export { expect }

const RIDES = lanternPier(false)

declare global {
  interface Window {
    openTide: { values: (key: string, seconds: number) => number[]; now: () => number; settled: () => Promise<void> }
  }
}

export const DEMO = '/piece/lantern-pier'

/** The values of a drive at a moment, as the running page works them out. */
export const values = (page: Page, key: string, seconds: number): Promise<number[]> =>
  page.evaluate(([k, s]) => window.openTide.values(k, s), [key, seconds] as const)
export const now = (page: Page): Promise<number> => page.evaluate(() => window.openTide.now())

/** Waits until the page's insight worker has answered all questions. */
export const settled = (page: Page): Promise<void> => page.evaluate(() => window.openTide.settled())

/** The key of a drive, from its part and property as they are shown. */
export const keyOf = async (page: Page, label: string): Promise<string> =>
  (await page.getByRole('article', { name: label, exact: true }).getAttribute('data-drive'))!

export const formula = (page: Page, label: string): Locator =>
  page.getByRole('textbox', { name: `Formula of ${label}`, exact: true })

/** An entry of the tide table, brought into sight, where it stands in full. */
export async function entry(page: Page, label: string): Promise<Locator> {
  const it = page.getByRole('article', { name: label, exact: true })
  await it.scrollIntoViewIfNeeded()
  await expect(it.locator('canvas')).toBeVisible()
  return it
}

/** A number of a sentence, typed. */
export async function type(page: Page, entry: string, label: string, value: string): Promise<void> {
  await page.getByRole('article', { name: entry, exact: true }).getByRole('spinbutton', { name: label }).focus()
  await page.keyboard.press('Enter')
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.type(value)
  await page.keyboard.press('Enter')
}

/** Another text for a formula, typed and run. */
export async function write(page: Page, label: string, text: string): Promise<void> {
  await entry(page, label)
  // Not by a press, which may hit a number, a name or an easing.
  await formula(page, label).focus()
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.insertText(text)
  await page.keyboard.press('Enter')
}

/** Waits until what was done last is on the stage. */
export const drawn = (page: Page): Promise<number> =>
  page.evaluate(() => new Promise(done => requestAnimationFrame(() => requestAnimationFrame(done))))

/** Waits until an element has the same position in two frames. */
export async function atRest(it: Locator): Promise<void> {
  const where = async () => JSON.stringify(await it.boundingBox())
  await expect
    .poll(async () => {
      const before = await where()
      await drawn(it.page())
      return (await where()) === before
    })
    .toBe(true)
}

export async function goTo(page: Page, time: string): Promise<void> {
  await page.getByRole('button', { name: 'Current time, press to type another' }).click()
  await page.getByRole('textbox', { name: 'Go to time' }).fill(time)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('textbox', { name: 'Go to time' })).toHaveCount(0)
  await drawn(page)
}

export async function halt(page: Page): Promise<void> {
  const button = page.getByRole('button', { name: 'Pause', exact: true })
  if (await button.isVisible()) await button.click()
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
}

/** No change of pace makes a value jump, also while it stands still. */
export async function keepAlways(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^Smooth tuning/ }).click()
  await page.getByRole('option', { name: /Smooth tuning always/ }).click()
}

/** Drags the n-th number of a formula sideways by some pixels, in steps. */
export async function dragNumber(page: Page, label: string, nth: number, by: number): Promise<void> {
  await entry(page, label)
  const handle = formula(page, label).locator(`[data-handle="${nth}"]`).first()
  await handle.scrollIntoViewIfNeeded()
  const box = (await handle.boundingBox())!
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x + 4 * Math.sign(by), y)
  await page.mouse.move(x + 4 * Math.sign(by) + by, y, { steps: 8 })
  await page.mouse.up()
}

export async function saved(page: Page): Promise<void> {
  await expect(page.locator('[data-saving]')).toHaveText(/^saved/)
}

/**
 * A fresh copy of the demo, so that a test leaves the demo itself alone; unless it must be `whole` only its rides, which
 * open and draw in half the time.
 */
export async function freshFair(page: Page, whole?: 'whole'): Promise<string> {
  const data = whole ? { copyOf: 'lantern-pier' } : { document: { ...RIDES, title: 'Lantern Pier copy' } }
  const answer = await page.request.post('/api/pieces', { data })
  expect(answer.status()).toBe(201)
  const { id } = (await answer.json()) as { id: string }
  await page.goto(`/piece/${id}`)
  await expect(page.getByRole('article', { name: 'Carousel rotation', exact: true })).toBeVisible()
  return id
}

/** A curve, cue, clock or signal, made from the table's own menu. */
export async function make(page: Page, kind: string): Promise<void> {
  await page.getByRole('button', { name: 'New…' }).click()
  await page.getByRole('menuitem', { name: new RegExp(`^${kind} `) }).click()
}
