/** Needs E, H and I: copies that vary, takes, one part alone, and being sure that it loops, stays and does not leap. */
import { drawn, entry, expect, formula, freshFair, goTo, halt, keyOf, test, values, write } from './fair.ts'
import { stagePicture } from './on-stage.ts'
import { pick } from './pick.ts'

test.beforeEach(async ({ page }) => {
  await freshFair(page)
  await halt(page)
})

test('E1: copies in a ring, more of them by one number, spread by themselves', async ({ page }) => {
  await write(page, 'Mount y', 'index * 1px')
  const key = await keyOf(page, 'Mount y')
  expect(await values(page, key, 0)).toHaveLength(12)
  await page.getByRole('button', { name: 'Mount', exact: true }).first().click()
  await page.getByRole('tab', { name: 'Part' }).click()
  await page.getByRole('region', { name: 'Desk' }).getByRole('textbox', { name: 'count', exact: true }).fill('6')
  await page.keyboard.press('Enter')
  expect(await values(page, key, 0)).toEqual([0, 1, 2, 3, 4, 5])
})

test('E2, E3: each copy later by a step, and each with its own seed', async ({ page }) => {
  await write(page, 'Mount y', 'delay(sine(every: 2s, amp: 24px), index * 0.1s)')
  const key = await keyOf(page, 'Mount y')
  const [first, , third] = await values(page, key, 5)
  expect(third).toBeCloseTo((await values(page, key, 4.8))[0]!, 9)
  expect(first).not.toBeCloseTo(third!, 3)
  await write(page, 'Mount y', 'noise(freq: 1Hz, amp: 24px)')
  expect(new Set((await values(page, key, 3.3)).map(v => v.toFixed(6))).size).toBe(12)
  await write(page, 'Mount y', 'noise(freq: 1Hz, amp: 24px, seed: 4)')
  expect(new Set((await values(page, key, 3.3)).map(v => v.toFixed(6))).size).toBe(1)
})

test('E5: a driven value as a number on the stage', async ({ page }) => {
  await write(page, 'Counter value', 'time / 1s * 10')
  const key = await keyOf(page, 'Counter value')
  expect((await values(page, key, 4.25))[0]).toBeCloseTo(42.5, 12)
  const picture = () => stagePicture(page)
  await goTo(page, '4.25')
  const before = await picture()
  await goTo(page, '5.25')
  expect((await picture()).equals(before)).toBe(false)
})

test('H2: takes are kept, named, switched while it plays, and nothing that ran is lost', async ({ page }) => {
  const entry = page.getByRole('article', { name: 'Mount y', exact: true })
  await entry.locator('header').click()
  await page.locator('body').press('t')
  const takes = entry.getByRole('group', { name: 'Takes' })
  await expect(takes.getByRole('button', { name: 'take 1' })).toHaveAttribute('aria-pressed', 'true')
  const first = (await formula(page, 'Mount y').textContent())!
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await write(page, 'Mount y', 'noise(freq: 1Hz, amp: 30px)')
  await expect(takes.getByRole('button', { name: 'take 1' })).toHaveAttribute('aria-pressed', 'false')
  await takes.getByRole('button', { name: 'take 1' }).click()
  await expect(formula(page, 'Mount y')).toHaveText(first)
  // What ran before it was switched was kept by itself.
  await expect(takes.getByRole('button', { name: /^take/ })).toHaveCount(2)
  await entry.locator('header').click()
  await page.locator('body').press('y')
  await expect(formula(page, 'Mount y')).toHaveText('noise(freq: 1Hz, amp: 30px)')
  await takes.getByRole('button', { name: 'take 2' }).focus()
  await page.keyboard.press('F2')
  await page.keyboard.type('gusty')
  await page.keyboard.press('Enter')
  await expect(takes.getByRole('button', { name: 'gusty' })).toBeVisible()
  await takes.getByRole('button', { name: 'take 1' }).focus()
  await page.keyboard.press('Delete')
  await expect(takes.getByRole('button', { name: 'take 1' })).toHaveCount(0)
})

