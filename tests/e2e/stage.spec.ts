/** The stage in the hand: moved, turned, sized, pinned, several at once, gears dropped, zoomed; by mouse and by keys. */
import type { Page } from '@playwright/test'
import { Builder } from '../../core/acts/build.ts'
import { drawn, expect, formula, halt, test } from './fair.ts'
import { chosen, drag, field, number, openPiece, press, spot } from './on-stage.ts'

/** A piece of its own: a card in a turned group, a post, two gears, and a ground that is locked. */
async function opened(page: Page): Promise<string> {
  const b = new Builder('On the stage', 3)
  b.part('Ground', { type: 'rectangle' }, { locked: true }, { width: 1280, height: 720, fillLightness: 20 })
  const group = b.part('Barge', { type: 'group' }, {}, { x: -300, y: 120, rotation: 90 })
  b.part('Card', { type: 'rectangle' }, { parent: group }, { width: 120, height: 60 })
  b.part('Post', { type: 'rectangle' }, {}, { x: 60, y: 200, width: 40, height: 80 })
  const wheel = b.part('Wheel', { type: 'gear', teeth: 24, spokes: 5, module: 6 }, {}, { x: 300, y: -120 })
  b.drive(wheel, 'rotation', 'time * 30deg/s')
  b.part('Pinion', { type: 'gear', teeth: 12, spokes: 0, module: 6 }, {}, { x: 0, y: -120 })
  return openPiece(page, b.piece)
}
test.beforeEach(async ({ page }) => void (await opened(page)))

test('A1: a part is moved by the hand and by keys, drawn to lines unless Ctrl is held, given up by Esc, undone', async ({
  page,
}) => {
  await drag(page, [60, 200], [160, 100], 'Control')
  await chosen(page, 'Post')
  expect(Math.abs((await number(page, 'x')) - 160)).toBeLessThan(2)
  expect(Math.abs((await number(page, 'y')) - 100)).toBeLessThan(2)
  // Near the middle of the stage its middle lies on it.
  await drag(page, [160, 100], [4, 100])
  expect(await number(page, 'x')).toBe(0)
  const stage = page.getByRole('group', { name: /Parts on the stage/ })
  await expect(stage).toBeFocused()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Shift+ArrowUp')
  expect([await number(page, 'x'), (await number(page, 'y')) % 1]).toEqual([1, 0])
  const y = await number(page, 'y')
  // Given up in the middle it is where it was.
  await page.mouse.move(...(await spot(page, 1, y)))
  await page.mouse.down()
  await page.mouse.move(...(await spot(page, 200, -200)), { steps: 4 })
  await page.keyboard.press('Escape')
  await page.mouse.up()
  expect(await number(page, 'x')).toBe(1)
  await page.getByRole('button', { name: /^Undo/ }).first().click()
  expect(await number(page, 'y')).toBe(y - 10)
})

test('A1: in a turned group it goes with the hand; Enter goes into the group, Esc out', async ({ page }) => {
  await drag(page, [-300, 120], [-250, 80], 'Control')
  await chosen(page, 'Card')
  // The group is a quarter turned: to the right is its own −y.
  expect(Math.abs((await number(page, 'x')) + 40)).toBeLessThan(2)
  expect(Math.abs((await number(page, 'y')) + 50)).toBeLessThan(2)
  await page.keyboard.press('Escape')
  await chosen(page, 'Barge')
  await page.keyboard.press('Enter')
  await chosen(page, 'Card')
})

test('A1: sized by its corners, turned by its knob, its pin pulled and set to a place, where it stays', async ({
  page,
}) => {
  await press(page, 60, 200)
  await drag(page, [80, 240], [120, 260])
  expect(Math.abs((await number(page, 'width')) - 80)).toBeLessThan(2)
  expect(Math.abs((await number(page, 'height')) - 100)).toBeLessThan(2)
  // The corner over against it stayed.
  const [w, h] = [await number(page, 'width'), await number(page, 'height')]
  expect(Math.abs((await number(page, 'x')) - w / 2 - 40)).toBeLessThan(1)
  expect(Math.abs((await number(page, 'y')) - h / 2 - 160)).toBeLessThan(1)
  const [x, y] = [await number(page, 'x'), await number(page, 'y')]
  const knob = y + h / 2 + 22 * (1280 / (await page.locator('[data-stage]').boundingBox())!.width)
  await drag(page, [x, knob], [x + 200, y], 'Shift')
  expect(await number(page, 'rotation')).toBe(-90)
  await page.getByRole('button', { name: 'Pivot at the bottom left' }).click()
  expect([await number(page, 'pivot x'), await number(page, 'pivot y')]).toEqual([-w / 2, -h / 2])
  // Turned back about that corner: it stands where its lower left was, which a quarter turn had put up.
  await field(page, 'rotation').fill('0')
  await page.keyboard.press('Enter')
  // Made large enough to have room for it, the pin is pulled, and drawn to the corner.
  await field(page, 'width').fill('200')
  await page.keyboard.press('Enter')
  const [left, low] = [(await number(page, 'x')) - w / 2, (await number(page, 'y')) - h / 2]
  expect([left, low].every(Number.isFinite)).toBe(true)
  await page.getByRole('button', { name: 'Pivot at the middle' }).click()
  expect(await number(page, 'pivot x')).toBe(0)
  const [cx, cy] = [await number(page, 'x'), await number(page, 'y')]
  await drag(page, [cx, cy], [cx + 99, cy])
  expect(await number(page, 'pivot x')).toBe(100)
  expect(await number(page, 'x')).toBe(cx)
})

