/** Needs B and C: a property driven, by plain words and by hand; combined, limited, layered. */
import type { Page } from '@playwright/test'
import { dragNumber, entry, expect, formula, freshFair, goTo, halt, keyOf, now, test, values, write } from './fair.ts'
import { pick } from './pick.ts'

const DEG = 1 / 360
/** Drives a property of the canopy in plain words. */
async function drive(page: Page, property: string, starter: string, other?: string): Promise<void> {
  const table = page.getByRole('region', { name: 'Tide table' })
  await table.getByRole('button', { name: 'Canopy', exact: true }).scrollIntoViewIfNeeded()
  await page.getByRole('button', { name: 'Drive a property of Canopy' }).click()
  await pick(page.getByRole('combobox', { name: 'Property', exact: true }), property)
  if (other) await pick(page.getByRole('combobox', { name: 'The other axis' }), other)
  await page.locator(`[data-starter="${starter}"]`).click()
  await expect(formula(page, `Canopy ${property}`)).toBeVisible()
}
const canopy = async (page: Page, property: string, t: number): Promise<number> =>
  (await values(page, await keyOf(page, `Canopy ${property}`), t))[0]!

test.beforeEach(async ({ page }) => {
  await freshFair(page)
  await halt(page)
  await page.getByRole('button', { name: 'Canopy', exact: true }).first().click()
})

test('B1: a steady rate, quicker by dragging, turned round by a minus, exact after a year', async ({ page }) => {
  await drive(page, 'y', 'turn')
  await halt(page)
  await expect(formula(page, 'Canopy y')).toHaveText(/^base \+ time \* \d+px\/s$/)
  await write(page, 'Canopy y', 'base - time * 40px/s')
  expect((await canopy(page, 'y', 2)) - (await canopy(page, 'y', 0))).toBeCloseTo(-80, 9)
  await dragNumber(page, 'Canopy y', 0, 40)
  await expect(formula(page, 'Canopy y')).toHaveText('base - time * 50px/s')
  expect((await canopy(page, 'y', 31536000)) - (await canopy(page, 'y', 0))).toBeCloseTo(-50 * 31536000, 3)
})

test('B2: seconds, frame, rate and lap stand as numbers and are words of a formula', async ({ page }) => {
  await goTo(page, '12.4')
  await expect(page.locator('[data-place]')).toHaveText('frame 372 · lap 1.55 · 30 fps')
  await write(page, 'Canopy rotation', 'frame * 1deg + lapProgress * 10deg + lapIndex * 100deg')
  expect(await canopy(page, 'rotation', 10)).toBeCloseTo((300 + 2.5 + 100) * DEG, 9)
})

test('B3: triangle, square and saw by plain words', async ({ page }) => {
  await drive(page, 'x', 'triangle')
  await drive(page, 'y', 'square')
  await drive(page, 'scale', 'saw')
  const at = (p: string, t: number) => canopy(page, p, t)
  expect((await at('x', 0.25)) - (await at('x', 0))).toBeCloseTo((await at('x', 0.5)) - (await at('x', 0.25)), 9)
  expect(await at('y', 0.1)).toBe(await at('y', 0.4))
  expect(await at('y', 0.6)).toBeLessThan(await at('y', 0.4))
  expect((await at('scale', 1.9)) - (await at('scale', 0))).toBeGreaterThan(0)
  expect(await at('scale', 2)).toBeCloseTo(await at('scale', 0), 9)
})

test('B4, B12: noise on both axes, each with its own seed; alike, the other follows', async ({ page }) => {
  await drive(page, 'x', 'wander', 'own')
  await expect(formula(page, 'Canopy y')).toHaveText((await formula(page, 'Canopy x').textContent())!)
  const [x, y] = [await canopy(page, 'x', 3.3), await canopy(page, 'y', 3.3)]
  expect(x).not.toBeCloseTo(y, 6)
  await drive(page, 'scaleX', 'wander', 'alike')
  const [a, b] = [await canopy(page, 'scaleX', 3.3), await canopy(page, 'scaleY', 3.3)]
  expect(a).not.toBe(1)
  expect(b).toBeCloseTo(a, 9)
})

test('B5: stepped random stays between its steps', async ({ page }) => {
  await drive(page, 'opacity', 'flicker')
  const at = (t: number) => canopy(page, 'opacity', t)
  expect(await at(0.01)).toBe(await at(0.12))
  const seen = new Set(await Promise.all([0.05, 0.2, 0.3, 0.45, 0.55].map(at)))
  expect(seen.size).toBeGreaterThan(2)
})

test('B6: a rate is added up, and set back by a cue', async ({ page }) => {
  await write(page, 'Canopy rotation', 'accumulate(30deg/s)')
  expect(await canopy(page, 'rotation', 7)).toBeCloseTo(210 * DEG, 9)
  await write(page, 'Canopy rotation', 'accumulate(30deg/s, reset: blow)')
  expect(await canopy(page, 'rotation', 3)).toBeCloseTo(30 * DEG, 9)
  expect(await canopy(page, 'rotation', 6.5)).toBeCloseTo(15 * DEG, 9)
})

