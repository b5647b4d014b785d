/** The stage in the hand: groups and several as one, doubles that are pulled off, words by a double press, the view along. */
import type { Page } from '@playwright/test'
import { Builder } from '../../core/acts/build.ts'
import { expect, test } from './fair.ts'
import { chosen, drag, field, inHand, letGo, number, openPiece, press, put, spot } from './on-stage.ts'

/** A barge that carries a card and a lamp, a post, a buoy, a gear, and a name. */
test.beforeEach(async ({ page }) => {
  const b = new Builder('Together', 3)
  const barge = b.part('Barge', { type: 'group' }, {}, { x: -300, y: 120, rotation: 90 })
  b.part('Card', { type: 'rectangle' }, { parent: barge }, { width: 120, height: 60 })
  b.part('Lamp', { type: 'ellipse' }, { parent: barge }, { x: 80, width: 40, height: 40 })
  b.part('Post', { type: 'rectangle' }, {}, { x: 100, y: 200, width: 40, height: 80 })
  b.part('Buoy', { type: 'star', points: 5 }, {}, { x: 300, y: 200, radius: 40, innerRadius: 20 })
  b.part('Pinion', { type: 'gear', teeth: 12, spokes: 0, module: 6 }, {}, { x: 0, y: -120 })
  b.part(
    'Name',
    { type: 'text', words: 'Pier', shows: 'words', decimals: 0, prefix: '', suffix: '', align: 'middle' },
    {},
    { x: 400, y: -200, size: 100 },
  )
  await openPiece(page, b.piece)
})

/** Stage pixels that page pixels are. */
const px = async (page: Page, n: number) => n * (1280 / (await page.locator('[data-stage]').boundingBox())!.width)
const near = async (page: Page, name: string, value: number, by = 2) =>
  expect(Math.abs((await number(page, name)) - value), `${name} is ${await number(page, name)}`).toBeLessThan(by)
const undo = (page: Page) => page.getByRole('button', { name: /^Undo/ }).first().click()

test('A1: a group in hand is pulled by what it carries, turned about its pin, sized from a corner; a press alone goes in', async ({
  page,
}) => {
  await press(page, -300, 120)
  await chosen(page, 'Card')
  await page.keyboard.press('Escape')
  await chosen(page, 'Barge')
  // By the lamp, which lies 80 px up: the group goes, and what it carries keeps its numbers.
  await drag(page, [-300, 200], [-240, 160], 'Control')
  await chosen(page, 'Barge')
  await near(page, 'x', -240)
  await near(page, 'y', 80)
  await press(page, -240, 160)
  await chosen(page, 'Lamp')
  expect([await number(page, 'x'), await number(page, 'y')]).toEqual([80, 0])
  await page.keyboard.press('Escape')
  // Its frame: the card 60 across and 120 up, the lamp above it.
  const [x, y] = [await number(page, 'x'), await number(page, 'y')]
  const knob = y + 100 + (await px(page, 22))
  await drag(page, [x, knob], [x + 300, y], 'Shift')
  expect(await number(page, 'rotation')).toBe(0)
  await undo(page)
  expect(await number(page, 'rotation')).toBe(90)
  // From the foot left to the upper right corner, half as large again: the foot left stays.
  await drag(page, [x + 30, y + 100], [x + 60, y + 180], 'Control')
  await near(page, 'scale', 150)
  await near(page, 'x', x + 15)
  await near(page, 'y', y + 30)
  await press(page, x + 15, y + 30)
  await chosen(page, 'Card')
  expect([await number(page, 'width'), await number(page, 'height')]).toEqual([120, 60])
})

test('several are turned about their middle and sized as one, each by its own numbers, in one step that is undone', async ({
  page,
}) => {
  await press(page, 100, 200)
  await page.keyboard.down('Shift')
  await press(page, 300, 200)
  await page.keyboard.up('Shift')
  // From 80 to about 338, from 160 to 240.
  const right = 300 + 40 * Math.cos(Math.PI / 10)
  const middle = (80 + right) / 2
  await drag(page, [middle, 240 + (await px(page, 22))], [middle - 200, 200], 'Shift')
  await inHand(page, 'Post')
  expect(await number(page, 'rotation')).toBe(90)
  await near(page, 'x', middle)
  await near(page, 'y', 200 - (middle - 100))
  await undo(page)
  expect([await number(page, 'x'), await number(page, 'y'), await number(page, 'rotation')]).toEqual([100, 200, 0])
  await press(page, 100, 200)
  await page.keyboard.down('Shift')
  await press(page, 300, 200)
  await page.keyboard.up('Shift')
  await drag(page, [80, 240], [80 - (right - 80) / 2, 280], 'Control')
  await inHand(page, 'Post')
  await near(page, 'width', 60)
  await near(page, 'height', 120)
  await inHand(page, 'Buoy')
  await near(page, 'radius', 60)
  await near(page, 'innerRadius', 30)
  expect(await number(page, 'scale')).toBe(100)
})

