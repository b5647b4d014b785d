/** The scope: the curve in hand, its handles and its numbers. Needs B3, H1, H2. */
import type { Page } from '@playwright/test'
import {
  dragNumber,
  drawn,
  expect,
  formula,
  freshFair,
  goTo,
  halt,
  keepAlways,
  keyOf,
  saved,
  test,
  values,
  write,
} from './fair.ts'
import { pick } from './pick.ts'

/** Pulls a handle by some pixels. */
async function pull(page: Page, name: string, dx: number, dy: number): Promise<void> {
  const bead = page.locator(`[data-handle-name="${name}"]`)
  await expect(bead).toBeVisible()
  // Paper under the hand stands still.
  await page.locator('[data-scope]').hover({ position: { x: 80, y: 60 } })
  await drawn(page)
  const box = (await bead.locator('.bead-mark').boundingBox())!
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x + dx / 2, y + dy / 2)
  await page.mouse.move(x + dx, y + dy, { steps: 4 })
  await page.mouse.up()
}
const numbers = (text: string | null) => [...text!.matchAll(/-?\d+(?:\.\d+)?/g)].map(m => Number(m[0]))

test('B3, H1: a crest is pulled up and the amplitude follows; crests are pulled apart and the period follows', async ({
  page,
}) => {
  await freshFair(page)
  await halt(page)
  await goTo(page, '3')
  await write(page, 'Canopy rotation', 'sine(every: 2s, amp: 24deg, phase: 0deg)')
  const entry = page.getByRole('article', { name: 'Canopy rotation', exact: true })
  await entry.locator('canvas').click()
  await pull(page, 'amp', 0, 30)
  const [every, amp] = numbers(await formula(page, 'Canopy rotation').textContent())
  expect(every).toBe(2)
  expect(amp).toBeLessThan(20)
  expect(amp).toBeGreaterThan(4)
  const key = await keyOf(page, 'Canopy rotation')
  expect((await values(page, key, 0.5))[0]! * 360).toBeCloseTo(amp!, 9)
  // One drag is one undo step.
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(formula(page, 'Canopy rotation')).toHaveText('sine(every: 2s, amp: 24deg, phase: 0deg)')
  // 104 px are a second: half a second further apart.
  await pull(page, 'every', 52, 0)
  expect(numbers(await formula(page, 'Canopy rotation').textContent())[0]).toBeCloseTo(2.5, 1)
  await page.getByRole('button', { name: 'Undo' }).first().click()
  // A quarter of a second later is an eighth of a turn back.
  await pull(page, 'phase', 26, 0)
  expect(numbers(await formula(page, 'Canopy rotation').textContent())[2]).toBeCloseTo(-45, 0)
  await saved(page)
})

test('by keys: a handle is stepped, what was is seen as a ghost, values are read and pinned', async ({ page }) => {
  await freshFair(page)
  await halt(page)
  await goTo(page, '0.5')
  await write(page, 'Canopy rotation', 'sine(every: 2s, amp: 24deg)')
  await page.getByRole('tab', { name: 'Scope' }).click()
  const side = page.getByRole('group', { name: 'Values' })
  await expect(side.locator('[data-at-nib]')).toHaveText('24.000°')
  await expect(side.locator('[data-swing]')).toHaveText('48°')
  await side.getByRole('button', { name: 'Pin this moment' }).click()
  await expect(side.locator('[data-pinned]')).toHaveText(/0\.5 s\s*24\.000°/)
  await page.locator('[data-handle-name="amp"]').focus()
  await page.keyboard.press('Shift+ArrowUp')
  const [, amp] = numbers(await formula(page, 'Canopy rotation').textContent())
  expect(amp).toBeGreaterThan(24)
  await expect(side.locator('[data-pinned]')).toContainText(`${amp!.toFixed(3)}°`)
  // The curve before the change is on the paper, and G takes it off.
  const paper = page.locator('[data-scope] canvas')
  const picture = () => drawn(page).then(() => paper.evaluate((c: HTMLCanvasElement) => c.toDataURL()))
  const haunted = await picture()
  await page.locator('body').press('g')
  await expect(page.getByRole('button', { name: 'ghost' })).toHaveAttribute('aria-pressed', 'false')
  await expect.poll(picture).not.toBe(haunted)
  // Time and value are zoomed and fitted again.
  const plain = await picture()
  for (let n = 0; n < 3; n++) await page.getByRole('button', { name: 'More time' }).click()
  await expect.poll(picture).not.toBe(plain)
  for (const name of ['speed', 'acceleration', 'value']) {
    const before = await picture()
    await page.getByRole('button', { name, exact: true }).click()
    await expect.poll(picture).not.toBe(before)
  }
  await page.getByRole('button', { name: 'fit', exact: true }).click()
  await expect.poll(picture).toBe(plain)
})

