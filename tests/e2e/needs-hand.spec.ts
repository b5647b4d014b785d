/** What the hand does to what runs: terms left out, takes side by side, clocks tapped, dials of every kind. */
import { NIB, TAPE_PER_SECOND } from '../../app/player/tape-scale.ts'
import {
  DEMO,
  dragNumber,
  entry,
  expect,
  formula,
  freshFair,
  goTo,
  halt,
  keyOf,
  now,
  saved,
  settled,
  test,
  type,
  values,
  write,
} from './fair.ts'
import { stagePicture } from './on-stage.ts'
import { pick } from './pick.ts'

test.beforeEach(async ({ page }) => {
  await freshFair(page)
  await halt(page)
})

const DEG = 1 / 360
/** Where the nib stands on the tape, as a share of its width. */

test('H4: a term is left out by its ring or by a key, kept struck through in the text, and brought back', async ({
  page,
}) => {
  await write(page, 'Mount y', '10px + sine(every: 2s, amp: 24px) - 4px')
  const key = await keyOf(page, 'Mount y')
  const at = async () => (await values(page, key, 0.5))[0]
  expect(await at()).toBeCloseTo(30, 9)
  await page.getByRole('button', { name: 'Leave out sine(every: 2s, amp: 24px)' }).click()
  expect(await at()).toBeCloseTo(6, 9)
  await expect(formula(page, 'Mount y').locator('.tide-off')).toHaveText('// + sine(every: 2s, amp: 24px)')
  await saved(page)
  await page.reload()
  await entry(page, 'Mount y')
  expect(await at()).toBeCloseTo(6, 9)
  await page.getByRole('article', { name: 'Mount y', exact: true }).locator('header').click()
  await page.getByRole('button', { name: /^Bring back \+ sine/ }).click()
  expect(await at()).toBeCloseTo(30, 9)
  await expect(formula(page, 'Mount y')).toHaveText('10px + sine(every: 2s, amp: 24px) - 4px')
  // A ring stays where it is while numbers before and in its term are dragged, and means the term as it is by then.
  await page
    .locator('.tide-ring')
    .nth(1)
    .evaluate(ring => ((window as unknown as { ring: Element }).ring = ring))
  await dragNumber(page, 'Mount y', 0, 40)
  await dragNumber(page, 'Mount y', 2, 40)
  const dragged = (await formula(page, 'Mount y').textContent())!
  expect(dragged).not.toContain('10px')
  expect(dragged).not.toContain('24px')
  expect(await page.evaluate(() => (window as unknown as { ring: Element }).ring.isConnected)).toBe(true)
  await page.getByRole('button', { name: /^Leave out sine/ }).click()
  await expect(formula(page, 'Mount y').locator('.tide-off')).toHaveText(/^\/\/ \+ sine\(every: 2s, amp: [\d.]+px\)$/)
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(formula(page, 'Mount y')).toHaveText(dragged)
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await page.getByRole('button', { name: 'Undo' }).first().click()
  // By keys: the term that the caret is in.
  await formula(page, 'Mount y').focus()
  await page.keyboard.press('Control+Home')
  await page.keyboard.press('Alt+b')
  expect(await at()).toBeCloseTo(20, 9)
})

test('H1: what is selected of a formula is told as a number, at the nib', async ({ page }) => {
  await write(page, 'Mount y', '10px + sine(every: 2s, amp: 24px)')
  await page.getByRole('article', { name: 'Mount y', exact: true }).locator('canvas').click()
  await goTo(page, '0.5')
  await formula(page, 'Mount y').focus()
  await page.keyboard.press('Control+End')
  for (let k = 0; k < 'sine(every: 2s, amp: 24px)'.length; k++) await page.keyboard.press('Shift+ArrowLeft')
  await expect(page.locator('[data-selected]')).toHaveText(/sine\(every: 2s, amp: 24px\)\s*24\.000 px/)
  await page.keyboard.press('ArrowRight')
  await expect(page.locator('[data-selected]')).toHaveCount(0)
})

