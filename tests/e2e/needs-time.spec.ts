/** Needs A2, A4, F1 to F4: endless time, stretches, clocks, stepped time, cues. Each through the interface alone. */
import { NIB, TAPE_PER_SECOND } from '../../app/player/tape-scale.ts'
import { expect, formula, freshFair, goTo, halt, keyOf, make, now, test, type, values, write } from './fair.ts'
import { pick } from './pick.ts'

const DEG = 1 / 360
test('A2: frame rate and lap are changed on their pages, frames said, and a rate per second stays what it was', async ({
  page,
}) => {
  await freshFair(page)
  await halt(page)
  const key = await keyOf(page, 'Carousel rotation')
  const [before] = await values(page, key, 12.4)
  await page.getByRole('tab', { name: 'Piece' }).click()
  await pick(page.getByRole('combobox', { name: 'Frame rate' }), '60')
  await expect(page.getByRole('status').filter({ hasText: 'a lap now has 480 frames instead of 240' })).toBeVisible()
  await page.getByRole('tab', { name: 'Lap' }).click()
  await page.getByLabel('Keep lap position').check()
  await page.getByRole('textbox', { name: 'Length of the lap, seconds' }).fill('5')
  await expect(page.locator('[data-lap] [data-frames]')).toContainText('300 frames at 60 fps, 0 … 299')
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-lap-state]')).toContainText('Lap 5 s')
  expect((await values(page, key, 12.4))[0]).toBeCloseTo(before!, 12)
  // Time has no end: it runs on past laps, and every frame is shown when asked.
  await page.getByRole('button', { name: 'Play every frame' }).click()
  await goTo(page, '1000')
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await expect.poll(() => now(page)).toBeGreaterThan(1000.1)
})

test('A4: a stretch is marked by keys and by hand along the ruler, replayed, and read in a formula', async ({
  page,
}) => {
  await freshFair(page)
  await halt(page)
  await goTo(page, '2')
  await page.locator('body').press('[')
  await goTo(page, '3')
  await page.locator('body').press(']')
  await expect(page.locator('[data-stretch]')).toContainText('2 – 3 s')
  await write(page, 'Carousel rotation', 'stretchEnd / 1s * 10deg')
  expect((await values(page, await keyOf(page, 'Carousel rotation'), 0))[0]).toBeCloseTo(30 * DEG, 12)
  await page.getByRole('button', { name: 'replay stretch' }).click()
  // It wraps from the end to the start and never leaves the stretch.
  const seen: number[] = []
  await expect
    .poll(async () => {
      seen.push(await now(page))
      return seen.length > 1 && seen.at(-1)! < seen.at(-2)!
    })
    .toBe(true)
  expect(Math.min(...seen)).toBeGreaterThanOrEqual(2 - 1e-6)
  expect(Math.max(...seen)).toBeLessThan(3.2)
  await halt(page)
  const tape = (await page.locator('[data-tape]').boundingBox())!
  await page.mouse.move(tape.x + tape.width * NIB + TAPE_PER_SECOND, tape.y + tape.height - 5)
  await page.mouse.down()
  await page.mouse.move(tape.x + tape.width / 3 + 210, tape.y + tape.height - 5, { steps: 6 })
  await page.mouse.up()
  const [from, to] = (await page.locator('[data-stretch]').textContent())!.match(/[\d.]+/g)!.map(Number)
  expect(to! - from!).toBeCloseTo(4, 1)
  await page.getByRole('button', { name: 'Unmark the stretch' }).click()
  await expect(page.locator('[data-stretch]')).toHaveCount(0)
})

test('F1: a clock is made, runs back and forth, faster, again; what is on it follows, and it is renamed everywhere', async ({
  page,
}) => {
  await freshFair(page)
  await halt(page)
  await make(page, 'clock')
  await write(page, 'Carousel rotation', 'time * 10deg/s on clock')
  const key = await keyOf(page, 'Carousel rotation')
  const entry = page.getByRole('article', { name: 'clock', exact: true })
  await type(page, 'clock', 'Rate', '0.5')
  expect((await values(page, key, 3))[0]).toBeCloseTo(15 * DEG, 12)
  await pick(entry.getByRole('combobox', { name: 'How it runs' }), 'toAndFro')
  await type(page, 'clock', 'Each way', '2')
  expect((await values(page, key, 3))[0]).toBeCloseTo(10 * DEG, 12)
  await pick(entry.getByRole('combobox', { name: 'How it runs' }), 'restart')
  await type(page, 'clock', 'Every', '2.5')
  expect((await values(page, key, 3))[0]).toBeCloseTo(5 * DEG, 12)
  await pick(entry.getByRole('combobox', { name: 'How it runs' }), 'cue')
  expect((await values(page, key, 3))[0]).toBeCloseTo(10 * DEG, 12)
  await entry.getByRole('button', { name: 'More for clock' }).click()
  await expect(page.locator('[data-readers]')).toContainText('Read by Carousel rotation.')
  await page.getByRole('menuitem', { name: /Rename/ }).click()
  await page.getByRole('textbox', { name: 'New name' }).fill('slow tide')
  await page.keyboard.press('Enter')
  await expect(formula(page, 'Carousel rotation')).toHaveText('time * 10deg/s on `slow tide`')
  // Taken away it is said who read it, and undo brings it back.
  await page.getByRole('button', { name: 'More for slow tide' }).click()
  await page.getByRole('menuitem', { name: 'Delete' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'Carousel rotation use it and can’t run' })).toBeVisible()
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('article', { name: 'slow tide', exact: true })).toBeVisible()
})

