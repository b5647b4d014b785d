/** Used again: formats side by side, piece files, the harbour, patterns, tables. */
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { parse as parseCsv } from 'csv-parse/sync'
import { Builder } from '../../core/acts/build.ts'
import { packPiece } from '../../core/formats/piece-file/piece-file.ts'
import { addPictures } from '../../core/formats/pictures/adding.ts'
import { lantern } from './lantern.ts'
import { clear, dataFolder, start, stop } from './server.ts'
import { entry, expect, formula, freshFair, goTo, halt, saved, test, values, keyOf } from './fair.ts'
import { chip, dialog, give, given, kind } from './exporting.ts'
import { openPiece } from './on-stage.ts'
import { pick } from './pick.ts'

const validator = createRequire(import.meta.url)('gltf-validator') as {
  validateBytes(b: Uint8Array): Promise<{ issues: { numErrors: number; numWarnings: number } }>
}

test('K1, K2: a loop as WebM, GIF, moving SVG, CSV, glTF and sound in under two minutes; what was begun is offered again', async ({
  page,
}) => {
  test.setTimeout(240_000)
  const id = await openPiece(page, lantern().piece)
  const began = Date.now()
  await give(page)
  await dialog(page).getByRole('radio', { name: '0.5 times the stage' }).click()
  expect((await given(page)).subarray(0, 4).toString('hex')).toBe('1a45dfa3')
  await chip(page, 'As', 'GIF')
  expect((await given(page)).subarray(0, 6).toString()).toBe('GIF89a')
  await kind(page, /^Moving SVG/)
  expect((await given(page)).toString()).toMatch(/^<svg .*<animateTransform/s)
  await kind(page, /^Numbers/)
  const rows = parseCsv(await given(page), { columns: true }) as Record<string, string>[]
  expect(rows).toHaveLength(60)
  const want = await values(page, `${Object.keys(lantern().piece.parts)[0]}.y`, 0.5)
  expect(Number(rows[15]!['Bulb[2].y'])).toBe(want[2])
  expect(Date.now() - began).toBeLessThan(120_000)
  await kind(page, /^3D scene/)
  await expect(page.locator('[data-plan]')).toContainText('Bulb keeps its first colour.')
  const { issues } = await validator.validateBytes(await given(page))
  expect([issues.numErrors, issues.numWarnings]).toEqual([0, 0])
  await kind(page, /^Numbers/)
  await chip(page, 'As', 'WAV')
  await chip(page, 'What', 'from … to')
  await dialog(page).getByLabel('To, seconds').fill('1')
  await dialog(page).getByLabel('To, seconds').press('Tab')
  await expect(page.locator('[data-plan]')).toContainText('48000 samples')
  expect((await given(page)).length).toBeGreaterThan(3 * 48_000)

  // A long film, and the window is closed in the middle of it.
  await kind(page, /^Film/)
  await chip(page, 'As', 'PNGs')
  await dialog(page).getByLabel('Laps').fill('40')
  await dialog(page).getByLabel('Laps').press('Tab')
  await dialog(page).getByRole('button', { name: 'Export', exact: true }).click()
  await expect(dialog(page).getByText(/frame [1-9]\d* of 2400/)).toBeVisible()
  await page.reload()
  await expect(page.locator('[data-stage]')).toBeVisible()
  expect(page.url()).toContain(id)
  await give(page)
  const offered = dialog(page).getByText('PNGs was started here but not finished.')
  await expect(offered).toBeVisible()
  await dialog(page).getByRole('button', { name: 'Restart export' }).click()
  await expect(dialog(page).getByText(/frame [1-9]\d* of 2400/)).toBeVisible()
  await dialog(page).getByRole('button', { name: 'Cancel', exact: true }).click()
  await expect(page.getByRole('link', { name: 'Download' })).toHaveCount(0)
  await page.keyboard.press('Escape')
  await give(page)
  await expect(dialog(page).getByRole('button', { name: 'Film' }).first()).toBeVisible()
  await expect(offered).toHaveCount(0)
})

