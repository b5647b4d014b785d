/** Gestures on cues, keyframes that repeat, and long chains, as whole tasks through the interface. */
import type { Page } from '@playwright/test'
import { NIB, TAPE_PER_SECOND } from '../../app/player/tape-scale.ts'
import { entry, expect, freshFair, goTo, halt, keyOf, make, settled, test, type, values, write } from './fair.ts'
import { pick } from './pick.ts'

const DEG = 1 / 360
/** Where the nib stands across the tape, and how many pixels a second takes there. */

test.beforeEach(async ({ page }) => {
  await freshFair(page)
  await halt(page)
})

const desk = (page: Page) => page.getByRole('region', { name: 'Desk' })
const one = async (page: Page, key: string, s: number) => (await values(page, key, s))[0]!

/** A point of the curve or the keys in hand, typed. */
async function setPoint(page: Page, nth: number, time: number, value: number, shape: string): Promise<void> {
  const paper = page.locator('[data-points]')
  await paper.locator(`[data-point="${nth}"]`).click()
  await desk(page).getByRole('textbox', { name: 'Point at' }).fill(String(time))
  await page.keyboard.press('Enter')
  await desk(page).getByRole('textbox', { name: 'Value' }).fill(String(value))
  await page.keyboard.press('Enter')
  await desk(page).getByRole('button', { name: shape, exact: true }).click()
}

test('a hop of two channels: height and squash run on one axis, every 3 s, later by a shift', async ({ page }) => {
  await make(page, 'curve')
  await make(page, 'cue')
  await (await entry(page, 'curve')).locator('canvas').click()
  await setPoint(page, 1, 0.5, 40, 'smooth')
  await desk(page).getByRole('button', { name: 'Add channel' }).click()
  await desk(page).getByRole('textbox', { name: 'Name of the channel' }).fill('squash')
  await page.keyboard.press('Enter')
  const cue = page.getByRole('article', { name: 'cue', exact: true })
  await goTo(page, '0')
  await cue.locator('header').click()
  await page.locator('body').press('c')
  await pick(cue.getByRole('combobox', { name: 'Repeat or once' }), 'again')
  await type(page, 'cue', 'Repeat every', '3')
  await write(page, 'Bell scale', '100% + play(curve, cue, channel: squash) * 1%')
  await write(page, 'Carousel rotation', 'play(curve, cue) * 1deg')
  const [bell, turn] = [await keyOf(page, 'Bell scale'), await keyOf(page, 'Carousel rotation')]
  expect(await one(page, turn, 0.5)).toBeCloseTo(40 * DEG, 9)
  expect(await one(page, turn, 3.5)).toBeCloseTo(40 * DEG, 9)
  // The other channel has the same axis and other values.
  expect(await one(page, bell, 0.5)).not.toBeCloseTo(1.4, 3)
})

test('a gesture with its hit on four cues, one of them drawn to the leap of another formula', async ({ page }) => {
  await make(page, 'cue')
  const cue = page.getByRole('article', { name: 'cue', exact: true })
  for (const t of ['3', '5.5', '9', '12']) {
    await goTo(page, t)
    await cue.locator('header').click()
    await page.locator('body').press('c')
  }
  await expect(cue.getByRole('spinbutton', { name: /^Mark/ })).toHaveCount(4)
  await write(page, 'Needle rotation', 'play(strike, cue, channel: arm) * -1deg')
  const arm = await keyOf(page, 'Needle rotation')
  // The hit point lands on each mark, and the run-up before it needs no counting back.
  const hits = await Promise.all([3, 5.5, 9, 12].map(t => one(page, arm, t)))
  for (const h of hits) expect(h).toBeCloseTo(hits[0]!, 9)
  expect(Math.abs(hits[0]!)).toBeGreaterThan(5 * DEG)
  expect(await one(page, arm, 2.9)).not.toBeCloseTo(await one(page, arm, 1), 3)
  // Another formula leaps at 6.7 s: the mark at 5.5 s is drawn there.
  await write(page, 'Carousel rotation', 'if time < 6.7s then 0deg else 90deg')
  await goTo(page, '6')
  const leaper = page.getByRole('article', { name: 'Carousel rotation', exact: true })
  await leaper.locator('header').click()
  await expect(leaper.locator('[data-leaps]')).toBeVisible()
  const box = (await page.locator('[data-tape]').boundingBox())!
  const x = (s: number) => box.x + Math.round(box.width * NIB) + TAPE_PER_SECOND * (s - 6)
  await page.mouse.move(x(5.5), box.y + 18)
  await page.mouse.down()
  await page.mouse.move(x(6.4), box.y + 18, { steps: 5 })
  // By then the jumps that it can snap to are known.
  await settled(page)
  await page.mouse.move(x(6.66), box.y + 18, { steps: 5 })
  await page.mouse.up()
  await expect(cue.getByRole('spinbutton', { name: 'Mark 2' })).toHaveText('6.7 s')
  expect(await one(page, arm, 6.7)).toBeCloseTo(hits[0]!, 9)
  expect(await one(page, arm, 9)).toBeCloseTo(hits[0]!, 9)
})

