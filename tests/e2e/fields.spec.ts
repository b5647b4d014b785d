/** What follows and makes up for what carries it, and what is laid in fields: particles, colours. */
import { Builder } from '../../core/acts/build.ts'
import { expect, goTo, keyOf, saved, test, values } from './fair.ts'
import { add, colour, colours, driveBy, inHand, letGo, number, openPiece, put, run, stagePicture } from './on-stage.ts'
import { pick } from './pick.ts'

test('D6: a line keeps its visible width under scale, a child stays upright, a gradient rides with its part or stays on the stage', async ({
  page,
}) => {
  const b = new Builder('Making up', 3)
  const wheel = b.part('Wheel', { type: 'group' }, {})
  b.drive(wheel, 'rotation', 'time * 30deg/s')
  b.part('Seat', { type: 'rectangle' }, { parent: wheel }, { x: 200, width: 80, height: 40 })
  b.part('Disc', { type: 'ellipse' }, {}, { x: -300, width: 160, height: 160, fillAlpha: 0, strokeWidth: 12 })
  b.part(
    'Sign',
    { type: 'rectangle' },
    {},
    { y: -250, width: 200, height: 60, gradient: 100, gradientTurn: 0, gradientLightness: 95 },
  )
  await openPiece(page, b.piece)
  await inHand(page, 'Seat')
  await driveBy(page, 'Seat', 'rotation', 'parent.rotation * -1')
  const [seat, around] = [await keyOf(page, 'Seat rotation'), await keyOf(page, 'Wheel rotation')]
  for (const s of [0.7, 3, 11]) expect((await values(page, seat, s))[0]! + (await values(page, around, s))[0]!).toBe(0)
  await inHand(page, 'Disc')
  await driveBy(page, 'Disc', 'scale', '100% + 150% * (time / 4s)')
  await driveBy(page, 'Disc', 'strokeWidth', '12px / own.scale')
  await letGo(page)
  /** How wide the line is where the disc ends at its left, px. */
  const wide = async (time: string, scale: number) => {
    await goTo(page, time)
    const edge = -300 - 80 * scale
    return (await run(page, 0, Math.round(edge) - 30, Math.round(edge) + 30)).length * 4
  }
  const [small, large] = [await wide('0', 1), await wide('4', 2.5)]
  expect(Math.abs(small - large)).toBeLessThanOrEqual(4)
  expect(Math.abs(small - 12)).toBeLessThanOrEqual(4)
  // Riding with its part the gradient looks the same wherever it goes; on the stage it does not.
  await inHand(page, 'Sign')
  const left = async () => {
    await letGo(page)
    return colour(page, (await at()) - 80, -250)
  }
  const at = async () => {
    await inHand(page, 'Sign')
    const x = await number(page, 'x')
    await letGo(page)
    return x
  }
  const riding = [await left()]
  await inHand(page, 'Sign')
  await put(page, 'x', 300)
  riding.push(await left())
  expect(riding[1]!.every((v, k) => Math.abs(v - riding[0]![k]!) < 6)).toBe(true)
  await inHand(page, 'Sign')
  await pick(page.getByLabel('Gradient fixed to'), 'stage')
  const there = await left()
  await inHand(page, 'Sign')
  await put(page, 'x', -300)
  expect((await left()).some((v, k) => Math.abs(v - there[k]!) > 10)).toBe(true)
})

test('D7: a part rides on a point of another, where that turns and swings', async ({ page }) => {
  const b = new Builder('Riding', 3)
  const arm = b.part('Arm', { type: 'line' }, { pivot: { x: -150, y: 0 } }, { width: 300, strokeWidth: 8 })
  b.drive(arm, 'rotation', 'sine(every: 4s, amp: 60deg)')
  b.part('Lamp', { type: 'ellipse' }, {}, { width: 40, height: 40 })
  await openPiece(page, b.piece)
  await inHand(page, 'Lamp')
  await driveBy(page, 'Lamp', 'x', 'arm.stageX(300px, 0px)')
  await driveBy(page, 'Lamp', 'y', 'arm.stageY(300px, 0px)')
  const [x, y] = [await keyOf(page, 'Lamp x'), await keyOf(page, 'Lamp y')]
  for (const s of [0, 0.5, 1, 2.6]) {
    const turn = (60 * Math.sin((2 * Math.PI * s) / 4) * Math.PI) / 180
    expect((await values(page, x, s))[0]).toBeCloseTo(-150 + 300 * Math.cos(turn), 6)
    expect((await values(page, y, s))[0]).toBeCloseTo(300 * Math.sin(turn), 6)
  }
  await letGo(page)
  await goTo(page, '1')
  const tip = [-150 + 150, 300 * Math.sin(Math.PI / 3)] as const
  const [on, off] = await colours(page, [tip, [500, 300]])
  expect(on).not.toEqual(off)
})