test('H2: two takes move side by side on the stage and lie over one another in the scope', async ({ page }) => {
  const mount = page.getByRole('article', { name: 'Mount y', exact: true })
  await mount.locator('header').click()
  await page.locator('body').press('t')
  await write(page, 'Mount y', '0px')
  await page.locator('body').press('Escape')
  await mount.getByRole('button', { name: 'side by side' }).click()
  const other = page.getByRole('img', { name: 'The piece with take 1' })
  await expect(other).toBeVisible()
  const stage = page.getByRole('region', { name: 'Stage' }).locator('[data-stage]')
  await goTo(page, '0.5')
  const [first, second] = [await other.screenshot(), await stage.screenshot()]
  expect(first.equals(second)).toBe(false)
  // Another moment: both move, each by its own formula.
  await goTo(page, '1')
  expect((await other.screenshot()).equals(first)).toBe(false)
  await page.getByRole('tab', { name: 'Scope' }).click()
  await page.getByRole('button', { name: 'takes', exact: true }).click()
  await expect(page.getByRole('list', { name: 'Parts' }).getByText('take 1')).toBeVisible()
  await mount.getByRole('button', { name: 'side by side' }).click()
  await expect(other).toHaveCount(0)
})

test('F1: a clock begins again at each press, and what else it does goes on from there', async ({ page }) => {
  await page.getByRole('button', { name: 'New…' }).click()
  await page.getByRole('menuitem', { name: /^clock/ }).click()
  await write(page, 'Carousel rotation', 'time * 10deg/s on clock')
  const key = await keyOf(page, 'Carousel rotation')
  const clock = page.getByRole('article', { name: 'clock', exact: true })
  await type(page, 'clock', 'Rate', '-2')
  expect((await values(page, key, 3))[0]).toBeCloseTo(-60 * DEG, 12)
  await goTo(page, '5')
  await clock.getByRole('button', { name: 'restart' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'clock restarts at 5 s' })).toBeVisible()
  expect((await values(page, key, 6))[0]).toBeCloseTo(-20 * DEG, 12)
  expect((await values(page, key, 3))[0]).toBeCloseTo(-60 * DEG, 12)
  await goTo(page, '7')
  await clock.getByRole('button', { name: 'restart' }).click()
  expect((await values(page, key, 7.5))[0]).toBeCloseTo(-10 * DEG, 12)
  // Its marks are a cue like any other.
  await expect(page.getByRole('article', { name: 'clock taps', exact: true }).locator('[data-sentence]')).toContainText(
    '7 s',
  )
  await page.keyboard.press('Control+z')
  expect((await values(page, key, 7.5))[0]).toBeCloseTo(-50 * DEG, 12)
})

test('D3, B11: a moment is a dial that stands on the tideline, and is dragged there', async ({ page }) => {
  await goTo(page, '2')
  await page.getByRole('button', { name: 'Dial', exact: true }).click()
  await page.getByRole('textbox', { name: 'Name' }).fill('letGo')
  await pick(page.getByRole('combobox', { name: 'Kind' }), 'moment')
  await page.getByRole('button', { name: 'Add dial' }).click()
  await expect(page.getByRole('textbox', { name: 'letGo, value' })).toHaveValue('2')
  await write(page, 'Carousel rotation', 'if time < letGo then 0deg else (time - letGo) * 90deg/s')
  const key = await keyOf(page, 'Carousel rotation')
  expect((await values(page, key, 3))[0]).toBeCloseTo(90 * DEG, 12)
  const tape = page.locator('[data-tape]')
  const box = (await tape.boundingBox())!
  const nib = box.x + Math.round(box.width * NIB)
  await goTo(page, '0')
  // The moment at 2 s is dragged to 3 s.
  const x = (s: number) => nib + TAPE_PER_SECOND * s
  await page.mouse.move(x(2), box.y + 6)
  await page.mouse.down()
  await page.mouse.move(x(2.5), box.y + 6, { steps: 4 })
  await page.mouse.move(x(3), box.y + 6, { steps: 4 })
  await page.mouse.up()
  const moved = Number(await page.getByRole('textbox', { name: 'letGo, value' }).inputValue())
  expect(Math.abs(moved - 3)).toBeLessThan(0.2)
  expect((await values(page, key, moved + 1))[0]).toBeCloseTo(90 * DEG, 9)
})

