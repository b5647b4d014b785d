/** What the hand reaches: links without formulas, easings by their pictures, keys on the Part page, parts at rest, piles. */
import { expect, formula, goTo, test, values } from './fair.ts'
import { Builder } from '../../core/acts/build.ts'
import { setKeyPoints } from '../../core/acts/points.ts'
import { apply } from '../../core/piece/operation.ts'
import { driveBy, field, inHand, number, openPiece, put, spot } from './on-stage.ts'
import { pick } from './pick.ts'

function made() {
  const b = new Builder('In reach', 3)
  const sheet = b.part('Sheet', { type: 'rectangle' }, {}, { width: 500, height: 400 })
  const ball = b.part('Ball', { type: 'ellipse' }, {}, { width: 80, height: 80 })
  const post = b.part('Post', { type: 'rectangle' }, {}, { x: 300 })
  return { b, sheet, ball, post }
}

test('a piece without formulas: two properties are linked on the Links page, and followed from Drive…', async ({
  page,
}) => {
  const { b, ball } = made()
  await openPiece(page, b.piece)
  await page.getByRole('tab', { name: 'Links' }).click()
  const form = page.getByRole('form', { name: 'New link' })
  await pick(form.getByRole('combobox', { name: 'What drives' }), 'Post')
  await pick(form.getByRole('combobox', { name: 'By its property' }), 'x')
  await pick(form.getByRole('combobox', { name: 'What follows' }), 'Ball')
  await pick(form.getByRole('combobox', { name: 'Its property', exact: true }), 'y')
  await form.getByRole('button', { name: 'Link' }).click()
  await expect(formula(page, 'Ball y')).toHaveText('Post.x')
  expect(await values(page, `${ball}.y`, 0)).toEqual([300])
  await expect(page.locator('[data-links]').getByRole('button', { name: 'Post x drives Ball y, × 1' })).toBeVisible()
  // What rests stands in the table all the same, with its Drive….
  const head = page.locator('[data-head]').filter({ hasText: 'Sheet' })
  await head.getByText('Drive…').click()
  await pick(page.getByRole('combobox', { name: 'Property', exact: true }), 'y')
  await pick(page.getByRole('combobox', { name: 'Followed property' }), 'Ball y')
  await page.getByRole('button', { name: /^Follow another property/ }).click()
  await expect(formula(page, 'Sheet y')).toHaveText('base + Ball.y * 0.5')
})

test('an entry dropped where several parts lie asks which of them is to follow', async ({ page }) => {
  const { b, post } = made()
  b.drive(post, 'rotation', 'time * 45deg/s')
  await openPiece(page, b.piece)
  const [x, y] = await spot(page, 0, 0)
  const dropAt = () =>
    page.evaluate(
      ([key, x, y]) => {
        const data = new DataTransfer()
        data.setData('application/x-open-tide-entry', key)
        const over = document.elementFromPoint(x, y)!
        for (const kind of ['dragover', 'drop'])
          over.dispatchEvent(
            new DragEvent(kind, { bubbles: true, cancelable: true, dataTransfer: data, clientX: x, clientY: y }),
          )
      },
      [`${post}.rotation`, x, y] as const,
    )
  await dropAt()
  const asked = page.getByRole('menu', { name: 'What should follow Post rotation?' })
  await expect(asked.getByRole('menuitem')).toHaveText(['Ball', 'Sheet'])
  await page.keyboard.press('Escape')
  await expect(asked).toHaveCount(0)
  await dropAt()
  await expect(asked.getByRole('menuitem').first()).toBeFocused()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await expect(formula(page, 'Sheet rotation')).toHaveText('Post.rotation')
})

test('easings are chosen by their pictures: in the text, from the menu, where none is written, between keys', async ({
  page,
}) => {
  const { b, ball, post } = made()
  b.drive(ball, 'x', 'ramp(length: 4s, to: 90px, ease: sineIn)')
  b.drive(post, 'rotation', 'ramp(length: 4s, to: 90deg)')
  const points = [0, 2].map(time => ({ time, value: time * 50, shape: 'smooth' }))
  await openPiece(page, apply(b.piece, setKeyPoints(b.piece, post, 'y', points)))
  await formula(page, 'Ball x').getByText('sineIn', { exact: true }).click()
  const pictures = page.getByRole('listbox')
  await expect(pictures.getByRole('option')).toHaveCount(35)
  await expect(pictures.getByRole('option', { name: 'sineIn', exact: true })).toBeFocused()
  await pictures.getByRole('option', { name: 'bounceOut' }).click()
  await expect(formula(page, 'Ball x')).toHaveText('ramp(length: 4s, to: 90px, ease: bounceOut)')
  expect((await values(page, `${ball}.x`, 4 / 2.75))[0]).toBeCloseTo(90, 6)
  await page.getByRole('button', { name: 'More for Post rotation' }).click()
  await page.getByRole('menuitem', { name: 'Choose easing…' }).click()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Enter')
  await expect(formula(page, 'Post rotation')).toHaveText('ramp(length: 4s, to: 90deg, ease: smooth)')

  // Keys of y, between which it goes back beyond its beginning first.
  await page
    .locator('[data-head]')
    .filter({ hasText: 'Post' })
    .getByRole('button', { name: 'Post', exact: true })
    .click()
  await page.getByRole('tab', { name: 'Part' }).click()
  await goTo(page, '1')
  await expect.poll(() => number(page, 'y')).toBe(50)
  // The same number as it holds is a key all the same.
  await field(page, 'y').focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('status').filter({ hasText: 'A keyframe of y at 1 s' })).toBeVisible()
  await goTo(page, '0.5')
  await put(page, 'y', 40)
  await goTo(page, '1.5')
  await expect.poll(() => number(page, 'y')).toBeGreaterThan(60)
  await page.getByRole('button', { name: 'Write a formula for y', exact: true }).click()
  await expect(formula(page, 'Post y')).toHaveText('base')
  await page.getByRole('tab', { name: 'Scope' }).click()
  const desk = page.getByRole('region', { name: 'Desk' })
  await desk.getByRole('button', { name: 'keyframes' }).click()
  await page.locator('[data-point="2"]').click()
  await desk.getByRole('button', { name: 'By an easing: none' }).click()
  await pictures.getByRole('option', { name: 'backIn', exact: true }).click()
  await expect(desk.getByRole('button', { name: 'By an easing: backIn' })).toBeFocused()
  const low = Math.min(...(await Promise.all([1.2, 1.4, 1.5].map(async t => (await values(page, `${post}.y`, t))[0]!))))
  expect(low).toBeLessThan(49)
  expect((await values(page, `${post}.y`, 2))[0]).toBe(100)
})

test('what others follow gets its first formula while they run: they follow it at once, and back with undo', async ({
  page,
}) => {
  const b = new Builder('Followed', 3)
  b.part('Post', { type: 'ellipse' }, {}, { x: 5 })
  const lamp = b.part('Lamp', { type: 'ellipse' })
  b.drive(lamp, 'y', 'post.x + 1px')
  await openPiece(page, b.piece)
  await inHand(page, 'Post')
  const at = async () => (await values(page, `${lamp}.y`, 0.5))[0]!
  expect(await at()).toBeCloseTo(6, 9)
  await driveBy(page, 'Post', 'x', 'sine(every: 2s, amp: 40px)')
  await expect.poll(at).toBeCloseTo(41, 9)
  await page.keyboard.press('Escape')
  for (let k = 0; k < 6 && Math.abs((await at()) - 6) > 1e-9; k++) await page.keyboard.press('ControlOrMeta+z')
  expect(await at()).toBeCloseTo(6, 9)
})
