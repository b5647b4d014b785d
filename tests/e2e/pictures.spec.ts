/** Pictures on the stage: taken in, in register, turned about their own pin; and a great many that are none. */
import type { Page } from '@playwright/test'
import { Builder } from '../../core/acts/build.ts'
import { drawn, expect, goTo, keyOf, saved, test, values } from './fair.ts'
import { colour, colours, driveBy, inHand, letGo, number, openPiece, put } from './on-stage.ts'

type File = { name: string; mimeType: string; buffer: Buffer }
const give = (page: Page, files: File[]) => page.getByLabel('Artwork and pictures').first().setInputFiles(files)

/** A picture drawn by the browser: a blade of one colour on nothing, in a frame that is larger. */
async function painted(page: Page, name: string, colour: string, type = 'image/png', size = 300): Promise<File> {
  const text = await page.evaluate(
    async ([colour, type, size]) => {
      const canvas = new OffscreenCanvas(size, size)
      const c = canvas.getContext('2d')!
      c.fillStyle = colour
      c.fillRect(size * 0.4, size * 0.1, size * 0.2, size * 0.5)
      const bytes = new Uint8Array(await (await canvas.convertToBlob({ type })).arrayBuffer())
      return btoa(String.fromCharCode(...bytes))
    },
    [colour, type, size] as const,
  )
  return { name, mimeType: type, buffer: Buffer.from(text, 'base64') }
}

test.beforeEach(async ({ page }) => void (await openPiece(page, new Builder('Pictures', 3).piece)))

test('A1: the blades of a petal fan from pictures lie in register; one turns about its own middle, a wrong pin is seen by the circle it sweeps', async ({
  page,
}) => {
  await give(page, [
    await painted(page, 'blade 2.png', '#c04020'),
    await painted(page, 'blade 10.webp', '#2060a0', 'image/webp'),
    await painted(page, 'blade 1.jpg', '#40a040', 'image/jpeg'),
  ])
  await expect(page.getByRole('status').filter({ hasText: '3 pictures are stacked in place.' })).toBeVisible()
  await letGo(page)
  // In the order of their names, the last above; JPEG has no holes.
  await expect.poll(async () => (await colour(page, 0, 100))[2]).toBeGreaterThan(120)
  const [blade, beside] = await colours(page, [
    [0, 50],
    [-100, 50],
  ])
  expect(blade![2]).toBeGreaterThan(blade![0]!)
  expect(Math.max(...beside!)).toBeLessThan(30)
  await inHand(page, 'blade 10')
  expect([await number(page, 'width'), await number(page, 'height')]).toEqual([300, 300])
  await driveBy(page, 'blade 10', 'rotation', 'time * 90deg/s')
  /** How far from the pin the swept circle is drawn to the right, px; it is dotted. */
  const swept = async () => {
    await drawn(page)
    const at = Array.from({ length: 500 }, (_, k) => [k, 0] as const)
    const over = (await page.locator('[data-stage] + canvas').evaluate((c: HTMLCanvasElement) => {
      const d = c.getContext('2d')!.getImageData(0, Math.round(c.height / 2) - 6, c.width, 12).data
      return Array.from({ length: c.width }, (_, x) => {
        let sum = 0
        for (let y = 0; y < 12; y++) sum += d[4 * (y * c.width + x) + 3]!
        return sum
      })
    })) as number[]
    const last = over.reduce((at, v, x) => (v > 0 ? x : at), 0)
    return ((last / over.length) * 1280 - 640) * (at.length / 500)
  }
  const middle = await swept()
  // Half the diagonal of the picture.
  expect(Math.abs(middle - 150 * Math.SQRT2)).toBeLessThan(12)
  await put(page, 'pivot x', 150)
  await put(page, 'pivot y', -150)
  // About a corner it sweeps twice as far, from where the corner is.
  await expect.poll(swept).toBeGreaterThan(middle + 100)
  await page.getByRole('button', { name: /^Undo/ }).first().click()
  await page.getByRole('button', { name: /^Undo/ }).first().click()
  await expect.poll(() => number(page, 'pivot x')).toBe(0)
  expect(await values(page, await keyOf(page, 'blade 10 rotation'), 1)).toEqual([0.25])
  await letGo(page)
  await goTo(page, '1')
  // A quarter turned: what stood above the middle lies at its left.
  await expect.poll(async () => (await colour(page, -90, 0))[2]).toBeGreaterThan(120)
  await saved(page)
  await page.reload()
  await expect.poll(async () => (await colour(page, -90, 0)).length).toBe(3)
})

