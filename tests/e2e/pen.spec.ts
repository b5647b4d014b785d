/** The pen on the stage, poses that a formula goes through, and a chain that one turn bends. */
import type { Page } from '@playwright/test'
import { Builder } from '../../core/acts/build.ts'
import { expect, formula, goTo, halt, keyOf, test, values, write } from './fair.ts'
import { colour, press, spot } from './on-stage.ts'
import { pick } from './pick.ts'

test.beforeEach(async ({ page }) => {
  const answer = await page.request.post('/api/pieces', { data: { document: new Builder('Pen', 5).piece } })
  const { id } = (await answer.json()) as { id: string }
  await page.goto(`/piece/${id}`)
  await expect(page.locator('[data-stage]')).toBeVisible()
})
const points = (page: Page) => page.getByRole('textbox', { name: 'Points of the outline' })
const rows = async (page: Page) => (await points(page).inputValue()).split('\n')
test('E1: an outline is drawn point by point, closed on the first, its points pulled, added, made smooth and taken away', async ({
  page,
}) => {
  await page.locator('[data-add="path"]').first().click()
  for (const [x, y] of [
    [-200, -100],
    [200, -100],
    [200, 150],
    [-200, 150],
  ] as const)
    await press(page, x, y)
  await press(page, -200, -100)
  await expect(page.getByRole('textbox', { name: 'Name of the part' })).toHaveValue('Path')
  expect(await rows(page)).toHaveLength(4)
  const [x0] = (await rows(page))[1]!.split(',').map(Number)
  expect(Math.abs(x0! - 200)).toBeLessThan(2)
  // A point is pulled to the right: the outline follows.
  await page.mouse.move(...(await spot(page, 200, 150)))
  await page.mouse.down()
  await page.mouse.move(...(await spot(page, 300, 150)), { steps: 5 })
  await page.mouse.up()
  expect(Math.abs(Number((await rows(page))[2]!.split(',')[0]) - 300)).toBeLessThan(3)
  await page.getByRole('button', { name: /^Undo/ }).first().click()
  expect(Math.abs(Number((await rows(page))[2]!.split(',')[0]) - 200)).toBeLessThan(3)
  // Twice on the line: a point more; twice on a point: smooth; Del takes it away; N goes on to the next.
  await page.mouse.dblclick(...(await spot(page, 0, -100)))
  expect(await rows(page)).toHaveLength(5)
  await page.mouse.dblclick(...(await spot(page, 0, -100)))
  expect((await rows(page))[1]).toContain('smooth')
  await page.keyboard.press('Delete')
  expect(await rows(page)).toHaveLength(4)
  await page.keyboard.press('n')
  await page.keyboard.press('s')
  await page.keyboard.press('Shift+ArrowLeft')
  expect((await rows(page))[0]).toMatch(/^-21\d(\.\d+)?, .*smooth$/)
  // Typed; what isn’t a point is said and changes nothing.
  await points(page).fill('0, 0\n100, 0\nabout here')
  await points(page).blur()
  await expect(page.getByText(/“about here” isn’t a point/)).toBeVisible()
  expect(await rows(page)).toHaveLength(4)
})

test('the pen by keys: the last point is taken back, Enter ends it open, Esc gives it up', async ({ page }) => {
  await page.locator('[data-add="path"]').first().click()
  for (const x of [-200, 0, 200, 300]) await press(page, x, 40)
  await page.keyboard.press('Backspace')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('textbox', { name: 'Name of the part' })).toHaveValue('Path')
  expect(await rows(page)).toHaveLength(3)
  await expect(page.getByRole('checkbox', { name: 'closed' })).not.toBeChecked()
  await page.getByRole('button', { name: 'All parts, add one…' }).click()
  await page.locator('[data-add="path"]').first().click()
  await press(page, 0, -200)
  await page.keyboard.press('Escape')
  await expect(page.getByText('Press to lay points')).toHaveCount(0)
  await expect(page.getByRole('list', { name: 'All parts' }).getByRole('listitem')).toHaveCount(1)
})

