/** Needs D1 to D3, D5, I4 and J1: links on the pin board, chains, dials, shared values, giving to others. */
import type { Page } from '@playwright/test'
import { entry, expect, formula, freshFair, goTo, halt, keepAlways, keyOf, test, values, write } from './fair.ts'
import { pick } from './pick.ts'

const links = (page: Page) => page.locator('[data-links]')
const pin = (page: Page, driver: string, driven: string) =>
  links(page).getByRole('button', { name: new RegExp(`^${driver} drives ${driven}`) })
async function field(page: Page, label: string, value: string): Promise<void> {
  await page.getByRole('group', { name: 'The link' }).getByRole('textbox', { name: label }).fill(value)
  await page.keyboard.press('Enter')
}

test('D1: a link is made, given a ratio, an offset and a lag, turned round, made two-way, found and cut', async ({
  page,
}) => {
  await freshFair(page)
  await halt(page)
  await page.getByRole('tab', { name: 'Links' }).click()
  await expect(pin(page, 'Carousel rotation', 'Canopy rotation')).toHaveText('× −0.3')
  await pin(page, 'Carousel rotation', 'Canopy rotation').click()
  await field(page, 'Ratio', '-0.5')
  await expect(formula(page, 'Canopy rotation')).toHaveText('carousel.rotation * -0.5')
  await field(page, 'Offset', '20')
  await field(page, 'Delay', '0.5')
  await expect(formula(page, 'Canopy rotation')).toHaveText('delay(carousel.rotation, 0.5s) * -0.5 + 20deg')
  const [carousel, canopy] = [await keyOf(page, 'Carousel rotation'), await keyOf(page, 'Canopy rotation')]
  const [driver] = await values(page, carousel, 2.5)
  expect((await values(page, canopy, 3))[0]).toBeCloseTo(driver! * -0.5 + 20 / 360, 9)
  // What drives has its own formula, so it cannot be turned round: it is said.
  await field(page, 'Delay', '0')
  await page.getByRole('button', { name: 'Reverse link' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'has its own formula' })).toBeVisible()
  await page.getByRole('button', { name: 'Two-way' }).click()
  await expect(links(page).locator('[data-count]')).toContainText('1 two-way')
  await expect(pin(page, 'Carousel rotation', 'Canopy rotation')).toContainText('⇄')
  const [tied] = await values(page, carousel, 3)
  expect((await values(page, canopy, 3))[0]).toBeCloseTo(tied! * -0.5 + 20 / 360, 9)
  await page.getByRole('button', { name: 'One-way' }).click()
  await links(page).getByRole('searchbox', { name: 'Search links' }).fill('canopy')
  await expect(links(page).getByRole('button', { name: / drives / })).toHaveCount(1)
  await page.getByRole('button', { name: 'Unlink' }).click()
  await expect(page.getByRole('article', { name: 'Canopy rotation', exact: true })).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click()
  await expect(formula(page, 'Canopy rotation')).toHaveText('Carousel.rotation * -0.5 + 20deg')
})

test('D1: one press links what crosses; a circle is said before it comes about', async ({ page }) => {
  await freshFair(page)
  await halt(page)
  await page.getByRole('tab', { name: 'Links' }).click()
  await (await entry(page, 'Mount scale')).locator('header').click()
  await links(page).getByRole('button', { name: 'Link Mount scale to wind' }).click()
  await expect(formula(page, 'Mount scale')).toHaveText('100% + own.y / 24px * 9% + wind')
  await (await entry(page, 'Canopy rotation')).locator('header').click()
  await links(page).getByRole('button', { name: 'Link Carousel rotation to Canopy rotation' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'That would make a circle' })).toContainText(
    'Canopy rotation follows Carousel rotation',
  )
  await expect(formula(page, 'Carousel rotation')).toHaveText('time * 45deg/s * fairPace')
})

test('D2: a chain over parts in one step, its share and lag tuned by two dials', async ({ page }) => {
  await freshFair(page)
  await halt(page)
  await page.getByRole('tab', { name: 'Links' }).click()
  await links(page).getByRole('button', { name: 'Chain…' }).click()
  for (const name of ['Carousel', 'Rim', 'Platform'])
    await page
      .getByRole('list', { name: /Parts of the chain/ })
      .getByRole('button', { name, exact: true })
      .click()
  await page.getByRole('textbox', { name: 'Share, %' }).fill('50')
  await page.getByRole('textbox', { name: 'Lag, seconds' }).fill('0.25')
  await page.getByRole('button', { name: 'Make chain' }).click()
  await expect(formula(page, 'Platform rotation')).toHaveText('delay(Rim.rotation, lag) * share')
  const [first, last] = [await keyOf(page, 'Carousel rotation'), await keyOf(page, 'Platform rotation')]
  expect((await values(page, last, 4))[0]).toBeCloseTo((await values(page, first, 3.5))[0]! / 4, 9)
  const share = page.getByRole('textbox', { name: 'share, value' })
  await share.fill('100')
  await share.press('Enter')
  expect((await values(page, last, 4))[0]).toBeCloseTo((await values(page, first, 3.5))[0]!, 9)
})

