import { FUNCTIONS } from '../../core/functions/index.ts'
import { accessible } from './accessible.ts'
import { expect, formula, freshFair, goTo, halt, keyOf, now, saved, test, values, write } from './fair.ts'
import { pick } from './pick.ts'

test('a dial is made, read, renamed and taken away', async ({ page }) => {
  await freshFair(page)
  await page.getByRole('button', { name: 'Dial', exact: true }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Name').fill('wind')
  await expect(dialog.getByRole('alert')).toContainText('There’s already something named wind')
  await dialog.getByLabel('Name').fill('lean')
  await pick(dialog.getByLabel('Unit'), 'deg')
  await dialog.getByLabel('Lowest').fill('-90')
  await dialog.getByLabel('Highest').fill('-95')
  await page.keyboard.press('Tab')
  await expect(dialog.getByRole('alert')).toContainText('must be below the highest')
  await dialog.getByLabel('Highest').fill('90')
  await dialog.getByLabel('Start').fill('45')
  await dialog.getByRole('button', { name: 'Add dial' }).click()
  await write(page, 'Canopy rotation', 'lean * 2')
  expect(await values(page, await keyOf(page, 'Canopy rotation'), 3)).toEqual([0.25])
  await page.locator('[data-dial="lean"]').hover()
  await page.getByRole('button', { name: 'Change dial lean' }).click()
  await page.getByRole('dialog').getByLabel('Name').fill('list to port')
  await page.getByRole('dialog').getByRole('button', { name: 'Change' }).click()
  await expect(formula(page, 'Canopy rotation')).toHaveText('`list to port` * 2')
  await page.locator('[data-dial="list to port"]').hover()
  await page.getByRole('button', { name: 'Change dial list to port' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Remove' }).click()
  const entry = page.getByRole('article', { name: 'Canopy rotation', exact: true })
  await expect(entry.getByRole('alert')).toContainText('Unknown name “list to port”.')
  await expect(entry.getByRole('alert')).toContainText('The property rests at its set value.')
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(entry.getByRole('alert')).toHaveCount(0)
})

test('a drive is turned off and on, taken away, and brought back by undo', async ({ page }) => {
  await freshFair(page)
  await halt(page)
  const key = await keyOf(page, 'Carousel rotation')
  const menu = page.getByRole('button', { name: 'More for Carousel rotation' })
  await menu.click()
  await page.getByRole('menuitem', { name: 'Turn off' }).click()
  expect(await values(page, key, 4)).toEqual([0])
  await expect(page.getByRole('article', { name: 'Carousel rotation', exact: true })).toContainText('turned off')
  await menu.click()
  await page.getByRole('menuitem', { name: 'Turn on' }).click()
  expect(await values(page, key, 4)).toEqual([0.5])
  await menu.click()
  await page.getByRole('menuitem', { name: 'Remove formula' }).click()
  await expect(page.getByRole('article', { name: 'Carousel rotation', exact: true })).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(formula(page, 'Carousel rotation')).toHaveText('time * 45deg/s * fairPace')
})

test('a leap between two stages is said, and one click closes it', async ({ page }) => {
  await freshFair(page)
  await write(page, 'Carousel rotation', 'if time < 3s then time * 30deg/s else time * 120deg/s')
  const entry = page.getByRole('article', { name: 'Carousel rotation', exact: true })
  await expect(entry).toContainText('It jumps from 90.0° to 0.0° at 3 s.')
  await entry.getByRole('button', { name: 'continue from where the stage before ends' }).click()
  await expect(entry).not.toContainText('jumps')
  const key = await keyOf(page, 'Carousel rotation')
  const [before] = await values(page, key, 2.9999)
  const [after] = await values(page, key, 3)
  const leap = after! - before!
  expect(Math.abs(leap - Math.round(leap))).toBeLessThan(1e-4)
})

test('what is written in another notation gets a fix that runs', async ({ page }) => {
  await freshFair(page)
  const entry = page.getByRole('article', { name: 'Canopy rotation', exact: true })
  for (const [wrong, fixed] of [
    ['sin(time*2*pi)*20', 'sine(1Hz, 20deg)'],
    ['time < 3s ? 10deg : 20deg', 'if time < 3s then 10deg else 20deg'],
    ['sine(2s, 5deg)', 'sine(every: 2s, amp: 5deg)'],
    ['rotation + 10deg', 'base + 10deg'],
  ] as const) {
    await write(page, 'Canopy rotation', wrong)
    await entry.locator('[data-fix]').first().click()
    await expect(formula(page, 'Canopy rotation')).toHaveText(fixed)
    await expect(entry.getByRole('alert')).toHaveCount(0)
  }
  // What can be meant in one way only is taken, and written as we write it.
  await write(page, 'Canopy rotation', 'time × 90°/s')
  await expect(formula(page, 'Canopy rotation')).toHaveText('time * 90deg/s')
})

test('while a call is written its arguments are offered first, with what each is', async ({ page }) => {
  await freshFair(page)
  const field = formula(page, 'Canopy rotation')
  await field.click({ position: { x: 400, y: 10 } })
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.type('ramp(length: 2s, a')
  const offers = page.locator('.cm-tooltip-autocomplete li')
  await expect(offers.first()).toContainText('after:')
  await expect(page.locator('.tide-signature')).toContainText('ramp(start, length, from, to, ease, after, end)')
  await page.keyboard.type('fter: re')
  await expect(offers.first()).toContainText('repeat')
  await expect(page.locator('.tide-signature strong')).toHaveText('after')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
})

test('leaps are told of every copy, and closing of the worst', async ({ page }) => {
  await freshFair(page)
  await write(page, 'Mount y', 'if index == 7 then saw(every: 3s, amp: 9px) else 4px')
  const entry = page.getByRole('article', { name: 'Mount y', exact: true })
  await expect(entry.locator('[data-leaps]')).toHaveAttribute(
    'data-tip',
    /jumps from 9\.0 px to −9\.0 px at 0 s and every 3 s, copy 8/,
  )
  await expect(entry.locator('header')).toContainText('at the loop point, copy 8')
})

test('a name in a formula leads to what it stands for', async ({ page }) => {
  await freshFair(page)
  const entry = page.getByRole('article', { name: 'Mallet rotation', exact: true })
  await entry.scrollIntoViewIfNeeded()
  const text = await formula(page, 'Mallet rotation').textContent()
  const word = /play\((\w+)/.exec(text!)![1]!
  await formula(page, 'Mallet rotation')
    .getByText(text!)
    .click({ position: { x: 58, y: 10 } })
  // Its strip is brought into sight and taken in hand.
  const named = page.getByRole('article', { name: word, exact: true })
  await expect(named).toBeInViewport()
  await expect(named).toHaveClass(/border-sea/)
})

test('a moment far away that must be added up is worked out while it is said so', async ({ page }) => {
  await freshFair(page)
  await halt(page)
  await write(page, 'Canopy rotation', 'accumulate(max(0, noise(2Hz)) * 20deg/s)')
  const entry = page.getByRole('article', { name: 'Canopy rotation', exact: true })
  await expect(entry).toContainText(/adds up for [\d.]+ days, then holds/)
  await goTo(page, '900')
  await expect(page.locator('[data-working]')).toHaveCount(0, { timeout: 30000 })
  const [is] = await values(page, await keyOf(page, 'Canopy rotation'), 900)
  expect(is!).toBeGreaterThan(1)
  await expect(entry.locator('[data-readout]')).not.toHaveText(/^\s*0\.0°$/)
})

test('a wobbling pace is warned of, and the fix adds it up', async ({ page }) => {
  await freshFair(page)
  await write(page, 'Carousel rotation', 'time * 45deg/s * (1 + noise(1Hz, 0.4))')
  const entry = page.getByRole('article', { name: 'Carousel rotation', exact: true })
  await expect(entry.getByRole('alert')).toContainText('jumps and runs backwards')
  await entry.locator('[data-fix]').first().click()
  await expect(formula(page, 'Carousel rotation')).toHaveText('accumulate(45deg/s * (1 + noise(1Hz, 0.4)))')
})

test('gears are added, set by hand and engage; copies stand in a grid', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'New piece' }).first().click()
  await page.locator('[data-add="gear"]').first().click()
  await page.getByRole('textbox', { name: 'teeth', exact: true }).fill('12')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Write a formula for rotation', exact: true }).click()
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.insertText('time * 90deg/s')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'All parts, add one…' }).click()
  await page.locator('[data-add="gear"]').first().click()
  await page.getByRole('textbox', { name: 'teeth', exact: true }).fill('48')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Write a formula for rotation', exact: true }).click()
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.insertText('engage(gear)')
  await page.keyboard.press('Enter')
  const [a, b] = await Promise.all(['Gear rotation', 'Gear2 rotation'].map(l => keyOf(page, l)))
  const turned = async (key: string) => (await values(page, key, 9))[0]! - (await values(page, key, 1))[0]!
  expect(await turned(a!)).toBe(2)
  expect(await turned(b!)).toBeCloseTo(-0.5, 12)
  await pick(page.getByRole('combobox', { name: 'Copies' }), 'grid')
  await page.getByRole('textbox', { name: 'columns' }).fill('2')
  await page.keyboard.press('Enter')
  await expect(page.getByText('6 in a grid')).toBeVisible()
  await saved(page)
})

