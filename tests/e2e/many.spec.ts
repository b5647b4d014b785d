/** Many at once: a train of gears, a point among thousands, parts carried to another piece. */
import { Builder } from '../../core/acts/build.ts'
import { dragNumber, expect, formula, test } from './fair.ts'
import { chosen, drag, number, openPiece, press } from './on-stage.ts'

test('D4: a train of five gears by dropping each beside the one before: exact ratios for ever', async ({ page }) => {
  const b = new Builder('A train', 3)
  const teeth = [12, 30, 18, 24, 15]
  teeth.forEach((n, k) =>
    b.part(
      `Gear${k}`,
      { type: 'gear', teeth: n, spokes: 0, module: 6 },
      {},
      { x: -500 + 250 * k, y: k % 2 ? 200 : -150 },
    ),
  )
  b.drive(Object.keys(b.piece.parts)[0]!, 'rotation', 'time * 37deg/s')
  await openPiece(page, b.piece)
  // Each is let go a little off the place where it meets the one before.
  let x = -500
  const at = (k: number): [number, number] => [-500 + 250 * k, k % 2 ? 200 : -150]
  for (let k = 1; k < 5; k++) {
    x += (teeth[k - 1]! + teeth[k]!) * 3
    await drag(page, at(k), [x + 9, -150 + 3])
    await expect(page.getByRole('status').filter({ hasText: `Gear${k} runs with Gear${k - 1} now` })).toBeVisible()
    x = await number(page, 'x')
  }
  const turns = (s: number) =>
    page.evaluate(s => {
      const { values } = window.openTide
      return [1, 2, 3, 4, 5].map(k => values(`p${k}.rotation`, s)[0]! - values(`p${k}.rotation`, 0)[0]!)
    }, s)
  for (const s of [1, 360, 36000]) {
    const [first, ...rest] = await turns(s)
    rest.forEach((t, k) => {
      const ratio = ((k % 2 === 0 ? -1 : 1) * 12) / teeth[k + 1]!
      expect(Math.abs(t - first! * ratio)).toBeLessThan(1e-9 * Math.max(1, Math.abs(first!)))
    })
  }
})

test('a point among 2,000 copies is chosen by a press', async ({ page }) => {
  const b = new Builder('Many', 3)
  const grid = { layout: 'grid', count: 2000, columns: 50, dx: 24, dy: 16 } as const
  const dot = b.part('Dot', { type: 'ellipse' }, { copies: grid }, { width: 10, height: 10 })
  b.drive(dot, 'opacity', '100%')
  await openPiece(page, b.piece)
  // Row 30, column 7 of 40 rows and 50 columns about the middle.
  await press(page, (7 - 24.5) * 24, (19.5 - 30) * 16)
  await chosen(page, 'Dot')
  await expect(page.getByText('copy 1508 of 2,000')).toBeVisible()
  await press(page, (49 - 24.5) * 24, (19.5 - 39) * 16)
  await expect(page.getByText('copy 2000 of 2,000')).toBeVisible()
})

test('three thousand copies, their number typed: each moves its own way, and a number is dragged while it plays', async ({
  page,
}) => {
  const b = new Builder('Bulbs', 3)
  const copies = { layout: 'grid', count: 6, columns: 60, dx: 18, dy: 12 } as const
  const bulb = b.part('Bulb', { type: 'ellipse' }, { copies }, { width: 6, height: 6 })
  b.drive(bulb, 'y', 'sine(every: 2s, amp: 9px, phase: index * 7deg)')
  await openPiece(page, b.piece)
  await page.getByRole('button', { name: 'Bulb', exact: true }).first().click()
  await page.getByLabel('count', { exact: true }).fill('3000')
  await page.getByLabel('count', { exact: true }).press('Enter')
  const all = () => page.evaluate(() => window.openTide.values('p1.y', 1.25))
  await expect.poll(async () => (await all()).length).toBe(3000)
  const amp = async () => {
    const at = await all()
    const last = at[2999]! / Math.sin(2 * Math.PI * (1.25 / 2 + (2999 * 7) / 360))
    for (const i of [0, 1, 1500])
      expect(at[i]! / Math.sin(2 * Math.PI * (1.25 / 2 + (i * 7) / 360))).toBeCloseTo(last, 6)
    return last
  }
  expect(await amp()).toBeCloseTo(9, 9)
  // What is said of all is proven of all together.
  const it = page.getByRole('article', { name: 'Bulb y', exact: true })
  await expect(it).toContainText('every 2 s')
  await expect(it).toContainText('−9 … 9 px')
  await expect(it).toContainText('loops')
  await expect(page.getByText('3,000 in a grid')).toBeVisible()
  await dragNumber(page, 'Bulb y', 1, 60)
  await expect.poll(amp).toBeGreaterThan(10)
  await page.keyboard.press('ControlOrMeta+z')
  await expect.poll(amp).toBeCloseTo(9, 9)
})