test('several: a frame round them, lined up, doubled, moved together, taken away and brought back', async ({
  page,
}) => {
  await drag(page, [-500, 300], [150, 20])
  await expect(page.locator('[data-several]')).toContainText('2 parts')
  await page.getByRole('button', { name: 'vertical centres' }).click()
  await press(page, 60, 150)
  await chosen(page, 'Post')
  expect(await number(page, 'y')).toBe(150)
  await page.keyboard.down('Shift')
  await press(page, 0, -120)
  await page.keyboard.up('Shift')
  await expect(page.locator('[data-several]')).toContainText('2 parts')
  await drag(page, [60, 150], [60, 210], 'Control')
  await press(page, 0, -60)
  await chosen(page, 'Pinion')
  expect(Math.abs((await number(page, 'y')) + 60)).toBeLessThan(2)
  await page.keyboard.press('ControlOrMeta+a')
  await expect(page.locator('[data-several]')).toContainText('4 parts')
  await page.keyboard.press('Delete')
  await expect(page.getByRole('status').filter({ hasText: '4 parts deleted' })).toBeVisible()
  await page.getByRole('button', { name: /^Undo/ }).first().click()
  await press(page, 0, -60)
  await page.keyboard.press('ControlOrMeta+d')
  await chosen(page, 'Pinion2')
})

test('D4: a gear dropped beside another meets it and runs with it, exactly', async ({ page }) => {
  await drag(page, [0, -120], [184, -120])
  await expect(page.getByRole('status').filter({ hasText: 'Pinion runs with Wheel now' })).toBeVisible()
  expect(await number(page, 'x')).toBe(192)
  await expect(formula(page, 'Pinion rotation')).toHaveText('engage(Wheel)')
  const turns = await page.evaluate(() => {
    const { values } = window.openTide
    const keys = [...document.querySelectorAll('[data-drive$=".rotation"]')].map(e => e.getAttribute('data-drive')!)
    return keys.map(k => values(k, 12)[0]! - values(k, 0)[0]!)
  })
  expect(turns.sort()).toEqual([-2, 1])
})

test('H3, A1: the way of what moves and the circle that what turns sweeps; zoomed about the pointer, and back', async ({
  page,
}) => {
  const inked = async () => {
    await drawn(page)
    return page.evaluate(() => {
      const c = document.querySelectorAll<HTMLCanvasElement>('[aria-label^="Parts on the stage"] canvas')[1]!
      const { data } = c.getContext('2d')!.getImageData(0, 0, c.width, c.height)
      return data.reduce((n, v, k) => n + (k % 4 === 3 && v > 0 ? 1 : 0), 0)
    })
  }
  await press(page, 60, 200)
  const bare = await inked()
  await page.getByRole('button', { name: 'Write a formula for x' }).click()
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.insertText('base + sine(every: 4s, amp: 200px)')
  await page.keyboard.press('Enter')
  await expect.poll(inked).toBeGreaterThan(bare + 200)
  await page.getByRole('checkbox', { name: 'path' }).uncheck()
  await expect.poll(inked).toBeLessThan(bare + 100)
  // Zoomed about a point, that point stays under the pointer.
  await page.mouse.move(...(await spot(page, 300, -120)))
  for (let k = 0; k < 4; k++) await page.mouse.wheel(0, -240)
  await expect(page.getByText(/flat · [4-9]\d\d %/)).toBeVisible()
  await press(page, 300, -120)
  await chosen(page, 'Wheel')
  await page.getByRole('button', { name: 'fit the stage' }).click()
  await press(page, -300, 120)
  await chosen(page, 'Card')
})

