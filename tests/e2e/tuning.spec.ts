/** Numbers, dials and ramps changed while it plays and while it stands still. */
import { dragNumber, expect, formula, freshFair, goTo, halt, keepAlways, keyOf, test, values, write } from './fair.ts'

test.describe('tuning', () => {
  test('a number dragged keeps the value at that moment, and undo brings the text back', async ({ page }) => {
    await freshFair(page)
    await halt(page)
    await keepAlways(page)
    await goTo(page, '12.4')
    const key = await keyOf(page, 'Carousel rotation')
    const [before] = await values(page, key, 12.4)
    await dragNumber(page, 'Carousel rotation', 0, 60)
    await expect(formula(page, 'Carousel rotation')).toHaveText('time * 60deg/s * fairPace - 186deg')
    const [after] = await values(page, key, 12.4)
    expect(Math.abs(after! - before!)).toBeLessThanOrEqual(1e-9)
    const [later] = await values(page, key, 13.4)
    expect(later! - after!).toBeCloseTo(60 / 360, 9)
    await page.getByRole('button', { name: 'Undo' }).first().click()
    await expect(formula(page, 'Carousel rotation')).toHaveText('time * 45deg/s * fairPace')
    await page.getByRole('button', { name: 'Redo' }).click()
    await expect(formula(page, 'Carousel rotation')).toHaveText('time * 60deg/s * fairPace - 186deg')
  })

  test('while a number is dragged nothing is selected; let go, text is selected and written as ever', async ({
    page,
  }) => {
    await freshFair(page)
    const field = formula(page, 'Carousel rotation')
    const number = field.locator('[data-handle="0"]')
    const answers = () => page.evaluate(() => [getSelection()?.rangeCount, Object.hasOwn(document, 'getSelection')])
    for (const letGo of ['up', 'cancel'] as const) {
      await field.scrollIntoViewIfNeeded()
      const box = (await number.boundingBox())!
      await page.mouse.move(box.x + 4, box.y + 4)
      await page.mouse.down()
      await page.mouse.move(box.x + 30, box.y + 4, { steps: 4 })
      expect(await page.evaluate(() => document.getSelection())).toBeNull()
      if (letGo === 'cancel') await page.evaluate(() => dispatchEvent(new PointerEvent('pointercancel')))
      await page.mouse.up()
      expect(await answers()).toEqual([0, false])
    }
    // In a formula that is being written the selection is answered as ever.
    await field.click()
    await page.keyboard.press('Home')
    const box = (await number.boundingBox())!
    await page.mouse.move(box.x + 4, box.y + 4)
    await page.mouse.down()
    await page.mouse.move(box.x + 30, box.y + 4, { steps: 4 })
    expect(await answers()).toEqual([1, false])
    await page.mouse.up()
    await field.click()
    await page.keyboard.press('End')
    await page.keyboard.type(' + 1deg')
    await expect(field).toHaveText(/\+ 1deg$/)
  })

  test('at rest a change is just what was typed, and it is said what cannot be kept', async ({ page }) => {
    await freshFair(page)
    await halt(page)
    await goTo(page, '12.4')
    await write(page, 'Carousel rotation', 'time * 60deg/s * fairPace')
    await expect(formula(page, 'Carousel rotation')).toHaveText('time * 60deg/s * fairPace')
    await keepAlways(page)
    await write(page, 'Carousel rotation', 'mod(time * 1deg/s, 90deg)')
    await write(page, 'Carousel rotation', 'mod(time * 1deg/s, 10deg)')
    await expect(page.getByRole('status').filter({ hasText: 'It jumps from 12.40° to 2.40°.' })).toBeVisible()
    await write(page, 'Carousel rotation', 'ramp(length: 4s, to: 90deg, after: repeat)')
    const key = await keyOf(page, 'Carousel rotation')
    const [before] = await values(page, key, 12.4)
    await write(page, 'Carousel rotation', 'ramp(length: 5s, to: 90deg, after: repeat)')
    await expect(formula(page, 'Carousel rotation')).toContainText('start:')
    expect((await values(page, key, 12.4))[0]).toBeCloseTo(before!, 9)
  })

  test('a number dragged while it plays never makes the rotation leap', async ({ page }) => {
    await freshFair(page)
    const key = await keyOf(page, 'Carousel rotation')
    await page.evaluate(k => {
      const seen: [number, number][] = []
      Object.assign(window, { seen })
      const look = () => {
        const t = window.openTide.now()
        seen.push([t, window.openTide.values(k, t)[0]!])
        requestAnimationFrame(look)
      }
      look()
    }, key)
    await expect
      .poll(() => page.evaluate(() => (window as unknown as { seen: unknown[] }).seen.length))
      .toBeGreaterThan(5)
    await dragNumber(page, 'Carousel rotation', 0, 120)
    await expect(formula(page, 'Carousel rotation')).toContainText('time * 75deg/s * fairPace -')
    const seen = await page.evaluate(() => (window as unknown as { seen: [number, number][] }).seen)
    expect(seen.length).toBeGreaterThan(10)
    for (let i = 1; i < seen.length; i++) {
      const [dt, dv] = [seen[i]![0] - seen[i - 1]![0], seen[i]![1] - seen[i - 1]![1]]
      // Between 45 and 75 degrees a second all the time; without the correction it would leap by turns.
      expect(dv).toBeGreaterThanOrEqual(dt * 0.125 - 1e-6)
      expect(dv).toBeLessThanOrEqual(dt * (75 / 360) + 1e-6)
    }
    await page.getByRole('button', { name: 'Undo' }).first().click()
    await expect(formula(page, 'Carousel rotation')).toHaveText('time * 45deg/s * fairPace')
  })

  test('a dial from 100 % to 65 % keeps what it paces where it is, and changes no text', async ({ page }) => {
    await freshFair(page)
    await halt(page)
    await keepAlways(page)
    await goTo(page, '12.4')
    await write(page, 'Mount y', 'sine(every: 2s / fairPace, amp: 24px, phase: index / count * 1turn)')
    const keys = await Promise.all(['Carousel rotation', 'Canopy rotation', 'Mount y'].map(l => keyOf(page, l)))
    const before = await Promise.all(keys.map(k => values(page, k, 12.4)))
    const texts = await page.locator('.cm-content').allTextContents()
    const field = page.getByRole('textbox', { name: 'fairPace, value' })
    await field.fill('65')
    await page.keyboard.press('Enter')
    await expect(field).toHaveValue('65')
    const after = await Promise.all(keys.map(k => values(page, k, 12.4)))
    after.forEach((list, i) => list.forEach((v, j) => expect(Math.abs(v - before[i]![j]!)).toBeLessThanOrEqual(1e-9)))
    expect(await page.locator('.cm-content').allTextContents()).toEqual(texts)
    const [one] = await values(page, keys[0]!, 13.4)
    expect(one! - after[0]![0]!).toBeCloseTo((45 / 360) * 0.65, 9)
    await page.getByRole('button', { name: 'reset' }).click()
    expect(await values(page, keys[0]!, 0)).toEqual([0])
  })

  test('the arrow keys step the number at the caret', async ({ page }) => {
    await freshFair(page)
    await halt(page)
    await goTo(page, '0')
    await formula(page, 'Mount y').locator('[data-handle="1"]').first().click()
    await page.keyboard.press('Alt+ArrowUp')
    await expect(formula(page, 'Mount y')).toContainText('amp: 25px')
    await page.keyboard.press('Shift+Alt+ArrowDown')
    await expect(formula(page, 'Mount y')).toContainText('amp: 15px')
  })
})