test('D3: a choice, a lock, dials put in another order by hand, and a signal read among them', async ({ page }) => {
  await page.getByRole('button', { name: 'Dial', exact: true }).click()
  await page.getByRole('textbox', { name: 'Name' }).fill('mood')
  await pick(page.getByRole('combobox', { name: 'Kind' }), 'choice')
  await page.getByRole('textbox', { name: 'Between' }).fill('calm')
  await expect(page.getByRole('alert')).toContainText('at least two names')
  await page.getByRole('textbox', { name: 'Between' }).fill('calm, lively, wild')
  await page.getByRole('button', { name: 'Add dial' }).click()
  await write(page, 'Carousel rotation', 'mood * 10deg')
  const key = await keyOf(page, 'Carousel rotation')
  await pick(page.getByRole('combobox', { name: 'mood' }), { label: 'wild' })
  expect((await values(page, key, 0))[0]).toBeCloseTo(20 * DEG, 12)

  const order = () => page.locator('[data-dial]').evaluateAll(all => all.map(e => e.getAttribute('data-dial')))
  const before = await order()
  expect(before.at(-1)).toBe('mood')
  const name = page.locator('[data-dial="mood"] span').first()
  await name.hover()
  await page.mouse.down()
  await page.locator(`[data-dial="${before[0]}"] span`).first().hover()
  await page.locator(`[data-dial="${before[0]}"] input`).last().hover()
  await page.mouse.up()
  expect(await order()).toEqual(['mood', ...before.slice(0, -1)])
  await page.keyboard.press('Control+z')
  expect(await order()).toEqual(before)

  await page.locator('[data-dial="mood"]').hover()
  await page.getByRole('button', { name: 'Change dial mood' }).click()
  await page.getByRole('checkbox', { name: /^Locked/ }).check()
  await page.getByRole('button', { name: 'Change', exact: true }).click()
  await expect(page.getByRole('combobox', { name: 'mood' })).toBeDisabled()

  await page.getByRole('button', { name: 'More for load' }).click()
  await page.getByRole('menuitem', { name: 'Show among the dials' }).click()
  await expect(page.locator('[data-read-out="load"]')).toHaveText(/load\s*−?\d/)
})

test('F3: a mark of a cue is drawn to where the formula in hand leaps', async ({ page }) => {
  await write(page, 'Carousel rotation', 'if time < 4.317s then 0deg else 90deg')
  await goTo(page, '3')
  await page.getByRole('button', { name: 'New…' }).click()
  await page.getByRole('menuitem', { name: /^cue/ }).click()
  await page.locator('body').press('c')
  await page.getByRole('article', { name: 'Carousel rotation', exact: true }).locator('header').click()
  await expect(
    page.getByRole('article', { name: 'Carousel rotation', exact: true }).locator('[data-leaps]'),
  ).toBeVisible()
  const tape = page.locator('[data-tape]')
  const box = (await tape.boundingBox())!
  const nib = box.x + Math.round(box.width * NIB)
  const x = (s: number) => nib + TAPE_PER_SECOND * (s - 3)
  await page.mouse.move(x(3), box.y + 18)
  await page.mouse.down()
  await page.mouse.move(x(3.5), box.y + 18, { steps: 5 })
  await settled(page)
  await page.mouse.move(x(4.25), box.y + 18, { steps: 5 })
  await page.mouse.up()
  await expect(page.getByRole('article', { name: 'cue', exact: true }).locator('[data-sentence]')).toContainText(
    '4.317 s',
  )
})

test('I1, A1: across the seam, and what leaves the stage', async ({ page }) => {
  await write(page, 'Carousel rotation', 'time * 45deg/s')
  await page.getByRole('tab', { name: 'Lap' }).click()
  const seam = page.getByRole('region', { name: 'Loop seam' })
  await seam.scrollIntoViewIfNeeded()
  const last = await seam.getByRole('img', { name: 'The last frame of the lap' }).screenshot()
  const first = await seam.getByRole('img', { name: 'The first frame of the lap' }).screenshot()
  expect(last.equals(first)).toBe(false)
  await seam.getByRole('button', { name: 'Play across the seam' }).click()
  const seen: number[] = []
  const goesRound = () => seen.some((s, i) => i > 0 && s < seen[i - 1]!)
  await expect
    .poll(async () => {
      seen.push(await now(page))
      return goesRound()
    })
    .toBe(true)
  expect(Math.min(...seen)).toBeGreaterThan(6.4)
  expect(Math.max(...seen)).toBeLessThan(9.6)
  await halt(page)
  const leaving = page.getByRole('region', { name: 'Off-stage parts' })
  await leaving.getByRole('button', { name: 'Check the lap' }).click()
  await expect(leaving.getByRole('listitem').or(leaving.getByRole('status')).first()).toBeVisible({ timeout: 20_000 })
})