test('D3: a dial is made out of a number, changed in kind, hidden, moved; a global pace never makes anything leap', async ({
  page,
}) => {
  await freshFair(page)
  await halt(page)
  await keepAlways(page)
  await goTo(page, '12.4')
  await formula(page, 'Mount y').click({ position: { x: 400, y: 10 } })
  await formula(page, 'Mount y').locator('[data-handle="1"]').first().click()
  await page.keyboard.press('Alt+d')
  await expect(formula(page, 'Mount y')).toHaveText('sine(every: 2s, amp: amp, phase: index / count * 1turn)')
  const key = await keyOf(page, 'Mount y')
  const before = await values(page, key, 12.9)
  const field = page.getByRole('textbox', { name: 'amp, value' })
  await field.fill('48')
  await field.press('Enter')
  const after = await values(page, key, 12.9)
  before.forEach((v, i) => expect(after[i]).toBeCloseTo(v * 2, 9))
  await page.locator('[data-dial="amp"]').hover()
  await page.getByRole('button', { name: 'Change dial amp' }).click()
  await expect(page.locator('[data-used-by]')).toHaveText('Used by Mount y.')
  await pick(page.getByRole('combobox', { name: 'Kind' }), 'whole')
  await page.getByRole('checkbox', { name: 'Hide from the row of dials' }).check()
  await page.getByRole('button', { name: 'Change', exact: true }).click()
  await expect(page.locator('[data-dial="amp"]')).toHaveCount(0)
  await page.getByRole('button', { name: '1 hidden' }).click()
  await expect(page.locator('[data-dial="amp"]')).toBeVisible()
  const turning = await keyOf(page, 'Carousel rotation')
  const [kept] = await values(page, turning, 12.4)
  await page.getByRole('textbox', { name: 'fairPace, value' }).fill('65')
  await page.keyboard.press('Enter')
  expect((await values(page, turning, 12.4))[0]).toBeCloseTo(kept!, 9)
})

test('D5: a signal is one random value that several read, made and tuned where all that is in common stands', async ({
  page,
}) => {
  await freshFair(page)
  await halt(page)
  await page.getByRole('button', { name: 'New…' }).click()
  await page.getByRole('menuitem', { name: /^signal / }).click()
  await write(page, 'signal', 'noise(freq: 0.5Hz)')
  await write(page, 'Carousel rotation', 'signal * 30deg')
  await write(page, 'Canopy rotation', 'signal * -60deg')
  const [a, b] = [await keyOf(page, 'Carousel rotation'), await keyOf(page, 'Canopy rotation')]
  for (const t of [0.3, 7, 1000.25]) {
    const [x] = await values(page, a, t)
    expect(x).not.toBe(0)
    expect((await values(page, b, t))[0]).toBeCloseTo(-2 * x!, 12)
  }
})

test('I4: every formula is found by its name or its text, by errors, by what it reads, and by find anything', async ({
  page,
}) => {
  await freshFair(page)
  await halt(page)
  const search = page.getByRole('searchbox', { name: 'Search the tide table' })
  await search.fill('mallet strike')
  await expect(page.getByRole('region', { name: 'Tide table' }).getByRole('article')).toHaveCount(1)
  await search.fill('no such thing')
  await page.getByRole('button', { name: 'Show all again' }).click()
  await write(page, 'Canopy rotation', 'carousel.rotaton')
  await pick(page.getByRole('combobox', { name: 'Entries to show' }), 'wrong')
  await expect(page.getByRole('region', { name: 'Tide table' }).getByRole('article')).toHaveCount(1)
  await pick(page.getByRole('combobox', { name: 'Entries to show' }), 'all')
  await (await entry(page, 'Mount y')).locator('header').click()
  await pick(page.getByRole('combobox', { name: 'Entries to show' }), 'in hand')
  await expect(page.getByRole('article', { name: 'Mount scale', exact: true })).toBeVisible()
  await expect(page.getByRole('article', { name: 'Carousel rotation', exact: true })).toHaveCount(0)
  // Groups are rolled up; what is looked for is shown all the same.
  await pick(page.getByRole('combobox', { name: 'Entries to show' }), 'all')
  await page.getByRole('button', { name: 'Roll up Carousel' }).click({ modifiers: ['Alt'] })
  await expect(page.getByRole('region', { name: 'Tide table' }).getByRole('article')).toHaveCount(0)
  await page.locator('body').press('/')
  await page.keyboard.type('counter')
  await page.getByRole('option', { name: /Counter value/ }).click()
  await expect(page.getByRole('article', { name: 'Counter value', exact: true })).toBeInViewport()
})

test('J1: a formula is given to others in one step, each later and smaller, and one undo takes it back', async ({
  page,
}) => {
  await freshFair(page)
  await halt(page)
  await page.getByRole('button', { name: 'More for Mount scale' }).click()
  await page.getByRole('menuitem', { name: 'Apply to other properties…' }).click()
  const dialog = page.getByRole('dialog')
  for (const name of ['Crown', 'Roof']) await dialog.getByRole('button', { name, exact: true }).click()
  await pick(dialog.getByRole('combobox', { name: 'Follow or copy' }), 'follow')
  await dialog.getByRole('textbox', { name: 'Delay' }).fill('0.2')
  await dialog.getByRole('textbox', { name: 'Size factor' }).fill('0.8')
  await page.keyboard.press('Tab')
  await expect(dialog.getByRole('list', { name: /first three/ })).toContainText('delay(Mount[0].scale, 0.4s) * 0.64')
  await dialog.getByRole('button', { name: 'Apply to 2' }).click()
  await expect(formula(page, 'Crown scale')).toHaveText('delay(Mount[0].scale, 0.2s) * 0.8')
  const [first, second] = [await keyOf(page, 'Mount scale'), await keyOf(page, 'Roof scale')]
  expect((await values(page, second, 3.4))[0]).toBeCloseTo((await values(page, first, 3))[0]! * 0.64, 9)
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click()
  await expect(page.getByRole('article', { name: 'Crown scale', exact: true })).toHaveCount(0)
})
