/** Chromium without a window, which draws what is given out at the prompt; else it is said how to get it. */
import { existsSync } from 'node:fs'
import type { Asked } from '../core/formats/give/written.ts'
import { bundled } from '../scripts/runner-text.ts'
import { WrongCall } from './call.ts'

const PLACES = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome']
const AT_ONCE = 3_000_000
/** A page of this machine may encode films; nothing is asked of it. */
const PAGE = 'http://127.0.0.1:9/'

declare global {
  /** What app/give/alone.ts leaves behind in the page. */
  var OpenTideGive: {
    give: (asked: Asked, addresses: Readonly<Record<string, string>>, tell: (done: number) => void) => Promise<number>
    bytes: (from: number, to: number) => string
  }
  var told: (done: number) => void
}

/** @param addresses pictures as data addresses, by hash */
export async function drawnInBrowser(
  asked: Asked,
  addresses: Readonly<Record<string, string>>,
  tell: (done: number) => void,
): Promise<Uint8Array> {
  const executablePath = process.env.CHROMIUM || PLACES.find(existsSync)
  if (!executablePath)
    throw new WrongCall(
      'Films and pictures are drawn in Chromium, and there is none. Install it (on Debian: apt-get install chromium), or set CHROMIUM to its path. All other formats need none.',
    )
  const { chromium } = await import('@playwright/test')
  const browser = await chromium.launch({ executablePath, args: ['--no-sandbox', '--disable-gpu'] })
  try {
    const page = await browser.newPage()
    await page.route('**/*', route =>
      route.fulfill({ contentType: 'text/html', body: '<!doctype html><title>Open Tide</title>' }),
    )
    await page.goto(PAGE)
    await page.exposeFunction('told', tell)
    await page.evaluate(
      await bundled('app/give/alone.ts', 'OpenTideGive').then(t => `${t};globalThis.OpenTideGive=OpenTideGive`),
    )
    const size = await page.evaluate(([a, b]) => OpenTideGive.give(a, b, told), [asked, addresses] as const)
    const parts: Buffer[] = []
    for (let at = 0; at < size; at += AT_ONCE)
      parts.push(
        Buffer.from(await page.evaluate(([a, b]) => OpenTideGive.bytes(a, b), [at, at + AT_ONCE] as const), 'base64'),
      )
    return Buffer.concat(parts)
  } catch (e) {
    // What the page threw is said in its own words.
    throw new WrongCall((e as Error).message.replace(/^page\.evaluate: (Error: )?/, '').split('\n')[0]!)
  } finally {
    await browser.close()
  }
}
