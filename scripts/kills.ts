/**
 * Ends a server hard again and again while several write to it, and looks each time whether all that was acknowledged
 * is there; then ends it hard while it begins for the first time. `npx jiti scripts/kills.ts 100 30`
 */
import { DEMO } from '../server/database/demo.ts'
import { clear, dataFolder, start, stop, type Running } from '../tests/e2e/server.ts'

const kills = Number(process.argv[2] ?? 100)
const begins = Number(process.argv[3] ?? 30)
const CLIENTS = 4
/** Whether a server that was started answers. */
const ready = (server: Running): boolean => server.process.exitCode === null
const wait = (ms: number) => new Promise(done => setTimeout(done, ms))
interface Written {
  readonly id: string
  revision: number
  mark: number
}

/** Saves as fast as it goes until the server is gone; keeps what was acknowledged. */
async function write(url: string, piece: Written): Promise<void> {
  for (;;) {
    try {
      const stored = (await (await fetch(`${url}/api/pieces/${piece.id}`)).json()) as {
        revision: number
        document: { seed: number }
      }
      const seed = stored.document.seed + 1
      const save = `${piece.id}-${seed}`
      const body = JSON.stringify({ revision: stored.revision, document: { ...stored.document, seed }, save })
      const answer = await fetch(`${url}/api/pieces/${piece.id}`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body,
      })
      if (!answer.ok) continue
      const { revision } = (await answer.json()) as { revision: number }
      Object.assign(piece, { revision, mark: seed })
    } catch {
      return
    }
  }
}

let [lost, failed, saves, half] = [0, 0, 0, 0]
const data = dataFolder()
let server = await start(data)
if (!ready(server)) throw new Error(server.said())
const pieces: Written[] = []
for (let n = 0; n < CLIENTS; n++) {
  const made = await fetch(`${server.url}/api/pieces`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ copyOf: 'lantern-pier' }),
  })
  const { id, document } = (await made.json()) as { id: string; document: { seed: number } }
  pieces.push({ id, revision: 1, mark: document.seed })
}
for (let n = 0; n < kills; n++) {
  const writing = pieces.map(p => write(server.url, p))
  await wait(150 + ((n * 37) % 400))
  await stop(server, 'SIGKILL')
  await Promise.all(writing)
  server = await start(data)
  if (!ready(server)) {
    failed++
    console.log(`start ${n} failed: ${server.said()}`)
    break
  }
  for (const p of pieces) {
    const stored = (await (await fetch(`${server.url}/api/pieces/${p.id}`)).json()) as {
      revision: number
      document: { seed: number }
    }
    // One save may be on disk whose answer was never heard.
    if (stored.document.seed < p.mark || stored.revision < p.revision) {
      lost++
      console.log(`kill ${n}: ${p.id} has ${stored.document.seed}, acknowledged was ${p.mark}`)
    }
  }
}
saves = pieces.reduce((n, p) => n + p.revision, 0)
await stop(server, 'SIGKILL')
clear(data)
console.log(
  `${kills} × kill -9 under ${CLIENTS} clients, ${saves} saves: ${lost} acknowledged lost, ${failed} starts failed`,
)

for (let n = 0; n < begins; n++) {
  const folder = dataFolder()
  const first = await start(folder, '.', false)
  await wait(100 + n * 130)
  await stop(first, 'SIGKILL')
  const second = await start(folder)
  const up = ready(second)
  const cards = up ? ((await (await fetch(`${second.url}/api/pieces`)).json()) as unknown[]).length : -1
  if (cards !== DEMO.length) {
    half++
    console.log(`begin ${n}: ${cards} pieces, ${second.said()}`)
  }
  await stop(second, 'SIGKILL')
  clear(folder)
}
console.log(`${begins} × kill -9 during the first creation: ${half} not whole`)
process.exit(lost + failed + half > 0 ? 1 : 0)
