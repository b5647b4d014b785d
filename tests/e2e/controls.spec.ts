/** Controls of our own by mouse and by keys, the Part page, and what was half empty or nearly unreadable. */
import { Builder } from '../../core/acts/build.ts'
import { accessible } from './accessible.ts'
import { entry, expect, halt, keyOf, saved, test, values } from './fair.ts'
import { dialog, give, kind } from './exporting.ts'
import { add, colour, field, number, openPiece, put } from './on-stage.ts'

test('a list is opened, gone through and closed by the keys, found by its first letters, and says what it holds', async ({
  page,
}) => {
  await openPiece(page, new Builder('Lists', 3).piece)
  await add(page, 'rectangle')
  const caps = page.getByRole('combobox', { name: 'Line caps' })
  await expect(caps).toHaveText('flat')
  await caps.focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('option')).toHaveText(['flat', 'round', 'square'])
  await expect(page.getByRole('option', { name: 'flat' })).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('s')
  await page.keyboard.press('Enter')
  await expect(caps).toHaveText('square')
  await expect(caps).toBeFocused()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Home')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('listbox')).toHaveCount(0)
  await expect(caps).toHaveText('square')
  // The list is never cut off by what it lies in, however low its control stands.
  await page.getByRole('combobox', { name: 'Copies' }).click()
  const box = (await page.getByRole('listbox').boundingBox())!
  expect(box.y).toBeGreaterThanOrEqual(0)
  expect(box.y + box.height).toBeLessThanOrEqual(800)
  await accessible(page, 'an open list')
})

test('one of many is found by typing; what is none of them changes nothing', async ({ page }) => {
  const b = new Builder('Many', 3)
  for (let k = 0; k < 300; k++) b.part(`Bulb ${k}`, { type: 'ellipse' }, {}, { x: k })
  b.part('Post', { type: 'group' })
  await openPiece(page, b.piece)
  await page.getByRole('tab', { name: 'Links' }).click()
  const from = page.getByRole('combobox', { name: 'What drives' })
  await from.click()
  await expect(page.getByRole('option')).toHaveCount(200)
  await expect(page.getByText('101 more: type to narrow the list')).toBeVisible()
  await page.keyboard.type('post')
  await expect(page.getByRole('option')).toHaveText(['Post'])
  await page.keyboard.press('Enter')
  await expect(from).toHaveValue('Post')
  await from.fill('nobody')
  await expect(page.getByText('No results.')).toBeVisible()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Tab')
  await expect(from).toHaveValue('Post')
})

test('a number field is pulled sideways like a number of a formula, in one step; a press begins typing', async ({
  page,
}) => {
  await openPiece(page, new Builder('Numbers', 3).piece)
  await add(page, 'rectangle')
  await halt(page)
  const x = field(page, 'x')
  const begin = await number(page, 'x')
  const box = (await x.boundingBox())!
  const [left, top] = [box.x + box.width / 2, box.y + box.height / 2]
  await page.mouse.move(left, top)
  await page.mouse.down()
  await page.mouse.move(left + 44, top, { steps: 8 })
  await page.mouse.up()
  const pulled = await number(page, 'x')
  expect(pulled).toBeGreaterThan(begin)
  await expect(x).not.toBeFocused()
  await page.mouse.move(left, top)
  await page.mouse.down()
  await page.mouse.move(left - 44, top, { steps: 8 })
  await page.mouse.up()
  await expect.poll(() => number(page, 'x')).toBe(begin)
  await page.keyboard.press('ControlOrMeta+z')
  await expect.poll(() => number(page, 'x')).toBe(pulled)
  await x.click()
  await expect(x).toBeFocused()
  await page.keyboard.type('30 + 12')
  await page.keyboard.press('Enter')
  await expect.poll(() => number(page, 'x')).toBe(42)
  await x.focus()
  await page.keyboard.press('Shift+ArrowUp')
  await expect.poll(() => number(page, 'x')).toBeGreaterThan(42)
  // Its unit is shown beside it, and limits hold while it is pulled.
  const opacity = field(page, 'opacity')
  await expect(opacity.locator('xpath=..')).toContainText('%')
  const o = (await opacity.boundingBox())!
  await page.mouse.move(o.x + 5, o.y + 5)
  await page.mouse.down()
  await page.mouse.move(o.x + 400, o.y + 5, { steps: 4 })
  await page.mouse.up()
  expect(await number(page, 'opacity')).toBe(100)
})