test('H4: one part alone on the stage, one formula off, and nothing is deleted', async ({ page }) => {
  const picture = () => stagePicture(page)
  await goTo(page, '1')
  await (await entry(page, 'Canopy rotation')).locator('header').click()
  const all = await picture()
  await page.locator('body').press('a')
  await expect(page.getByText('Canopy solo')).toBeVisible()
  await expect.poll(async () => (await picture()).equals(all)).toBe(false)
  await page.getByRole('button', { name: 'show all' }).click()
  await expect.poll(async () => (await picture()).equals(all)).toBe(true)
  await page.getByRole('button', { name: 'More for Canopy rotation' }).click()
  await page.getByRole('menuitem', { name: 'Turn off' }).click()
  const key = await keyOf(page, 'Canopy rotation')
  expect((await values(page, key, 3))[0]).toBe(0)
  await pick(page.getByRole('combobox', { name: 'Entries to show' }), 'off')
  await page.getByRole('button', { name: 'More for Canopy rotation' }).click()
  await page.getByRole('menuitem', { name: 'Turn on' }).click()
  await pick(page.getByRole('combobox', { name: 'Entries to show' }), 'all')
  expect((await values(page, key, 3))[0]).not.toBe(0)
})

test('I1: the lap says what closes, and mends what does not by proposals that were tried', async ({ page }) => {
  await write(page, 'Carousel rotation', 'time * 50deg/s')
  await write(page, 'Mount y', 'noise(freq: 1Hz, amp: 24px)')
  await page.getByRole('button', { name: /^Lap 8 s/ }).click()
  const row = page.locator('[data-closing-of="Carousel rotation"]')
  await expect(row).toContainText('off at the loop point')
  await row.locator('[data-proposal]').first().click()
  await expect(formula(page, 'Carousel rotation')).not.toHaveText('time * 50deg/s')
  await expect(row).toContainText('loops')
  const noise = page.locator('[data-closing-of="Mount y"]')
  await noise.locator('[data-proposal]').getByText('1Hz → 8/lap').click()
  await expect(formula(page, 'Mount y')).toHaveText('noise(freq: 8/lap, amp: 24px)')
  await expect(noise).toContainText('loops')
  const key = await keyOf(page, 'Mount y')
  expect((await values(page, key, 1.3))[0]).toBeCloseTo((await values(page, key, 9.3))[0]!, 9)
})

test('I2, I5: bounds stand beside the formula, leaps with their moment and size', async ({ page }) => {
  await write(page, 'Mount y', '10px + square(every: 2s, duty: 0.5, low: -5px, high: 20px)')
  const entry = page.getByRole('article', { name: 'Mount y', exact: true })
  await expect(entry.locator('[data-facts]')).toContainText('5 … 30 px')
  await expect(entry.locator('[data-leaps]')).toHaveAttribute('data-tip', /30.*5|5.*30/)
})

test('I3: an error says where and what instead while the last good formula goes on; a long one is laid out', async ({
  page,
}) => {
  const key = await keyOf(page, 'Carousel rotation')
  const [before] = await values(page, key, 3)
  await write(page, 'Carousel rotation', 'tiem * 45deg/s')
  const entry = page.getByRole('article', { name: 'Carousel rotation', exact: true })
  await expect(entry.getByRole('alert')).toContainText('The previous formula keeps running.')
  expect((await values(page, key, 3))[0]).toBe(before)
  await entry.locator('[data-fix]').first().click()
  await expect(formula(page, 'Carousel rotation')).toHaveText('time * 45deg/s')
  await write(page, 'Carousel rotation', 'time * 45deg/s + sine(every: 2s, amp: 5deg) - noise(freq: 1Hz, amp: 2deg)')
  const [long] = await values(page, key, 3)
  await page.getByRole('button', { name: 'More for Carousel rotation' }).click()
  await page.getByRole('menuitem', { name: 'Format' }).click()
  await expect(formula(page, 'Carousel rotation').locator('.cm-line')).toHaveCount(3)
  expect((await values(page, key, 3))[0]).toBe(long)
})

