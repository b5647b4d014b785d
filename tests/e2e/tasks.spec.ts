/** Tasks of a working day as a whole, each with the number of actions that it took. */
import type { Page } from '@playwright/test'
import { expect, freshFair, goTo, halt, keepAlways, keyOf, test, type, values, write } from './fair.ts'

const DEG = 1 / 360

test.beforeEach(async ({ page }) => {
  await freshFair(page)
  await halt(page)
})

const make = async (page: Page, kind: string): Promise<void> => {
  await page.getByRole('button', { name: 'New…' }).click()
  await page.getByRole('menuitem', { name: new RegExp(`^${kind} `) }).click()
}

test('a hop is drawn, played every 3 s on a clock, begun again by a tap, and run backwards', async ({ page }) => {
  await make(page, 'curve')
  await make(page, 'cue')
  await make(page, 'clock')
  const cue = page.getByRole('article', { name: 'cue', exact: true })
  // A mark at 0 s, again every 3 s.
  await goTo(page, '0')
  await cue.locator('header').click()
  await page.locator('body').press('c')
  await cue.getByRole('combobox', { name: 'Again or once' }).selectOption({ index: 1 })
  await type(page, 'cue', 'Again every', '3')
  await write(page, 'Carousel rotation', 'play(curve, cue) * 90deg on clock')
  const key = await keyOf(page, 'Carousel rotation')
  const at = async (s: number) => (await values(page, key, s))[0]!
  expect(await at(0.4)).not.toBe(0)
  expect(await at(6.4)).toBeCloseTo(await at(0.4), 9)
  await goTo(page, '7')
  await page.getByRole('article', { name: 'clock', exact: true }).getByRole('button', { name: 'begin again' }).click()
  expect(await at(7.4)).toBeCloseTo(await at(0.4), 9)
  await type(page, 'clock', 'Rate', '-1')
  await type(page, 'clock', 'Ahead', '3')
  expect(await at(7.5)).toBeCloseTo(await at(10.5), 9)
})

test('the fair is calmed to 65 %, and nothing jumps', async ({ page }) => {
  await keepAlways(page)
  await goTo(page, '12.4')
  const table = page.getByRole('region', { name: 'Tide table' })
  const keys = await table.locator('[data-drive]').evaluateAll(all => all.map(e => e.getAttribute('data-drive')!))
  expect(keys.length).toBeGreaterThan(25)
  const before = await Promise.all(keys.map(k => values(page, k, 12.4)))
  const pace = page.getByRole('textbox', { name: 'fairPace, value' })
  await pace.fill('65')
  await pace.press('Enter')
  const after = await Promise.all(keys.map(k => values(page, k, 12.4)))
  for (const [n, list] of before.entries()) list.forEach((v, i) => expect(after[n]![i]).toBeCloseTo(v, 9))
  const key = await keyOf(page, 'Carousel rotation')
  const [a, b] = [(await values(page, key, 12.4))[0]!, (await values(page, key, 13.4))[0]!]
  expect(b - a).toBeCloseTo(45 * 0.65 * DEG, 9)
})

test('sixteen bulbs have their own noise, then share one', async ({ page }) => {
  const bulb = 'Chase bulb fillLightness'
  await write(page, bulb, '50% + noise(freq: 4/lap, amp: 40%)')
  const key = await keyOf(page, bulb)
  const different = async () => new Set((await values(page, key, 3.3)).map(v => v.toFixed(9))).size
  expect(await different()).toBe(16)
  await write(page, bulb, '50% + noise(freq: 4/lap, amp: 40%, seed: 1)')
  expect(await different()).toBe(1)
})

test('a lap of 5 s: what no longer closes is mended by proposals, and what hangs on a cue is left', async ({
  page,
}) => {
  await page.getByRole('tab', { name: 'Lap' }).click()
  const desk = page.getByRole('region', { name: 'Desk' })
  await desk.getByRole('textbox', { name: 'Length of the lap, seconds' }).fill('5')
  await page.keyboard.press('Enter')
  const open = () => desk.locator('[data-closing-of]').filter({ has: page.locator('[data-proposal]') })
  await expect(open().first()).toBeVisible({ timeout: 30_000 })
  let presses = 0
  for (; presses < 40; presses++) {
    await page.waitForTimeout(1500)
    const left = await open().count()
    if (left === 0) break
    await open().first().locator('[data-proposal]').first().click()
    await expect.poll(() => open().count(), { timeout: 15_000 }).toBeLessThan(left + 1)
  }
  const [closing] = (await page.locator('[data-closing]').textContent())!.match(/\d+/g)!.map(Number)
  // What is left hangs on what no text of its own says: a cue that comes every 4 s, hand keys, a clock.
  const left = desk.locator('[data-closing-of]').filter({ hasNotText: 'closes' })
  const names = await left.evaluateAll(rows => rows.map(r => r.getAttribute('data-closing-of')))
  test.info().annotations.push({ type: 'figures', description: `${presses} presses, left: ${names.join(', ')}` })
  expect(presses).toBeGreaterThan(2)
  expect(closing).toBeGreaterThan(23)
})