test('K2: a piece file is the same to the bit in a fresh installation; damaged ones are refused whole', async ({
  page,
}) => {
  test.setTimeout(120_000)
  const id = await freshFair(page)
  await halt(page)
  await give(page)
  await kind(page, /^Piece/)
  const file = await given(page)
  const mine = (await page.request.get(`/api/pieces/${id}`).then(r => r.json())) as { document: object }
  const folder = dataFolder()
  const fresh = await start(folder)
  try {
    // The piece that a new harbour begins with gives way to none: the title is free once it is gone.
    await page.goto(fresh.url)
    await expect(page.getByRole('link', { name: 'Open Lantern Pier', exact: true })).toBeVisible()
    const before = await page.getByRole('list', { name: 'Pieces' }).getByRole('listitem').count()
    await page.getByLabel('Import piece files').setInputFiles([
      { name: 'fair.tide', mimeType: 'application/zip', buffer: file },
      { name: 'cut.tide', mimeType: 'application/zip', buffer: file.subarray(0, 900) },
      { name: 'other.tide', mimeType: 'application/zip', buffer: Buffer.from('{"version":1,"title":"x"}') },
    ])
    await expect(page.getByRole('status')).toContainText('imported')
    await expect(page.getByRole('alert')).toContainText('cut.tide: Nothing was imported.')
    await expect(page.getByRole('alert')).toContainText('other.tide: Nothing was imported.')
    await expect(page.getByRole('list', { name: 'Pieces' }).getByRole('listitem')).toHaveCount(before + 1)
    const cards = (await page.request.get(`${fresh.url}/api/pieces`).then(r => r.json())) as {
      id: string
      title: string
    }[]
    const there = (await page.request.get(`${fresh.url}/api/pieces/${cards[0]!.id}`).then(r => r.json())) as {
      document: object
    }
    expect({ ...there.document, title: '' }).toEqual({ ...mine.document, title: '' })
  } finally {
    await stop(fresh)
    clear(folder)
  }
})

test('Harbour: cards move when pointed at; found, ordered, put in folders, several at once; deleted and brought back', async ({
  page,
}) => {
  for (const title of ['Buoy 2', 'Buoy 10', 'Gull'])
    expect(
      (await page.request.post('/api/pieces', { data: { document: { ...lantern().piece, title } } })).status(),
    ).toBe(201)
  await page.goto('/')
  const cards = page.getByRole('list', { name: 'Pieces' }).getByRole('listitem')
  await page.getByLabel('Find a piece').fill('buoy')
  await expect(cards).toHaveCount(2)
  await pick(page.getByLabel('Order'), 'title')
  await expect(cards.first()).toContainText('Buoy 2')
  await cards.first().hover()
  const moving = cards.first().locator('canvas[data-moving]')
  await expect(moving).toBeVisible()
  const first = await moving.screenshot()
  await expect.poll(async () => (await moving.screenshot()).equals(first)).toBe(false)
  await page.getByLabel('Choose Buoy 2').check()
  await page.getByLabel('Choose Buoy 10').check()
  const bar = page.getByRole('form', { name: 'Selected pieces' })
  await bar.getByLabel('Folder').fill('North pier')
  await bar.getByRole('button', { name: 'Move here' }).click()
  await page.getByLabel('Find a piece').fill('')
  await page.getByRole('radio', { name: 'North pier' }).click()
  await expect(cards).toHaveCount(2)
  await page.getByLabel('Choose Buoy 2').check()
  await page.getByLabel('Choose Buoy 10').check()
  await bar.getByRole('button', { name: 'Delete' }).click()
  await expect(page.getByRole('status').filter({ hasText: '2 pieces were deleted.' })).toBeVisible()
  await page.getByRole('button', { name: 'Recently deleted' }).click()
  const gone = page.getByRole('region', { name: 'Recently deleted' }).getByRole('listitem')
  await expect(gone.filter({ hasText: 'Buoy' })).toHaveCount(2)
  await gone.filter({ hasText: 'Buoy 10' }).getByRole('button', { name: 'Restore' }).click()
  await page.getByRole('button', { name: 'Pieces', exact: true }).click()
  await expect(page.getByRole('link', { name: 'Open Buoy 10', exact: true })).toBeVisible()
})