test('everything by the keys: play, frames, entries, into a formula and out', async ({ page }) => {
  await freshFair(page, 'whole')
  await halt(page)
  await page.locator('body').click({ position: { x: 900, y: 780 } })
  await page.keyboard.press('0')
  await page.keyboard.press('.')
  await page.keyboard.press('.')
  await expect.poll(() => now(page)).toBeCloseTo(2 / 30, 12)
  await page.keyboard.press(',')
  await expect.poll(() => now(page)).toBeCloseTo(1 / 30, 12)
  await page.keyboard.press('Shift+.')
  await expect.poll(() => now(page)).toBeCloseTo(1 + 1 / 30, 6)
  // What is in common stands first: a signal, a cue whose sentence has handles, a clock, a curve.
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('spinbutton', { name: 'Mark 1' })).toBeFocused()
  await page.getByRole('spinbutton', { name: 'Mark 1' }).blur()
  for (let n = 0; n < 4; n++) await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await expect(formula(page, 'Mount y')).toBeFocused()
  await page.keyboard.type('x')
  await expect(formula(page, 'Mount y')).toHaveText(/^xsine/)
  // The first closes the offers, when there are any, the next takes back what was typed.
  await page.keyboard.press('Escape')
  if ((await formula(page, 'Mount y').textContent())!.startsWith('x')) await page.keyboard.press('Escape')
  await expect(formula(page, 'Mount y')).toHaveText('sine(every: 2s, amp: 24px, phase: index / count * 1turn)')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Space')
  await expect(page.getByRole('button', { name: 'Pause', exact: true })).toBeVisible()
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog')).toContainText('accept the first fix')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
})

