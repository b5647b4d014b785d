import { chromium } from '@playwright/test'
import { clear, dataFolder, start, stop } from '../tests/e2e/server.ts'
const data = dataFolder(); const server = await start(data, '/work/main')
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--use-gl=angle', '--use-angle=swiftshader'] })
const p = await b.newPage({ viewport: { width: 1280, height: 800 } })
p.on('console', m => m.type() === 'error' && console.log('ERR', m.text())); p.on('pageerror', e => console.log('PE', e.message))
await p.goto(server.url + '/piece/lantern-pier'); await p.waitForTimeout(2500)
const shot = (n: string) => p.screenshot({ path: `/tmp/${n}.png` })
await p.getByRole('button', { name: 'Stop', exact: true }).click()
const box = (await p.locator('[data-stage]').boundingBox())!
const at = (x: number, y: number): [number, number] => [box.x + (x + 640) * box.width / 1280, box.y + (360 - y) * box.height / 720]
await p.getByRole('button', { name: 'Carousel', exact: true }).first().click()
await p.waitForTimeout(300); await shot('s1')
await p.mouse.move(...at(-600, 330)); await p.mouse.down(); await p.mouse.move(...at(-100, -100), { steps: 8 }); await shot('s2'); await p.mouse.up(); await p.waitForTimeout(300); await shot('s3')
await p.mouse.move(...at(0, 0)); for (let k = 0; k < 4; k++) await p.mouse.wheel(0, -200); await p.waitForTimeout(400); await shot('s4')
await b.close(); await stop(server); clear(data)
