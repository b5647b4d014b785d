/** Lines by hand and traces: joints, dashes, what draws on and off, the path of a point, kept as a path. */
import { Builder } from '../../core/acts/build.ts'
import { setEye } from '../../core/acts/settings.ts'
import { expect, formula, goTo, keyOf, test, values } from './fair.ts'
import { apart } from './exporting.ts'
import { add, colour, colours, driveBy, inHand, letGo, number, openPiece, put, run, stagePicture } from './on-stage.ts'
import { pick } from './pick.ts'

test('G3, C6: a spiral that grows is traced, its laid points stay, and it is kept as a path', async ({ page }) => {
  const b = new Builder('Spiral', 3)
  b.part('Light', { type: 'ellipse' }, {}, { width: 20, height: 20 })
  await openPiece(page, b.piece)
  await inHand(page, 'Light')
  await driveBy(page, 'Light', 'x', 'sine(every: 2s, amp: time * 25px/s, phase: 90deg)')
  await driveBy(page, 'Light', 'y', 'sine(every: 2s, amp: time * 25px/s)')
  await letGo(page)
  await add(page, 'trace')
  await pick(page.getByLabel('Follows'), { label: 'Light' })
  await put(page, 'trail', 12)
  await put(page, 'strokeWidth', 8)
  await letGo(page)
  await goTo(page, '9')
  // At 8.5 s the spiral stood above the middle, 212.5 px out; half a second later it goes on from there.
  const there = async () =>
    (
      await colours(page, [
        [0, 212],
        [-600, 300],
      ])
    ).map(String)
  const [line, ground] = await there()
  expect(line).not.toBe(ground)
  await goTo(page, '9.4')
  expect((await there())[0]).toBe(line)
  await inHand(page, 'Trace')
  await page.getByRole('button', { name: 'Keep as a path' }).click()
  await expect(page.getByRole('textbox', { name: 'Name of the part' })).toHaveValue('Path')
  expect(
    (await page.getByRole('textbox', { name: 'Points of the outline' }).inputValue()).split('\n').length,
  ).toBeGreaterThan(20)
  await expect.poll(() => number(page, 'strokeWidth')).toBe(8)
  // The path stays where it was laid, whatever the trace does.
  await letGo(page)
  await goTo(page, '30')
  expect((await there())[0]).not.toBe(ground)
  await page.getByRole('button', { name: /^Undo/ }).first().click()
  expect((await there())[0]).toBe(ground)
})

test('G3: a trace grows thinner, fainter and of another hue towards its old end; its points lie where it bends', async ({
  page,
}) => {
  const b = new Builder('Comet', 3)
  const light = b.part('Light', { type: 'ellipse' }, { hidden: true })
  b.drive(light, 'x', 'time * 100px/s - 500px')
  b.part(
    'Trace',
    { type: 'trace', of: light, x: 0, y: 0, every: 60 },
    {},
    { trail: 8, strokeWidth: 80, strokeChroma: 0.15 },
  )
  await openPiece(page, b.piece)
  await goTo(page, '8')
  // Its old end lies at −500, its new one at 300.
  const seen = async () => {
    await letGo(page)
    const places = [-460, -100, 260].flatMap(x => [0, 30].map(y => [x, y] as const))
    const [ground, ...all] = await colours(page, [[600, 300], ...places])
    await inHand(page, 'Trace')
    return all.map(c => (c!.join() === ground!.join() ? null : c!))
  }
  expect((await seen()).every(c => c !== null)).toBe(true)
  await put(page, 'tailWidth', 10)
  const narrow = await seen()
  expect(narrow.map(c => c !== null)).toEqual([true, false, true, false, true, true])
  expect(narrow[0]).toEqual(narrow[4])
  await put(page, 'tailHue', 180)
  const hued = await seen()
  expect(hued[0]).not.toEqual(narrow[0])
  // Red against blue is turned about.
  expect(Math.sign(hued[0]![0]! - hued[0]![2]!)).toBe(-Math.sign(hued[4]![0]! - hued[4]![2]!))
  await put(page, 'tailFade', 100)
  const faded = await seen()
  const far = (a: number[], c: number[]) => Math.hypot(...a.map((v, k) => v - c[k]!))
  await letGo(page)
  const ground = await colour(page, 600, 300)
  await inHand(page, 'Trace')
  expect(far(faded[0]!, ground)).toBeLessThan(0.3 * far(hued[0]!, ground))
  expect(far(faded[2]!, ground) / far(hued[2]!, ground)).toBeGreaterThan(0.3)
  // Driven while it plays, as any property; by bend it has the same line of fewer points.
  await driveBy(page, 'Trace', 'tailWidth', '50% + sine(every: 4s, amp: 50%)')
  await goTo(page, '9')
  // A whole wave later it is as wide all along.
  expect((await seen())[5]).not.toBeNull()
  await pick(page.getByLabel('Where points are placed'), 'bend')
  await put(page, 'bends by', 10)
  await put(page, 'goes', 400)
  await page.getByRole('button', { name: 'Keep as a path' }).click()
  await expect(page.getByRole('textbox', { name: 'Name of the part' })).toHaveValue('Path')
  expect((await page.getByRole('textbox', { name: 'Points of the outline' }).inputValue()).split('\n')).toHaveLength(2)
})

