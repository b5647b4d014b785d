import { chromium } from '@playwright/test'
import { Builder } from '../core/acts/build.ts'
import { clear, dataFolder, start, stop } from '../tests/e2e/server.ts'
const data = dataFolder(); const server = await start(data, '/work/main')
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--use-gl=angle', '--use-angle=swiftshader'] })
const p = await b.newPage({ viewport: { width: 1280, height: 800 } })
p.on('console', m => m.type() === 'error' && console.log('ERR', m.text())); p.on('pageerror', e => console.log('PE', e.message))
const bb = new Builder('Boat', 1)
const four = (w: number) => [[-120, -90, false], [w, -70, true], [60, 80, true], [-90, 120, false]].map(([x, y, smooth]) => ({ x, y, smooth })) as any
const sail = bb.part('Sail', { type: 'path', closed: true, poses: [[four(90)], [four(220)]] }, {}, { x: -60 })
bb.drive(sail, 'pose', 'sine(every: 4s, low: 0, high: 1)')
bb.drive(sail, 'x', 'base + sine(every: 3s, amp: 160px)')
bb.drive(sail, 'rotation', 'sine(every: 2s, amp: 12deg)')
const r = await fetch(server.url + '/api/pieces', { method: 'POST', headers: {'content-type':'application/json'}, body: JSON.stringify({ document: bb.piece }) })
await p.goto(server.url + '/piece/' + (await r.json()).id); await p.waitForTimeout(1500)
await p.getByRole('button', { name: 'Sail', exact: true }).first().click()
await p.getByRole('tab', { name: 'Part' }).click()
await p.getByRole('button', { name: 'Pose 1', exact: true }).click()
await p.waitForTimeout(500); await p.screenshot({ path: '/tmp/s1.png' })
await p.setViewportSize({ width: 1024, height: 768 }); await p.waitForTimeout(500); await p.screenshot({ path: '/tmp/s2.png' })
await b.close(); await stop(server); clear(data)
