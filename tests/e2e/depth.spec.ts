/** Pieces in depth: the eye, looking round, solids, letters in layers, water and what floats on it. */
import type { Page } from '@playwright/test'
import { Builder } from '../../core/acts/build.ts'
import { setEye } from '../../core/acts/settings.ts'
import { expect, formula, goTo, halt, keyOf, saved, test, values, write } from './fair.ts'
import {
  add,
  colour,
  colours,
  driveBy,
  field,
  inHand,
  number,
  openPiece,
  press,
  put,
  spot,
  stagePicture,
} from './on-stage.ts'
import { pick } from './pick.ts'

const stage = (page: Page) => page.getByRole('group', { name: /Parts on the stage/ })
/** The stage at many places. */
const seen = (page: Page) =>
  colours(
    page,
    Array.from({ length: 800 }, (_, k) => [(k % 40) * 30 - 585, Math.floor(k / 40) * 30 - 285] as const),
  )
const said = (page: Page) => page.locator('p').filter({ hasText: 'turns anticlockwise' })

test('A3: a piece is put in depth; a part is thick, turned in space, made in another order; what is nearer hides what is further', async ({
  page,
}) => {
  const b = new Builder('In depth', 3)
  b.part('Card', { type: 'rectangle' }, {}, { width: 200, height: 200, z: 100, fillLightness: 90, fillChroma: 0 })
  b.part('Wall', { type: 'rectangle' }, {}, { width: 500, height: 400, fillLightness: 20, fillChroma: 0 })
  await openPiece(page, b.piece)
  await expect(said(page)).toContainText('flat')
  // Flat, what was painted last lies above.
  expect((await colour(page, 0, 0))[0]).toBeLessThan(60)
  await page.getByRole('tab', { name: 'Piece' }).click()
  await page.getByRole('checkbox', { name: 'In depth' }).check()
  await expect(said(page)).toContainText('in depth')
  await expect.poll(async () => (await colour(page, 0, 0))[0]).toBeGreaterThan(200)
  // 1200 px off: what stands 100 px nearer looks 12/11 as large.
  const edge = (x: number) =>
    colours(page, [
      [x - 4, 0],
      [x + 4, 0],
    ])
  const [inside, outside] = await edge((100 * 1200) / 1100)
  expect(inside![0]).toBeGreaterThan(200)
  expect(outside![0]).toBeLessThan(60)
  await page.getByRole('tab', { name: 'Part' }).click()
  await press(page, 0, 0)
  await expect(page.getByRole('textbox', { name: 'Name of the part' })).toHaveValue('Card')
  await put(page, 'thickness', 90)
  await put(page, 'rotationY', 40)
  await put(page, 'taper', 50)
  const before = await stagePicture(page)
  const steps = page.getByRole('group', { name: 'Transform order' })
  await expect(steps).toHaveText(/extrude\s*›\s*scale\s*›\s*rotate\s*›\s*move/)
  await steps.getByRole('button', { name: 'rotate before scale' }).click()
  await steps.getByRole('button', { name: 'rotate before extrude' }).click()
  await expect(steps).toHaveText(/rotate\s*›\s*extrude\s*›\s*scale\s*›\s*move/)
  // Turned first, it is thickened straight back.
  await expect.poll(async () => (await stagePicture(page)).equals(before)).toBe(false)
  await page.getByRole('button', { name: /^Undo/ }).first().click()
  await page.getByRole('button', { name: /^Undo/ }).first().click()
  await expect(steps).toHaveText(/extrude\s*›\s*scale/)
  await saved(page)
})

test('A3: looked round with the right button, by keys and by buttons, and home again; the piece is not changed', async ({
  page,
}) => {
  const b = new Builder('Round', 3)
  b.do(setEye(b.piece, 1000))
  b.part('Post', { type: 'rectangle' }, {}, { x: 0, z: -400, width: 60, height: 300, fillLightness: 90, fillChroma: 0 })
  await openPiece(page, b.piece)
  const home = page.getByRole('button', { name: 'home', exact: true })
  await expect(home).toBeDisabled()
  const ahead = await seen(page)
  const undo = page.getByRole('button', { name: /^Undo/ }).first()
  const middle = await spot(page, -300, 0)
  await page.mouse.move(...middle)
  await page.mouse.down({ button: 'right' })
  await page.mouse.move(middle[0] + 120, middle[1] + 40, { steps: 5 })
  await page.mouse.up({ button: 'right' })
  await expect(home).toBeEnabled()
  expect(await seen(page)).not.toEqual(ahead)
  await expect(undo).toBeDisabled()
  await home.click()
  await expect.poll(() => seen(page)).toEqual(ahead)
  await stage(page).focus()
  for (const key of ['Alt+ArrowLeft', 'Alt+ArrowUp']) await page.keyboard.press(key)
  await expect(home).toBeEnabled()
  await page.keyboard.press('Home')
  await expect(home).toBeDisabled()
  await page.getByRole('button', { name: 'look from above' }).click()
  expect(await seen(page)).not.toEqual(ahead)
  // Taken hold of where it is seen now, and moved with the hand.
  await home.click()
  await press(page, 0, 0)
  await expect(page.getByRole('textbox', { name: 'Name of the part' })).toHaveValue('Post')
  const [x, y] = await spot(page, 0, 60)
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.keyboard.down('Control')
  const [tx, ty] = await spot(page, 100, 60)
  await page.mouse.move(tx, ty, { steps: 5 })
  await page.mouse.up()
  await page.keyboard.up('Control')
  // It stands 400 px behind the stage, 1400 from the eye: 100 px of the picture are 140 there.
  expect(Math.abs((await number(page, 'x')) - 140)).toBeLessThan(3)
  await expect(undo).toBeEnabled()
})

