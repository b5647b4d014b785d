/**
 * Trials of a running server that are too long for the tests. `npx jiti scripts/endurance.ts waiting | saves [5000] |
 * twice [20] | readonly | postgres [5] | full`
 *
 * - waiting: heavy pieces are made, drawn on cards, read and deleted, while another client saves: how long it waits.
 * - saves: many saves of one piece: the size on disk and the time a start takes, before and after.
 * - twice: two servers started at once on one data folder: one serves, the other says why not.
 * - readonly: a data folder that may not be written to.
 * - postgres: the PostgreSQL server below is switched off and on while four clients save.
 * - full: a disk that is full at the first start, and one that fills up while a client saves (as root, who may mount).
 */
import { execFileSync } from 'node:child_process'
import { appendFileSync, readdirSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { lanternPier } from '../demo/lantern-pier.ts'
import { startPostgres } from '../server/database/testing.ts'
import { THOUGHT_OF } from '../tests/hostile/thought.ts'
import { clear, dataFolder, start, stop, type Running } from '../tests/e2e/server.ts'

const trial = process.argv[2] ?? 'waiting'
const count = Number(process.argv[3] ?? 0)

const json = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
})
const sizeOf = (path: string): number =>
  statSync(path).isDirectory() ? readdirSync(path).reduce((n, f) => n + sizeOf(join(path, f)), 0) : statSync(path).size
const mb = (bytes: number) => `${(bytes / 1e6).toFixed(1)} MB`
const up = (server: Running) => server.process.exitCode === null

/** Seconds of processor time that a process has used. */
function processor(pid: number): number {
  const [, after] = execFileSync('cat', [`/proc/${pid}/stat`], { encoding: 'utf8' }).split(') ')
  const fields = after!.split(' ')
  return (Number(fields[11]) + Number(fields[12])) / 100
}

async function make(url: string, document: unknown): Promise<{ id: string; revision: number } | null> {
  const answer = await fetch(`${url}/api/pieces`, json('POST', { document }))
  return answer.ok ? ((await answer.json()) as { id: string; revision: number }) : null
}

/** Saves a piece and gives back the milliseconds it waited. */
async function save(url: string, piece: { id: string; revision: number }, seed: number): Promise<number> {
  const began = performance.now()
  const answer = await fetch(
    `${url}/api/pieces/${piece.id}`,
    json('PUT', { revision: piece.revision, document: { ...lanternPier(), seed }, save: `save-${piece.id}-${seed}` }),
  )
  if (!answer.ok) throw new Error(`${answer.status} ${await answer.text()}`)
  piece.revision = ((await answer.json()) as { revision: number }).revision
  return performance.now() - began
}

async function waiting(server: Running): Promise<void> {
  const { url } = server
  // Made beforehand: some take seconds, in which nobody would save.
  const heavy = Object.entries(THOUGHT_OF).map(([name, document]) => [name, document()] as const)
  const own = (await make(url, lanternPier()))!
  const quiet: number[] = []
  for (let n = 0; n < 40; n++) quiet.push(await save(url, own, n))
  let going = true
  const waits: number[] = []
  const saving = (async () => {
    for (let n = 100; going; n++) {
      waits.push(await save(url, own, n))
      await new Promise(done => setTimeout(done, 20))
    }
  })()
  let [taken, refused, drawn, cards] = [0, 0, 0, 0]
  for (const [name, document] of heavy) {
    const made = await make(url, document)
    if (!made) {
      refused++
      continue
    }
    taken++
    const still = await fetch(`${url}/api/pieces/${made.id}/still?revision=${made.revision}`)
    if (still.ok) drawn++
    else cards++
    const before = waits.length
    for (const path of ['', '/versions']) await (await fetch(`${url}/api/pieces/${made.id}${path}`)).text()
    const gone = await fetch(`${url}/api/pieces/${made.id}`, { method: 'DELETE' })
    if (!gone.ok) console.log(`${name} could not be deleted: ${gone.status}`)
    if (waits.length > before && Math.max(...waits.slice(before)) > 200)
      console.log(`${name}: others waited ${Math.round(Math.max(...waits.slice(before)))} ms`)
  }
  going = false
  await saving
  const worst = (all: number[]) =>
    `${Math.round(all.sort((a, b) => a - b).at(-1)!)} ms at most, ${Math.round(all[all.length >> 1]!)} ms in the middle`
  console.log(`${taken} taken (${drawn} drawn, ${cards} with a reason instead), ${refused} refused`)
  console.log(`a save waits, quiet: ${worst(quiet)}; meanwhile (${waits.length} saves): ${worst(waits)}`)
}

