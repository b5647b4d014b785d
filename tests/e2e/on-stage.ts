/** What tests do on the stage and on the Part page: points of it, colours, numbers, and pieces opened from code. */
import type { Page } from '@playwright/test'
import type { Piece } from '../../core/piece/schema.ts'
import { drawn, expect, halt } from './fair.ts'

/** Opens a piece made in code, standing still, with the Part page; gives its id. */
export async function openPiece(page: Page, document: Piece): Promise<string> {
  const answer = await page.request.post('/api/pieces', { data: { document } })
  expect(answer.status()).toBe(201)
  const { id } = (await answer.json()) as { id: string }
  await page.goto(`/piece/${id}`)
  await expect(page.locator('[data-stage]')).toBeVisible()
  await page.getByRole('tab', { name: 'Part' }).click()
  await halt(page)
  return id
}

/** A stage point on the page, once what was done last is drawn there: the hand takes what is seen. */
export async function spot(page: Page, x: number, y: number): Promise<[number, number]> {
  await drawn(page)
  const box = (await page.locator('[data-stage]').boundingBox())!
  return [box.x + ((x + 640) * box.width) / 1280, box.y + ((360 - y) * box.height) / 720]
}
export const press = async (page: Page, x: number, y: number): Promise<void> =>
  page.mouse.click(...(await spot(page, x, y)))

export async function stagePicture(page: Page): Promise<Buffer> {
  await drawn(page)
  return page.locator('[data-stage]').screenshot()
}

/** The colours of the stage at points, red to blue; nothing may be chosen, so that nothing lies over it. */
export async function colours(page: Page, at: readonly (readonly [number, number])[]): Promise<number[][]> {
  const picture = (await stagePicture(page)).toString('base64')
  return page.evaluate(
    async ([picture, at]) => {
      const bytes = Uint8Array.from(atob(picture), c => c.charCodeAt(0))
      const bitmap = await createImageBitmap(new Blob([bytes], { type: 'image/png' }))
      const c = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d')!
      c.drawImage(bitmap, 0, 0)
      return at.map(([x, y]) => {
        const [px, py] = [((x + 640) * bitmap.width) / 1280, ((360 - y) * bitmap.height) / 720]
        return [...c.getImageData(Math.round(px), Math.round(py), 1, 1).data.slice(0, 3)]
      })
    },
    [picture, at] as const,
  )
}
export const colour = async (page: Page, x: number, y: number): Promise<number[]> => (await colours(page, [[x, y]]))[0]!

/** A field of the desk. */
export const field = (page: Page, name: string) =>
  page.getByRole('region', { name: 'Desk' }).getByRole('textbox', { name, exact: true })
export const number = async (page: Page, name: string): Promise<number> =>
  Number((await field(page, name).inputValue()).replace('−', '-'))
/** Types a number of the desk. */
export async function put(page: Page, name: string, value: number): Promise<void> {
  await field(page, name).fill(String(value))
  await field(page, name).press('Enter')
  await expect.poll(() => number(page, name)).toBe(value)
}

/** Writes the formula of a property of the part in hand. */
export async function driveBy(page: Page, part: string, property: string, text: string): Promise<void> {
  await page.getByRole('button', { name: `Write a formula for ${property}`, exact: true }).click()
  const field = page.getByRole('textbox', { name: `Formula of ${part} ${property}`, exact: true })
  await expect(field).toBeFocused()
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.insertText(text)
  await page.keyboard.press('Enter')
  await expect(field).toHaveText(text)
}

/** Adds a part from its button, before anything else is there or beside what is. */
export async function add(page: Page, shape: string): Promise<void> {
  const one = page.locator(`[data-add="${shape}"]`).first()
  if (!(await one.isVisible())) {
    const all = page.getByRole('button', { name: 'All parts, add one…' })
    if (await all.isVisible()) await all.click()
  }
  await one.click()
  await page.keyboard.press('Escape')
}

/** Nothing in hand any more. */
export async function letGo(page: Page): Promise<void> {
  await page.getByRole('group', { name: /Parts on the stage/ }).focus()
  for (let k = 0; k < 3; k++) await page.keyboard.press('Escape')
}
/** A part chosen in the list of all parts. */
export async function inHand(page: Page, name: string): Promise<void> {
  await letGo(page)
  await page.getByRole('list', { name: 'All parts' }).getByRole('button', { name, exact: true }).click()
  await expect(page.getByRole('textbox', { name: 'Name of the part' })).toHaveValue(name)
}

/** Pulls from one stage point to another, with a key held. */
export async function drag(page: Page, from: [number, number], to: [number, number], modifier?: string): Promise<void> {
  await page.mouse.move(...(await spot(page, ...from)))
  await page.mouse.down()
  if (modifier) await page.keyboard.down(modifier)
  await page.mouse.move(...(await spot(page, ...to)), { steps: 6 })
  await page.mouse.up()
  if (modifier) await page.keyboard.up(modifier)
}

/** The part in hand. */
export const chosen = (page: Page, name: string) =>
  expect(page.getByRole('textbox', { name: 'Name of the part' })).toHaveValue(name)

/** Columns of a row of the stage that differ from its ground. */
export async function run(page: Page, y: number, from = -620, to = 620): Promise<number[]> {
  const xs = Array.from({ length: Math.floor((to - from) / 4) }, (_, k) => from + 4 * k)
  const row = await colours(page, [[-638, 358], ...xs.map(x => [x, y] as const)])
  const [ground, ...rest] = row
  return xs.filter((_, k) => rest[k]!.some((v, j) => Math.abs(v - ground![j]!) > 24))
}