test('G1: particles along one way whose speed gusts and never turns back; set off on a line, growing and fading', async ({
  page,
}) => {
  await openPiece(page, new Builder('Petals', 3).piece)
  await add(page, 'emitter')
  for (const [name, value] of [
    ['x', -500],
    ['spread', 0],
    ['births', 20],
    ['life', 6],
    ['particle', 16],
  ] as const)
    await put(page, name, value)
  await expect(page.locator('[data-at-once]')).toHaveText('Up to 120 particles at once.')
  await driveBy(page, 'Emitter', 'speed', '60px/s + noise(1Hz, 200px/s)')
  await letGo(page)
  await goTo(page, '10')
  const reach = async (y: number) => Math.max(-620, ...(await run(page, y)))
  expect(await reach(0)).toBeGreaterThan(-400)
  // Never to the left of where they set off, though the noise goes far below 0.
  expect(Math.min(...(await run(page, 0)))).toBeGreaterThan(-516)
  expect(await run(page, 60)).toEqual([])
  await inHand(page, 'Emitter')
  await pick(page.getByLabel('Emit from'), 'line')
  await put(page, 'birthSize', 200)
  await letGo(page)
  await expect.poll(async () => (await run(page, 60)).length).toBeGreaterThan(3)
  await inHand(page, 'Emitter')
  const before = await stagePicture(page)
  await put(page, 'particleEnd', 300)
  await put(page, 'particleFade', 90)
  await expect.poll(async () => (await stagePicture(page)).equals(before)).toBe(false)
  await saved(page)
})

test('G4: a hue goes round once a lap; the far end of a gradient breathes', async ({ page }) => {
  await openPiece(page, new Builder('Colours', 3).piece)
  await add(page, 'rectangle')
  await put(page, 'width', 600)
  await put(page, 'gradient', 100)
  await put(page, 'gradientTurn', 0)
  await driveBy(page, 'Rectangle', 'fillHue', 'base + lapProgress * 1turn')
  await driveBy(page, 'Rectangle', 'gradientLightness', '50% + sine(freq: 2/lap, amp: 40%)')
  const hue = await keyOf(page, 'Rectangle fillHue')
  const [a, b] = [(await values(page, hue, 0))[0]!, (await values(page, hue, 4))[0]!]
  // In turns: half a lap is half way round.
  expect(b - a).toBeCloseTo(0.5, 9)
  await letGo(page)
  const ends = async (time: string) => {
    await goTo(page, time)
    return colours(page, [
      [-280, 0],
      [280, 0],
    ])
  }
  const [first, half, lap] = [await ends('1'), await ends('5'), await ends('9')]
  expect(first[0]).not.toEqual(half[0])
  expect(lap).toEqual(first)
  // Dark at one quarter of its swing, light at three.
  const [light, dark] = [await ends('1'), await ends('3')]
  expect(light[1]!.reduce((s, v) => s + v)).toBeGreaterThan(dark[1]!.reduce((s, v) => s + v) + 200)
})

test('G4: a colour is chosen by three sliders; one pull is one step; what is driven is left to its formula', async ({
  page,
}) => {
  await openPiece(page, new Builder('Colours', 3).piece)
  await add(page, 'rectangle')
  await page.getByRole('button', { name: 'Fill, colour' }).click()
  const hue = page.getByRole('slider', { name: 'Fill hue' })
  await hue.focus()
  for (let k = 0; k < 5; k++) await page.keyboard.press('ArrowRight')
  await page.getByRole('slider', { name: 'Fill lightness' }).fill('80')
  await page.keyboard.press('Escape')
  await expect.poll(() => number(page, 'fillLightness')).toBe(80)
  expect(await number(page, 'fillHue')).toBe(220)
  const light = await page
    .locator('[data-swatch]')
    .first()
    .evaluate(e => getComputedStyle(e).backgroundColor)
  expect(light).toContain('0.8')
  await page.getByRole('button', { name: /^Undo/ }).first().click()
  await expect.poll(() => number(page, 'fillLightness')).toBe(55)
  await driveBy(page, 'Rectangle', 'fillHue', 'lapProgress * 1turn')
  await page.getByRole('button', { name: 'Fill, colour' }).click()
  await expect(page.getByRole('slider', { name: 'Fill hue' })).toBeDisabled()
  await expect(page.getByText('driven by its formula', { exact: true }).first()).toBeVisible()
})
