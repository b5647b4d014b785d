/** The accessibility check on every page of the desk, in dialogs and menus, by day and on the night watch. */
import { AxeBuilder } from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { entry, expect, freshFair, halt, test } from './fair.ts'

async function check(page: Page, what: string): Promise<void> {
  // The guards that keep the focus in a menu belong to the library.
  const { violations } = await new AxeBuilder({ page }).exclude('[data-headlessui-focus-guard]').analyze()
  const found = violations
    .filter(v => v.impact === 'serious' || v.impact === 'critical')
    .map(v => `${v.id}: ${v.nodes.map(n => n.target).join(' | ')}`)
  expect(found, what).toEqual([])
}

for (const theme of ['by day', 'on the night watch'] as const) {
  test(`no serious finding in giving out, handing over, patterns, harbour and board, ${theme}`, async ({ page }) => {
    test.slow()
    await freshFair(page)
    await halt(page)
    if (theme !== 'by day') await page.getByRole('button', { name: 'Night watch' }).click()
    await page.getByRole('banner').getByRole('button', { name: 'Give out', exact: true }).click()
    for (const kind of [/^Page that runs/, /^Moving SVG/, /^Numbers/, /^Device/]) {
      await page.getByRole('dialog').getByRole('button', { name: kind }).click()
      await check(page, String(kind))
    }
    await page.getByRole('dialog').getByRole('button', { name: 'A drive', exact: true }).click()
    await check(page, 'a drive of a device')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Hand over', exact: true }).click()
    await page.getByRole('dialog').getByRole('button', { name: 'Get a link' }).click()
    const link = await page.getByLabel('The link').inputValue()
    await check(page, 'hand over')
    await page.keyboard.press('Escape')
    await page.locator('body').press('p')
    await page.getByRole('dialog').getByRole('button', { name: 'Gear train' }).click()
    await check(page, 'patterns')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'New…' }).click()
    await page.getByRole('menuitem', { name: /^from…/ }).click()
    await check(page, 'from a table')
    await page.goto('/')
    await page.getByLabel('Choose Lantern Pier', { exact: true }).check()
    await check(page, 'harbour')
    for (const place of ['Patterns', 'Deleted lately']) {
      await page.getByRole('button', { name: place, exact: true }).click()
      await check(page, place)
    }
    await page.goto('/board')
    await expect(page.locator('[data-lamp]').first()).toBeVisible()
    await check(page, 'board')
    await page.goto(link)
    await expect(page.getByRole('button', { name: 'Back to how it was' })).toBeVisible()
    await check(page, 'handed over')
  })

  test(`no serious finding on any page of the desk, ${theme}`, async ({ page }) => {
    test.slow()
    await freshFair(page)
    await halt(page)
    if (theme !== 'by day') await page.getByRole('button', { name: 'Night watch' }).click()
    await (await entry(page, 'strike')).locator('canvas').click()
    await expect(page.locator('[data-point]').first()).toBeVisible()
    await check(page, 'a curve')
    await (await entry(page, 'Carousel rotation')).locator('header').click()
    for (const [tab, there] of [
      ['Scope', '[data-scope]'],
      ['Lap', '[data-closing-of]'],
      ['Piece', '[data-piece]'],
      ['Links', '[data-links] th button'],
    ] as const) {
      await page.getByRole('tab', { name: tab }).click()
      await expect(page.locator(there).first()).toBeVisible()
      await check(page, tab)
    }
    await page.getByRole('button', { name: /^Carousel rotation drives Canopy/ }).click()
    await page.getByRole('button', { name: 'More for Carousel rotation' }).click()
    await check(page, 'a link and a menu')
    await page.getByRole('menuitem', { name: 'Give to others…' }).click()
    await expect(page.getByRole('button', { name: 'Cancel' })).toBeVisible()
    await check(page, 'give to others')
    await page.getByRole('button', { name: 'Cancel' }).click()
    await page.getByRole('banner').getByRole('button', { name: 'Give out', exact: true }).click()
    await expect(page.locator('[data-plan]')).toBeVisible()
    await check(page, 'give out')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Drive a property of Carousel' }).click()
    await check(page, 'drive')
    await page.keyboard.press('Escape')
    await page.locator('body').press('/')
    await check(page, 'find anything')
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