test('the Part page: driven first, sections fold and stay folded, twenty rows at once, labels with the names beside them', async ({
  page,
}) => {
  const b = new Builder('Rows', 3)
  const post = b.part('Post', { type: 'rectangle' })
  b.drive(post, 'fillHue', 'lapProgress * 1turn')
  await openPiece(page, b.piece)
  await page.getByRole('button', { name: 'Post', exact: true }).first().click()
  await page.getByRole('tab', { name: 'Part' }).click()
  const sections = page.locator('[data-part] [data-section]')
  await expect(sections.first()).toHaveAttribute('data-section', 'Driven')
  await expect(sections.first().locator('[data-row]')).toHaveCount(1)
  await expect(sections.first()).toContainText('fill huefillHue')
  const shown = () =>
    page
      .locator('[data-part] [data-section] > div > *')
      .evaluateAll(
        rows => rows.filter(r => r.clientHeight > 0 && r.getBoundingClientRect().bottom <= innerHeight).length,
      )
  await expect.poll(shown).toBeGreaterThanOrEqual(20)
  // Those that are wanted most are among them.
  for (const name of ['x', 'rotation', 'scale', 'opacity', 'width', 'height'])
    await expect(field(page, name)).toBeInViewport({ ratio: 1 })
  const position = page.getByRole('button', { name: 'Position and rotation' })
  await position.click()
  await expect(field(page, 'x')).toBeHidden()
  await page.reload()
  await page.getByRole('button', { name: 'Post', exact: true }).first().click()
  await page.getByRole('tab', { name: 'Part' }).click()
  await expect(position).toHaveAttribute('aria-expanded', 'false')
  await position.click()
  await expect(field(page, 'x')).toBeVisible()
  // The search unfolds what it goes to.
  const pivot = page.getByRole('button', { name: 'Pivot', exact: true })
  await pivot.click()
  await expect(pivot).toHaveAttribute('aria-expanded', 'false')
  await page.getByRole('button', { name: /Find anything/ }).click()
  await page.getByRole('combobox', { name: 'Find a part, property or command' }).fill('anchor point')
  await page.keyboard.press('Enter')
  await expect(pivot).toHaveAttribute('aria-expanded', 'true')
  await expect(page.getByRole('button', { name: /^Pivot at the/ }).first()).toBeFocused()
  await accessible(page, 'the Part page')
})

test('what several parts have is set for all of them, in one step', async ({ page }) => {
  const b = new Builder('Several', 3)
  b.part('Left', { type: 'rectangle' }, {}, { x: -200 })
  const right = b.part('Right', { type: 'ellipse' }, {}, { x: 200 })
  b.drive(right, 'rotation', '20deg')
  await openPiece(page, b.piece)
  await page.getByRole('group', { name: /Parts on the stage/ }).focus()
  await page.keyboard.press('ControlOrMeta+a')
  await page.getByRole('tab', { name: 'Part' }).click()
  await expect(page.getByRole('button', { name: 'Applies to all 2 parts' })).toBeVisible()
  const shared = page.locator('[data-shared]')
  await expect(shared.getByRole('textbox', { name: 'x', exact: true })).toHaveValue('')
  await expect(shared.getByRole('textbox', { name: 'x', exact: true })).toHaveAttribute('placeholder', 'mixed')
  await expect(shared.getByRole('textbox', { name: 'corners' })).toHaveCount(0)
  await put(page, 'y', 60)
  await expect(shared.getByText('1 driven')).toBeVisible()
  await put(page, 'rotation', 45)
  await expect(
    page.getByRole('status').filter({ hasText: 'Right: rotation follows keyframes, or a formula that doesn’t read' }),
  ).toBeVisible()
  await page.keyboard.press('ControlOrMeta+z')
  await expect.poll(() => number(page, 'rotation')).toBe(0)
  expect(await number(page, 'y')).toBe(60)
})

