import { chromium, type Page } from '@playwright/test'
import { clear, dataFolder, start, stop } from '../tests/e2e/server.ts'
const folder = dataFolder()
const server = await start(folder)
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] })
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, colorScheme: 'light' })
page.on('console', m => m.type() === 'error' && console.log('console', m.text()))
page.on('pageerror', e => console.log('pageerror', String(e.stack).slice(0, 600)))
await page.goto(`${server.url}/piece/${process.env.PIECE ?? 'lantern-pier'}`)
await page.waitForTimeout(2500)
const shot = (n: string) => page.screenshot({ path: `/tmp/h/${n}.png` })
const mod = await import(process.argv[2]!)
try { await mod.default(page as Page, shot) } catch (e) { console.log('FAILED', String(e).slice(0, 1500)); await shot('failed') }
await browser.close()
await stop(server)
clear(folder)
