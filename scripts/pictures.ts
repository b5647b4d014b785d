/** Takes the pictures in docs/screenshots from the demo, as a user sees it at 1280 × 800. */
import { chromium, type Page } from '@playwright/test'
import { Builder } from '../core/acts/build.ts'
import { layGuide, rule } from '../core/acts/guides.ts'
import { clear, dataFolder, start, stop } from '../tests/e2e/server.ts'

const folder = dataFolder()
const server = await start(folder)
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM || '/usr/bin/chromium',
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
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, colorScheme: 'light' })
const take = (name: string) => page.screenshot({ path: `docs/screenshots/${name}.png` })

async function goTo(p: Page, time: string): Promise<void> {
  const stopping = p.getByRole('button', { name: 'Pause', exact: true })
  if (await stopping.isVisible()) await stopping.click()
  await p.getByRole('button', { name: 'Current time, press to type another' }).click()
  await p.getByRole('textbox', { name: 'Go to time' }).fill(time)
  await p.keyboard.press('Enter')
  await p.mouse.move(640, 790)
  await p.waitForTimeout(600)
}

/** A path with two poses, which sways: in the hand, with its points and its way. */
async function inTheHand(): Promise<void> {
  const b = new Builder('The boat swing', 1)
  const pose = (wide: number) =>
    [
      [-120, -90, false],
      [wide, -70, true],
      [60, 80, true],
      [-90, 120, false],
    ].map(([x, y, smooth]) => ({ x: x as number, y: y as number, smooth: smooth as boolean }))
  b.do(rule(b.piece, 'rulers', true))
  b.do(rule(b.piece, 'grid', true))
  b.do(layGuide(b.piece, 'y', -180)!)
  const sail = b.part('Sail', { type: 'path', closed: true, poses: [[pose(90)], [pose(220)]] }, {}, { x: -60 })
  b.drive(sail, 'pose', 'sine(every: 4s, low: 0, high: 1)')
  b.drive(sail, 'y', 'base + sine(every: 8s, amp: 90px)')
  b.drive(sail, 'x', 'base + sine(every: 4s, amp: 200px)')
  b.drive(sail, 'rotation', 'sine(every: 2s, amp: 12deg)')
  const answer = await page.request.post(`${server.url}/api/pieces`, { data: { document: b.piece } })
  await page.goto(`${server.url}/piece/${((await answer.json()) as { id: string }).id}`)
  await page.getByRole('button', { name: 'Sail', exact: true }).first().click()
  await page.getByRole('tab', { name: 'Part' }).click()
  await goTo(page, '2.4')
  await page.getByRole('button', { name: 'Pose 1', exact: true }).click()
  await page.waitForTimeout(400)
  await take('stage')
}
await inTheHand()

await page.goto(`${server.url}/piece/lantern-pier`)
await page.getByRole('article', { name: 'Carousel rotation', exact: true }).waitFor()
await goTo(page, '12.4')
await take('quay')

