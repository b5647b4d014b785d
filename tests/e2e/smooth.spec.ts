/** Smooth tuning, or a word about it: lines typed anew, dials that are the end of a ramp, links taken away and in other ratios. */
import { expect, formula, goTo, keepAlways, make, test, values, write } from './fair.ts'
import { Builder } from '../../core/acts/build.ts'
import { openPiece } from './on-stage.ts'

/** A drum, a ball on a ramp whose end is a dial, a card that follows the drum, two that are tied. */
function made() {
  const b = new Builder('Smooth', 3)
  b.dial('reach', { unit: 'px', value: 100, low: 0, high: 1000 })
  const drum = b.part('Drum', { type: 'gear', teeth: 12, spokes: 3, module: 6 }, {}, { x: -200 })
  b.drive(drum, 'rotation', 'time * 45deg/s - 270deg')
  const ball = b.part('Ball', { type: 'ellipse' }, {}, { y: 100 })
  b.drive(ball, 'x', 'ramp(length: 10s, to: reach)')
  const hand = b.part('Hand', { type: 'rectangle' }, {}, { x: 200 })
  b.drive(hand, 'rotation', 'Drum.rotation * 0.5')
  const [left, right] = ['Left', 'Right'].map(name => b.part(name, { type: 'rectangle' }, {}, {}))
  const ties = { t1: { a: `${left}.x`, b: `${right}.x`, ratio: 0.5, offset: 0 } }
  const bases = { ...b.piece.bases, [`${left}.x`]: { value: 100 }, [`${right}.x`]: { value: 50 } }
  return { document: { ...b.piece, ties, bases }, drum: `${drum}.rotation`, right: `${right}.x` }
}

test('a whole line typed anew goes on from where it is; without smoothing it is as typed', async ({ page }) => {
  const { document, drum } = made()
  await openPiece(page, document)
  await keepAlways(page)
  await goTo(page, '6.4')
  const [before] = await values(page, drum, 6.4)
  const says = page.getByRole('status').filter({ hasText: 'its formula was adjusted' })
  await write(page, 'Drum rotation', 'time * 90deg/s')
  await expect(formula(page, 'Drum rotation')).toHaveText('time * 90deg/s - 558deg')
  expect((await values(page, drum, 6.4))[0]).toBeCloseTo(before!, 9)
  await expect(says).toBeVisible()
  await says.getByRole('button', { name: 'Apply without smoothing' }).click()
  await expect(formula(page, 'Drum rotation')).toHaveText('time * 90deg/s')
  await expect(page.getByRole('status').filter({ hasText: 'jumps from 18.00° to 216.00°' })).toBeVisible()
  await write(page, 'Drum rotation', 'sine(every: 8s) * 9deg')
  await expect(
    page.getByRole('status').filter({ hasText: /The value can’t be kept with this change. It jumps/ }),
  ).toBeVisible()
})

test('a dial that is the end of a ramp says how far it moved what runs there', async ({ page }) => {
  await openPiece(page, made().document)
  await keepAlways(page)
  await goTo(page, '5')
  const typed = page.getByRole('textbox', { name: 'reach, value' })
  await typed.fill('396')
  await typed.press('Enter')
  const says = page.getByRole('status').filter({ hasText: 'Ball x jumped by 148.00 px' })
  await expect(says).toBeVisible()
  await says.getByRole('button', { name: 'Undo' }).click()
  await expect(typed).toHaveValue('100')
  // Pulled by hand it is told at the end, the whole way.
  const box = (await page.getByRole('slider', { name: 'reach' }).boundingBox())!
  await page.mouse.move(box.x + box.width * 0.1, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height / 2, { steps: 6 })
  await page.mouse.up()
  const reach = Number(await typed.inputValue())
  expect(reach).toBeGreaterThan(300)
  await expect(
    page.getByRole('status').filter({ hasText: `Ball x jumped by ${((reach - 100) / 2).toFixed(2)} px` }),
  ).toBeVisible()
})

test('cut, a link leaves the part where it is; a two-way link in another ratio moves its other side at once', async ({
  page,
}) => {
  const { document } = made()
  await openPiece(page, document)
  await keepAlways(page)
  await goTo(page, '8')
  await page.getByRole('tab', { name: 'Links' }).click()
  const links = page.locator('[data-links]')
  await links.getByRole('button', { name: 'Left x drives Right x, × 0.5 ⇄' }).click()
  const ratio = links.getByRole('textbox', { name: 'Ratio' })
  await ratio.fill('1/4')
  await ratio.press('Enter')
  await expect(page.getByRole('status').filter({ hasText: 'Right x jumps from 50.00 px to 25.00 px.' })).toBeVisible()
  await expect(ratio).toHaveValue('0.25')

  const drive = links.getByRole('button', { name: /Drum rotation drives Hand rotation/ })
  await drive.click()
  await links.getByRole('button', { name: 'Unlink', exact: true }).click()
  const says = page.getByRole('status').filter({ hasText: 'Hand rotation stays where it was.' })
  await expect(says).toBeVisible()
  await expect(drive).toHaveCount(0)
  await says.getByRole('button', { name: 'Apply without smoothing' }).click()
  const fell = page.getByRole('status').filter({ hasText: /Hand rotation jumps from .* to 0.00°/ })
  await expect(fell).toBeVisible()
  await fell.getByRole('button', { name: 'Keep the value' }).click()
  await expect(says).toBeVisible()
  // Pressed after something else was done, it undoes nothing.
  await make(page, 'signal')
  await says.getByRole('button', { name: 'Apply without smoothing' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'Something else has changed' })).toBeVisible()
  await expect(page.getByRole('article', { name: 'signal', exact: true })).toBeVisible()
})