test('what is locked the hand passes by; hidden it is not there; both are switched in the list of parts', async ({
  page,
}) => {
  // Pressing on the ground, which is locked, chooses nothing and begins a frame.
  await press(page, -600, -300)
  const list = page.getByRole('list', { name: 'All parts' })
  await expect(list).toBeVisible()
  await page.getByRole('button', { name: 'Unlock Ground' }).click()
  await press(page, -600, -300)
  await chosen(page, 'Ground')
  await page.getByRole('button', { name: 'All parts, add one…' }).click()
  await page.getByRole('button', { name: 'Lock Ground' }).click()
  await page.getByRole('button', { name: 'Lock Post' }).click()
  await press(page, 60, 200)
  await expect(list).toBeVisible()
  await page.getByRole('button', { name: 'Unlock Post' }).click()
  await press(page, 60, 200)
  await chosen(page, 'Post')
  await page.getByRole('button', { name: 'All parts, add one…' }).click()
  await page.getByRole('button', { name: 'Hide Post' }).click()
  await press(page, 60, 200)
  await expect(list).toBeVisible()
})

test('C1: a driven part that is moved by hand is offered base +, and moves on top of it then', async ({ page }) => {
  await press(page, 60, 200)
  await page.getByRole('button', { name: 'Write a formula for x', exact: true }).click()
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.insertText('sine(every: 4s, amp: 50px)')
  await page.keyboard.press('Enter')
  await expect(formula(page, 'Post x')).toHaveText('sine(every: 4s, amp: 50px)')
  await page.getByRole('button', { name: 'Back to time 0' }).click()
  await halt(page)
  await drag(page, [0, 200], [100, 200], 'Control')
  const offer = page.getByRole('status').filter({ hasText: 'Post x follows its formula' })
  await offer.getByRole('button', { name: 'Add it as base +' }).click()
  await expect(formula(page, 'Post x')).toHaveText('base + sine(every: 4s, amp: 50px)')
  const key = (await page.getByRole('article', { name: 'Post x', exact: true }).getAttribute('data-drive'))!
  const at = async (s: number) => (await page.evaluate(([k, t]) => window.openTide.values(k, t), [key, s] as const))[0]!
  expect(Math.abs((await at(0)) - 160)).toBeLessThan(2)
  expect((await at(1)) - (await at(0))).toBeCloseTo(50, 9)
})

test('the view is moved by the middle button, an entry and a file are dropped, and nothing else is', async ({
  page,
}) => {
  const [x, y] = await spot(page, 0, 0)
  await page.mouse.move(x, y)
  for (let k = 0; k < 3; k++) await page.mouse.wheel(0, -240)
  await page.mouse.down({ button: 'middle' })
  await page.mouse.move(x + 150, y, { steps: 5 })
  await page.mouse.up({ button: 'middle' })
  // What was in the middle stands 150 px further right: the post, 60 to the right of it, further still.
  await page.mouse.click(x + 150, y)
  await expect(page.getByRole('list', { name: 'All parts' })).toBeVisible()
  await page.getByRole('button', { name: '100 %', exact: true }).click()
  await expect(page.getByText(/flat · 100 %/)).toBeVisible()
  await page.getByRole('button', { name: 'fit the stage' }).click()
  const drop = (name: string, type: string, text: string) =>
    page.evaluate(
      ([name, type, text]) => {
        const data = new DataTransfer()
        data.items.add(new File([text], name, { type }))
        const over = document.querySelectorAll('[aria-label^="Parts on the stage"] canvas')[1]!
        for (const kind of ['dragover', 'drop'])
          over.dispatchEvent(new DragEvent(kind, { bubbles: true, cancelable: true, dataTransfer: data }))
      },
      [name, type, text] as const,
    )
  await drop('sun.svg', 'image/svg+xml', '<svg viewBox="0 0 40 40"><circle id="sun" cx="20" cy="20" r="18"/></svg>')
  await expect(page.getByRole('status').filter({ hasText: 'sun.svg became a part' })).toBeVisible()
  await chosen(page, 'sun')
  await drop('notes.txt', 'text/plain', 'hello')
  await expect(page.getByRole('status').filter({ hasText: 'notes.txt wasn’t imported' })).toBeVisible()
})

test('A1: parts are gathered in a group that turns about their middle, and it is given up again', async ({ page }) => {
  await press(page, 60, 200)
  await page.keyboard.down('Shift')
  await press(page, 0, -120)
  await page.keyboard.up('Shift')
  await page.keyboard.press('ControlOrMeta+g')
  await chosen(page, 'Group')
  // The post reaches from 160 to 240, the pinion from about −161 to −79, both round x 20.
  expect(Math.abs((await number(page, 'pivot y')) - 39)).toBeLessThan(4)
  await page.getByRole('button', { name: 'Ungroup' }).click()
  await expect(page.locator('[data-several]')).toContainText('2 parts')
  await press(page, 60, 200)
  await chosen(page, 'Post')
  // Of different parents they are not gathered, and it is said.
  await page.keyboard.down('Shift')
  await press(page, -300, 120)
  await page.keyboard.up('Shift')
  await page.keyboard.press('ControlOrMeta+g')
  await expect(page.getByRole('status').filter({ hasText: 'same parent' })).toBeVisible()
})