await page.getByRole('article', { name: 'Mount y', exact: true }).locator('canvas').click()
await page.waitForTimeout(900)
await page.getByRole('button', { name: 'Manual', exact: true }).focus()
await take('scope')
const table = page.getByRole('region', { name: 'Tide table' })
await page.getByRole('article', { name: 'strike', exact: true }).locator('canvas').click()
await page.locator('[data-point="2"]').click()
await page.waitForTimeout(400)
await take('curve')
await page.getByRole('article', { name: 'Carousel rotation', exact: true }).locator('header').click()
await page.getByRole('tab', { name: 'Links' }).click()
await page.getByRole('button', { name: /^Carousel rotation drives Canopy rotation/ }).click()
await page.waitForTimeout(400)
await take('links')
await page.getByRole('tab', { name: 'Lap' }).click()
await page.locator('[data-proposal]').first().waitFor()
await page.waitForTimeout(1500)
await take('lap')
await page.getByRole('region', { name: 'Loop seam' }).scrollIntoViewIfNeeded()
await page.getByRole('region', { name: 'Off-stage parts' }).getByRole('button').click()
await page.waitForTimeout(1500)
await take('seam')
await page.getByRole('searchbox', { name: 'Search the tide table' }).fill('drum rotation')
const drum = page.getByRole('article', { name: 'Tombola drum rotation', exact: true })
await drum.getByRole('button', { name: 'side by side' }).click()
await drum.locator('canvas').click()
await page.getByRole('button', { name: 'takes', exact: true }).click()
await goTo(page, '13.1')
await take('takes')
await drum.getByRole('button', { name: 'side by side' }).click()
await page.getByRole('searchbox', { name: 'Search the tide table' }).fill('')
await page.getByRole('tab', { name: 'Piece' }).click()
await page.getByRole('tab', { name: 'Part' }).click()
await page.getByRole('article', { name: 'Mount y', exact: true }).locator('header').click()
await page.getByRole('textbox', { name: 'Formula of Mount y', exact: true }).click({ position: { x: 480, y: 10 } })
await page.keyboard.press('ControlOrMeta+a')
await page.keyboard.insertText('sine(every: 2s, amp: 24, phase: index * 30)')
await page.keyboard.press('Enter')
await page.mouse.move(640, 790)
await page.waitForTimeout(600)
await take('quay-mending')
await page.keyboard.press('Alt+Enter')
await page.getByRole('button', { name: 'Night watch' }).click()
await table.getByRole('button', { name: 'Canopy', exact: true }).click()
await page.getByRole('button', { name: 'Drive a property of Canopy' }).click()
await page.waitForTimeout(600)
await take('quay-night')
await page.keyboard.press('Escape')
await page.getByRole('button', { name: 'Daylight' }).click()

await page.getByRole('button', { name: 'Manual', exact: true }).click()
await page.getByRole('searchbox', { name: 'Search the manual' }).fill('noise')
await page.waitForTimeout(900)
await take('manual-beside')
await page.goto(`${server.url}/piece/duck-basin`)
await page.getByRole('article', { name: 'Duck y', exact: true }).waitFor()
await goTo(page, '3.2')
await take('duck-basin')
await page.goto(`${server.url}/piece/ticket-arch`)
await page.getByRole('article', { name: 'Letter y', exact: true }).waitFor()
await goTo(page, '1.7')
for (let k = 0; k < 2; k++) await page.getByRole('button', { name: 'look from the right' }).click()
await page.getByRole('article', { name: 'Letter thickness', exact: true }).locator('canvas').click()
await page.waitForTimeout(500)
await take('ticket-arch')
await page.getByRole('banner').getByRole('button', { name: 'Export', exact: true }).click()
await page.locator('[data-preview][data-state="there"]').waitFor()
await take('give-out')
await page.keyboard.press('Escape')
await page.locator('body').press('p')
await page.getByRole('dialog').getByRole('button', { name: 'Breathing row' }).click()
await page.waitForTimeout(900)
await take('patterns')
await page.keyboard.press('Escape')

await page.goto(`${server.url}/piece/lantern-pier`)
await page.getByRole('button', { name: 'Hand over', exact: true }).click()
await page.getByLabel('Label of fairPace').fill('How fast the fair turns')
await page.getByRole('dialog').getByRole('button', { name: 'Create link' }).click()
const link = await page.getByLabel('The link').inputValue()
await page.goto(link)
await page.getByRole('button', { name: 'Pause', exact: true }).waitFor()
await page.waitForTimeout(1500)
await take('handover')

await page.goto(server.url)
await page.getByRole('button', { name: 'New piece' }).click()
await page.getByText('An empty stage').waitFor()
await page.waitForTimeout(400)
await take('new-piece')
await page.goto(server.url)
await page.locator('main img').first().waitFor()
await page.waitForTimeout(900)
await take('harbour')

await page.goto(`${server.url}/manual`)
await page.locator('#fn-accumulate').waitFor()
await page.evaluate(() => document.querySelector('#fn-accumulate')!.scrollIntoView())
await page.waitForTimeout(2500)
await take('manual')

await browser.close()
await stop(server)
clear(folder)
