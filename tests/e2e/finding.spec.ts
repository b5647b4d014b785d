/** The search: people find what they need by the words they have for it, and are taken to the control itself. */
import type { Page } from '@playwright/test'
import { Builder } from '../../core/acts/build.ts'
import { expect, test } from './fair.ts'
import { chosen, openPiece, press } from './on-stage.ts'

async function find(page: Page, words: string, first?: string | RegExp): Promise<void> {
  await page.getByRole('button', { name: 'Find anything' }).click()
  await page.getByRole('combobox', { name: 'Find a part, property or command' }).fill(words)
  if (first) await expect(page.getByRole('option').first()).toHaveText(first)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog', { name: 'Find anything' })).toHaveCount(0)
}

test('words of the trade lead to the control itself, also mistyped; what has none leads to the manual', async ({
  page,
}) => {
  const b = new Builder('Found by its word', 1)
  b.drive(b.part('Lamp', { type: 'rectangle' }, {}, { width: 200, height: 120 }), 'y', 'sine(every: 2s, amp: 9px)')
  await openPiece(page, b.piece)
  const desk = page.getByRole('region', { name: 'Desk' })

  await find(page, 'fps', /^Frame rate/)
  await expect(desk.getByRole('combobox', { name: 'Frame rate' })).toBeFocused()
  await find(page, 'duration of the loop', /^Lap length|^Loop: the Lap page/)
  await expect(desk.getByRole('tab', { name: 'Lap' })).toHaveAttribute('aria-selected', 'true')
  await find(page, 'backgroud')
  await expect(desk.getByRole('button', { name: 'Background, colour' })).toBeFocused()
  await find(page, 'parent', /^Parts list/)
  await expect(desk.getByRole('list', { name: 'All parts' })).toBeVisible()

  // What is of the selected part says so without one, and goes there with one.
  await find(page, 'anchor point', /^Pivot/)
  await expect(page.getByRole('status').filter({ hasText: 'Select a part first' })).toBeVisible()
  await press(page, 0, 0)
  await chosen(page, 'Lamp')
  await find(page, 'anchor point', /^Pivot/)
  await expect(desk.getByRole('group', { name: 'Place of the pivot' }).getByRole('button').first()).toBeFocused()
  await find(page, 'transparency', /^opacity/)
  await expect(desk.getByRole('textbox', { name: 'opacity', exact: true })).toBeFocused()
  await page.getByRole('button', { name: 'Undo' }).focus()

  await find(page, 'derivative', /^rateOf/)
  await expect(page.getByRole('complementary', { name: 'Manual' }).locator('#fn-rateOf')).toBeInViewport()
  await page.getByRole('button', { name: 'Close the manual' }).click()

  await find(page, 'downlaod', /^Export/)
  const dialog = page.getByRole('dialog', { name: /^Export / })
  await expect(dialog.getByRole('button', { name: 'Export', exact: true })).toBeVisible()
  await dialog.getByRole('button', { name: 'Close' }).last().click()
  await find(page, 'share', /^Hand over/)
  await expect(
    page.getByRole('dialog', { name: /^Hand over / }).getByRole('button', { name: 'Create link' }),
  ).toBeVisible()
})

test('for no word of it the search says so', async ({ page }) => {
  const b = new Builder('Nothing found', 1)
  b.part('Lamp', { type: 'rectangle' })
  await openPiece(page, b.piece)
  await page.locator('body').press('/')
  await page.getByRole('combobox', { name: 'Find a part, property or command' }).fill('qqzzx')
  await expect(page.getByText('No results.')).toBeVisible()
})

test('what is typed right after / is searched for, though the search is still on its way', async ({ page }) => {
  const b = new Builder('Found at once', 1)
  b.part('Platform', { type: 'rectangle' })
  await openPiece(page, b.piece)
  await page.evaluate(() => {
    for (const key of '/platf') document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }))
  })
  const field = page.getByRole('combobox', { name: 'Find a part, property or command' })
  await expect(field).toBeFocused()
  await page.keyboard.type('orm')
  await expect(field).toHaveValue('platform')
  await expect(page.getByRole('option', { name: /^Platform/ }).first()).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog', { name: 'Find anything' })).toHaveCount(0)
})

test('the theme is changed by the search and back by its button, at one press each', async ({ page }) => {
  const b = new Builder('Day and night', 1)
  b.part('Lamp', { type: 'rectangle' })
  await openPiece(page, b.piece)
  const theme = () => page.evaluate(() => document.documentElement.dataset.theme)
  const first = await theme()
  await find(page, 'dark mode', /^Dark or light theme/)
  await expect.poll(theme).not.toBe(first)
  await page
    .getByRole('button', { name: /theme|watch|dark|light/i })
    .first()
    .click()
  await expect.poll(theme).toBe(first)
})
