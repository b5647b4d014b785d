/** Chromium without a window, which draws what is exported at the prompt; else it is said how to get it. */
import { existsSync } from 'node:fs'
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { TextExportRequest } from '../core/formats/export/text-exports.ts'
import { bundled } from './app-bundle.ts'
import { WrongCall } from './call.ts'

const PLACES = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome']

declare global {
  /** What app/export/headless-entry.ts leaves behind in the page. */
  var OpenTideExport: {
    give: (
      asked: TextExportRequest,
      addresses: Readonly<Record<string, string>>,
      tell: (done: number) => void,
      parts: string,
    ) => Promise<void>
  }
  var told: (done: number) => void
}

/** Puts bytes at a place of the file. */
export type Write = (bytes: Buffer, at: number) => void

/**
 * The page that draws, and where it sends the file piece by piece: on this machine, and known by a word that no other page has.
 * @param wrong is told what a piece could not be written for
 */
async function listening(
  write: Write,
  wrong: (e: Error) => void,
): Promise<{ server: Server; page: string; parts: string }> {
  const secret = `/${crypto.randomUUID()}/`
  const server = createServer((request, answer) => {
    if (request.method !== 'POST' || !request.url?.startsWith(secret)) {
      answer.writeHead(200, { 'content-type': 'text/html' }).end('<!doctype html><title>Open Tide</title>')
      return
    }
    const parts: Buffer[] = []
    request.on('data', (d: Buffer) => parts.push(d))
    request.on('end', () => {
      try {
        write(Buffer.concat(parts), Number(request.url!.slice(secret.length)))
        answer.writeHead(204).end()
      } catch (e) {
        wrong(e as Error)
        answer.writeHead(500).end((e as Error).message)
      }
    })
  })
  await new Promise<void>(done => server.listen(0, '127.0.0.1', done))
  const page = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
  return { server, page, parts: secret }
}

/** @param addresses pictures as data addresses, by hash */
export async function drawnInBrowser(
  asked: TextExportRequest,
  addresses: Readonly<Record<string, string>>,
  tell: (done: number) => void,
  write: Write,
): Promise<void> {
  const executablePath = process.env.CHROMIUM || PLACES.find(existsSync)
  if (!executablePath)
    throw new WrongCall(
      'Films and pictures are drawn in Chromium, which wasn’t found. Install it (on Debian: apt-get install chromium), or set CHROMIUM to its path. The other formats don’t need it.',
    )
  const { chromium } = await import('@playwright/test')
  let failed: Error | null = null
  const { server, page: address, parts } = await listening(write, e => (failed = e))
  const browser = await chromium.launch({ executablePath, args: ['--no-sandbox', '--disable-gpu'] })
  try {
    const page = await browser.newPage()
    // Nothing is asked of any other machine.
    await page.route('**/*', route =>
      route.request().url().startsWith(`${address}/`) ? route.continue() : route.abort(),
    )
    await page.goto(`${address}/`)
    await page.exposeFunction('told', tell)
    await page.evaluate(
      await bundled('app/export/headless-entry.ts', 'OpenTideExport').then(
        t => `${t};globalThis.OpenTideExport=OpenTideExport`,
      ),
    )
    await page.evaluate(([a, b, c]) => OpenTideExport.give(a, b, told, c), [asked, addresses, parts] as const)
  } catch (e) {
    if (failed) throw failed as Error
    // What the page threw is said in its own words.
    throw new WrongCall((e as Error).message.replace(/^page\.evaluate: (Error: )?/, '').split('\n')[0]!)
  } finally {
    await browser.close()
    server.closeAllConnections()
    server.close()
  }
}
