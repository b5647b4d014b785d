/** Live values to a device, tried on the board that ships and on somebody else's ear. */
import { createSocket } from 'node:dgram'
import * as others from 'osc-min'
import { expect, halt, test, values } from './fair.ts'
import { dialog, give, kind } from './exporting.ts'
import { lantern } from './lantern.ts'
import { openPiece } from './on-stage.ts'

const osc = others as unknown as {
  fromBuffer(b: Buffer): { elements: { address: string; args: { value: number }[] }[] }
  toBuffer(m: object): { buffer: ArrayBuffer; byteOffset: number; byteLength: number }
}
test('K3: the lamps of the board follow the lantern string, by the window and by the server alone; a dial is turned from outside', async ({
  page,
  context,
}) => {
  test.setTimeout(120_000)
  await openPiece(page, lantern().piece)
  const board = await context.newPage()
  await board.goto('/board')
  await expect(board.getByText(/It listens on port \d{4}/)).toBeVisible()
  await give(page)
  await kind(page, /^Device/)
  await dialog(page).getByRole('button', { name: 'A drive', exact: true }).click()
  await expect(dialog(page).getByLabel('Drive 1', { exact: true })).toHaveAttribute('data-value', /\.opacity$/)
  await expect(dialog(page).getByLabel('Address 1')).toHaveValue('/lamp/#')
  const ear = createSocket('udp4')
  const heard: { address: string; value: number }[] = []
  ear.on('message', bytes =>
    osc.fromBuffer(bytes).elements.forEach(m => heard.push({ address: m.address, value: m.args[0]!.value })),
  )
  await new Promise<void>(done => ear.bind(0, '127.0.0.1', done))
  const inward = createSocket('udp4')
  await new Promise<void>(done => inward.bind(0, '127.0.0.1', done))
  const listen = inward.address().port
  inward.close()
  try {
    await dialog(page).getByLabel('Incoming port').fill(String(listen))
    await dialog(page).getByLabel('Incoming port').press('Tab')
    await dialog(page).getByRole('button', { name: 'Send while playing here' }).click()
    await expect(dialog(page).getByRole('status')).toContainText('Sending 30 times a second')
    // Standing still each lamp shows the value that stands on the stage.
    const lamps = () =>
      board
        .locator('[data-lamp]')
        .evaluateAll(all => all.map(l => Number(/(\d+) %/.exec(l.getAttribute('aria-label')!)![1])))
    const now = await page.evaluate(() => window.openTide.now())
    const want = (await values(page, `${Object.keys(lantern().piece.parts)[0]}.opacity`, now)).map(v =>
      Math.round(v * 100),
    )
    await expect.poll(lamps).toEqual(want)
    // A dial turned from outside.
    const bytes = osc.toBuffer({ address: '/dial/glow', args: [{ type: 'float', value: 0.25 }] })
    await expect
      .poll(async () => {
        const out = createSocket('udp4')
        await new Promise(done =>
          out.send(new Uint8Array(bytes.buffer, bytes.byteOffset, bytes.byteLength), listen, '127.0.0.1', done),
        )
        out.close()
        return page.getByLabel('glow, value', { exact: true }).inputValue()
      })
      .toBe('0.25')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Play', exact: true }).click()
    const before = await lamps()
    await expect.poll(lamps).not.toEqual(before)
    await halt(page)

    // Somebody else's ear, and the server alone.
    await give(page)
    await kind(page, /^Device/)
    await dialog(page).getByRole('button', { name: 'Stop sending' }).click()
    await dialog(page).getByLabel('Port', { exact: true }).fill(String(ear.address().port))
    await dialog(page).getByLabel('Host').fill('192.0.2.1')
    await dialog(page).getByRole('button', { name: 'Send from the server' }).click()
    await expect(dialog(page).getByRole('alert')).toContainText('OPEN_TIDE_DEVICES=192.0.2.1')
    await dialog(page).getByLabel('Host').fill('127.0.0.1')
    await dialog(page).getByRole('button', { name: 'Send from the server' }).click()
    await expect(dialog(page).getByRole('status')).toContainText('The server is sending the saved piece')
    await page.goto('about:blank')
    heard.length = 0
    await expect.poll(() => heard.length).toBeGreaterThan(80)
    expect(new Set(heard.map(h => h.address)).size).toBe(8)
    expect(heard.every(h => h.value >= 0 && h.value <= 1)).toBe(true)
    expect(new Set(heard.filter(h => h.address === '/lamp/3').map(h => h.value)).size).toBeGreaterThan(5)
  } finally {
    ear.close()
  }
})

test('K3: a signal goes out under its name, in the unit it is shown in', async ({ page }) => {
  const b = lantern()
  b.signal('tide turn', '45deg')
  await openPiece(page, b.piece)
  const ear = createSocket('udp4')
  const heard: { address: string; value: number }[] = []
  ear.on('message', bytes =>
    osc.fromBuffer(bytes).elements.forEach(m => heard.push({ address: m.address, value: m.args[0]!.value })),
  )
  await new Promise<void>(done => ear.bind(0, '127.0.0.1', done))
  try {
    await give(page)
    await kind(page, /^Device/)
    await dialog(page).getByRole('button', { name: 'A drive', exact: true }).click()
    const drive = dialog(page).getByLabel('Drive 1', { exact: true })
    await drive.click()
    const choices = page.getByRole('option')
    await expect(choices.filter({ hasText: 'undefined' })).toHaveCount(0)
    await choices.filter({ hasText: 'tide turn' }).click()
    await expect(drive).toHaveAttribute('data-value', /^~/)
    for (const [label, value] of [
      ['from', '0'],
      ['to', '90'],
    ] as const) {
      const field = dialog(page).getByLabel(`Drive 1, ${label}`, { exact: true })
      await field.fill(value)
      await field.press('Tab')
      await expect(field).toHaveValue(new RegExp(`^${value}`))
    }
    await dialog(page).getByLabel('Address 1').fill('/tide')
    await dialog(page).getByLabel('Port', { exact: true }).fill(String(ear.address().port))
    await dialog(page).getByRole('button', { name: 'Send while playing here' }).click()
    await expect.poll(() => heard.find(h => h.address === '/tide')?.value).toBeCloseTo(0.5, 5)
  } finally {
    ear.close()
  }
})