test('A1: 200 damaged and hostile files: each is a part or a sentence, nothing runs, nothing asks elsewhere', async ({
  page,
}) => {
  const good = [
    await painted(page, 'a.png', '#c04020', 'image/png', 40),
    await painted(page, 'b.jpg', '#c04020', 'image/jpeg', 40),
    await painted(page, 'c.webp', '#c04020', 'image/webp', 40),
  ]
  let seed = 7
  const chance = (n: number) => (seed = (seed * 1103515245 + 12345) % 2147483648) % n
  const hostile = [
    '<svg xmlns="http://www.w3.org/2000/svg" onload="document.title=\'run\'"/>',
    '<html><script>document.title="run"</script>',
    'GIF89a',
    '',
  ]
  let parts = 0
  for (let round = 0; round < 5; round++) {
    const files = Array.from({ length: 40 }, (_, k): File => {
      const { name, mimeType, buffer } = good[k % 3]!
      const hurt = Buffer.from(buffer)
      for (let n = 0; n < 1 + chance(6); n++) hurt[chance(hurt.length)] = chance(256)
      const cut = k % 4 === 0 ? hurt.subarray(0, chance(hurt.length)) : hurt
      const odd = k % 10 === 9 ? Buffer.from(hostile[chance(4)]!) : cut
      return { name: `${round}-${k} ${name}`, mimeType, buffer: odd }
    })
    await give(page, files)
    const says = page.getByRole('status').filter({ hasText: /Not imported: |are stacked in place|wasn’t imported/ })
    await expect(says).toContainText(`${round}-`)
    const text = (await says.textContent())!
    parts += Number(/(\d+) pictures are stacked/.exec(text)?.[1] ?? 0)
    await letGo(page)
  }
  expect(parts).toBeGreaterThan(20)
  expect(await page.title()).not.toBe('run')
  await saved(page)
  // The stage still draws, and undo takes the last lot away in one step.
  await page.getByRole('button', { name: /^Undo/ }).first().click()
  await expect(page.getByRole('button', { name: /^Redo/ }).first()).toBeEnabled()
})

test('a picture that is gone is shown as its place', async ({ page }) => {
  const b = new Builder('Gone', 3)
  b.part('Blade', { type: 'picture', asset: 'nothinghere' }, {}, { width: 300, height: 300 })
  await openPiece(page, b.piece)
  const [place, ground] = await colours(page, [
    [0, 80],
    [-500, 300],
  ])
  expect(place).not.toEqual(ground)
})

test('a picture that can’t be reached for a while isn’t gone: it is shown once the server answers again', async ({
  page,
}) => {
  await give(page, [await painted(page, 'blade.png', '#c04020')])
  await letGo(page)
  await expect.poll(async () => (await colour(page, 0, 50))[0]).toBeGreaterThan(150)
  const shown = await colour(page, 0, 50)
  await saved(page)
  let refused = 0
  await page.route('**/api/assets/*', route => (refused++, route.abort()))
  await page.reload()
  await expect.poll(() => refused).toBeGreaterThan(1)
  // Meanwhile it's drawn as a missing picture: grey with a cross.
  const meanwhile = await colour(page, 0, 50)
  expect(Math.max(...meanwhile.slice(0, 3)) - Math.min(...meanwhile.slice(0, 3))).toBeLessThan(40)
  await page.unroute('**/api/assets/*')
  await expect.poll(() => colour(page, 0, 50)).toEqual(shown)
})