test('G3: a helix is traced in depth and kept as a path: from the side it looks as the trace did', async ({ page }) => {
  const b = new Builder('Helix', 3)
  b.do(setEye(b.piece, 1400))
  const light = b.part('Light', { type: 'ellipse' }, {}, { width: 4, height: 4, fillAlpha: 0 })
  b.drive(light, 'x', 'sine(every: 1s, amp: 140px, phase: 90deg)')
  b.drive(light, 'y', 'sine(every: 1s, amp: 140px)')
  b.drive(light, 'z', 'time * 90px/s - 180px')
  b.part('Trace', { type: 'trace', of: light, x: 0, y: 0, every: 60 }, {}, { trail: 4, strokeWidth: 8 })
  await openPiece(page, b.piece)
  await goTo(page, '4')
  await inHand(page, 'Trace')
  await page.getByRole('button', { name: 'Keep as a path' }).click()
  const points = await page.getByRole('textbox', { name: 'Points of the outline' }).inputValue()
  expect(points.split('\n').filter(l => l.split(',').length === 3).length).toBeGreaterThan(50)
  await letGo(page)
  for (let k = 0; k < 3; k++) await page.getByRole('button', { name: 'look from the left' }).click()
  const without = async (name: string): Promise<Buffer> => {
    await page.getByRole('button', { name: `Hide ${name}`, exact: true }).click()
    const picture = await stagePicture(page)
    await page.getByRole('button', { name: `Show ${name}`, exact: true }).click()
    return picture
  }
  const [trace, path] = [await without('Path'), await without('Trace')]
  const { count } = await apart(page, trace, path)
  await page.getByRole('button', { name: 'Hide Path', exact: true }).click()
  const nothing = await without('Trace')
  const line = (await apart(page, trace, nothing)).count
  expect(line).toBeGreaterThan(2000)
  // Points were left out within a fifth of a pixel: of the line only its edge may differ.
  expect(count).toBeLessThan(line * 0.3)
  expect((await apart(page, nothing, path)).count).toBeGreaterThan(line * 0.8)
})

test('the joints of a line are pointed, round or cut off, on the stage and in a still', async ({ page }) => {
  const b = new Builder('Bends', 3)
  const hand = { width: 300, height: 200, fillAlpha: 0, strokeWidth: 80, strokeLightness: 0.4 }
  b.part('Frame', { type: 'rectangle' }, {}, hand)
  const id = await openPiece(page, b.piece)
  await inHand(page, 'Frame')
  // Along the way out of its corner at 150, 100: 40√2 to the point, 40 where it is round, 40 ÷ √2 where it is cut off.
  const out = (far: number): [number, number] => [150 + far / Math.SQRT2, 100 + far / Math.SQRT2]
  const seen = async () => {
    await letGo(page)
    const [ground, ...all] = await colours(page, [[600, 300], out(22), out(34), out(50)])
    await inHand(page, 'Frame')
    return all.map(c => c!.join() !== ground!.join())
  }
  expect(await seen()).toEqual([true, true, true])
  await pick(page.getByLabel('Line joins'), 'round')
  expect(await seen()).toEqual([true, true, false])
  await pick(page.getByLabel('Line joins'), 'bevel')
  expect(await seen()).toEqual([true, false, false])
  await expect
    .poll(async () => (await page.request.get(`/api/pieces/${id}/still?at=0`)).text())
    .toContain('stroke-linejoin="bevel"')
})

test('G5: a line draws on, stays and draws off; its dashes run along it, with round ends; lines burst round a point', async ({
  page,
}) => {
  await openPiece(page, new Builder('Lines', 3).piece)
  await add(page, 'line')
  await put(page, 'width', 1000)
  await put(page, 'strokeWidth', 20)
  await driveBy(page, 'Line', 'lineEnd', 'smoothstep(0s, 2s, time)')
  await driveBy(page, 'Line', 'lineStart', 'smoothstep(4s, 6s, time)')
  await letGo(page)
  const seen = async (time: string) => {
    await goTo(page, time)
    const xs = await run(page, 0)
    return xs.length === 0 ? null : [xs[0]!, xs.at(-1)!]
  }
  expect(await seen('0')).toBeNull()
  const [, half] = (await seen('1'))!
  expect(Math.abs(half!)).toBeLessThan(8)
  expect((await seen('3'))!.map(v => Math.round(v / 10))).toEqual([-50, 50])
  expect(Math.abs((await seen('5'))![0]!)).toBeLessThan(8)
  expect(await seen('6')).toBeNull()
  await inHand(page, 'Line')
  await pick(page.getByLabel('Line caps'), 'round')
  await put(page, 'dash', 60)
  await put(page, 'dashGap', 60)
  await driveBy(page, 'Line', 'dashOffset', 'time * -120px/s')
  await letGo(page)
  await goTo(page, '3')
  const dashes = await run(page, 0)
  // A round end reaches half the line further on either side: 80 of each 120.
  expect(Math.abs(dashes.length * 4 - (1000 * 80) / 120)).toBeLessThan(60)
  await goTo(page, '3.5')
  expect(await run(page, 0)).not.toEqual(dashes)
  await goTo(page, '4')
  const on = await run(page, 0, -400, 400)
  await goTo(page, '3')
  expect(on).toEqual(await run(page, 0, -400, 400))
  // Twelve short lines round a point.
  await add(page, 'line')
  await pick(page.getByLabel('Copies', { exact: true }), 'ring')
  await put(page, 'count', 12)
  await driveBy(page, 'Line2', 'lineStart', 'smoothstep(0.2s, 1s, time)')
  await driveBy(page, 'Line2', 'lineEnd', 'smoothstep(0s, 0.6s, time)')
  expect(await values(page, await keyOf(page, 'Line2 lineEnd'), 0.3)).toHaveLength(12)
  await expect(formula(page, 'Line2 lineEnd')).toHaveText('smoothstep(0s, 0.6s, time)')
})
