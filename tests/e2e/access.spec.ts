/** The accessibility check on every page of the desk, in dialogs and menus, by day and on the night watch. */
import { accessible } from './accessible.ts'
import { entry, expect, freshFair, halt, test } from './fair.ts'

const DIALOG = '[role=dialog]'
const DESK = 'section[aria-label=Desk]'

for (const theme of ['by day', 'on the night watch'] as const) {
  const colours = theme !== 'by day'
  test(`no serious finding in exporting, handing over, patterns, harbour and board, ${theme}`, async ({ page }) => {
    test.slow()
    await freshFair(page)
    await halt(page)
    if (colours) await page.getByRole('button', { name: 'Night watch' }).click()
    await page.getByRole('banner').getByRole('button', { name: 'Export', exact: true }).click()
    for (const kind of [/^Live page/, /^Moving SVG/, /^Numbers/, /^Device/]) {
      await page.getByRole('dialog').getByRole('button', { name: kind }).click()
      await accessible(page, String(kind), { within: DIALOG, colours })
    }
    await page.getByRole('dialog').getByRole('button', { name: 'A drive', exact: true }).click()
    await accessible(page, 'a drive of a device', { within: DIALOG, colours })
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Hand over', exact: true }).click()
    await page.getByRole('dialog').getByRole('button', { name: 'Create link' }).click()
    const link = await page.getByLabel('The link').inputValue()
    await accessible(page, 'hand over', { within: DIALOG, colours })
    await page.keyboard.press('Escape')
    await page.locator('body').press('p')
    await page.getByRole('dialog').getByRole('button', { name: 'Gear train' }).click()
    await accessible(page, 'patterns', { within: DIALOG, colours })
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'New…' }).click()
    await page.getByRole('menuitem', { name: /^from…/ }).click()
    await accessible(page, 'from a table', { within: DIALOG, colours })
    await page.goto('/')
    await page.getByLabel('Choose Lantern Pier', { exact: true }).check()
    await accessible(page, 'harbour', { colours })
    for (const place of ['Patterns', 'Recently deleted']) {
      await page.getByRole('button', { name: place, exact: true }).click()
      await accessible(page, place, { colours })
    }
    await page.goto('/board')
    await expect(page.locator('[data-lamp]').first()).toBeVisible()
    await accessible(page, 'board', { colours })
    await page.goto(link)
    await expect(page.getByRole('button', { name: 'Back to how it was' })).toBeVisible()
    await accessible(page, 'handed over', { colours })
  })

  test(`no serious finding on any page of the desk, ${theme}`, async ({ page }) => {
    test.slow()
    await freshFair(page)
    await halt(page)
    if (colours) await page.getByRole('button', { name: 'Night watch' }).click()
    await page.getByRole('region', { name: 'Tide table' }).getByRole('button', { name: 'Mount', exact: true }).click()
    await accessible(page, 'a part in hand', { colours })
    await (await entry(page, 'strike')).locator('canvas').click()
    await expect(page.locator('[data-point]').first()).toBeVisible()
    await accessible(page, 'a curve', { within: DESK, colours })
    await (await entry(page, 'Carousel rotation')).locator('header').click()
    for (const [tab, there] of [
      ['Scope', '[data-scope]'],
      ['Lap', '[data-closing-of]'],
      ['Piece', '[data-piece]'],
      ['Links', '[data-links] th button'],
    ] as const) {
      await page.getByRole('tab', { name: tab }).click()
      await expect(page.locator(there).first()).toBeVisible()
      await accessible(page, tab, { within: DESK, colours })
    }
    await page.getByRole('button', { name: /^Carousel rotation drives Canopy/ }).click()
    await page.getByRole('button', { name: 'More for Carousel rotation' }).click()
    await accessible(page, 'a link and a menu', { colours })
    await page.getByRole('menuitem', { name: 'Apply to other properties…' }).click()
    await expect(page.getByRole('button', { name: 'Cancel' })).toBeVisible()
    await accessible(page, 'give to others', { colours })
    await page.getByRole('button', { name: 'Cancel' }).click()
    await page.getByRole('banner').getByRole('button', { name: 'Export', exact: true }).click()
    await expect(page.locator('[data-plan]')).toBeVisible()
    await accessible(page, 'export', { within: DIALOG, colours })
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Drive a property of Carousel' }).click()
    await accessible(page, 'drive', { colours })
    await page.keyboard.press('Escape')
    await page.locator('body').press('/')
    await accessible(page, 'find anything', { within: DIALOG, colours })
  })
}

test('by keys alone: Tab goes from control to control from the start, D turns the pages of the desk', async ({
  page,
}) => {
  await freshFair(page)
  await page.keyboard.press('Tab')
  await expect(page.getByRole('link', { name: 'Harbour' })).toBeFocused()
  await page.keyboard.press('Tab')
  await expect(page.locator(':focus')).toHaveAccessibleName(/^Lantern Pier/)
  await page.keyboard.press('d')
  await expect(page.getByRole('tab', { name: 'Links' })).toHaveAttribute('aria-selected', 'true')
})