test('four keyframes are a blink that repeats, and two lie under a steady turn', async ({ page }) => {
  // The lids: open, shut, open, and a rest before it comes again.
  await (await entry(page, 'Tombola drum rotation')).locator('header').click()
  await page.getByRole('tab', { name: 'Scope' }).click()
  await desk(page).getByRole('button', { name: 'keyframes', exact: true }).click()
  await desk(page).getByRole('button', { name: 'Delete all keyframes' }).click()
  await write(page, 'Tombola drum rotation', 'base')
  await (await entry(page, 'Tombola drum rotation')).locator('header').click()
  const key = await keyOf(page, 'Tombola drum rotation')
  for (const t of ['0', '2.8', '2.9', '3']) {
    await goTo(page, t)
    await page.locator('body').press('k')
  }
  const shown = desk(page).getByRole('button', { name: 'keyframes', exact: true })
  if ((await shown.getAttribute('aria-pressed')) !== 'true') await shown.click()
  await expect(page.locator('[data-point]')).toHaveCount(4)
  for (const [n, [t, v]] of (
    [
      [0, 0],
      [2.8, 0],
      [2.9, 100],
      [3, 0],
    ] as const
  ).entries())
    await setPoint(page, n, t, v, 'straight')
  await pick(desk(page).getByRole('combobox', { name: 'After the last keyframe' }), 'repeat')
  for (const lap of [0, 3, 3000]) {
    expect(await one(page, key, lap + 1)).toBeCloseTo(0, 9)
    expect(await one(page, key, lap + 2.9)).toBeCloseTo(100 * DEG, 9)
    expect(await one(page, key, lap + 2.85)).toBeCloseTo(50 * DEG, 9)
  }
  // Two keys under a steady turn.
  for (const n of [3, 1]) {
    await page.locator(`[data-point="${n}"]`).click()
    await page.keyboard.press('Delete')
  }
  await expect(page.locator('[data-point]')).toHaveCount(2)
  await pick(desk(page).getByRole('combobox', { name: 'After the last keyframe' }), 'hold')
  await write(page, 'Tombola drum rotation', 'base + time * 36deg/s')
  expect(await one(page, key, 2.9)).toBeCloseTo(100 * DEG + 0.29, 9)
  expect(await one(page, key, 12.9)).toBeCloseTo(100 * DEG + 1.29, 9)
})

test('eight parts follow one another, each 80 % of the one before; one number tunes all', async ({ page }) => {
  const names = ['Carousel', 'Rim', 'Platform', 'Deck line', 'Canopy', 'Crown wheel', 'Idler', 'Needle']
  await page.getByRole('tab', { name: 'Links' }).click()
  await desk(page).getByRole('button', { name: 'Chain…' }).click()
  const list = page.getByRole('list', { name: /Parts of the chain/ })
  for (const name of names) await list.getByRole('button', { name, exact: true }).click()
  await page.getByRole('textbox', { name: 'Share, %' }).fill('80')
  await page.getByRole('textbox', { name: 'Lag, seconds' }).fill('0.1')
  await page.getByRole('button', { name: 'Make chain' }).click()
  const [first, last] = [await keyOf(page, 'Carousel rotation'), await keyOf(page, 'Needle rotation')]
  const share = async () => (await one(page, last, 20)) / (await one(page, first, 20 - 0.7))
  expect(await share()).toBeCloseTo(0.8 ** 7, 9)
  const field = page.getByRole('textbox', { name: 'share, value' })
  await field.fill('90')
  await field.press('Enter')
  expect(await share()).toBeCloseTo(0.9 ** 7, 9)
  const lag = page.getByRole('textbox', { name: 'lag, value' })
  await lag.fill('0')
  await lag.press('Enter')
  expect((await one(page, last, 20)) / (await one(page, first, 20))).toBeCloseTo(0.9 ** 7, 9)
})