test('a time that is none is said so, and nothing moves', async ({ page }) => {
  await freshFair(page)
  await halt(page)
  await goTo(page, '3lap')
  await expect.poll(() => now(page)).toBe(24)
  await page.getByRole('button', { name: 'Current time, press to type another' }).click()
  await page.getByRole('textbox', { name: 'Go to time' }).fill('soon')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert').filter({ hasText: 'Type a time in seconds' })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect.poll(() => now(page)).toBe(24)
})

test('a save that fails is said, nothing is lost, and it is saved again', async ({ page }) => {
  await freshFair(page)
  await page.route('**/api/pieces/*', route =>
    route.request().method() === 'PUT'
      ? route.fulfill({ status: 503, json: { message: 'The disk is full.' } })
      : route.continue(),
  )
  await write(page, 'Carousel rotation', 'time * 20deg/s')
  await expect(page.getByRole('alert').filter({ hasText: 'Not saved.' })).toContainText('The disk is full.')
  const again = page.getByRole('button', { name: 'Save now' })
  await expect(again).toBeVisible()
  await page.unroute('**/api/pieces/*')
  // It is tried again by itself too: then there is nothing left to press.
  await again.click({ timeout: 3000 }).catch(() => {})
  await saved(page)
  const text = (await formula(page, 'Carousel rotation').textContent())!
  await page.reload()
  await expect(formula(page, 'Carousel rotation')).toHaveText(text)
})

test('the manual tells every function with a live curve, and passes the accessibility check', async ({ page }) => {
  test.slow()
  await page.goto('/')
  await page.getByRole('link', { name: 'Manual' }).click()
  await expect(page.getByRole('heading', { name: 'Tuning without a jump' })).toBeVisible()
  await expect(page.locator('article h3')).toHaveCount(FUNCTIONS.length)
  const curve = page.locator('#fn-sine canvas')
  await curve.scrollIntoViewIfNeeded()
  await expect.poll(async () => (await curve.screenshot()).length).toBeGreaterThan(900)
  const first = await curve.screenshot()
  await expect.poll(async () => (await curve.screenshot()).equals(first)).toBe(false)
  await accessible(page, 'manual')
})
