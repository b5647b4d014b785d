import { lanternPier } from '../../demo/lantern-pier.ts'
import { expect, formula, freshFair, saved, test, write } from './fair.ts'
import { clear, dataFolder, start, stop } from './server.ts'

test.describe('the harbour', () => {
  test('pieces are renamed, copied, deleted and brought back', async ({ page }) => {
    await page.request.post('/api/pieces', { data: { title: 'Ferris notes' } })
    await page.goto('/')
    await page.getByRole('button', { name: 'Rename Ferris notes' }).click()
    await page.getByRole('textbox', { name: 'Title' }).fill('Swing notes')
    await page.keyboard.press('Enter')
    await page.getByRole('button', { name: 'Copy Swing notes' }).click()
    await expect(page.getByRole('link', { name: 'Swing notes copy', exact: true })).toBeVisible()
    await page.getByRole('button', { name: 'Delete Swing notes copy' }).click()
    await expect(page.getByRole('link', { name: 'Swing notes copy', exact: true })).toHaveCount(0)
    await page.getByRole('button', { name: 'Restore' }).click()
    await expect(page.getByRole('link', { name: 'Swing notes copy', exact: true })).toBeVisible()
  })

  test('a piece that is not there says so and shows the way back', async ({ page }) => {
    await page.goto('/piece/nothing-here')
    await expect(page.getByRole('alert')).toContainText('There’s no such piece.')
    await page.getByRole('link', { name: 'Go to the harbour' }).click()
    await expect(page.getByRole('heading', { name: 'Harbour' })).toBeVisible()
  })

  test('what is no document is refused and nothing is stored', async ({ page }) => {
    const count = async () => ((await (await page.request.get('/api/pieces')).json()) as unknown[]).length
    const before = await count()
    for (const document of [null, 7, [], {}, { version: 99 }, { ...lanternPier(), parts: { p1: { name: 'x' } } }]) {
      const answer = await page.request.post('/api/pieces', { data: { document } })
      expect(answer.status()).toBe(422)
      expect(((await answer.json()) as { message: string }).message).toContain('Nothing was saved.')
    }
    expect((await page.request.post('/api/pieces', { data: { title: '  ' } })).status()).toBe(400)
    expect(
      (
        await page.request.fetch('/api/pieces', {
          method: 'POST',
          headers: { origin: 'http://elsewhere.example' },
          data: { title: 'x' },
        })
      ).status(),
    ).toBe(403)
    expect(await count()).toBe(before)
  })
})

test.describe('kept safe', () => {
  test('what was acknowledged survives a killed server; a second server on the same data is refused', async ({
    page,
  }) => {
    const folder = dataFolder()
    let server = await start(folder)
    await page.goto(`${server.url}/piece/lantern-pier`)
    await write(page, 'Carousel rotation', 'time * 33deg/s')
    await saved(page)
    const text = (await formula(page, 'Carousel rotation').textContent())!

    const second = await start(folder)
    expect(await second.ended).toBe(1)
    expect(second.said()).toContain('is in use by another Open Tide')

    await page.goto('about:blank')
    await stop(server, 'SIGKILL')
    server = await start(folder)
    await page.goto(`${server.url}/piece/lantern-pier`)
    await expect(formula(page, 'Carousel rotation')).toHaveText(text)
    await page.goto('about:blank')
    await stop(server)
    clear(folder)
  })

  test('two windows: a stale save is refused and neither version is lost', async ({ page, context }) => {
    const id = await freshFair(page)
    const other = await context.newPage()
    await other.goto(`/piece/${id}`)
    await expect(formula(other, 'Carousel rotation')).toBeVisible()
    await write(page, 'Carousel rotation', 'time * 11deg/s')
    await saved(page)
    const first = (await formula(page, 'Carousel rotation').textContent())!
    await write(other, 'Carousel rotation', 'time * 22deg/s')
    await expect(other.getByRole('alert').first()).toContainText('This piece was changed in another window.')
    const second = (await formula(other, 'Carousel rotation').textContent())!
    await other.getByRole('button', { name: 'Keep mine as a new piece' }).click()
    await expect(other).not.toHaveURL(new RegExp(id))
    await expect(formula(other, 'Carousel rotation')).toHaveText(second)
    await page.reload()
    await expect(formula(page, 'Carousel rotation')).toHaveText(first)
  })
})
