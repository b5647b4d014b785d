/** The built server, started on a free port with a data folder of its own, and stopped by its id. */
import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { freePort } from '../../server/free-port.ts'

export interface Running {
  readonly url: string
  readonly process: ChildProcess
  /** What it has printed so far. */
  readonly said: () => string
  readonly ended: Promise<number | null>
}

export const dataFolder = (): string => mkdtempSync(join(tmpdir(), 'open-tide-e2e-'))
export const clear = (folder: string): void => rmSync(folder, { recursive: true, force: true })

/**
 * Starts a server; waits until it is ready unless it ends before.
 * @param root the folder of the built Open Tide
 * @param wait false does not wait
 * @param host an address of this machine; other than the usual one it asks for its key
 * @param more of its environment
 */
export async function start(
  folder: string,
  root = '.',
  wait = true,
  host = '127.0.0.1',
  more: Readonly<Record<string, string>> = {},
): Promise<Running> {
  const port = await freePort()
  const env = {
    ...process.env,
    HOST: host,
    NITRO_HOST: host,
    NITRO_PORT: String(port),
    OPEN_TIDE_DATA: folder,
    ...more,
  }
  const child = spawn(process.execPath, ['.output/server/index.mjs'], {
    cwd: root,
    env,
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let said = ''
  child.stdout!.on('data', d => (said += d))
  child.stderr!.on('data', d => (said += d))
  let over = false
  const ended = new Promise<number | null>(resolve =>
    child.on('exit', code => {
      over = true
      resolve(code)
    }),
  )
  const url = `http://${host}:${port}`
  for (let n = 0; n < 300 && !over && wait; n++) {
    const ready = await fetch(`${url}/api/health`).then(
      r => r.ok,
      () => false,
    )
    if (ready) break
    await new Promise(resolve => setTimeout(resolve, 100))
  }
  return { url, process: child, said: () => said, ended }
}

export async function stop(server: Running, signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
  if (server.process.exitCode !== null) return
  server.process.kill(signal)
  const late = setTimeout(() => server.process.kill('SIGKILL'), 5000)
  await server.ended
  clearTimeout(late)
}
