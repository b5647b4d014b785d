/** Pieces on a PostgreSQL server that goes away and comes back. */
import { startPostgres } from '../../server/database/testing.ts'
import { lanternPier } from '../../demo/lantern-pier.ts'
import { expect, saved, test } from './fair.ts'
import { clear, dataFolder, start, stop } from './server.ts'

test('while PostgreSQL is away all is told, nothing says saved, and everything goes on when it is back', async ({
  page,
}) => {
  test.slow()
  const base = await startPostgres()
  const folder = dataFolder()
  const server = await start(folder, '.', true, '127.0.0.1', { DATABASE_URL: base.url })
  const told = 'The database isn’t responding. Nothing was saved; try again in a moment.'
  try {
    const data = { document: { ...lanternPier(false), title: 'Elsewhere' } }
    const { id } = await (await page.request.post(`${server.url}/api/pieces`, { data })).json()
    await page.goto(`${server.url}/piece/${id}`)
    const pace = page.getByRole('textbox', { name: 'fairPace, value' })
    await expect(pace).toHaveValue('100')
    for (const value of ['65', '42']) {
      // Requests are under way when it goes.
      const seen = await (await page.request.get(`${server.url}/api/pieces/${id}`)).json()
      const asked = Promise.all(
        Array.from({ length: 24 }, async (_, k) => {
          await new Promise(done => setTimeout(done, k * 10))
          if (k % 2 === 0) return page.request.get(`${server.url}/api/pieces`)
          const data = { revision: seen.revision + 1000, document: seen.document, save: `under-way-${value}-${k}` }
          return page.request.put(`${server.url}/api/pieces/${id}`, { data })
        }),
      )
      base.down()
      for (const answer of await asked) {
        expect([200, 409, 503]).toContain(answer.status())
        if (answer.status() === 503) expect(((await answer.json()) as { message: string }).message).toBe(told)
      }
      expect((await asked).at(-1)!.status()).toBe(503)
      expect((await page.request.get(`${server.url}/api/health`)).status()).toBe(503)
      await pace.fill(value)
      await pace.press('Enter')
      await expect(page.locator('[data-saving]')).toContainText(/not saved/i)
      base.up()
      await saved(page)
      const kept = await (await page.request.get(`${server.url}/api/pieces/${id}`)).json()
      const dials = Object.values(kept.document.dials as Record<string, { name: string; value: number }>)
      expect(dials.find(d => d.name === 'fairPace')!.value).toBe(Number(value))
    }
    expect(server.said()).not.toContain('uncaughtException')
  } finally {
    await stop(server)
    base.stop()
    clear(folder)
  }
})