async function saves(data: string, first: Running, many: number): Promise<void> {
  const own = (await make(first.url, lanternPier()))!
  const before = sizeOf(data)
  for (let n = 0; n < many; n++) await save(first.url, own, n)
  console.log(
    `${many} saves: ${mb(before)} before, ${mb(sizeOf(data))} after; processor ${processor(first.process.pid!).toFixed(1)} s`,
  )
  await stop(first)
  console.log(`at rest: ${mb(sizeOf(data))}`)
  const began = performance.now()
  const again = await start(data)
  console.log(`started again in ${Math.round(performance.now() - began)} ms, ${up(again) ? 'serves' : again.said()}`)
  const stored = (await (await fetch(`${again.url}/api/pieces/${own.id}`)).json()) as { revision: number }
  const versions = (await (await fetch(`${again.url}/api/pieces/${own.id}/versions`)).json()) as unknown[]
  console.log(`revision ${stored.revision} of ${own.revision}, ${versions.length} versions kept`)
  await stop(again)
}

async function twice(times: number): Promise<void> {
  let [well, both, none] = [0, 0, 0]
  const said = new Set<string>()
  for (let n = 0; n < times; n++) {
    const folder = dataFolder()
    const two = await Promise.all([start(folder), start(folder)])
    const running = two.filter(up)
    if (running.length === 1) well++
    else if (running.length === 2) both++
    else none++
    for (const s of two)
      if (!up(s)) said.add(s.said().trim().split('\n').at(-1)!.replaceAll(folder, 'FOLDER').replaceAll(/\d+/g, 'N'))
    for (const s of two) await stop(s)
    clear(folder)
  }
  console.log(`${times} × two at once: one served ${well}, both ${both}, none ${none}`)
  for (const s of said) console.log(`  the other said: ${s}`)
}

async function readonly(): Promise<void> {
  const folder = dataFolder()
  const first = await start(folder)
  await stop(first)
  // As root nothing is forbidden by modes, so the folder is mounted once more, to be read only.
  execFileSync('mount', ['--bind', folder, folder])
  execFileSync('mount', ['-o', 'remount,ro,bind', folder])
  try {
    const server = await start(folder)
    console.log(up(server) ? 'it serves' : `it ended with ${server.process.exitCode}`)
    console.log(server.said().trim())
    await stop(server)
  } finally {
    execFileSync('umount', [folder])
    clear(folder)
  }
}

/** Saves as long as `going`; counts what was acknowledged, and keeps every other answer. */
async function saving(
  url: string,
  piece: { id: string; revision: number },
  going: () => boolean,
  answers: Map<string, number>,
) {
  let kept = -1
  // Above the demo's own seed, so that a piece as it was first made counts as lost.
  for (let n = 1_000_000; going(); n++) {
    const said = await save(url, piece, n).then(
      () => {
        kept = n
        return 'saved'
      },
      (e: Error) =>
        `${e.message.slice(0, 3)} ${/"message": *"([^"]*)/.exec(e.message)?.[1] ?? e.message.slice(0, 160)}`,
    )
    answers.set(said, (answers.get(said) ?? 0) + 1)
    if (said !== 'saved') await new Promise(done => setTimeout(done, 50))
    // One save may have been done whose answer was never heard: the next begins from what is there.
    if (/^409/.test(said)) {
      const stored = await fetch(`${url}/api/pieces/${piece.id}`).then(r => r.json() as Promise<{ revision: number }>)
      piece.revision = stored.revision
    }
  }
  return kept
}
const seedOf = async (url: string, id: string) =>
  ((await (await fetch(`${url}/api/pieces/${id}`)).json()) as { document: { seed: number } }).document.seed
