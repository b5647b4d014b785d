import type { Page } from '@playwright/test'
import { atRest, expect, freshFair, goTo, halt, keyOf, saved, test, values, write } from './fair.ts'
import { stagePicture } from './on-stage.ts'
import { pick } from './pick.ts'

/** The heading of a part in the tide table chooses it. */
async function choose(page: Page, name: string): Promise<void> {
  const button = page.getByRole('button', { name, exact: true }).first()
  await button.scrollIntoViewIfNeeded()
  // What has come near stands in full first, so that nothing moves under the press.
  await atRest(button)
  await button.click()
}
const made = (page: Page) => page.getByRole('textbox', { name: 'Name of the part' })

test('copies along a path: their places are typed, what isn’t a point is said and changes nothing', async ({
  page,
}) => {
  await freshFair(page, 'whole')
  await halt(page)
  await choose(page, 'Chase lantern')
  await expect(page.getByLabel('Copies')).toHaveAttribute('data-value', 'path')
  const points = page.getByLabel('Points of the path')
  const before = await points.inputValue()
  await points.fill('0, 0\nnorth')
  await points.blur()
  await expect(page.getByText('“north” isn’t a point')).toBeVisible()
  await expect(points).toHaveValue(before)
  await points.fill('-300, 0\n0, -50\n300, 0')
  await points.blur()
  await expect(page.getByText('is no point')).toHaveCount(0)
  await page.getByLabel('count', { exact: true }).fill('5')
  await page.getByLabel('count', { exact: true }).press('Enter')
  await expect(page.getByText('5 along a path')).toBeVisible()
  await pick(page.getByLabel('Copies'), 'layers')
  await expect(page.getByText('5 in layers')).toBeVisible()
  await write(page, 'Chase lantern rotation', 'layer * 10deg + depth * 1deg')
  const turns = await values(page, await keyOf(page, 'Chase lantern rotation'), 0)
  expect(turns.map(v => Math.round(v * 36000) / 100)).toEqual([0, 10.25, 20.5, 30.75, 41])
  await saved(page)
})

test('a gear added beside a chosen one runs with it at once', async ({ page }) => {
  await freshFair(page)
  await halt(page)
  await choose(page, 'Pinion')
  const pinion = await values(page, await keyOf(page, 'Pinion rotation'), 4)
  await page.getByRole('button', { name: 'Add an engaging gear' }).click()
  const name = await made(page).inputValue()
  expect(name).toBe('Gear')
  const turned = await values(page, await keyOf(page, `${name} rotation`), 4)
  const begun = await values(page, await keyOf(page, `${name} rotation`), 0)
  const [start] = await values(page, await keyOf(page, 'Pinion rotation'), 0)
  // 12 teeth against 24, the other way round.
  expect(turned[0]! - begun[0]!).toBeCloseTo((-12 / 24) * (pinion[0]! - start!), 9)
})

test('a part is duplicated with what drives it, and undone', async ({ page }) => {
  await freshFair(page)
  await halt(page)
  await choose(page, 'Tombola drum')
  await page.getByRole('button', { name: 'Duplicate' }).click()
  await expect(made(page)).toHaveValue('Tombola drum2')
  const [one, two] = await Promise.all(
    ['Tombola drum rotation', 'Tombola drum2 rotation'].map(async label => values(page, await keyOf(page, label), 5.5)),
  )
  expect(two).toEqual(one)
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(page.getByRole('article', { name: 'Tombola drum2 rotation' })).toHaveCount(0)
})

test('things float on a wave surface: a duck is where the water is', async ({ page }) => {
  await page.goto('/piece/duck-basin')
  await expect(page.getByRole('article', { name: 'Duck y', exact: true })).toBeVisible()
  await halt(page)
  const key = await keyOf(page, 'Duck y')
  const [a, b] = [await values(page, key, 1), await values(page, key, 9)]
  expect(new Set(a).size).toBe(4)
  // A lap on, the water stands as it did.
  expect(b).toEqual(a)
})