test('a blob goes through four poses for ever: poses are added, pulled apart, and driven', async ({ page }) => {
  await page.locator('[data-add="path"]').first().focus()
  await page.keyboard.press('Enter')
  await expect(points(page)).toBeVisible()
  await points(page).fill('-50, -50\n50, -50\n50, 50\n-50, 50')
  await points(page).blur()
  for (const [k, wide] of [150, 250, 100].entries()) {
    await page.getByRole('button', { name: 'Add a pose like this one' }).click()
    await expect(page.getByRole('button', { name: `Pose ${k + 1}`, exact: true })).toHaveAttribute(
      'aria-pressed',
      'true',
    )
    await points(page).fill(`-50, -50\n${wide}, -50\n${wide}, 50\n-50, 50`)
    await points(page).blur()
  }
  await page.getByRole('button', { name: 'Write a formula for pose' }).click()
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.insertText('time * 0.5/s')
  await page.keyboard.press('Enter')
  await halt(page)
  await press(page, 500, 300)
  const ground = await colour(page, 500, 300)
  const inside = async (x: number) => (await colour(page, x, 0)).some((v, k) => Math.abs(v - ground[k]!) > 8)
  // At 2 s in pose 1, 150 px wide; at 4 s in pose 2, 250; at 8 s in the first again; the same a year of rounds later.
  for (const [t, reaches] of [
    ['2', 150],
    ['4', 250],
    ['5', 175],
    ['8', 50],
    ['8004', 250],
  ] as const) {
    await goTo(page, t)
    expect([t, await inside(reaches - 6), await inside(reaches + 6)]).toEqual([t, true, false])
  }
  await expect(page.getByRole('article', { name: 'Path pose' })).toContainText('loops')
})

test('E1: a streamer of seven by a chain, bent by one swing', async ({ page }) => {
  await page.locator('[data-add="rectangle"]').first().click()
  await pick(page.getByRole('combobox', { name: 'Copies' }), 'chain')
  const desk = page.getByRole('region', { name: 'Desk' })
  const set = async (name: string, to: string) => {
    await desk.getByRole('textbox', { name, exact: true }).fill(to)
    await page.keyboard.press('Enter')
  }
  await set('width', '60')
  await set('height', '12')
  await set('count', '7')
  await set('tip x', '60')
  await set('pivot x', '-30')
  await set('x', '-180')
  await page.getByRole('button', { name: 'Write a formula for rotation', exact: true }).click()
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.insertText('10deg')
  await page.keyboard.press('Enter')
  await halt(page)
  await expect(formula(page, 'Rectangle rotation')).toHaveText('10deg')
  // The seventh ends where seven steps of 60 px at 10°, 20° … 70° lead.
  let [x, y] = [-210, 0]
  for (let k = 1; k <= 7; k++) {
    x += 60 * Math.cos((k * Math.PI) / 18)
    y += 60 * Math.sin((k * Math.PI) / 18)
  }
  await press(page, 500, -300)
  const ground = await colour(page, 500, -300)
  const shows = async (px: number, py: number) =>
    (await colour(page, px, py)).some((v, k) => Math.abs(v - ground[k]!) > 8)
  const [ux, uy] = [Math.cos((70 * Math.PI) / 180), Math.sin((70 * Math.PI) / 180)]
  expect([await shows(x - 6 * ux, y - 6 * uy), await shows(x + 8 * ux, y + 8 * uy)]).toEqual([true, false])
  // One number bends the whole: straight again.
  await write(page, 'Rectangle rotation', '0deg')
  expect([await shows(200, 0), await shows(220, 0)]).toEqual([true, false])
  expect((await values(page, await keyOf(page, 'Rectangle rotation'), 3)).length).toBe(7)
})