test('J2: a pattern is saved from the exit arrow and put on three other parts with longer spans, in one step', async ({
  page,
}) => {
  const b = new Builder('Exits', 4)
  const arrow = b.part(
    'Exit arrow',
    { type: 'line' },
    { span: { from: 1, to: 4 } },
    { width: 300, strokeWidth: 20, y: 200 },
  )
  b.drive(arrow, 'lineEnd', 'ramp(start: 1s, length: 1s, from: 0%, to: 100%)')
  b.drive(arrow, 'lineStart', 'ramp(start: 4s - 1s, length: 1s, from: 0%, to: 100%)')
  for (const [k, from] of [10, 20, 30].entries())
    b.part(`Line ${k + 1}`, { type: 'line' }, { span: { from, to: 60 } }, { width: 300, strokeWidth: 20, y: -60 * k })
  await openPiece(page, b.piece)
  await page.getByRole('region', { name: 'Desk' }).getByRole('button', { name: 'Exit arrow', exact: true }).click()
  await page.locator('body').press('p')
  await dialog(page).getByLabel('Name of the pattern').fill('In and out of sight')
  await dialog(page).getByRole('button', { name: 'Save', exact: true }).click()
  await expect(dialog(page).getByRole('status')).toContainText('is saved as a pattern')
  await dialog(page).getByRole('button', { name: 'Close' }).click()
  // The three are chosen on the stage, at a moment when all are there.
  await goTo(page, '35')
  const stage = (await page.locator('[data-stage]').boundingBox())!
  for (const [k, y] of [0, -60, -120].entries()) {
    if (k > 0) await page.keyboard.down('Shift')
    await page.mouse.click(stage.x + stage.width / 2, stage.y + ((360 - y) * stage.height) / 720)
    await page.keyboard.up('Shift')
  }
  await expect(page.getByText('3 parts', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Patterns…' }).click()
  await dialog(page).getByRole('button', { name: 'In and out of sight' }).click()
  await expect(dialog(page)).toContainText('On each of the 3 chosen parts')
  await dialog(page).getByRole('button', { name: 'Apply' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'In and out of sight is on' })).toBeVisible()
  await expect(formula(page, 'Line 2 lineEnd')).toHaveText('ramp(start: spanStart, length: 1s, from: 0%, to: 100%)')
  const key = await keyOf(page, 'Line 2 lineEnd')
  const start = await keyOf(page, 'Line 2 lineStart')
  expect((await values(page, key, 20.5))[0]).toBeCloseTo(0.5, 9)
  expect((await values(page, key, 57))[0]).toBeCloseTo(1, 9)
  expect((await values(page, start, 59.5))[0]).toBeCloseTo(0.5, 9)
  await page.locator('body').press('ControlOrMeta+z')
  await expect(page.getByRole('article', { name: 'Line 2 lineEnd' })).toHaveCount(0)
  // It lies in the Harbour, is renamed and taken away there.
  await saved(page)
  await page.goto('/')
  await page.getByRole('button', { name: 'Patterns', exact: true }).click()
  await page.getByRole('button', { name: 'Rename In and out of sight' }).click()
  await page.getByLabel('Name of the pattern').fill('In, stay, out')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Delete In, stay, out' }).click()
  await expect(page.getByRole('status')).toContainText('was deleted')
  await expect(page.getByRole('list', { name: 'All patterns' }).getByRole('listitem')).toHaveCount(12)
})

test('K2: a curve and a cue come in from tables; what is no table is told with its line', async ({ page }) => {
  await freshFair(page)
  await halt(page)
  const open = async () => {
    await page.getByRole('button', { name: 'New…' }).click()
    await page.getByRole('menuitem', { name: /^from…/ }).click()
  }
  await open()
  const file = (name: string, text: string) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(text) })
  await dialog(page).getByLabel('Table', { exact: true }).setInputFiles(file('mood.csv', 'mood\ncalm\n'))
  await expect(dialog(page).getByRole('alert')).toContainText('Line 2 of mood has "calm", which isn’t a number.')
  const rows = Array.from({ length: 90 }, (_, k) => `${k * 33.3},${Math.sin(k / 9) * 40}`)
  await dialog(page)
    .getByLabel('Table', { exact: true })
    .setInputFiles(file('swell.csv', `ms;rise\n${rows.join('\n').replaceAll(',', ';')}`))
  await expect(dialog(page)).toContainText('90 rows, 2 columns of numbers.')
  await expect(dialog(page).getByLabel('Unit of times')).toHaveAttribute('data-value', 'ms')
  await pick(dialog(page).getByLabel('Unit of values'), 'px')
  await dialog(page).getByLabel('Within').fill('0.5')
  await dialog(page).getByRole('button', { name: 'Import' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'of 90 points were kept' })).toBeVisible()
  await expect(await entry(page, 'swell')).toBeVisible()
  await open()
  await dialog(page).getByLabel('Table', { exact: true }).setInputFiles(file('beats.csv', '0.5\n1.25\n3\n'))
  await dialog(page).getByRole('button', { name: 'Import' }).click()
  await expect(page.getByRole('status').filter({ hasText: '3 marks' })).toBeVisible()
})