test('I6: copies that overlap in the lap are found, and shown', async ({ page }) => {
  await write(page, 'Mount scale', '400%')
  await page.getByRole('tab', { name: 'Lap' }).click()
  const touching = page.getByRole('region', { name: 'Overlaps' })
  await touching.getByRole('button', { name: 'Check the lap' }).click()
  await expect(touching.getByText('Mount', { exact: true })).toBeVisible({ timeout: 60_000 })
  await touching
    .getByRole('button', { name: /^copy 1 and copy 2 at/ })
    .first()
    .click()
  await expect(page.getByRole('textbox', { name: 'Name of the part' })).toHaveCount(0)
})

test('H1, I2: the parts of a sum apart, and a promise that is pulled until it breaks', async ({ page }) => {
  await write(page, 'Mount y', 'sine(every: 2s, amp: 10px) + noise(freq: 1Hz, amp: 4px)')
  await (await entry(page, 'Mount y')).locator('canvas').click()
  const paper = page.locator('[data-scope] canvas')
  const picture = () => drawn(page).then(() => paper.evaluate((c: HTMLCanvasElement) => c.toDataURL()))
  const whole = await picture()
  await page.getByRole('button', { name: 'parts', exact: true }).click()
  await expect(page.getByRole('list', { name: 'Parts' }).getByRole('listitem')).toHaveText([
    'sine(every: 2s, amp: 10px)',
    'noise(freq: 1Hz, amp: 4px)',
  ])
  await expect.poll(picture).not.toBe(whole)
  await page.getByRole('button', { name: 'More for Mount y' }).click()
  await page.getByRole('menuitem', { name: 'Promise a limit…' }).click()
  await pick(page.getByRole('combobox', { name: 'Above or below' }), 'below')
  await page.getByRole('textbox', { name: 'Limit' }).fill('16')
  await page.getByRole('button', { name: 'Promise', exact: true }).click()
  await expect(page.locator('[data-promise]')).toContainText('holds for all time')
  const bead = page.locator('[data-handle-name="stays below"]')
  await expect(bead).toBeVisible()
  await bead.focus()
  for (let n = 0; n < 3; n++) await page.keyboard.press('Shift+ArrowDown')
  await expect(page.locator('[data-promise]')).toContainText('broken at')
  const than = Number(/below (-?[\d.]+)px/.exec((await page.locator('[data-promise]').textContent())!)![1])
  expect(than).toBeLessThan(14)
})

test('J1, B11: a formula is copied and pasted on another part, and fitted to its span', async ({ page }) => {
  await write(page, 'Canopy rotation', 'envelope(attack: 1s, release: 1s, over: span) * 90deg')
  await (await entry(page, 'Canopy rotation')).locator('header').click()
  await page.locator('body').press('ControlOrMeta+c')
  await expect(page.getByRole('status').filter({ hasText: 'is copied' })).toBeVisible()
  await page.locator('body').press('/')
  await page.keyboard.type('platform')
  await page
    .getByRole('option', { name: /^Platform/ })
    .first()
    .click()
  await page.locator('body').press('ControlOrMeta+v')
  await expect(formula(page, 'Platform rotation')).toHaveText('envelope(attack: 1s, release: 1s, over: span) * 90deg')
  const key = await keyOf(page, 'Platform rotation')
  expect((await values(page, key, 4))[0]).toBeCloseTo(0.25, 9)
  await page.getByRole('tab', { name: 'Part' }).click()
  const desk = page.getByRole('region', { name: 'Desk' })
  await desk.getByRole('checkbox', { name: 'has a span' }).check()
  for (const [label, value] of [
    ['span to', '14'],
    ['span from', '10'],
  ] as const) {
    await desk.getByRole('textbox', { name: label }).fill(value)
    await page.keyboard.press('Enter')
  }
  expect((await values(page, key, 4))[0]).toBeCloseTo(0, 9)
  expect((await values(page, key, 10.5))[0]).toBeGreaterThan(0)
  expect((await values(page, key, 12))[0]).toBeCloseTo(0.25, 9)
})
