/** What lies over the stage: guides, rulers, a grid, and threads between what is read and what reads it. */
import type { Page } from '@playwright/test'
import { Builder } from '../../core/acts/build.ts'
import { drawn, expect, test } from './fair.ts'
import type { Piece } from '../../core/piece/schema.ts'
import { drag, field, inHand, letGo, number, openPiece, press, put, spot } from './on-stage.ts'

/** Points of the overlay that are drawn on, all of them or within a frame of stage points. */
async function inked(page: Page, left = -640, right = 640, low = -360, high = 360): Promise<number> {
  await drawn(page)
  return page.locator('[data-stage] + canvas').evaluate(
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
}

test('A1: the middle of the stage and its safe margins are drawn when asked for', async ({ page }) => {
  await openPiece(page, new Builder('Guides', 3).piece)
  await page.getByRole('tab', { name: 'Piece' }).click()
  expect(await inked(page)).toBe(0)
  await page.getByLabel('Guides and safe margins').check()
  await expect.poll(() => inked(page)).toBeGreaterThan(500)
  // A cross in the middle, a frame nine tenths and one eight tenths as large.
  expect(await inked(page, -24, 24, -24, 24)).toBeGreaterThan(20)
  expect(await inked(page, -590, -560)).toBeGreaterThan(50)
  expect(await inked(page, -528, -496)).toBeGreaterThan(50)
  expect(await inked(page, -480, -60)).toBeGreaterThan(100)
  await page.getByRole('button', { name: /^Undo/ }).first().click()
  await expect.poll(() => inked(page)).toBe(0)
})

test('guides are pulled out of the rulers, parts and the pen are drawn to them, and off the stage they are gone', async ({
  page,
}) => {
  const b = new Builder('Ruled', 3)
  b.part('Lamp', { type: 'rectangle' }, {}, { x: 300, y: 100, width: 60, height: 40 })
  const id = await openPiece(page, b.piece)
  await page.getByRole('tab', { name: 'Piece' }).click()
  const before = (await page.locator('[data-stage]').boundingBox())!
  await page.getByLabel('Rulers').check()
  const [level, upright] = [page.locator('[data-ruler="x"]'), page.locator('[data-ruler="y"]')]
  await expect(level).toBeVisible()
  const stage = (await page.locator('[data-stage]').boundingBox())!
  const [lies, stands] = [(await level.boundingBox())!, (await upright.boundingBox())!]
  // The rulers lie beside the stage and hide nothing of it.
  expect(stage.y).toBeGreaterThanOrEqual(lies.y + lies.height - 0.5)
  expect(stage.x).toBeGreaterThanOrEqual(stands.x + stands.width - 0.5)
  expect(stage.height).toBeLessThan(before.height)
  const pullTo = async (from: { x: number; y: number }, x: number, y: number) => {
    await page.mouse.move(from.x, from.y)
    await page.mouse.down()
    await page.mouse.move(...(await spot(page, x, y)), { steps: 5 })
    await page.mouse.up()
  }
  await pullTo({ x: stands.x + 9, y: stands.y + 90 }, -203.4, 30)
  await expect(page.getByText('The vertical guide lies at −203px.')).toBeVisible()
  await expect(field(page, 'Vertical guide 1')).toHaveValue('−203')
  await pullTo({ x: lies.x + 90, y: lies.y + 9 }, 50, -151)
  await expect(field(page, 'Horizontal guide 1')).toHaveValue('−151')
  await expect(page.getByLabel('Guides and safe margins')).toBeChecked()
  // Let go on the ruler again, or given up with Esc, it leaves nothing behind, and the step before stays.
  await pullTo({ x: lies.x + 90, y: lies.y + 9 }, 50, 400)
  await expect(field(page, 'Horizontal guide 2')).toHaveCount(0)
  await page.mouse.move(lies.x + 90, lies.y + 9)
  await page.mouse.down()
  await page.mouse.move(...(await spot(page, 50, 90)), { steps: 5 })
  await expect(field(page, 'Horizontal guide 2')).toHaveCount(1)
  await page.keyboard.press('Escape')
  await page.mouse.up()
  await expect(page.getByText('Cancelled: the guides are back as they were.')).toBeVisible()
  await expect(field(page, 'Horizontal guide 2')).toHaveCount(0)
  await expect(field(page, 'Horizontal guide 1')).toHaveValue('−151')
  // Pulled a little, it does not stick to where it was.
  await drag(page, [-203, 250], [-194, 250])
  await expect(field(page, 'Vertical guide 1')).toHaveValue('−194')
  await put(page, 'Vertical guide 1', -203)
  // Typed, as by the keys.
  await put(page, 'Horizontal guide 1', -150)
  // Nearer, it stays so while guides are laid.
  await letGo(page)
  for (let k = 0; k < 3; k++) await page.keyboard.press('+')
  const percent = page.getByText(/ · \d+ % · y up/)
  const near = await percent.textContent()
  await page.getByRole('button', { name: 'Horizontal guide', exact: true }).click()
  await expect(field(page, 'Horizontal guide 2')).toHaveValue('0')
  await expect(percent).toHaveText(near!)
  await page.getByRole('button', { name: 'fit the stage' }).click()
  await expect(percent).not.toHaveText(near!)
  await put(page, 'Horizontal guide 2', 222)
  await page.getByRole('button', { name: 'Delete horizontal guide 2' }).click()
  await expect(field(page, 'Horizontal guide 2')).toHaveCount(0)

  // The lamp's left side is drawn to the upright one, its lower side to the level one; with Ctrl to neither.
  await page.getByRole('tab', { name: 'Part' }).click()
  await press(page, 300, 100)
  await drag(page, [300, 100], [-170, -127])
  expect([await number(page, 'x'), await number(page, 'y')]).toEqual([-173, -130])
  await drag(page, [-173, -130], [-165, -122], 'Control')
  expect([await number(page, 'x'), await number(page, 'y')]).toEqual([-165, -122])
  // So is a side that is pulled; beyond it with Ctrl.
  for (const [name, value] of [
    ['width', 200],
    ['height', 120],
    ['x', -60],
    ['y', 40],
  ] as const)
    await put(page, name, value)
  await drag(page, [-160, 40], [-195, 44])
  expect([await number(page, 'width'), await number(page, 'height')]).toEqual([243, 120])
  expect(await number(page, 'x')).toBe(-81.5)
  await drag(page, [-203, 40], [-211, 40], 'Control')
  expect(Math.abs((await number(page, 'width')) - 251)).toBeLessThan(1.5)
  await letGo(page)
  // What the pen lays is drawn to where they cross.
  await page.locator('[data-add="path"]').first().click()
  for (const [x, y] of [
    [-205, -148],
    [-80, 98],
    [0, 160],
  ] as const)
    await press(page, x, y)
  await page.keyboard.press('Enter')
  const laid = async () => {
    const { document } = (await (await page.request.get(`/api/pieces/${id}`)).json()) as { document: Piece }
    const [part, path] = Object.entries(document.parts).find(([, p]) => p.shape.type === 'path') ?? []
    if (!part || path?.shape.type !== 'path') return []
    const at = (name: string) => document.bases[`${part}.${name}`]?.value ?? 0
    return path.shape.poses[0]![0]!.map(c => [Math.round(c.x + at('x')), Math.round(c.y + at('y'))])
  }
  await expect.poll(laid).toEqual([
    [-203, -150],
    [-80, 98],
    [0, 160],
  ])

  await page.getByRole('tab', { name: 'Piece' }).click()
  await drag(page, [-203, 250], [-700, 250])
  await expect(page.getByText('The vertical guide was deleted.')).toBeVisible()
  await expect(field(page, 'Vertical guide 1')).toHaveCount(0)
  await page.getByRole('button', { name: /^Undo/ }).first().click()
  await expect(field(page, 'Vertical guide 1')).toHaveValue('−203')
})

test('a grid is ruled over the stage, parts are drawn to it, and it grows with the view', async ({ page }) => {
  const b = new Builder('Grid', 3)
  b.part('Lamp', { type: 'rectangle' }, {}, { x: 300, y: 100, width: 60, height: 40 })
  await openPiece(page, b.piece)
  await page.getByRole('tab', { name: 'Piece' }).click()
  await page.getByLabel('Grid', { exact: true }).check()
  await expect.poll(() => inked(page)).toBeGreaterThan(5000)
  const wide = await inked(page)
  await put(page, 'Grid spacing', 100)
  await expect.poll(() => inked(page)).toBeLessThan(wide / 2)
  await page.getByRole('tab', { name: 'Part' }).click()
  await press(page, 300, 100)
  // Its left side goes to −200, its upper one to −100.
  await drag(page, [300, 100], [-168, -123])
  expect([await number(page, 'x'), await number(page, 'y')]).toEqual([-170, -120])
  // Off and on again without the Piece page.
  const ruled = async (what: string) => {
    await letGo(page)
    await page.keyboard.press('/')
    await page.getByRole('dialog', { name: 'Find anything' }).getByRole('combobox').fill(what)
    await page.keyboard.press('Enter')
  }
  await ruled('grid')
  await expect.poll(() => inked(page)).toBe(0)
  await ruled('rulers')
  await expect(page.locator('[data-ruler]')).toHaveCount(2)
  await ruled('grid')
  await expect.poll(() => inked(page)).toBeGreaterThan(5000)
  // Far out its lines stand apart still: every fifth of them.
  await letGo(page)
  await page.getByRole('tab', { name: 'Piece' }).click()
  await put(page, 'Grid spacing', 1)
  const { width, height } = (await page.locator('[data-stage]').boundingBox())!
  expect(await inked(page)).toBeLessThan(width * height * 0.6)
  await field(page, 'Grid spacing').fill('0.2')
  await field(page, 'Grid spacing').press('Enter')
  await expect(page.getByText(/Grid spacing goes down to 1px/)).toBeVisible()
})

test('I4: threads lead from the part in hand to what it reads and to what reads it, and are turned off', async ({
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
  const [left, right] = [() => inked(page, -340, -60), () => inked(page, 60, 340)]
  await expect.poll(left).toBeGreaterThan(100)
  expect(await right()).toBeGreaterThan(100)
  await inHand(page, 'Wheel')
  await expect.poll(left).toBeGreaterThan(100)
  expect(await right()).toBe(0)
  await page.getByRole('checkbox', { name: 'links' }).uncheck()
  await expect.poll(left).toBe(0)
  await letGo(page)
  expect(await inked(page)).toBe(0)
})