test('a colour is typed as the web writes it, for a part and for the stage', async ({ page }) => {
  await openPiece(page, new Builder('Paint', 3).piece)
  await add(page, 'rectangle')
  await page.getByRole('button', { name: 'Fill, colour' }).click()
  const hex = page.getByRole('textbox', { name: 'Fill as hex or CSS' })
  await hex.fill('#c98f2c')
  await hex.press('Enter')
  await expect(hex).toHaveValue('#c98f2c')
  await hex.fill('no colour')
  await hex.press('Enter')
  await expect(page.getByText('That isn’t a colour.')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect.poll(() => colour(page, 34, 22)).toEqual([0xc9, 0x8f, 0x2c])
  await page.getByRole('tab', { name: 'Piece' }).click()
  await page.getByRole('button', { name: 'Background, colour' }).click()
  await page.getByRole('textbox', { name: 'Background as hex or CSS' }).fill('#102030')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await expect.poll(() => colour(page, 500, 300)).toEqual([0x10, 0x20, 0x30])
  await page.keyboard.press('ControlOrMeta+z')
  await expect.poll(() => colour(page, 500, 300)).not.toEqual([0x10, 0x20, 0x30])
})

test('a day is typed or chosen from a month by the keys', async ({ page }) => {
  const b = new Builder('Days', 3)
  b.dial('pace', { low: 0, high: 2, value: 1 })
  await openPiece(page, b.piece)
  await page.getByRole('button', { name: 'Hand over', exact: true }).click()
  const until = dialog(page).getByRole('textbox', { name: 'Until' })
  await until.fill('31.4.2027')
  await until.press('Enter')
  await expect(dialog(page).getByText('“31.4.2027” isn’t a day.')).toBeVisible()
  await until.fill('12 Mar 2031')
  await until.press('Enter')
  await expect(until).toHaveValue('12 Mar 2031')
  await dialog(page).getByRole('button', { name: 'Until: choose a day' }).click()
  await dialog(page).getByRole('button', { name: '12 Mar 2031' }).focus()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('PageDown')
  await expect(dialog(page).getByText('April 2031')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(until).toHaveValue('19 Apr 2031')
  await accessible(page, 'handing over, with a day')
})

test('a tooltip comes to the pointer and to the keys, with its shortcut', async ({ page }) => {
  await openPiece(page, new Builder('Tips', 3).piece)
  await page.getByRole('button', { name: 'Manual', exact: true }).hover()
  const tip = page.getByRole('tooltip')
  await expect(tip).toContainText('The manual, beside the piece')
  await expect(tip.locator('kbd')).toHaveText('F1')
  await page.mouse.move(700, 600)
  await expect(tip).toHaveCount(0)
  await page.getByRole('button', { name: 'Export', exact: true }).focus()
  await page.keyboard.press('Tab')
  await expect(tip).toContainText('Hand over')
  await page.keyboard.press('Escape')
  await expect(tip).toHaveCount(0)
})

test('the export dialog shows the first and the last frame, about how large it gets, and goes to what does not loop', async ({
  page,
}) => {
  const b = new Builder('Preview', 3)
  b.part('Post', { type: 'rectangle' }, {}, { x: -300 })
  b.drive(b.part('Boat', { type: 'ellipse' }), 'x', 'time * 21px/s')
  await openPiece(page, b.piece)
  await expect(page.getByRole('button', { name: /^Lap/ })).toContainText('0 of 1')
  await give(page)
  const preview = page.locator('[data-preview]')
  await expect(preview).toHaveAttribute('data-state', 'there', { timeout: 60_000 })
  await expect(preview).toContainText('Frame 0 with frame 239 over it.')
  await expect(preview.locator('[data-about]')).toHaveText(/^About [\d.]+ (kB|MB)\.$/)
  // The boat stands in two places: where it begins, and where it ends.
  const dark = await preview.locator('canvas').evaluateAll(canvases =>
    canvases.map(c => {
      const { width, height } = c as HTMLCanvasElement
      const { data } = (c as HTMLCanvasElement).getContext('2d')!.getImageData(0, Math.round(height / 2), width, 1)
      let last = 0
      for (let x = 0; x < width; x++) if (data[4 * x]! < 200) last = x / width
      return last
    }),
  )
  expect(dark[1]! - dark[0]!).toBeCloseTo((21 * 239) / 30 / 1280, 1)
  // What comes out is above the link to it, which must stay where it is when a hand goes there.
  const wasAt = await preview.boundingBox()
  await dialog(page).getByRole('button', { name: 'Export', exact: true }).click()
  const link = page.getByRole('link', { name: 'Download' })
  await expect(link).toBeVisible({ timeout: 60_000 })
  const places = await link.evaluate(async a => {
    const preview = document.querySelector('[data-preview]')!
    const places = new Set<string>()
    for (let end = performance.now() + 1500; performance.now() < end; await new Promise(requestAnimationFrame))
      places.add(
        `${a.getBoundingClientRect().top} ${preview.getBoundingClientRect().top} ${preview.getAttribute('data-state')}`,
      )
    return [...places]
  })
  expect(places).toHaveLength(1)
  expect(places[0]).toMatch(/ there$/)
  expect(await preview.boundingBox()).toEqual(wasAt)
  await page.locator('[data-open]').getByRole('button', { name: 'Boat x' }).click()
  await expect(dialog(page)).toHaveCount(0)
  await expect(await entry(page, 'Boat x')).toBeInViewport()
  await give(page)
  // Numbers and whole pieces are no pictures.
  for (const of of [/^Numbers/, /^Piece/]) {
    await kind(page, of)
    await expect(preview).toHaveAttribute('data-state', 'none')
    await expect(preview).toBeHidden()
  }
})

test('without a graphics card the stage is a drawing that moves, and parts are still taken by the hand', async ({
  page,
}) => {
  await page.addInitScript(() => {
    const real = HTMLCanvasElement.prototype.getContext
    HTMLCanvasElement.prototype.getContext = function (this: HTMLCanvasElement, kind: string, ...rest: unknown[]) {
      return kind === 'webgl2' ? null : (real as (...all: unknown[]) => unknown).call(this, kind, ...rest)
    } as typeof real
  })
  const b = new Builder('Drawn', 3)
  const boat = b.part('Boat', { type: 'rectangle' }, {}, { width: 200, height: 200 })
  b.drive(boat, 'x', 'sine(every: 2s, amp: 200px)')
  await openPiece(page, b.piece)
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await expect(page.locator('[data-no-card]')).toContainText('the stage is drawn a few times a second')
  const picture = () => page.locator('[data-drawing] svg path').first().getAttribute('d')
  const first = await picture()
  await expect.poll(picture).not.toBe(first)
  await halt(page)
  const key = await keyOf(page, 'Boat x')
  const at = await page.evaluate(() => window.openTide.now())
  const [x] = await values(page, key, at)
  const box = (await page.locator('[data-stage]').boundingBox())!
  await page.mouse.click(box.x + box.width * (0.5 + x! / 1280), box.y + box.height / 2)
  await page.getByRole('tab', { name: 'Part' }).click()
  await expect(page.getByRole('textbox', { name: 'Name of the part' })).toHaveValue('Boat')
})

test('the moment on a piece’s card is chosen, undone, and kept', async ({ page }) => {
  const b = new Builder('Poster', 3)
  b.drive(b.part('Boat', { type: 'ellipse' }), 'x', 'time * 50px/s')
  const id = await openPiece(page, b.piece)
  const still = async () => (await page.request.get(`/api/pieces/${id}/still`)).text()
  const before = await still()
  await page.getByRole('tab', { name: 'Piece' }).click()
  await halt(page)
  await put(page, 'Poster frame', 6)
  await saved(page)
  await expect.poll(still).not.toBe(before)
  await page.keyboard.press('ControlOrMeta+z')
  await saved(page)
  await expect.poll(still).toBe(before)
  await page.getByRole('button', { name: 'Use this moment' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'The card now shows' })).toBeVisible()
})

test('an empty piece offers each shape once; a desk at full height leaves the stage', async ({ page }) => {
  await openPiece(page, new Builder('Empty', 3).piece)
  await page.getByRole('tab', { name: 'Part' }).click()
  await expect(page.locator('[data-add="rectangle"]')).toHaveCount(1)
  await page.getByRole('separator', { name: 'Upper edge of the desk' }).dblclick()
  const stage = (await page.locator('[data-stage]').boundingBox())!
  expect(stage.height).toBeGreaterThan(60)
})