test('a text is added, shows a number, and counts with its formula', async ({ page }) => {
  await freshFair(page)
  await halt(page)
  await page.locator('[data-add="text"]').click()
  await expect(page.getByLabel('Words')).toHaveValue('LANTERN PIER')
  await page.getByLabel('Words').fill('Duck pond')
  await page.getByLabel('Words').press('Enter')
  await pick(page.getByLabel('Shows'), 'number')
  await page.getByLabel('decimals').fill('1')
  await page.getByLabel('decimals').press('Enter')
  await page.getByLabel('suffix').fill(' m')
  await page.getByLabel('suffix').blur()
  await page.getByRole('button', { name: 'Write a formula for value' }).click()
  await write(page, 'Text value', 'time / 1s * 2')
  expect(await values(page, await keyOf(page, 'Text value'), 3.5)).toEqual([7])
  const before = await stagePicture(page)
  await goTo(page, '40')
  await expect.poll(async () => (await stagePicture(page)).equals(before)).toBe(false)
  await saved(page)
})

test('a trace follows the part that is chosen for it', async ({ page }) => {
  await freshFair(page)
  await halt(page)
  await page.locator('[data-add="trace"]').click()
  const before = await stagePicture(page)
  await pick(page.getByLabel('Follows'), { label: 'Mount' })
  await expect.poll(async () => (await stagePicture(page)).equals(before)).toBe(false)
  await saved(page)
})

test('a promise is written, proved or broken, and taken back', async ({ page }) => {
  await freshFair(page)
  await halt(page)
  const entry = page.getByRole('article', { name: 'Mount y', exact: true })
  const promise = async (side: string, limit: string, of: string) => {
    await page.getByRole('button', { name: 'More for Mount y' }).click()
    await page.getByRole('menuitem', { name: 'Promise a limit…' }).click()
    await pick(entry.getByLabel('Above or below'), side)
    await entry.getByLabel('Limit').fill(limit)
    await pick(entry.getByLabel('Value or speed'), of)
    await entry.getByRole('button', { name: 'Promise', exact: true }).click()
  }
  await promise('above', '-24', 'value')
  await expect(entry).toContainText('holds for all time: never below −24px')
  await promise('below', '60', 'speed')
  await expect(entry).toContainText(/stays below 60px\/s\s*broken at/)
  // Slower, it keeps that one too.
  await write(page, 'Mount y', 'sine(every: 3s, amp: 24px, phase: index / count * 1turn)')
  await expect(entry).toContainText('holds for all time: never above 50.27px/s')
  await entry.getByRole('button', { name: 'Delete the promise that it stays above -24px' }).click()
  await expect(entry.locator('[data-promise]')).toHaveCount(1)
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(entry.locator('[data-promise]')).toHaveCount(2)
})

test('groups are filled from the list of all parts; a word for a number goes back; the time is there after Esc', async ({
  page,
}) => {
  const made = await page.request.post('/api/pieces', { data: { title: 'Filled' } })
  const { id } = (await made.json()) as { id: string }
  await page.goto(`/piece/${id}`)
  const desk = page.getByRole('region', { name: 'Desk' })
  await page.getByRole('button', { name: 'Group' }).first().click()
  await desk.getByRole('button', { name: 'All parts, add one…' }).click()
  await desk.getByRole('button', { name: 'Ellipse' }).click()
  await desk.getByRole('button', { name: 'All parts, add one…' }).click()
  await desk.getByLabel('Parent of Ellipse').focus()
  await pick(desk.getByLabel('Parent of Ellipse'), { label: 'Group' })
  await expect(page.getByText('Ellipse is now a child of Group')).toBeVisible()
  await desk.getByRole('button', { name: 'Ellipse', exact: true }).last().click()
  await expect(desk.getByText('on Group')).toBeVisible()

  const x = desk.getByRole('textbox', { name: 'x', exact: true })
  await x.fill('word')
  await x.press('Enter')
  await expect(x).toHaveValue('0')
  const opacity = desk.getByRole('textbox', { name: 'opacity', exact: true })
  await opacity.fill('250')
  await opacity.press('Enter')
  await expect(opacity).toHaveValue('100')
  await expect(page.getByText('opacity goes up to 100%')).toBeVisible()

  const time = page.getByRole('button', { name: 'Current time, press to type another' })
  await time.click()
  await page.getByRole('textbox', { name: 'Go to time' }).press('Escape')
  await expect(time).toHaveText(/0/)
})