test('B7, B8: there once, there and back; the easing is changed while it plays', async ({ page }) => {
  await drive(page, 'x', 'go')
  await drive(page, 'y', 'return')
  // Not by a press, which may hit the easing and open its pictures.
  const retype = async (text: string) => {
    await formula(page, 'Canopy x').focus()
    await page.keyboard.press('ControlOrMeta+a')
    await page.keyboard.insertText(text)
    await page.keyboard.press('Enter')
  }
  // In the middle of the ramp another easing would go on from where it is.
  await expect.poll(() => now(page)).toBeGreaterThan(2)
  await retype('ramp(length: 2s, to: 100px, ease: quadIn)')
  await expect.poll(() => canopy(page, 'x', 1)).toBeCloseTo(25, 9)
  expect(await canopy(page, 'x', 5)).toBeCloseTo(100, 9)
  await expect(page.getByRole('button', { name: 'Pause', exact: true })).toBeVisible()
  await retype('ramp(length: 2s, to: 100px, ease: quadOut)')
  await expect.poll(() => canopy(page, 'x', 1)).toBeCloseTo(75, 9)
  expect(await canopy(page, 'y', 0)).toBeCloseTo(await canopy(page, 'y', 3), 9)
})

test('B9: a curve is drawn by its points: added, moved, typed, stepped, given a channel, drawn freehand', async ({
  page,
}) => {
  await page.getByRole('button', { name: 'New…' }).click()
  await page.getByRole('menuitem', { name: /^curve / }).click()
  await (await entry(page, 'curve')).locator('canvas').click()
  await write(page, 'Canopy rotation', 'curve(curve, after: repeat) * 100deg')
  await (await entry(page, 'curve')).locator('canvas').click()
  const paper = page.locator('[data-points]')
  await expect(paper.locator('[data-point]')).toHaveCount(3)
  await paper.locator('[data-point="1"]').click()
  const desk = page.getByRole('region', { name: 'Desk' })
  await desk.getByRole('textbox', { name: 'Point at' }).fill('0.5')
  await page.keyboard.press('Enter')
  await desk.getByRole('textbox', { name: 'Value' }).fill('2')
  await page.keyboard.press('Enter')
  expect(await canopy(page, 'rotation', 0.5)).toBeCloseTo(200 * DEG, 9)
  await paper.locator('[data-point="0"]').click()
  await desk.getByRole('button', { name: 'straight' }).click()
  expect(await canopy(page, 'rotation', 0.25)).toBeCloseTo(100 * DEG, 9)
  await desk.getByRole('button', { name: 'stepped' }).click()
  expect(await canopy(page, 'rotation', 0.25)).toBeCloseTo(0, 9)
  // By hand and by keys; a point more by a double press.
  const before = await canopy(page, 'rotation', 0.5)
  await paper.locator('[data-point="1"]').focus()
  await page.keyboard.press('Shift+ArrowUp')
  expect(await canopy(page, 'rotation', 0.5)).toBeGreaterThan(before)
  const box = (await paper.boundingBox())!
  await page.mouse.dblclick(box.x + box.width * 0.75, box.y + 30)
  await expect(paper.locator('[data-point]')).toHaveCount(4)
  await page.keyboard.press('Delete')
  await desk.getByRole('button', { name: 'delete' }).click()
  await expect(paper.locator('[data-point]')).toHaveCount(3)
  // Ends that differ leap when it repeats: said, with a fix.
  await paper.locator('[data-point="2"]').click()
  await desk.getByRole('textbox', { name: 'Value' }).fill('1')
  await page.keyboard.press('Enter')
  await desk.getByRole('button', { name: 'Match the ends' }).click()
  expect(await canopy(page, 'rotation', 0.9999)).toBeCloseTo(await canopy(page, 'rotation', 1), 2)
  await desk.getByRole('button', { name: 'Add channel' }).click()
  await desk.getByRole('textbox', { name: 'Name of the channel' }).fill('lift')
  await page.keyboard.press('Enter')
  await drive(page, 'y', 'swing')
  await halt(page)
  await write(page, 'Canopy y', 'curve(curve, channel: lift) * 100px')
  await (await entry(page, 'curve')).locator('canvas').click()
  await desk.getByRole('button', { name: 'lift', exact: true }).click()
  await desk.getByRole('button', { name: 'draw' }).click()
  await page.mouse.move(box.x + 80, box.y + box.height - 60)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2, box.y + 20, { steps: 12 })
  await page.mouse.move(box.x + box.width - 80, box.y + box.height - 60, { steps: 12 })
  await page.mouse.up()
  await expect(desk.getByRole('button', { name: 'draw' })).toHaveAttribute('aria-pressed', 'false')
  expect(await paper.locator('[data-point]').count()).toBeLessThan(8)
  const lifted = await Promise.all([0.1, 0.5].map(t => canopy(page, 'y', t)))
  expect(lifted[1]).toBeGreaterThan(lifted[0]!)
})

