/** What a server has to hold out: ways of asking that are none, bodies without end, foreign names, addresses that are none. */
import { request as ask } from 'node:http'
import { THOUGHT_OF } from '../hostile/thought.ts'
import { expect, test } from './fair.ts'

/** An answer to a request as it is written, with headers that a browser would not let through. */
const raw = (
  url: string,
  given: { method?: string; headers?: Record<string, string>; body?: Iterable<Uint8Array | string> },
): Promise<{ status: number; says: string; headers: Record<string, unknown> }> =>
  new Promise((done, fail) => {
    const call = ask(url, { method: given.method ?? 'GET', headers: given.headers ?? {} }, answer => {
      let text = ''
      answer.on('data', d => (text += d))
      answer.on('end', () => {
        const says = text.startsWith('{') ? ((JSON.parse(text) as { message?: string }).message ?? '') : text
        done({ status: answer.statusCode!, says, headers: answer.headers })
      })
    })
    call.on('error', fail)
    for (const part of given.body ?? []) call.write(part)
    call.end()
  })

test('wrong ways of asking are told, with the same headers on every answer', async ({ server }) => {
  const wrong = await raw(`${server.url}/api/pieces`, { method: 'DELETE' })
  expect([wrong.status, wrong.says, wrong.headers.allow]).toEqual([
    405,
    'This address only takes GET or HEAD or POST.',
    'GET, HEAD, POST',
  ])
  expect((await raw(`${server.url}/api/nothing`, {})).status).toBe(404)
  expect((await raw(`${server.url}/api/pieces/lantern-pier/versions/99999999999`, {})).status).toBe(404)
  expect((await raw(`${server.url}/api/pieces`, { headers: { host: 'elsewhere.example' } })).status).toBe(403)
  expect((await raw(`${server.url}/icon.svg`, {})).status).toBe(200)
  for (const path of ['/', '/manual', '/api/pieces', '/api/nothing', '/icon.svg', '/api/pieces/lantern-pier/still']) {
    const { headers } = await raw(server.url + path, {})
    expect([headers['x-content-type-options'], headers['referrer-policy']], path).toEqual(['nosniff', 'no-referrer'])
  }
})

test('bodies are cut at the limit and turned into nothing else', async ({ server }) => {
  const headers = { 'content-type': 'application/json' }
  const send = (body: Iterable<Uint8Array | string>) =>
    raw(`${server.url}/api/pieces`, { method: 'POST', headers, body })
  const [title, end] = ['{"title":"', '"}']
  expect((await send([title, new Uint8Array([0xff, 0xfe]), end])).says).toBe('The request isn’t UTF-8 text.')
  expect((await send([title, 'a\\u0000b', end])).says).toContain('can’t contain control characters')
  expect((await send([title, '\\ud800', end])).says).toContain('can’t contain control characters')
  expect((await send(['no json'])).says).toBe('The request isn’t valid JSON.')
  const many = Array.from({ length: 64 }, () => 'x'.repeat(256 * 1024))
  const cut = await send([title, ...many, end]).catch((e: NodeJS.ErrnoException) => ({ status: e.code, says: '' }))
  // The server answers and ends the connection, perhaps before all of it was written.
  expect([413, 'ECONNRESET', 'EPIPE']).toContain(cut.status)
  expect((await raw(`${server.url}/api/health`, {})).status).toBe(200)
})

test('a still is kept by revision; a heavy one is drawn apart while others save', async ({ page }) => {
  const made = await page.request.post('/api/pieces', { data: { document: THOUGHT_OF['many emitters']!() } })
  const { id } = (await made.json()) as { id: string }
  const drawing = page.request.get(`/api/pieces/${id}/still`)
  const { revision, document } = (await (await page.request.get('/api/pieces/swing-tower')).json()) as {
    revision: number
    document: object
  }
  const saved = await page.request.put('/api/pieces/swing-tower', { data: { revision, document } })
  expect(saved.status()).toBe(200)
  const still = await drawing
  expect([still.status(), still.headers()['content-type']]).toEqual([200, 'image/svg+xml'])
  const tag = { headers: { 'if-none-match': still.headers().etag! } }
  expect((await page.request.get(`/api/pieces/${id}/still`, tag)).status()).toBe(304)
  await page.goto(`/piece/${id}`)
  await expect(page.locator('[data-saving]')).toHaveText('saved')
  expect((await page.request.delete(`/api/pieces/${id}`)).status()).toBe(200)
  expect((await page.request.get(`/api/pieces/${id}/still`)).status()).toBe(404)
})

test('an address that is none has a page of the house', async ({ page }) => {
  const answer = await page.goto('/nowhere/at/all')
  expect(answer!.status()).toBe(404)
  await expect(page.getByText('There’s no page at this address.')).toBeVisible()
  await page.getByRole('link', { name: 'Go to the harbour' }).click()
  await expect(page.getByRole('heading', { name: 'Harbour' })).toBeVisible()
})
