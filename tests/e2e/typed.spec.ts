/** Number fields of every kind, through the page: thirty ways of typing each, taken in the field's unit or explained and left. */
import type { Locator, Page } from '@playwright/test'
import { Builder } from '../../core/acts/build.ts'
import { setKeyPoints } from '../../core/acts/points.ts'
import { apply } from '../../core/piece/operation.ts'
import { expect, goTo, test } from './fair.ts'
import { field, openPiece } from './on-stage.ts'

/** What is typed and what the field then holds; null where it stays as it was and says why. Reckoned by hand: 30 frames a second, a lap of 8 s. */
type Typed = readonly (readonly [text: string, holds: number | null])[]
const WRONG: Typed = [
  ['', null],
  ['ten', null],
  ['1..2', null],
  ['3 4', null],
  ['1/0', null],
  ['(2', null],
  ['2 *', null],
  ['1e', null],
  ['12 parrots', null],
]
const SECONDS: Typed = [
  ['2', 2],
  ['10f', 1 / 3],
  ['333ms', 0.333],
  ['1.5s', 1.5],
  ['45f', 1.5],
  ['1 lap', 8],
  ['0.5lap', 4],
  ['1min', 60],
  ['1:30', 90],
  ['2*3', 6],
  ['1/4', 0.25],
  ['2,5', 2.5],
  ['3s + 15f', 3.5],
  ['1s/4', 0.25],
  ['.75', 0.75],
  ['1e1', 10],
  ['(1+2)*2', 6],
  ['7.25', 7.25],
  ['90f', 3],
  ['3px', null],
  ['90deg', null],
  ['50%', null],
  ['2Hz', null],
  ...WRONG,
]
const DEGREES: Typed = [
  ['30', 30],
  ['1turn', 360],
  ['0.25turn', 90],
  ['45deg', 45],
  ['90°', 90],
  ['−45', -45],
  ['-12.5', -12.5],
  ['2*45', 90],
  ['1/12*1turn', 30],
  ['360/7', 51.4286],
  ['12,5', 12.5],
  ['3.14rad', 179.9087],
  ['1turn - 90deg', 270],
  ['.5', 0.5],
  ['1e2', 100],
  ['(1+2)*15', 45],
  ['720', 720],
  ['-1turn', -360],
  ['0', 0],
  ['3px', null],
  ['2s', null],
  ['10f', null],
  ...WRONG,
]
const PIXELS: Typed = [
  ['30', 30],
  ['120px', 120],
  ['−45', -45],
  ['-12.5', -12.5],
  ['2*45', 90],
  ['1280/2', 640],
  ['12,5', 12.5],
  ['.5', 0.5],
  ['1e2', 100],
  ['(1+2)*15', 45],
  ['10px + 5', 15],
  ['720 px', 720],
  ['0', 0],
  ['100-20', 80],
  ['3 × 4', 12],
  ['1/4', 0.25],
  ['2px*3', 6],
  ['-0', 0],
  ['1.25', 1.25],
  ['90deg', null],
  ['2s', null],
  ['10f', null],
  ['50%', null],
  ...WRONG,
]
const PER_CENT: Typed = [
  ['30', 30],
  ['50%', 50],
  ['12.5', 12.5],
  ['2*45', 90],
  ['1/4', 0.25],
  ['12,5', 12.5],
  ['.5', 0.5],
  ['1e1', 10],
  ['(1+2)*15', 45],
  ['50% / 2', 25],
  ['100', 100],
  ['0', 0],
  ['75 %', 75],
  ['100% - 20%', 80],
  ['3 × 4', 12],
  ['20+30', 50],
  ['99.5', 99.5],
  ['1', 1],
  ['2*50%', 100],
  ['90deg', null],
  ['2s', null],
  ['3px', null],
  ...WRONG,
]
const PLAIN: Typed = [
  ['3', 3],
  ['50%', 0.5],
  ['1/3', 0.3333],
  ['−2', -2],
  ['-0.5', -0.5],
  ['2*4', 8],
  ['12,5', 12.5],
  ['.5', 0.5],
  ['1e1', 10],
  ['(1+2)*3', 9],
  ['200%', 2],
  ['1 + 1/2', 1.5],
  ['3 × 4', 12],
  ['7', 7],
  ['0.25', 0.25],
  ['-150%', -1.5],
  ['4/8', 0.5],
  ['100', 100],
  ['1.125', 1.125],
  ['90deg', null],
  ['2s', null],
  ['3px', null],
  ['10f', null],
  ...WRONG,
]