test('what a frame costs is told of the piece and of an entry that takes long, with what would make it lighter', async ({
  page,
}) => {
  const b = new Builder('Heavy', 3)
  const copies = { layout: 'grid', count: 20_000, columns: 200, dx: 6, dy: 6 } as const
  const bulb = b.part('Bulb', { type: 'ellipse' }, { copies }, { width: 4, height: 4 })
  b.drive(bulb, 'y', 'noise(2Hz, 9px, octaves: 8)')
  b.drive(b.part('Post', { type: 'ellipse' }), 'x', 'sine(every: 2s, amp: 9px)')
  await openPiece(page, b.piece)
  const heavy = page.getByRole('article', { name: 'Bulb y', exact: true }).locator('[data-cost]')
  await expect(heavy).toHaveText(/^\d+ ms a frame$/, { timeout: 20_000 })
  await expect(heavy).toHaveAttribute('data-tip', /It has 20,000 copies\. Fewer would make it lighter/)
  await expect(page.getByRole('article', { name: 'Post x', exact: true }).locator('[data-cost]')).toHaveCount(0)
  await page.getByRole('tab', { name: 'Piece' }).click()
  const costs = page.locator('[data-costs]')
  await expect(costs).toContainText(/The values take about [\d.]+ ms of the 33.3 ms available per frame/)
  const most = costs.getByRole('listitem').first()
  await expect(most).toContainText('Bulb y')
  await expect(most).toContainText('Fewer would make it lighter')
  await costs.getByRole('button', { name: 'Bulb y' }).click()
  await expect(page.getByRole('article', { name: 'Bulb y', exact: true })).toBeInViewport()
})

test('Ten thousand bulbs of the demo: all four drives run and are known to loop; a dial turned while it plays reaches the last', async ({
  page,
}) => {
  await page.goto('/piece/ten-thousand-bulbs')
  await expect(page.getByRole('article', { name: 'Bulb fillHue', exact: true })).toBeVisible()
  await expect(page.getByRole('button', { name: /^Lap/ })).toContainText('4 of 4 loop')
  const at = (property: string, s: number) =>
    page.evaluate(([k, t]) => window.openTide.values(k, t), [`p1.${property}`, s] as const)
  for (const property of ['x', 'y', 'opacity', 'fillHue']) {
    const [now, later, round] = [await at(property, 1.3), await at(property, 1.4), await at(property, 9.3)]
    expect(now).toHaveLength(10_000)
    expect(now.filter((v, i) => v === later[i])).toEqual([])
    expect(Math.max(...now.map((v, i) => Math.abs(v - round[i]!)))).toBeLessThan(1e-9)
  }
  const last = (await at('y', 1.3))[9999]!
  await page.getByRole('slider', { name: 'swell' }).focus()
  await page.keyboard.press('End')
  await expect.poll(async () => (await at('y', 1.3))[9999]).toBeCloseTo(last * 2, 9)
  await expect(page.getByRole('article', { name: 'Bulb y', exact: true })).toContainText('−24 … 24 px')
  await page.keyboard.press('ControlOrMeta+z')
  await expect.poll(async () => (await at('y', 1.3))[9999]).toBeCloseTo(last, 9)
})

test('parts are copied with all that belongs to them and pasted in another piece', async ({ page }) => {
  const other = (await (await page.request.post('/api/pieces', { data: { title: 'Another pier' } })).json()) as {
    id: string
  }
  const b = new Builder('Wheels', 3)
  const wheel = b.part('Wheel', { type: 'gear', teeth: 24, spokes: 5, module: 6 }, {}, { x: 300, y: -120 })
  b.drive(wheel, 'rotation', 'time * 30deg/s')
  await openPiece(page, b.piece)
  await press(page, 300, -120)
  await chosen(page, 'Wheel')
  await page.keyboard.press('ControlOrMeta+c')
  await expect(page.getByRole('status').filter({ hasText: 'Wheel is copied with everything it needs' })).toBeVisible()
  await page.goto(`/piece/${other.id}`)
  const stage = page.getByRole('group', { name: /Parts on the stage/ })
  await stage.focus()
  await page.keyboard.press('ControlOrMeta+v')
  await expect(page.getByRole('status').filter({ hasText: 'Wheel is pasted.' })).toBeVisible()
  await expect(formula(page, 'Wheel rotation')).toHaveText('time * 30deg/s')
  await stage.focus()
  await page.keyboard.press('ControlOrMeta+v')
  await expect(formula(page, 'Wheel2 rotation')).toHaveText('time * 30deg/s')
  await page.getByRole('button', { name: /^Undo/ }).first().click()
  await expect(formula(page, 'Wheel2 rotation')).toHaveCount(0)
})

test('A1: the list of parts is put in order by dragging: above, below, on another', async ({ page }) => {
  const b = new Builder('Order', 3)
  for (const name of ['Post', 'Sail', 'Flag']) b.part(name, { type: 'rectangle' })
  b.part('Boat', { type: 'group' })
  await openPiece(page, b.piece)
  const list = page.getByRole('list', { name: 'All parts' })
  const row = (name: string) =>
    list.getByRole('listitem').filter({ has: page.getByRole('button', { name, exact: true }) })
  const order = () => list.getByRole('listitem').locator('button:first-child').allInnerTexts()
  await expect.poll(async () => (await order()).slice(0, 4)).toEqual(['Boat', 'Flag', 'Sail', 'Post'])
  const carry = async (name: string, to: string, share: number) => {
    const { width, height } = (await row(to).boundingBox())!
    await row(name).dragTo(row(to), {
      sourcePosition: { x: width / 3, y: height / 2 },
      targetPosition: { x: width / 3, y: height * share },
    })
  }
  await carry('Post', 'Flag', 0.1)
  await expect.poll(async () => (await order()).slice(0, 4)).toEqual(['Boat', 'Post', 'Flag', 'Sail'])
  await carry('Flag', 'Boat', 0.5)
  await expect(page.getByLabel('Parent of Flag', { exact: true })).toHaveAttribute('data-value', /p4/)
  await carry('Boat', 'Flag', 0.1)
  await expect(page.getByRole('status').filter({ hasText: 'Boat can’t go there: Flag is its child.' })).toBeVisible()
  await page.getByRole('button', { name: /^Undo/ }).first().click()
  await expect(page.getByLabel('Parent of Flag', { exact: true })).toHaveAttribute('data-value', '')
})
