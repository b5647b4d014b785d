/** Artwork taken in from SVG, and a graphics card that forgets. */
import type { Page } from '@playwright/test'
import { Builder } from '../../core/acts/build.ts'
import { setStage } from '../../core/acts/settings.ts'
import { drawing } from '../drawings.ts'
import { expect, formula, halt, test } from './fair.ts'
import { letGo, openPiece, stagePicture } from './on-stage.ts'

test.beforeEach(async ({ page }) => {
  const answer = await page.request.post('/api/pieces', { data: { document: new Builder('Taken in', 5).piece } })
  const { id } = (await answer.json()) as { id: string }
  await page.goto(`/piece/${id}`)
  await expect(page.locator('[data-stage]')).toBeVisible()
})
const give = async (page: Page, name: string, text: string): Promise<void> => {
  await page
    .getByLabel('Artwork and pictures')
    .first()
    .setInputFiles({ name, mimeType: 'image/svg+xml', buffer: Buffer.from(text) })
}
const FAN = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 300"><script>document.title = 'run'</script>
  <g id="fan"><path id="blade" fill="#c33" d="M200 150C160 100 160 40 200 30C240 40 240 100 200 150z"/>
  <circle id="hub" cx="200" cy="150" r="18" fill="#fc3"/></g><text>not this</text></svg>`

test('A1, K2: an SVG becomes parts named by its ids; what was left is said; a blade turns about its foot', async ({
  page,
}) => {
  await give(page, 'fan.svg', FAN)
  const says = page.getByRole('status').filter({ hasText: 'fan.svg became 3 parts' })
  await expect(says).toContainText('Not imported: scripts, which are never run; text')
  await expect(page.getByRole('textbox', { name: 'Name of the part' })).toHaveValue('fan')
  expect(await page.title()).not.toBe('run')
  // One of them in hand: its pivot at the foot, and it turns.
  await page.getByRole('group', { name: /Parts on the stage/ }).focus()
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'All parts, add one…' }).click()
  await page.getByRole('list', { name: 'All parts' }).getByRole('button', { name: 'blade', exact: true }).click()
  await page.getByRole('button', { name: 'Pivot at the bottom', exact: true }).click()
  await page.getByRole('button', { name: 'Write a formula for rotation', exact: true }).click()
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.insertText('time * 90deg/s')
  await page.keyboard.press('Enter')
  await expect(formula(page, 'blade rotation')).toHaveText('time * 90deg/s')
  await page.getByRole('button', { name: /^Undo/ }).first().click()
  await expect(formula(page, 'blade rotation')).not.toHaveText('time * 90deg/s')
})

test('A1: what is no SVG is said, and nothing changes', async ({ page }) => {
  await give(page, 'notes.txt', 'hello')
  await expect(page.getByRole('status').filter({ hasText: 'notes.txt' })).toBeVisible()
  await give(page, 'broken.svg', '<svg><g></svg>')
  await expect(
    page.getByRole('status').filter({ hasText: 'broken.svg wasn’t imported. This SVG is damaged' }),
  ).toBeVisible()
  await expect(page.getByText('An empty stage')).toBeVisible()
})

test('a graphics card that forgets gets everything again', async ({ page }) => {
  await give(page, 'fan.svg', FAN)
  await expect(page.getByRole('status').filter({ hasText: 'fan.svg became' })).toBeVisible()
  await halt(page)
  await page.getByRole('group', { name: /Parts on the stage/ }).focus()
  await page.keyboard.press('Escape')
  const before = await stagePicture(page)
  const lose = () =>
    page.evaluate(async () => {
      const canvas = document.querySelector<HTMLCanvasElement>('[data-stage]')!
      const card = canvas.getContext('webgl2')!.getExtension('WEBGL_lose_context')!
      const back = new Promise(done => canvas.addEventListener('webglcontextrestored', done, { once: true }))
      card.loseContext()
      await new Promise(done => setTimeout(done, 300))
      card.restoreContext()
      await back
    })
  for (let k = 0; k < 2; k++) {
    await lose()
    await expect.poll(async () => (await stagePicture(page)).equals(before)).toBe(true)
  }
})

for (const seed of [1, 2, 4, 15])
  test(`drawing ${seed} of chance looks as the browser paints it: arcs, crossings, dashes, gradients`, async ({
    page,
  }) => {
    const b = new Builder('Artwork', 1)
    b.do(setStage(b.piece, { background: { lightness: 1, chroma: 0, hue: 0 } }))
    await openPiece(page, b.piece)
    await give(page, 'chance.svg', drawing(seed))
    await expect(page.getByRole('status').filter({ hasText: 'chance.svg became' })).toBeVisible()
    await letGo(page)
    const stage = page.locator('[data-stage]')
    const box = (await stage.boundingBox())!
    const ours = await stagePicture(page)
    await page.setContent(
      `<body style="margin:0;background:#fff"><img style="position:absolute;left:${box.x}px;top:${box.y}px;width:${box.width}px;height:${box.height}px" src="data:image/svg+xml;base64,${Buffer.from(drawing(seed)).toString('base64')}"></body>`,
    )
    await page.locator('img').evaluate(img => (img as HTMLImageElement).decode())
    const theirs = await page.screenshot({ clip: box })
    await page.goto('/')
    // Edges are smoothed otherwise: what counts is where three by three pixels differ.
    const share = await page.evaluate(
      async pictures => {
        const [p, q] = await Promise.all(
          pictures.map(async text => {
            const bitmap = await createImageBitmap(new Blob([Uint8Array.from(atob(text), c => c.charCodeAt(0))]))
            const c = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d')!
            c.drawImage(bitmap, 0, 0)
            return c.getImageData(0, 0, bitmap.width, bitmap.height)
          }),
        )
        const [w, h] = [Math.min(p!.width, q!.width), Math.min(p!.height, q!.height)]
        const differs = (x: number, y: number) =>
          [0, 1, 2].some(
            c => Math.abs(p!.data[4 * (y * p!.width + x) + c]! - q!.data[4 * (y * q!.width + x) + c]!) > 40,
          )
        let count = 0
        for (let y = 1; y < h - 1; y++)
          for (let x = 1; x < w - 1; x++)
            if ([-1, 0, 1].every(dy => [-1, 0, 1].every(dx => differs(x + dx, y + dy)))) count++
        return count / (w * h)
      },
      [ours.toString('base64'), theirs.toString('base64')],
    )
    expect(share).toBeLessThan(0.001)
  })