test('E4: letters in depth: two words, one a line, each letter and layer later than the one before; words changed while it plays', async ({
  page,
}) => {
  const b = new Builder('Letters', 3)
  b.do(setEye(b.piece, 1400))
  await openPiece(page, b.piece)
  await add(page, 'text')
  await page.getByLabel('Words').fill('NIGHT FAIR')
  await page.getByLabel('Words').press('Enter')
  await pick(page.getByLabel('Shows'), 'letters')
  await pick(page.getByLabel('Lines', { exact: true }), 'words')
  await pick(page.getByLabel('Copies', { exact: true }), 'placed')
  await put(page, 'size', 130)
  await expect(field(page, 'set at size')).toHaveValue('130')
  await stage(page).focus()
  await page.keyboard.press('ControlOrMeta+g')
  await pick(page.getByLabel('Copies', { exact: true }), 'layers')
  await put(page, 'count', 4)
  await put(page, 'layer spacing', 14)
  await expect(page.getByLabel('join layers')).toBeChecked()
  await stage(page).focus()
  await page.keyboard.press('Enter')
  const loops = [
    ['scale', '100% + sine(freq: 4/lap, amp: 12%, phase: index * 30deg - layer * 9deg)'],
    ['rotation', 'sine(freq: 3/lap, amp: 8deg, phase: index * 40deg - layer * 7deg)'],
    ['y', 'sine(freq: 1/lap, amp: 20px, phase: index * 25deg - layer * 6deg)'],
    ['thickness', '12px + sine(freq: 2/lap, amp: 8px, phase: index * 50deg - layer * 12deg)'],
  ] as const
  for (const [property, text] of loops) await driveBy(page, 'Text', property, text)
  // Ten letters on each of four layers; each loop is the one before, so much later.
  const scale = await values(page, await keyOf(page, 'Text scale'), 1.3)
  expect(scale).toHaveLength(40)
  const wave = (at: number, letter: number, layer: number) =>
    1 + 0.12 * Math.sin(2 * Math.PI * ((4 * at) / 8 + (letter * 30 - layer * 9) / 360))
  scale.forEach((v, k) => expect(v).toBeCloseTo(wave(1.3, k % 10, Math.floor(k / 10)), 9))
  const thickness = await keyOf(page, 'Text thickness')
  expect(await values(page, thickness, 9.3)).toEqual(await values(page, thickness, 1.3))
  // Looked at from three sides: all different, and all of them there.
  await goTo(page, '1.3')
  await stage(page).focus()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  const views = [await stagePicture(page)]
  for (const way of ['look from the left', 'look from above']) {
    for (let k = 0; k < 3; k++) await page.getByRole('button', { name: way }).click()
    views.push(await stagePicture(page))
  }
  expect(new Set(views.map(v => v.toString('base64'))).size).toBe(3)
  for (const v of views) expect(v.length).toBeGreaterThan(8000)
  // Other words while it plays: every formula stays.
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await page.getByRole('article', { name: 'Text scale', exact: true }).locator('header').click()
  await page.getByLabel('Words').fill('LATE FAIR NOW')
  await page.getByLabel('Words').press('Enter')
  await expect.poll(async () => (await values(page, thickness, 1)).length).toBe(13 * 4)
  for (const [property, text] of loops) await expect(formula(page, `Text ${property}`)).toHaveText(text)
  await halt(page)
  await saved(page)
})

