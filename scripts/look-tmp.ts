import { chromium } from '@playwright/test'
import { dataFolder, start, stop } from '../tests/e2e/server.ts'
const folder = dataFolder()
const server = await start(folder)
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
})
const page = await browser.newPage({
  viewport: { width: Number(process.env.W ?? 1280), height: Number(process.env.H ?? 800) },
  colorScheme: (process.env.T as 'light') ?? 'light',
})
page.on('pageerror', e => console.log('PAGE', e.message))
page.on('console', m => m.type() === 'error' && console.log('CON', m.text()))
const shot = (n: string) => page.screenshot({ path: `/tmp/look-${n}.png` })
const { default: run } = (await import(process.env.S!)) as {
  default: (p: typeof page, url: string, shot: (n: string) => Promise<unknown>) => Promise<void>
}
try {
  await run(page, server.url, shot)
} catch (e) {
  console.log(e)
  await shot('error')
}
await browser.close()
await stop(server)
process.exit(0)