const health = (url: string) => fetch(`${url}/api/health`).then(r => r.status)

async function postgres(times: number): Promise<void> {
  const base = await startPostgres()
  const folder = dataFolder()
  const server = await start(folder, '.', true, '127.0.0.1', { DATABASE_URL: base.url })
  if (!up(server)) throw new Error(server.said())
  const answers = new Map<string, number>()
  let lost = 0
  for (let n = 0; n < times; n++) {
    let going = true
    const pieces = await Promise.all([0, 1, 2, 3].map(async () => (await make(server.url, lanternPier()))!))
    const clients = pieces.map(p => saving(server.url, p, () => going, answers))
    await new Promise(done => setTimeout(done, 700 + n * 130))
    base.down()
    const away = await health(server.url)
    const read = await fetch(`${server.url}/api/pieces`)
    console.log(
      `${n + 1}: off: health ${away}, a list ${read.status} ${((await read.json()) as { message: string }).message}`,
    )
    await new Promise(done => setTimeout(done, 500))
    base.up()
    const began = performance.now()
    while ((await health(server.url)) !== 200) await new Promise(done => setTimeout(done, 20))
    console.log(`   on: answers after ${Math.round(performance.now() - began)} ms`)
    await new Promise(done => setTimeout(done, 500))
    going = false
    for (const [k, kept] of (await Promise.all(clients)).entries())
      if ((await seedOf(server.url, pieces[k]!.id)) < kept) lost++
  }
  for (const [said, count] of answers) console.log(`  ${count} × ${said}`)
  console.log(`${times} × off and on: ${lost} acknowledged lost`)
  await stop(server)
  base.stop()
  clear(folder)
}

/** A disk of so many MB, made of memory. */
function disk(megabytes: number): { at: string; gone: () => void } {
  const at = dataFolder()
  execFileSync('mount', ['-t', 'tmpfs', '-o', `size=${megabytes}m`, 'tmpfs', at])
  const gone = () => {
    execFileSync('umount', [at])
    clear(at)
  }
  return { at, gone }
}

async function full(): Promise<void> {
  const small = disk(30)
  const refused = await start(small.at)
  console.log(`first start on 30 MB: ${up(refused) ? 'it serves' : refused.said().trim()}`)
  await stop(refused)
  small.gone()
  const large = disk(200)
  const server = await start(large.at)
  if (!up(server)) throw new Error(server.said())
  const piece = (await make(server.url, lanternPier()))!
  const answers = new Map<string, number>()
  let going = true
  const client = saving(server.url, piece, () => going, answers)
  const filler = join(large.at, 'copies', 'filler')
  for (let n = 0; n < 200; n++) {
    try {
      appendFileSync(filler, Buffer.alloc(1e6))
    } catch {
      break
    }
    await new Promise(done => setTimeout(done, 20))
  }
  await new Promise(done => setTimeout(done, 2000))
  console.log(`full: health ${await health(server.url)}`)
  rmSync(filler)
  await new Promise(done => setTimeout(done, 1000))
  going = false
  const kept = await client
  for (const [said, count] of answers) console.log(`  ${count} × ${said}`)
  await stop(server, 'SIGKILL')
  const again = await start(large.at)
  const seed = up(again) ? await seedOf(again.url, piece.id) : -1
  console.log(`${seed >= kept ? 0 : 1} acknowledged lost, started again: ${up(again) ? 'serves' : again.said()}`)
  await stop(again)
  large.gone()
}

if (trial === 'postgres') await postgres(count || 5)
else if (trial === 'full') await full()
else if (trial === 'twice') await twice(count || 20)
else if (trial === 'readonly') await readonly()
else {
  const data = dataFolder()
  const server = await start(data)
  if (!up(server)) throw new Error(server.said())
  if (trial === 'saves') await saves(data, server, count || 5000)
  else await waiting(server)
  if (up(server)) await stop(server)
  clear(data)
}