test('G2: water in depth: foam on its crests, fields as fine as one likes, and what floats stands where the water is', async ({
  page,
}) => {
  const b = new Builder('Basin', 3)
  b.do(setEye(b.piece, 1400))
  await openPiece(page, b.piece)
  await add(page, 'waves')
  for (const [name, value] of [
    ['width', 900],
    ['height', 100],
    ['thickness', 700],
    ['swell', 60],
    ['foam', 0],
    ['rotationX', 30],
    ['resolution', 40],
  ] as const)
    await put(page, name, value)
  await stage(page).focus()
  await page.keyboard.press('Escape')
  await goTo(page, '2')
  /** How many of so many places on the water are white. */
  const white = async () => {
    const at = Array.from({ length: 600 }, (_, k) => [(k % 30) * 24 - 348, Math.floor(k / 30) * 9 + 40] as const)
    return (await colours(page, at)).filter(c => c.every(v => v > 190)).length
  }
  const calm = await white()
  await inHand(page, 'Waves')
  await put(page, 'foam', 100)
  await stage(page).focus()
  await page.keyboard.press('Escape')
  await expect.poll(white).toBeGreaterThan(calm + 5)
  // A buoy reads the water where it is, its height and its foam.
  await add(page, 'ellipse')
  await driveBy(page, 'Ellipse', 'y', 'Waves.height(120px, -200px)')
  await driveBy(page, 'Ellipse', 'opacity', '20% + Waves.foam(120px, -200px) * 80%')
  const [y, seen] = [await keyOf(page, 'Ellipse y'), await keyOf(page, 'Ellipse opacity')]
  const heights = await Promise.all([0, 1, 2, 3, 11].map(s => values(page, y, s)))
  expect(new Set(heights.map(h => h[0]!.toFixed(6))).size).toBe(4)
  // Half the basin's height, and its waves.
  for (const [h] of heights) expect(Math.abs(h! - 50)).toBeLessThanOrEqual(60)
  // A lap on, the water stands as it did.
  expect(heights[4]).toEqual(heights[3])
  const foam = await Promise.all(Array.from({ length: 30 }, (_, k) => values(page, seen, k / 4)))
  for (const [f] of foam) expect(f! >= 0.2 && f! <= 1).toBe(true)
})

test('ripples by noise over space, on the water’s own mesh: they run all ways, stand still without pace, close at the lap', async ({
  page,
}) => {
  const b = new Builder('Cloth', 3)
  b.do(setEye(b.piece, 1400))
  await openPiece(page, b.piece)
  await add(page, 'waves')
  await put(page, 'swell', 60)
  const rest = (await number(page, 'height')) / 2
  await pick(page.getByLabel('Driven by wind or noise'), 'noise')
  await expect(page.getByRole('textbox', { name: 'wind', exact: true })).toHaveCount(0)
  await stage(page).focus()
  await page.keyboard.press('Escape')
  await add(page, 'ellipse')
  await driveBy(page, 'Ellipse', 'y', 'Waves.height(120px, -200px)')
  const key = await keyOf(page, 'Ellipse y')
  const heights = async () => Promise.all([0, 1, 2.5, 10.5].map(async s => (await values(page, key, s))[0]!))
  const moving = await heights()
  expect(new Set(moving.map(h => h.toFixed(6))).size).toBe(3)
  expect(moving[3]).toBe(moving[2])
  for (const h of moving) expect(Math.abs(h - rest)).toBeLessThanOrEqual(60)
  await inHand(page, 'Waves')
  await put(page, 'pace', 0)
  await expect.poll(async () => new Set(await heights()).size).toBe(1)
  await pick(page.getByLabel('Driven by wind or noise'), 'wind')
  await expect(page.getByRole('textbox', { name: 'wind', exact: true })).toBeVisible()
})

test('A3, F3: a block rocks on two axes about its bottom edge and fades in over a second and a half', async ({
  page,
}) => {
  const b = new Builder('Block', 3)
  b.do(setEye(b.piece, 1200))
  await openPiece(page, b.piece)
  await add(page, 'rectangle')
  await put(page, 'height', 240)
  await put(page, 'thickness', 120)
  await page.getByRole('button', { name: 'Pivot at the bottom', exact: true }).click()
  await expect.poll(() => number(page, 'pivot y')).toBe(-120)
  await driveBy(page, 'Rectangle', 'rotationX', 'sine(every: 3s, amp: 20deg)')
  await driveBy(page, 'Rectangle', 'rotation', 'sine(every: 2s, amp: 12deg, phase: 90deg)')
  await driveBy(page, 'Rectangle', 'opacity', 'smoothstep(0s, 1.5s, time)')
  expect(await values(page, await keyOf(page, 'Rectangle opacity'), 0.75)).toEqual([0.5])
  expect(await values(page, await keyOf(page, 'Rectangle opacity'), 1.5)).toEqual([1])
  await stage(page).focus()
  await page.keyboard.press('Escape')
  await goTo(page, '0')
  const [ground] = await colours(page, [[-500, 300]])
  // Not there yet, then half seen, then solid; its foot stays where it stands.
  expect(await colour(page, 0, -100)).toEqual(ground)
  await goTo(page, '0.75')
  const half = await colour(page, 0, -60)
  await goTo(page, '1.5')
  const whole = await colour(page, 0, -60)
  expect(half).not.toEqual(ground)
  expect(Math.abs(half[0]! - (whole[0]! + ground![0]!) / 2)).toBeLessThan(24)
  expect(await colour(page, 0, -128)).toEqual(ground)
  await write(page, 'Rectangle rotation', 'sine(every: 2s, amp: 30deg)')
  await expect(formula(page, 'Rectangle rotation')).toHaveText('sine(every: 2s, amp: 30deg)')
})
