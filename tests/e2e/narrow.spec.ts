/** Narrow windows, and the browser's zoom at 150 %, which is the same to a page: nothing is lost. */
import { entry, expect, freshFair, test } from './fair.ts'

for (const [width, height, what] of [
  [1024, 768, 'a window of 1024 px'],
  [853, 533, '1280 × 800 at 150 %'],
] as const) {
  test(`${what} loses nothing`, async ({ page }) => {
    await page.setViewportSize({ width, height })
    await freshFair(page)
    const beyond = await page.evaluate(() => document.scrollingElement!.scrollWidth - innerWidth)
    expect(beyond).toBe(0)
    for (const name of [
      'Undo',
      'Redo',
      'Manual',
      'Keyboard shortcuts',
      'Pause',
      'Dial',
      'Current time, press to type another',
    ])
      await expect(page.getByRole('button', { name, exact: true })).toBeInViewport({ ratio: 1 })
    await expect(page.locator('[data-stage]')).toBeInViewport({ ratio: 0.9 })
    // What is known of an entry is not cut off.
    const facts = (await entry(page, 'Mount y')).locator('[data-facts]')
    await expect(facts).toContainText('loops')
    const cut = await facts
      .locator('> span')
      .evaluateAll(all => all.filter(e => e.scrollWidth > e.clientWidth + 1).length)
    expect(cut).toBe(0)
    // The last of the desk is reached by scrolling.
    await page.getByRole('button', { name: 'Mount', exact: true }).first().click()
    const last = page.getByRole('combobox', { name: 'Copies' })
    await last.scrollIntoViewIfNeeded()
    await expect(last).toBeInViewport()
  })
}
