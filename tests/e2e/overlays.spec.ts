/** What lies over the stage: guides, and threads between what is read and what reads it. */
import type { Page } from '@playwright/test'
import { Builder } from '../../core/acts/build.ts'
import { expect, test } from './fair.ts'
import { inHand, letGo, openPiece } from './on-stage.ts'

/** Points of the overlay that are drawn on, all of them or within a frame of stage points. */
const drawn = (page: Page, left = -640, right = 640, low = -360, high = 360) =>
  page.locator('[data-stage] + canvas').evaluate(
    (c: HTMLCanvasElement, [left, right, low, high]) => {
      const { data } = c.getContext('2d')!.getImageData(0, 0, c.width, c.height)
      let sum = 0
      for (let k = 3; k < data.length; k += 4) {
        const at = (k - 3) / 4
        const [x, y] = [((at % c.width) / c.width) * 1280 - 640, 360 - (Math.floor(at / c.width) / c.height) * 720]
        if (data[k]! > 0 && x > left && x < right && y > low && y < high) sum++
      }
      return sum
    },
    [left, right, low, high] as const,
  )

test('A1: the middle of the stage and its safe margins are drawn when asked for', async ({ page }) => {
  await openPiece(page, new Builder('Guides', 3).piece)
  await page.getByRole('tab', { name: 'Piece' }).click()
  expect(await drawn(page)).toBe(0)
  await page.getByLabel('Guides: middle and safe margins').check()
  await expect.poll(() => drawn(page)).toBeGreaterThan(500)
  // A cross in the middle, a frame nine tenths and one eight tenths as large.
  expect(await drawn(page, -24, 24, -24, 24)).toBeGreaterThan(20)
  expect(await drawn(page, -590, -560)).toBeGreaterThan(50)
  expect(await drawn(page, -528, -496)).toBeGreaterThan(50)
  expect(await drawn(page, -480, -60)).toBeGreaterThan(100)
  await page.getByRole('button', { name: /^Undo/ }).first().click()
  await expect.poll(() => drawn(page)).toBe(0)
})

test('I4: threads lead from the part in hand to what it reads and to what reads it, and are switched off', async ({
  page,
}) => {
  const b = new Builder('Threads', 3)
  const at = (x: number, y: number) => ({ x, y, width: 40, height: 40 })
  const wheel = b.part('Wheel', { type: 'ellipse' }, {}, at(-400, 0))
  const lamp = b.part('Lamp', { type: 'ellipse' }, {}, at(0, 0))
  const flag = b.part('Flag', { type: 'ellipse' }, {}, at(400, 0))
  b.drive(wheel, 'opacity', '100%')
  b.drive(lamp, 'opacity', 'wheel.opacity')
  b.drive(flag, 'opacity', 'lamp.opacity')
  await openPiece(page, b.piece)
  await inHand(page, 'Lamp')
  const [left, right] = [() => drawn(page, -340, -60), () => drawn(page, 60, 340)]
  await expect.poll(left).toBeGreaterThan(100)
  expect(await right()).toBeGreaterThan(100)
  await inHand(page, 'Wheel')
  await expect.poll(left).toBeGreaterThan(100)
  expect(await right()).toBe(0)
  await page.getByRole('checkbox', { name: 'threads' }).uncheck()
  await expect.poll(left).toBe(0)
  await letGo(page)
  expect(await drawn(page)).toBe(0)
})
