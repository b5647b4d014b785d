import { Program } from '../../core/engine/program.ts'
import { momentOfSeconds } from '../../core/time/moment.ts'
import { rational } from '../../core/time/rational.ts'
import { lanternPier } from '../../demo/lantern-pier.ts'
import { drawn, expect, formula, freshFair, goTo, halt, keyOf, now, saved, test, values, write } from './fair.ts'
import { stagePicture } from './on-stage.ts'
import { pick } from './pick.ts'

/** The editor's library ignores Tab and Enter for 75 ms after a completion list opens. */
const OFFER_RESTS = 100

test.describe('the fair moves', () => {
  test('from the harbour to the quay, where carousel, mounts, canopy and bulbs move', async ({ page }) => {
    await page.goto('/')
    for (const title of ['Lantern Pier', 'Swing tower', 'Duck basin']) {
      const card = page.getByRole('link', { name: `Open ${title}`, exact: true }).locator('img')
      await card.scrollIntoViewIfNeeded()
      await expect(card).toHaveJSProperty('naturalWidth', 1280)
      const still = await page.request.get((await card.getAttribute('src'))!)
      expect((await still.text()).length).toBeGreaterThan(10_000)
    }
    await page.getByRole('link', { name: 'Lantern Pier', exact: true }).click()
    await expect(page.getByRole('button', { name: 'Pause', exact: true })).toBeVisible()
    for (const label of ['Carousel rotation', 'Mount y', 'Canopy rotation', 'Chase bulb fillLightness']) {
      const entry = page.getByRole('article', { name: label, exact: true })
      await entry.scrollIntoViewIfNeeded()
      const readout = entry.locator('[data-readout]')
      const first = await readout.textContent()
      await expect(readout).not.toHaveText(first!)
    }
    const before = await stagePicture(page)
    await expect.poll(async () => (await stagePicture(page)).equals(before)).toBe(false)
  })

  test('stopped, the tape is pulled and the stage follows', async ({ page }) => {
    await freshFair(page)
    await halt(page)
    await goTo(page, '12.4')
    await expect(page.locator('[data-time]')).toHaveText('00:12.400')
    const still = await stagePicture(page)
    await drawn(page)
    expect((await stagePicture(page)).equals(still)).toBe(true)
    const slider = page.getByRole('slider', { name: 'Time tape, drag it sideways' })
    await expect(slider).toHaveAttribute('aria-valuenow', '12.400')
    await expect(slider).toHaveAttribute('aria-valuetext', '00:12.400')
    const tape = (await page.locator('[data-tape]').boundingBox())!
    await page.mouse.move(tape.x + 500, tape.y + 30)
    await page.mouse.down()
    await page.mouse.move(tape.x + 500 - 84, tape.y + 30, { steps: 6 })
    await page.mouse.up()
    expect(await now(page)).toBeCloseTo(14.4, 2)
    await expect.poll(async () => (await stagePicture(page)).equals(still)).toBe(false)
    await page.keyboard.press('0')
    await expect(page.locator('[data-time]')).toHaveText('00:00.000')
    await page.keyboard.press('.')
    await expect(page.locator('[data-time]')).toHaveText('00:00.033')
  })

  test('backwards, and at another pace', async ({ page }) => {
    await freshFair(page)
    await page.getByRole('button', { name: 'Backwards' }).click()
    await pick(page.getByRole('combobox', { name: 'Pace' }), '8')
    await expect.poll(() => now(page)).toBeLessThan(-1)
    await expect(page.locator('[data-time]')).toHaveText(/^−/)
  })

  test('a year on, all is alive and exact', async ({ page }) => {
    await freshFair(page, 'whole')
    await halt(page)
    await goTo(page, '365d 6h 12.4s')
    const seconds = 31557612.4
    await expect.poll(() => now(page)).toBe(seconds)
    const program = new Program(lanternPier())
    const moment = momentOfSeconds(rational(315576124, 10), program.measures.frameRate)
    for (const [key, slot] of program.slots) {
      expect(await values(page, key, seconds)).toEqual(slot.readers.map(r => r.at(moment)))
    }
    // 45° a second for 31,557,612.4 s is 3,944,701 turns and 198°.
    const [turns] = await values(page, await keyOf(page, 'Carousel rotation'), seconds)
    expect(turns).toBe(3944701.55)
    const picture = await stagePicture(page)
    await page.getByRole('button', { name: 'Play', exact: true }).click()
    await expect.poll(async () => (await stagePicture(page)).equals(picture)).toBe(false)
    expect(await now(page)).toBeGreaterThan(seconds)
  })

  test('the canopy follows the carousel in its ratio at any time', async ({ page }) => {
    await freshFair(page)
    const [carousel, canopy] = [await keyOf(page, 'Carousel rotation'), await keyOf(page, 'Canopy rotation')]
    for (const t of [0, 12.4, -77.7, 86400, 31557600]) {
      const [[a], [b]] = [await values(page, carousel, t), await values(page, canopy, t)]
      expect(Math.abs(b! + 0.3 * a!)).toBeLessThanOrEqual(1e-9)
    }
  })
})