test('a server killed in the middle of a take-in has the piece with all its pictures, or nothing of it', async ({
  page,
}) => {
  test.setTimeout(120_000)
  const png = readFileSync('docs/screenshots/new-piece.png')
  const pictures = new Map<string, Uint8Array>()
  const b = new Builder('Layers', 1)
  for (let k = 0; k < 40; k++) {
    // What comes after the end of a picture is not looked at: each is another.
    const bytes = Buffer.concat([png, Buffer.from(`layer ${k}`)])
    const hash = createHash('sha256').update(bytes).digest('hex').slice(0, 32)
    pictures.set(hash, bytes)
    b.do(
      addPictures(b.piece, [
        { name: `layer ${k}`, hash, bytes: bytes.length, head: { type: 'image/png', width: 1280, height: 800 } },
      ]).op,
    )
  }
  const file = Buffer.from(packPiece({ piece: b.piece, pictures }))
  const folder = dataFolder()
  let [there, gone] = [0, 0]
  try {
    for (const after of [5, 30, 80, 150, 400]) {
      const server = await start(folder)
      const sent = fetch(`${server.url}/api/pieces/file`, { method: 'POST', body: new Uint8Array(file) }).then(
        r => r.status === 201,
        () => false,
      )
      await page.waitForTimeout(after)
      await stop(server, 'SIGKILL')
      const answered = await sent
      const again = await start(folder)
      const cards = (await (await fetch(`${again.url}/api/pieces`)).json()) as { id: string; title: string }[]
      const found = cards.filter(c => c.title.startsWith('Layers'))
      if (answered) expect(found.length).toBe(there + 1)
      gone += found.length === there ? 1 : 0
      there = found.length
      for (const { id } of found) {
        const { document } = (await (await fetch(`${again.url}/api/pieces/${id}`)).json()) as {
          document: { assets: object }
        }
        for (const hash of Object.keys(document.assets))
          expect((await fetch(`${again.url}/api/assets/${hash}`)).status).toBe(200)
      }
      await stop(again)
    }
    expect(there + gone).toBe(5)
  } finally {
    clear(folder)
  }
})