test('D1, I4: an entry is dragged onto a formula, onto a row of links, and onto a part of the stage', async ({
  page,
}) => {
  const grip = (label: string) =>
    page.getByRole('article', { name: label, exact: true }).locator('header span[draggable]')
  await page.setViewportSize({ width: 1280, height: 1400 })
  // Onto a formula: the reference is written where it is dropped, and runs on Enter.
  await write(page, 'Canopy rotation', '90deg + ')
  await grip('Carousel rotation').dragTo(formula(page, 'Canopy rotation').locator('.cm-line'), {
    targetPosition: { x: 300, y: 8 },
  })
  await formula(page, 'Canopy rotation').focus()
  await expect(formula(page, 'Canopy rotation')).toContainText(/90deg \+ Carousel\.rotation/i)
  await page.keyboard.press('Enter')
  const canopy = await keyOf(page, 'Canopy rotation')
  const carousel = await keyOf(page, 'Carousel rotation')
  expect((await values(page, canopy, 2))[0]).toBeCloseTo(0.25 + (await values(page, carousel, 2))[0]!, 12)
  // Onto a row of the board.
  await page.getByRole('tab', { name: 'Links' }).click()
  await grip('Carousel rotation').dragTo(
    page.getByRole('region', { name: 'Desk' }).getByRole('rowheader', { name: 'Idler rotation' }),
  )
  await expect(page.getByRole('status').filter({ hasText: 'Idler rotation follows Carousel rotation' })).toBeVisible()
  await expect(formula(page, 'Idler rotation')).toContainText('carousel.rotation', { ignoreCase: true })
  // Onto what stands in the middle of the stage: the star of the crown, or what lies there.
  const stage = page.getByRole('region', { name: 'Stage' })
  const box = (await stage.locator('[data-stage]').boundingBox())!
  await grip('Carousel rotation').dragTo(stage.locator('canvas').last(), {
    targetPosition: { x: box.width / 2, y: box.height * 0.6 },
  })
  await expect(page.getByRole('status').filter({ hasText: /rotation follows Carousel rotation/ })).toBeVisible()
})

test('first visit: three hints on the demo, each gone once it was done', async ({ page }) => {
  await page.goto(DEMO)
  const hints = page.getByRole('region', { name: 'Try this first' })
  await expect(hints.getByRole('listitem')).toHaveCount(3)
  await page.locator('body').press('/')
  await page.keyboard.press('Escape')
  await expect(hints.getByRole('listitem')).toHaveCount(2)
  await page.getByRole('article', { name: 'Mount y', exact: true }).locator('canvas').click()
  await expect(hints.getByRole('listitem')).toHaveCount(1)
  await hints.getByRole('button', { name: 'Hide hints' }).click()
  await expect(hints).toHaveCount(0)
  await page.reload()
  await expect(page.getByRole('article', { name: 'Carousel rotation', exact: true })).toBeVisible()
  await expect(hints).toHaveCount(0)
})

test('our words are explained where they stand, on hover and on focus', async ({ page }) => {
  await page.getByRole('tab', { name: 'Lap' }).click()
  await page.locator('[data-lap]').getByText('Lap', { exact: true }).hover()
  await expect(page.getByRole('tooltip')).toContainText('How long the loop is')
  await page.mouse.move(5, 5)
  await expect(page.getByRole('tooltip')).toHaveCount(0)
})

test('H4: a helper is hidden and runs on', async ({ page }) => {
  await goTo(page, '3')
  const seen = await stagePicture(page)
  const [key, before] = [
    await keyOf(page, 'Carousel rotation'),
    await values(page, await keyOf(page, 'Canopy rotation'), 3),
  ]
  await page.getByRole('tab', { name: 'Part' }).click()
  await page.getByRole('button', { name: 'Hide Carousel', exact: true }).click()
  await expect.poll(async () => (await stagePicture(page)).equals(seen)).toBe(false)
  expect(await values(page, await keyOf(page, 'Canopy rotation'), 3)).toEqual(before)
  expect((await values(page, key, 3))[0]).not.toBe(0)
  await page.getByRole('button', { name: 'Show Carousel', exact: true }).click()
  await expect.poll(async () => (await stagePicture(page)).equals(seen)).toBe(true)
})