test('F2: everything on a clock is held at so many steps a second', async ({ page }) => {
  await freshFair(page)
  await halt(page)
  await make(page, 'clock')
  const entry = page.getByRole('article', { name: 'clock', exact: true })
  await pick(entry.getByRole('combobox', { name: 'Smooth or stepped' }), 'held')
  await type(page, 'clock', 'Held at', '4')
  await write(page, 'Carousel rotation', 'time * 100deg/s on clock')
  const key = await keyOf(page, 'Carousel rotation')
  for (const [t, held] of [
    [0.1, 0],
    [0.26, 25],
    [0.74, 50],
    [0.75, 75],
  ] as const)
    expect((await values(page, key, t))[0]).toBeCloseTo(held * DEG, 12)
})

test('F3: marks of a cue are typed, tapped, dragged and doubled on the tape; a gesture plays with its hit on them', async ({
  page,
}) => {
  await freshFair(page)
  await halt(page)
  await make(page, 'cue')
  await goTo(page, '3')
  await page.locator('body').press('c')
  await expect(page.getByRole('status').filter({ hasText: 'cue has a mark at 3 s' })).toBeVisible()
  const entry = page.getByRole('article', { name: 'cue', exact: true })
  await expect(entry.getByRole('spinbutton', { name: 'Mark 1' })).toHaveText('3 s')
  await type(page, 'cue', 'Mark 1', '4')
  await write(page, 'Carousel rotation', 'if fires(cue) then 90deg else 10deg * since(cue) / 1s')
  const key = await keyOf(page, 'Carousel rotation')
  expect((await values(page, key, 4))[0]).toBeCloseTo(0.25, 12)
  expect((await values(page, key, 5))[0]).toBeCloseTo(10 * DEG, 12)
  const tape = (await page.locator('[data-tape]').boundingBox())!
  const nib = Math.round(tape.width * NIB)
  await page.mouse.move(tape.x + nib + TAPE_PER_SECOND, tape.y + 18)
  await page.mouse.down()
  await page.mouse.move(tape.x + nib + 2 * TAPE_PER_SECOND, tape.y + 18, { steps: 6 })
  await page.mouse.up()
  await expect(entry.getByRole('spinbutton', { name: 'Mark 1' })).toHaveText('5 s')
  expect((await values(page, key, 5))[0]).toBeCloseTo(0.25, 12)
  await page.keyboard.down('Alt')
  await page.mouse.move(tape.x + nib + 2 * TAPE_PER_SECOND, tape.y + 18)
  await page.mouse.down()
  await page.mouse.move(tape.x + nib + 3 * TAPE_PER_SECOND, tape.y + 18, { steps: 6 })
  await page.mouse.up()
  await page.keyboard.up('Alt')
  await expect(entry.getByRole('spinbutton')).toHaveCount(2)
  await pick(entry.getByRole('combobox', { name: 'Repeat or once' }), 'again')
  await type(page, 'cue', 'Repeat every', '10')
  expect((await values(page, key, 15))[0]).toBeCloseTo(0.25, 12)
  await entry.getByRole('spinbutton', { name: 'Mark 2' }).focus()
  await page.keyboard.press('Delete')
  await expect(entry.getByRole('spinbutton', { name: /^Mark/ })).toHaveCount(1)
  // The demo's gesture: its hit point is what lands on the mark, and is dragged in the sentence.
  const mallet = await keyOf(page, 'Mallet rotation')
  const struck = (await values(page, mallet, 2))[0]!
  await type(page, 'strike', 'Hit point', '0.85')
  expect((await values(page, mallet, 1.9))[0]).toBeCloseTo(struck, 6)
})

test('F4: a steady clock is linear for ever, and a curve on it too', async ({ page }) => {
  await freshFair(page)
  await halt(page)
  await make(page, 'clock')
  await type(page, 'clock', 'Rate', '-2')
  await type(page, 'clock', 'Ahead', '1')
  await write(page, 'Carousel rotation', 'time * 36deg/s on clock')
  const key = await keyOf(page, 'Carousel rotation')
  for (const t of [0, 1, 86400]) expect((await values(page, key, t))[0]).toBeCloseTo((1 - 2 * t) / 10, 8)
})