test('with Alt a double is pulled off, in line with what it is of; given up it is gone; a gear runs with its double', async ({
  page,
}) => {
  await press(page, 100, 200)
  const parts = page.getByRole('list', { name: 'All parts' }).getByRole('listitem')
  await drag(page, [100, 200], [200, 203], 'Alt')
  await chosen(page, 'Post2')
  await near(page, 'x', 200)
  // Drawn to the height of what it is of.
  expect(await number(page, 'y')).toBe(200)
  await letGo(page)
  await expect(parts).toHaveCount(8)
  await page.mouse.move(...(await spot(page, 100, 200)))
  await page.mouse.down()
  await page.keyboard.down('Alt')
  await page.mouse.move(...(await spot(page, 100, -20)), { steps: 4 })
  await chosen(page, 'Post3')
  await page.keyboard.press('Escape')
  await page.mouse.up()
  await page.keyboard.up('Alt')
  await chosen(page, 'Post')
  expect(await number(page, 'y')).toBe(200)
  await letGo(page)
  await expect(parts).toHaveCount(8)
  // Two pitch circles of 36 px.
  await drag(page, [0, -120], [74, -120], 'Alt')
  await expect(page.getByRole('textbox', { name: /^Formula of Pinion2 rotation/ })).toHaveText('engage(Pinion)')
  await chosen(page, 'Pinion2')
  expect(await number(page, 'x')).toBe(72)
})

test('a corner with Shift keeps the form; a double press on a text goes into its words', async ({ page }) => {
  await press(page, 100, 200)
  await drag(page, [120, 240], [140, 240], 'Shift')
  const [w, h] = [await number(page, 'width'), await number(page, 'height')]
  expect(h / w).toBeCloseTo(2, 1)
  expect(w).toBeGreaterThan(42)
  await letGo(page)
  await page.getByRole('tab', { name: 'Lap' }).click()
  await page.mouse.dblclick(...(await spot(page, 400, -200)))
  await chosen(page, 'Name')
  await expect(page.getByRole('textbox', { name: 'Words' })).toBeFocused()
  await page.keyboard.insertText('Lantern Pier')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('textbox', { name: 'Words' })).toHaveValue('Lantern Pier')
})

test('the view goes along by a wheel turned sideways, by keys where nothing is chosen, and nearer by a pinch', async ({
  page,
}) => {
  const percent = async () => Number(/(\d+) %/.exec(await page.getByText(/flat · \d+ %/).innerText())![1])
  const fitted = await percent()
  const [x, y] = await spot(page, 100, 200)
  await page.mouse.move(x, y)
  await page.mouse.wheel(90, 0)
  expect(await percent()).toBe(fitted)
  await page.mouse.click(x - 90, y)
  await chosen(page, 'Post')
  await letGo(page)
  await page.getByRole('button', { name: 'fit the stage' }).click()
  await letGo(page)
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowUp')
  const box = (await page.locator('[data-stage]').boundingBox())!
  await page.mouse.click(x - box.width / 10, y + box.height / 10)
  await chosen(page, 'Post')
  await page.keyboard.down('Control')
  await page.mouse.wheel(0, -50)
  await page.keyboard.up('Control')
  await expect.poll(percent).toBeGreaterThan(fitted * 1.5)
  await expect(field(page, 'x')).toBeVisible()
  await put(page, 'x', 100)
})

test('at the upper edge of the stage the knob that turns hangs below', async ({ page }) => {
  await press(page, 100, 200)
  await put(page, 'y', 320)
  await drag(page, [100, 280 - (await px(page, 22))], [300, 320], 'Shift')
  expect(await number(page, 'rotation')).toBe(90)
  await undo(page)
  expect(await number(page, 'rotation')).toBe(0)
})