const value = async (at: Locator) => Number((await at.inputValue()).replace('−', '-'))

/** Every way in every field is typed when asked for; else a third of them in each, all of them somewhere. */
const EVERY = process.env.EVERY === '1'
let tables = 0

async function table(page: Page, at: Locator, what: string, typed: Typed): Promise<void> {
  expect(typed.length).toBeGreaterThanOrEqual(28)
  const nth = tables++
  for (const [text, holds] of typed.filter((_, k) => EVERY || (k + nth) % 3 === 0)) {
    const before = await value(at)
    await at.fill(text)
    await at.press('Enter')
    const says = `${what}: “${text}”`
    if (holds === null) {
      await expect(at, says).toHaveAttribute('aria-invalid', 'true')
      expect(await value(at), says).toBe(before)
      const id = (await at.getAttribute('aria-describedby'))!
      expect((await page.locator(`[id="${id}"]`).textContent())!.length, says).toBeGreaterThan(15)
    } else {
      await expect.poll(() => value(at), { message: says }).toBeCloseTo(holds, 3)
      await expect(at, says).toHaveAttribute('aria-invalid', 'false')
    }
  }
}

/** A piece that has a field of each kind. */
function made() {
  const b = new Builder('Typed', 3)
  b.dial('reach', { unit: 'px', value: 100, low: -1e4, high: 1e4 })
  b.dial('share', { unit: '%', value: 40, low: -1e4, high: 1e4 })
  const drum = b.part('Drum', { type: 'rectangle' }, {})
  const card = b.part('Card', { type: 'rectangle' }, {}, { x: 200 })
  b.drive(card, 'rotation', 'Drum.rotation * 0.5 + 3deg')
  const points = [0, 2].map(time => ({ time, value: time * 50, shape: 'smooth' }))
  return { document: apply(b.piece, setKeyPoints(b.piece, card, 'y', points)), drum, card }
}

test.describe('typed numbers', () => {
  test.describe.configure({ timeout: 180_000 })
  test('of a part, of dials and of the lap', async ({ page }) => {
    await openPiece(page, made().document)
    await page.locator('[data-head]').getByRole('button', { name: 'Drum', exact: true }).click()
    await table(page, field(page, 'x'), 'x', PIXELS)
    await table(page, field(page, 'rotation'), 'rotation', DEGREES)
    await table(page, field(page, 'opacity'), 'opacity', PER_CENT)
    await table(page, page.getByRole('textbox', { name: 'reach, value' }), 'a dial in px', PIXELS)
    await table(page, page.getByRole('textbox', { name: 'share, value' }), 'a dial in %', PER_CENT)
    await page.getByRole('tab', { name: 'Lap' }).click()
    const inLap = (text: string) => !/lap/.test(text)
    const length = page.getByRole('textbox', { name: 'Length of the lap, seconds' })
    await table(
      page,
      length,
      'length of the lap',
      SECONDS.filter(([text]) => inLap(text) && text !== '0'),
    )
    await length.fill('8')
    await length.press('Enter')
    const start = SECONDS.map(([text, s]) => [text, s === null ? null : Math.round(s * 30) / 30] as const)
    await table(page, page.getByRole('textbox', { name: 'Start of the lap, seconds' }), 'start of the lap', start)
  })

  test('of links, keys and sentences', async ({ page }) => {
    await openPiece(page, made().document)
    await page.getByRole('tab', { name: 'Links' }).click()
    const links = page.locator('[data-links]')
    await links.getByRole('button', { name: /Drum rotation drives Card rotation/ }).click()
    // A ratio of nothing is no link any more.
    await table(page, links.getByRole('textbox', { name: 'Ratio' }), 'ratio', PLAIN)
    await table(page, links.getByRole('textbox', { name: 'Offset' }), 'offset', DEGREES)
    await table(
      page,
      links.getByRole('textbox', { name: 'Delay' }),
      'later by',
      SECONDS.filter(([, s]) => s === null || s < 50),
    )
    await page.locator('[data-head]').getByRole('button', { name: 'Card', exact: true }).click()
    await page.getByRole('tab', { name: 'Part' }).click()
    await goTo(page, '2')
    await table(page, field(page, 'y'), 'a keyed y', PIXELS)
  })
})
