/** What others may send: bounded before it is read, and nobody is held up by it. */
import { spawnSync } from 'node:child_process'
import { rmSync } from 'node:fs'
import { connect } from 'node:net'
import { join } from 'node:path'
import { request as ask } from 'node:http'
import { expect, test } from '@playwright/test'
import { clear, dataFolder, start, stop, type Running } from './server.ts'

/** An address of this machine that is none of its usual names: there the key is asked for. */
const ELSEWHERE = '127.0.0.2'
let folder = ''
let server: Running
test.beforeAll(async () => {
  folder = dataFolder()
  server = await start(folder, '.', true, ELSEWHERE)
})
test.afterAll(async () => {
  await stop(server)
  clear(folder)
})

const key = () => /need this key: (\S+)/.exec(server.said())![1]!
let cookie = ''
async function enter(given = key()): Promise<Response> {
  const answer = await fetch(`${server.url}/api/enter`, {
    method: 'POST',
    redirect: 'manual',
    headers: { 'content-type': 'application/x-www-form-urlencoded' },
    body: new URLSearchParams({ key: given }),
  })
  if (answer.status === 303) cookie = answer.headers.get('set-cookie')!.split(';')[0]!
  return answer
}
/** What is answered first: a large request, or the state of the server asked for after it. */
async function first(path: string, method: string, body: string, headers: Record<string, string> = {}) {
  const order: string[] = []
  const large = fetch(server.url + path, {
    method,
    body,
    headers: { 'content-type': 'application/json', ...headers },
  }).then(async r => {
    order.push('large')
    return {
      status: r.status,
      says: ((await r.json().catch(() => null)) as { message?: string } | null)?.message ?? '',
    }
  })
  const health = (async () => {
    await new Promise(done => setTimeout(done, 30))
    const r = await fetch(`${server.url}/api/health`)
    order.push('health')
    return r.status
  })()
  const [answer, healthy] = await Promise.all([large, health])
  return { ...answer, healthy, order }
}
const deep = (n: number) => '['.repeat(n) + ']'.repeat(n)

test('without the key or a token nothing large is listened to', async () => {
  const tuned = `{"tuned":{${Array.from({ length: 600_000 }, (_, k) => `"${k}":1`).join(',')}}}`
  for (const body of [tuned, deep(4_000_000)])
    expect(await first('/api/handover/x', 'PUT', body)).toMatchObject({ status: 404, healthy: 200 })
  expect(await first('/api/enter', 'POST', 'x'.repeat(9_000_000))).toMatchObject({ status: 413, healthy: 200 })
  expect(await first('/api/pieces', 'POST', deep(1_000_000))).toMatchObject({ status: 401 })
})

test('the page that asks for the key has the headers of the rest; who guesses waits, and enters after it', async () => {
  const page = await fetch(server.url)
  expect(page.status).toBe(401)
  expect(page.headers.get('content-security-policy')).toContain("frame-ancestors 'none'")
  expect(page.headers.get('x-content-type-options')).toBe('nosniff')
  expect(await page.text()).toContain('The key printed where Open Tide was started')
  expect((await enter('wrong')).status).toBe(401)
  expect((await enter()).status).toBe(303)
  expect((await fetch(server.url, { headers: { cookie } })).status).toBe(200)
})

test('with the key, too much is refused in a sentence, and never by a broken connection', async () => {
  await enter()
  expect(await first('/api/pieces', 'POST', `{"document":${deep(4_000_000)}}`, { cookie })).toMatchObject({
    status: 413,
    says: 'This request is nested too deeply, or has too many values. Nothing was saved.',
  })
  for (let n = 0; n < 5; n++)
    expect(await first('/api/pieces', 'POST', 'x'.repeat(8.5 * 1024 * 1024 + n), { cookie })).toMatchObject({
      status: 413,
      says: 'This piece is larger than 8 MB and was not saved.',
    })
})

test('a large document is read apart from the server, which answers meanwhile', async () => {
  await enter()
  const points = Array.from({ length: 2000 }, (_, k) => ({ time: k / 10, value: k, shape: 'smooth' }))
  const parts = Object.fromEntries(
    Array.from({ length: 43 }, (_, k) => [
      `p${k}`,
      {
        name: `Lamp ${k}`,
        parent: null,
        order: k,
        shape: { type: 'ellipse' },
        pivot: { x: 0, y: 0 },
        symmetry: 1,
        copies: null,
        span: null,
      },
    ]),
  )
  const bases = Object.fromEntries(
    Array.from({ length: 85 }, (_, k) => [
      `p${k >> 1}.${k % 2 ? 'x' : 'y'}`,
      { value: 0, keys: { points, after: 'hold' } },
    ]),
  )
  const made = await fetch(`${server.url}/api/pieces`, {
    method: 'POST',
    headers: { cookie, 'content-type': 'application/json' },
    body: JSON.stringify({ title: 'Keys' }),
  })
  const { id, revision, document } = (await made.json()) as { id: string; revision: number; document: object }
  const body = JSON.stringify({ revision, document: { ...document, parts, bases } })
  const answer = await first(`/api/pieces/${id}`, 'PUT', body, { cookie })
  expect(answer).toMatchObject({ status: 200, healthy: 200, order: ['health', 'large'] })
})

test('a name that is none gets a sentence', async () => {
  const { port } = new URL(server.url)
  const said = await new Promise<string>(done => {
    const socket = connect(Number(port), ELSEWHERE, () =>
      socket.write('GET /api/health HTTP/1.1\r\nHost: 127.0.0.1:80:4221\r\nConnection: close\r\n\r\n'),
    )
    let all = ''
    socket.on('data', d => (all += d))
    socket.on('end', () => done(all))
  })
  expect(said).toMatch(/^HTTP\/1.1 400/)
  expect(said).toContain('Unknown server name: 127.0.0.1:80:4221.')
  const other = await new Promise<number>(done => {
    ask(`${server.url}/api/health`, { headers: { host: 'elsewhere.example' } }, r => done(r.statusCode!)).end()
  })
  expect(other).toBe(403)
})

test('a backup is made while it runs; what a restore replaces is said before', async () => {
  const prompt = (data: string, ...args: string[]) =>
    spawnSync(process.execPath, ['node_modules/jiti/lib/jiti-cli.mjs', 'server/prompt.ts', ...args], {
      encoding: 'utf8',
      env: { ...process.env, OPEN_TIDE_DATA: data },
    })
  const file = join(folder, '..', `copy-${process.pid}.tide-backup`)
  const own = dataFolder()
  try {
    const copied = prompt(folder, 'backup', file)
    expect([copied.status, copied.stdout]).toEqual([0, `All pieces are in ${file}.\n`])
    // To restore, it has to be closed.
    const refused = prompt(folder, 'restore', file, '--yes')
    expect([refused.status, refused.stderr]).toEqual([1, expect.stringContaining('in use by another Open Tide')])
    const put = prompt(own, 'restore', file)
    expect(put.stdout).toMatch(/^There are no pieces here yet; \d+ pieces will be put here\./)
    const asked = prompt(own, 'restore', file)
    expect([asked.status, asked.stderr]).toEqual([1, 'Nothing was changed. Add --yes to continue.\n'])
    expect(asked.stdout).toMatch(
      /^This replaces \d+ pieces \(.*Lantern Pier.*\), changed last on \d{4}-\d\d-\d\d, with the \d+ pieces of the backup\./,
    )
  } finally {
    rmSync(file, { force: true })
    rmSync(`${file}.before`, { force: true })
    clear(own)
  }
})
