/** Tasks of a working day as a whole, each with the number of actions that it took. */
import { expect, freshFair, goTo, halt, keepAlways, keyOf, make, test, type, values, write } from './fair.ts'
import { pick } from './pick.ts'

const DEG = 1 / 360

test.beforeEach(async ({ page }) => {
  await freshFair(page, 'whole')
  await halt(page)
})

test('a hop is drawn, played every 3 s on a clock, begun again by a tap, and run backwards', async ({ page }) => {
  await make(page, 'curve')
  await make(page, 'cue')
  await make(page, 'clock')
  const cue = page.getByRole('article', { name: 'cue', exact: true })
  // A mark at 0 s, again every 3 s.
  await goTo(page, '0')
  await cue.locator('header').click()
  await page.locator('body').press('c')
  await pick(cue.getByRole('combobox', { name: 'Repeat or once' }), { index: 1 })
  await type(page, 'cue', 'Repeat every', '3')
  await write(page, 'Carousel rotation', 'play(curve, cue) * 90deg on clock')
  const key = await keyOf(page, 'Carousel rotation')
  const at = async (s: number) => (await values(page, key, s))[0]!
  expect(await at(0.4)).not.toBe(0)
  expect(await at(6.4)).toBeCloseTo(await at(0.4), 9)
  await goTo(page, '7')
  await page.getByRole('article', { name: 'clock', exact: true }).getByRole('button', { name: 'restart' }).click()
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

test('a lap of 5 s: what no longer closes is mended by proposals, until all closes', async ({ page }) => {
  await page.getByRole('tab', { name: 'Lap' }).click()
  const desk = page.getByRole('region', { name: 'Desk' })
  // Until the first verdict is there it only says that it is checking.
  const closing = async () => {
    const says = page.locator('[data-closing]')
    await expect(says).toHaveText(/\d/, { timeout: 30_000 })
    return (await says.textContent())!.match(/\d+/g)!.map(Number)
  }
  const settled = () => expect(desk.locator('[data-asking]')).toHaveCount(0, { timeout: 30_000 })
  // Of the fair's own lap nearly all close.
  const gaping = async () => {
    const [loop, all, later = 0] = await closing()
    return all! - loop! - later
  }
  await expect.poll(gaping, { timeout: 30_000 }).toBeLessThan(5)
  await desk.getByRole('textbox', { name: 'Length of the lap, seconds' }).fill('5')
  await page.keyboard.press('Enter')
  await expect.poll(gaping, { timeout: 30_000 }).toBeGreaterThan(10)
  const open = desk.locator('[data-closing-of]').filter({ has: page.locator('[data-proposal]') })
  const said: string[] = []
  for (;;) {
    await settled()
    const [loop, all, later = 0] = await closing()
    const closes = loop! + later
    if (closes === all) break
    const first = open.first().locator('[data-proposal]').first()
    said.push((await first.textContent({ timeout: 30_000 }))!.trim())
    await first.click()
    await expect.poll(async () => all! - (await gaping()), { timeout: 30_000 }).toBeGreaterThan(closes)
    expect(said.length).toBeLessThan(20)
  }
  // Numbers of formulas, the cue, the keyframes and the clock; what hangs on the cue is mended with it.
  test.info().annotations.push({ type: 'figures', description: said.join(' | ') })
  expect(said.some(s => s.startsWith('blow every 4 s → 5 s'))).toBe(true)
  expect(said.some(s => s.includes('keyframes of Tombola drum'))).toBe(true)
  expect(said.some(s => s.startsWith('ebb at 0.5 → 1'))).toBe(true)
  // What sets off later loops after it; nothing else is left.
  expect(await gaping()).toBe(0)
  // The value itself comes back, a lap later.
  await desk.getByRole('button', { name: 'Puck y', exact: true }).click()
  const key = await keyOf(page, 'Puck y')
  const [a, b] = [await values(page, key, 22.3), await values(page, key, 27.3)]
  expect(Math.abs(a[0]!)).toBeGreaterThan(1)
  expect(b[0]).toBeCloseTo(a[0]!, 9)
})
