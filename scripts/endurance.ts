/**
 * Trials of a running server that are too long for the tests. `npx jiti scripts/endurance.ts waiting | saves [5000] |
 * twice [20] | readonly`
 *
 * - waiting: heavy pieces are made, drawn on cards, read and deleted, while another client saves: how long it waits.
 * - saves: many saves of one piece: the size on disk and the time a start takes, before and after.
 * - twice: two servers started at once on one data folder: one serves, the other says why not.
 * - readonly: a data folder that may not be written to.
 */
import { execFileSync } from 'node:child_process'
import { readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { lanternPier } from '../demo/lantern-pier.ts'
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

if (trial === 'twice') await twice(count || 20)
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