test('a period pulled apart never makes the value leap, and far sums do not hold the page up', async ({ page }) => {
  await freshFair(page)
  await halt(page)
  await keepAlways(page)
  await goTo(page, '1.3')
  await write(page, 'Canopy rotation', 'sine(every: 4s, amp: 24deg)')
  await page.getByRole('article', { name: 'Canopy rotation', exact: true }).locator('canvas').click()
  const nib = page.locator('[data-at-nib]')
  await expect(nib).toHaveText(/^2\d\.\d{3}°$/)
  const before = (await nib.textContent())!
  await page.getByRole('button', { name: 'More time' }).click()
  await pull(page, 'every', 40, 0)
  await expect(formula(page, 'Canopy rotation')).not.toHaveText(/every: 4s/)
  await expect(nib).toHaveText(before)
  // Handles of what must be added up first come when it is there.
  await write(page, 'Canopy rotation', 'accumulate(max(0, noise(2Hz)) * 20deg/s) + sine(every: 2s, amp: 5deg)')
  await goTo(page, '900')
  await expect(page.locator('[data-working]')).toHaveCount(0, { timeout: 30000 })
  await expect(page.locator('[data-handle-name="freq"]')).toBeVisible()
  await pick(page.getByRole('combobox', { name: 'Handles of' }), { label: 'sine(every: 2s, amp: 5deg)' })
  await expect(page.locator('[data-handle-name="amp"]')).toBeVisible()
})

test('a number behind a minus keeps its sign when it is dragged', async ({ page }) => {
  await freshFair(page)
  await halt(page)
  const field = formula(page, 'Canopy rotation')
  await expect(field).toHaveText('carousel.rotation * -0.3')
  await dragNumber(page, 'Canopy rotation', 0, 40)
  const [ratio] = numbers(await field.textContent())
  expect(ratio).toBeLessThan(0)
  expect(ratio).not.toBe(-0.3)
})

test('H1: a crest is pulled, and text, curve, picture and limits follow before the next frame is over', async ({
  page,
}) => {
  await freshFair(page)
  await halt(page)
  await goTo(page, '3')
  const was = 'sine(every: 2s, amp: 24deg, phase: 0deg)'
  await write(page, 'Canopy rotation', was)
  await page.getByRole('article', { name: 'Canopy rotation', exact: true }).locator('canvas').click()
  await expect(page.locator('[data-handle-name="amp"]')).toBeVisible()
  const bead = (await page.locator('[data-handle-name="amp"]').boundingBox())!
  // What happens is written down in its order: a move of the pointer, a frame, what was written and drawn.
  await page.evaluate(() => {
    const log: string[] = []
    Object.assign(window, { happened: log })
    addEventListener('pointermove', () => log.push('move'), true)
    const text = document.querySelector('[data-drive].border-sea .cm-content')!
    new MutationObserver(() => log.push('text')).observe(text, { subtree: true, childList: true, characterData: true })
    const step = () => {
      log.push('frame')
      requestAnimationFrame(step)
    }
    requestAnimationFrame(step)
    const draw = WebGL2RenderingContext.prototype.drawElements
    WebGL2RenderingContext.prototype.drawElements = function (...a) {
      log.push('picture')
      return draw.apply(this, a)
    }
    const paper = document.querySelector<HTMLCanvasElement>('[data-scope] canvas')!
    const clear = CanvasRenderingContext2D.prototype.clearRect
    CanvasRenderingContext2D.prototype.clearRect = function (...a) {
      if (this.canvas === paper) log.push('curve')
      return clear.apply(this, a)
    }
    const says = CanvasRenderingContext2D.prototype.fillText
    CanvasRenderingContext2D.prototype.fillText = function (...a) {
      if (this.canvas === paper && a[0].startsWith('never above')) log.push('limits')
      return says.apply(this, a)
    }
  })
  const [x, y] = [bead.x + bead.width / 2, bead.y + bead.height / 2]
  await page.mouse.move(x, y)
  await page.mouse.down()
  for (let k = 1; k <= 8; k++) {
    await page.mouse.move(x, y + 4 * k)
    await page.waitForTimeout(120)
  }
  await page.mouse.up()
  const happened = await page.evaluate(() => (window as unknown as { happened: string[] }).happened)
  const moves = happened.flatMap((h, i) => (h === 'move' ? [i] : []))
  let followed = 0
  for (const [n, at] of moves.entries()) {
    const until = moves[n + 1] ?? happened.length
    const after = happened.slice(at + 1, until)
    if (!after.includes('text')) continue
    followed++
    // Up to the second frame that is told: the first may have been begun already.
    const frames = after.flatMap((h, i) => (h === 'frame' ? [i] : []))
    const soon = after.slice(0, frames[1] ?? after.length)
    for (const what of ['text', 'curve', 'picture', 'limits']) expect(soon, `after move ${n}`).toContain(what)
  }
  expect(followed).toBeGreaterThan(5)
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(formula(page, 'Canopy rotation')).toHaveText(was)
})