test('B10: once a lap closes at any lap', async ({ page }) => {
  await drive(page, 'x', 'lap')
  for (const lap of [8, 5]) {
    await page.getByRole('tab', { name: 'Lap' }).click()
    await page.getByRole('textbox', { name: 'Length of the lap, seconds' }).fill(String(lap))
    await page.keyboard.press('Enter')
    expect(await canopy(page, 'x', 1.1)).toBeCloseTo(await canopy(page, 'x', 1.1 + lap), 9)
    expect(await canopy(page, 'x', 1)).not.toBeCloseTo(await canopy(page, 'x', 1 + lap / 2), 3)
    await expect(page.locator('[data-closing-of="Canopy x"]')).toContainText('loops')
  }
})

test('B11: stages; where they meet it is said how far it leaps, and one press closes it', async ({ page }) => {
  await write(page, 'Canopy rotation', 'if time < 3s then time * 20deg/s else 50deg')
  const entry = page.getByRole('article', { name: 'Canopy rotation', exact: true })
  await expect(entry.getByRole('status')).toContainText('It jumps from 60.0° to 50.0° at 3 s.')
  await entry.getByRole('status').getByRole('button').click()
  expect(await canopy(page, 'rotation', 3)).toBeCloseTo(60 * DEG, 9)
  // In, hold, out fitted to the span of the part, else to the lap.
  await drive(page, 'opacity', 'span')
  expect(await canopy(page, 'opacity', 4)).toBeCloseTo(1, 9)
  expect(await canopy(page, 'opacity', 0)).toBeCloseTo(0, 9)
})

test('C1: on top of keyframes, which are set at moments, moved, and repeat', async ({ page }) => {
  await drive(page, 'y', 'keys')
  await halt(page)
  await write(page, 'Canopy y', 'base + sine(every: 4s, amp: 10px)')
  const part = page.getByRole('region', { name: 'Desk' })
  await (await entry(page, 'Canopy y')).locator('header').click()
  const start = await canopy(page, 'y', 0)
  for (const [t, value] of [
    ['0', start],
    ['2', start + 50],
  ] as const) {
    await goTo(page, t)
    await page.locator('body').press('k')
    await page.getByRole('tab', { name: 'Part' }).click()
    await part.getByRole('textbox', { name: 'y', exact: true }).fill(String(value))
    await page.keyboard.press('Enter')
  }
  expect(await canopy(page, 'y', 2)).toBeCloseTo(start + 50, 6)
  expect(await canopy(page, 'y', 3)).toBeCloseTo(start + 50 - 10, 6)
  await page.getByRole('tab', { name: 'Scope' }).click()
  await part.getByRole('button', { name: 'keyframes' }).click()
  await expect(part.locator('[data-point]')).toHaveCount(2)
  await pick(part.getByRole('combobox', { name: 'After the last keyframe' }), 'mirror')
  expect(await canopy(page, 'y', 4)).toBeCloseTo(start, 6)
  await part.getByRole('button', { name: 'Delete all keyframes' }).click()
  await expect(part.locator('[data-point]')).toHaveCount(0)
})

test('C2: noise kept to one side, and a promise that says so for all time', async ({ page }) => {
  await drive(page, 'y', 'swing')
  await write(page, 'Canopy y', '20px + noise(freq: 1Hz, amp: 5px)')
  await page.getByRole('button', { name: 'More for Canopy y' }).click()
  await page.getByRole('menuitem', { name: 'Promise a limit…' }).click()
  await page.getByRole('textbox', { name: 'Limit' }).fill('15')
  await page.getByRole('button', { name: 'Promise', exact: true }).click()
  await expect(page.locator('[data-promise]')).toContainText('holds for all time')
  await write(page, 'Canopy y', '20px + noise(freq: 1Hz, amp: 9px)')
  await expect(page.locator('[data-promise]')).toContainText('broken at')
})

test('C3 to C6: faded, remapped, limited, rounded, wrapped, mirrored, growing', async ({ page }) => {
  await drive(page, 'y', 'swing')
  await halt(page)
  const cases: readonly (readonly [string, number, number])[] = [
    ['sine(every: 4s, amp: 10px) * ramp(length: 2s)', 1, 5],
    ['remap(time, 0s, 4s, 10px, 30px, limit: yes)', 1, 15],
    ['remap(time, 0s, 4s, 10px, 30px, limit: yes)', 9, 30],
    ['clamp(time * 10px/s, 0px, 25px)', 7, 25],
    ['round(time * 10px/s, to: 15px)', 2, 15],
    ['wrap(time * 10px/s, -10px, 10px)', 1.5, -5],
    ['mirror(time * 10px/s, 0px, 20px)', 3, 10],
    ['sine(every: 4s, amp: 10px) * time / 1s', 5, 50],
  ]
  for (const [text, t, px] of cases) {
    await write(page, 'Canopy y', text)
    expect(await canopy(page, 'y', t), text).toBeCloseTo(px, 9)
  }
})