test.describe('writing formulas', () => {
  test('time * 40 is no angle: it is said where and why, the old formula goes on, one key mends it', async ({
    page,
  }) => {
    await freshFair(page)
    const entry = page.getByRole('article', { name: 'Carousel rotation', exact: true })
    await write(page, 'Carousel rotation', 'time * 40')
    await expect(entry.getByRole('alert')).toContainText('This is a time, but rotation needs an angle.')
    await expect(entry.getByRole('alert')).toContainText('The previous formula keeps running.')
    await expect(entry.locator('.tide-problem').first()).toBeVisible()
    const key = await keyOf(page, 'Carousel rotation')
    expect(await values(page, key, 16)).toEqual([2])
    await formula(page, 'Carousel rotation').click({ position: { x: 400, y: 10 } })
    await page.keyboard.press('Alt+Enter')
    await expect(formula(page, 'Carousel rotation')).toHaveText('time * 40deg/s')
    await expect(entry.getByRole('alert')).toHaveCount(0)
    const [a] = await values(page, key, 20)
    const [b] = await values(page, key, 21)
    expect(b! - a!).toBeCloseTo(40 / 360, 12)
  })

  test('names are the same in capitals; a name that is not there offers the nearest', async ({ page }) => {
    await freshFair(page)
    await write(page, 'Canopy rotation', 'CAROUSEL.Rotation')
    const [canopy, carousel] = [await keyOf(page, 'Canopy rotation'), await keyOf(page, 'Carousel rotation')]
    expect(await values(page, canopy, 9.7)).toEqual(await values(page, carousel, 9.7))
    await write(page, 'Canopy rotation', 'carosel.rotation * 2')
    const entry = page.getByRole('article', { name: 'Canopy rotation', exact: true })
    await expect(entry.getByRole('alert')).toContainText('Unknown part “carosel”. Did you mean Carousel?')
    await entry.locator('[data-fix]').first().click()
    await expect(formula(page, 'Canopy rotation')).toHaveText('Carousel.rotation * 2')
  })

  test('completion offers functions, dials and the properties of parts', async ({ page }) => {
    await freshFair(page)
    await formula(page, 'Canopy rotation').click({ position: { x: 400, y: 10 } })
    await page.keyboard.press('ControlOrMeta+a')
    await page.keyboard.type('carousel.rot')
    await expect(page.locator('.cm-tooltip-autocomplete')).toContainText('rotation')
    await page.waitForTimeout(OFFER_RESTS)
    await page.keyboard.press('Tab')
    await page.keyboard.type(' * fair')
    await expect(page.locator('.cm-tooltip-autocomplete')).toContainText('fairPace')
    await page.waitForTimeout(OFFER_RESTS)
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('Enter')
    await page.keyboard.press('Enter')
    await expect(formula(page, 'Canopy rotation')).toHaveText('carousel.rotation * fairPace')
    await expect(page.getByRole('article', { name: 'Canopy rotation', exact: true }).getByRole('alert')).toHaveCount(0)
  })

  test('a circle of links is named, and nothing stops', async ({ page }) => {
    await freshFair(page)
    await write(page, 'Carousel rotation', 'canopy.rotation * 2')
    const entry = page.getByRole('article', { name: 'Carousel rotation', exact: true })
    await expect(entry.getByRole('alert')).toContainText(
      'Carousel.rotation reads Canopy.rotation reads Carousel.rotation',
    )
    expect(await values(page, await keyOf(page, 'Carousel rotation'), 8)).toEqual([1])
  })
})

test('a new piece has its first own motion after three actions', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'New piece' }).first().click()
  await expect(page.getByText('An empty stage')).toBeVisible()
  await page.getByRole('button', { name: 'Star', exact: true }).first().click()
  await page.getByRole('button', { name: 'Drive a property of Star' }).click()
  await page.locator('[data-starter="turn"]').click()
  await expect(formula(page, 'Star rotation')).toHaveText('base + time * 45deg/s')
  const picture = await stagePicture(page)
  await expect.poll(async () => (await stagePicture(page)).equals(picture)).toBe(false)
  await saved(page)
})

test('a part is chosen on the stage and set by hand; a driven one offers base +', async ({ page }) => {
  await freshFair(page)
  await halt(page)
  const stage = (await page.locator('[data-stage]').boundingBox())!
  // The crown of the canopy: 72 px below the middle of 720.
  await page.mouse.click(stage.x + stage.width / 2, stage.y + stage.height * (432 / 720))
  await expect(page.getByRole('textbox', { name: 'Name of the part' })).toHaveValue('Crown')
  await page.getByRole('textbox', { name: 'radius', exact: true }).fill('40')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Carousel', exact: true }).click()
  await page.getByRole('textbox', { name: 'rotation', exact: true }).fill('30')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Add it as base +' }).click()
  await expect(formula(page, 'Carousel rotation')).toHaveText('base + time * 45deg/s * fairPace')
  expect((await values(page, await keyOf(page, 'Carousel rotation'), 0))[0]).toBeCloseTo(30 / 360, 12)
  await page.getByRole('textbox', { name: 'Name of the part' }).fill('Big wheel')
  await page.keyboard.press('Enter')
  await expect(formula(page, 'Canopy rotation')).toHaveText('`Big wheel`.rotation * -0.3')
})
