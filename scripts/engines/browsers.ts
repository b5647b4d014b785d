/** The browser engines that are tried: each is started with an address, and ended with all that it started. */
import { spawn, type ChildProcess } from 'node:child_process'
import { join } from 'node:path'
import { freePort } from '../../server/free-port.ts'

export type Ends = () => void

/** Starts a program in a group of its own, so that all it starts ends with it. */
function begin(command: string, args: string[], failed: (says: string) => void, env: NodeJS.ProcessEnv = {}): Ends {
  const child: ChildProcess = spawn(command, args, { stdio: 'ignore', detached: true, env: { ...process.env, ...env } })
  child.on('error', e => failed(e.message))
  return () => {
    if (child.pid && child.exitCode === null) process.kill(-child.pid, 'SIGKILL')
  }
}

/** WebKit takes its orders by the standard protocol for driving browsers. */
async function webkit(url: string, failed: (says: string) => void): Promise<Ends> {
  const port = await freePort()
  const end = begin('xvfb-run', ['-a', 'WebKitWebDriver', `--port=${port}`], failed, {
    WEBKIT_DISABLE_SANDBOX_THIS_IS_DANGEROUS: '1',
  })
  const order = async (path: string, body: unknown) => {
    const answer = await fetch(`http://127.0.0.1:${port}${path}`, { method: 'POST', body: JSON.stringify(body) })
    const { value } = (await answer.json()) as { value: { sessionId: string; message?: string } | null }
    if (!answer.ok) throw new Error(value?.message)
    return value
  }
  for (let n = 0; n < 100; n++) {
    const ready = await fetch(`http://127.0.0.1:${port}/status`).then(
      r => r.ok,
      () => false,
    )
    if (ready) break
    await new Promise(done => setTimeout(done, 100))
  }
  const session = await order('/session', { capabilities: {} })
  await order(`/session/${session!.sessionId}/url`, { url })
  return end
}

export type Opens = (url: string, failed: (says: string) => void) => Ends | Promise<Ends>

/** @param folder of its own, for what browsers keep */
export const browsersIn = (folder: string): Readonly<Record<string, Opens>> => ({
  Chromium: (url, failed) =>
    begin(
      process.env.CHROMIUM || 'chromium',
      [
        '--headless',
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--window-size=1280,900',
        `--user-data-dir=${join(folder, 'chromium')}`,
        '--remote-debugging-port=0',
        url,
      ],
      failed,
    ),
  Firefox: (url, failed) =>
    begin(
      'firefox-esr',
      ['--headless', '--no-remote', '--width=1280', '--height=900', '--profile', folder, url],
      failed,
    ),
  WebKit: webkit,
})
