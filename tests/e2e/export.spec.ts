/** What to export: pictures, films, numbers; read by others, and compared with the stage. */
import { execFileSync, spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { unzipSync } from 'fflate'
import { Builder } from '../../core/acts/build.ts'
import { setEye } from '../../core/acts/settings.ts'
import type { Piece } from '../../core/piece/schema.ts'
import { expect, goTo, keyOf, test, values } from './fair.ts'
import { across, apart, chip, dialog, give, given } from './exporting.ts'
import { letGo, openPiece, stagePicture } from './on-stage.ts'

function moving(deep: boolean): Piece {
  const b = new Builder('Given', 3)
  b.piece = { ...b.piece, lap: { length: { n: 1, d: 1 }, start: 0 } }
  if (deep) b.do(setEye(b.piece, 1200))
  const copies = { layout: 'row', count: 5, dx: 200, dy: 0 } as const
  const star = b.part(
    'Star',
    { type: 'star', points: 5 },
    { copies },
    { radius: 80, innerRadius: 40, thickness: 60, strokeWidth: 3 },
  )
  b.drive(star, 'rotation', 'time * 72deg/s')
  b.drive(star, 'y', 'sine(freq: 1/lap, amp: 90px, phase: index * 60deg)')
  b.drive(star, 'fillHue', 'index * 60deg + lapProgress * 1turn')
  if (deep) b.drive(star, 'rotationY', 'sine(freq: 1/lap, amp: 40deg)')
  return b.piece
}
const STAGE_WIDTH = 704

/** What another reader makes of a film: codec, width, height, frames. */
const probed = (file: string): string => {
  const entries = 'stream=codec_name,width,height,nb_read_frames'
  const asked = ['-v', 'error', '-count_frames', '-show_entries', entries, '-of', 'csv=p=0', file]
  return execFileSync('ffprobe', asked).toString().trim()
}
/** The least likeness of all frames of a film with the numbered pictures of a folder: dB of signal to noise. */
const likeness = (file: string, folder: string): number => {
  const filter = '[0:v]fps=30,format=gbrp[a];[1:v]format=gbrp[b];[a][b]psnr'
  const pictures = ['-framerate', '30', '-i', join(folder, 'frame-%05d.png')]
  const { stderr } = spawnSync('ffmpeg', ['-i', file, ...pictures, '-lavfi', filter, '-f', 'null', '-'])
  return Number(/min:([\d.]+|inf)/.exec(stderr.toString())?.[1]?.replace('inf', '99'))
}
const unpacked = (zip: Buffer, folder: string): void => {
  for (const [name, bytes] of Object.entries(unzipSync(zip))) writeFileSync(join(folder, name), bytes)
}

for (const deep of [false, true])
  test(`K1: a still is the stage to the pixel, ${deep ? 'in depth' : 'flat'}, and numbered pictures are too`, async ({
    page,
  }) => {
    await openPiece(page, moving(deep))
    await letGo(page)
    await goTo(page, '0.4')
    const stage = await stagePicture(page)
    await give(page)
    await dialog(page).getByRole('button', { name: 'Still' }).click()
    await across(page, STAGE_WIDTH)
    const still = await given(page)
    const found = await apart(page, stage, still)
    expect(found.width).toBe(STAGE_WIDTH)
    expect(found.most).toBe(0)
    await dialog(page).getByRole('button', { name: 'Film' }).click()
    await chip(page, 'As', 'PNGs')
    await across(page, STAGE_WIDTH)
    await expect(page.locator('[data-plan]')).toContainText('30 frames, 0 … 29, 1 s.')
    await expect(page.locator('[data-plan]')).toContainText('drives loop.')
    const files = unzipSync(await given(page))
    expect(Object.keys(files)).toHaveLength(30)
    // Frame 12 is the moment 0.4 s.
    expect(await apart(page, still, Buffer.from(files['frame-00012.png']!))).toMatchObject({ most: 0, count: 0 })
    expect((await apart(page, still, Buffer.from(files['frame-00000.png']!))).count).toBeGreaterThan(100)
    if (deep) return
    await chip(page, 'Background', 'transparent')
    const clear = Buffer.from(unzipSync(await given(page))['frame-00012.png']!)
    expect((await apart(page, still, clear)).clear).toBeGreaterThan(50_000)
  })

test('K1: films are read by another reader: frames, size, pictures as on the stage', async ({ page }) => {
  test.setTimeout(240_000)
  await openPiece(page, moving(false))
  await give(page)
  await across(page, 640)
  const folder = mkdtempSync(join(tmpdir(), 'open-tide-given-'))
  try {
    await chip(page, 'As', 'PNGs')
    unpacked(await given(page), folder)
    for (const [as, name, codec] of [
      ['WebM', 'a.webm', 'vp9'],
      ['MP4', 'a.mp4', 'h264'],
      ['GIF', 'a.gif', 'gif'],
    ] as const) {
      await chip(page, 'As', as)
      await across(page, 640)
      const file = join(folder, name)
      writeFileSync(file, await given(page))
      expect(probed(file)).toBe(`${codec},640,360,30`)
      // The least of all frames; a GIF keeps to 256 colours.
      expect(likeness(file, folder), as).toBeGreaterThan(as === 'GIF' ? 30 : 35)
    }
  } finally {
    rmSync(folder, { recursive: true })
  }
})

for (const deep of [false, true])
  test(`K1: without a graphics card behind the page films are made all the same, ${deep ? 'in depth' : 'flat'}`, async ({
    page,
  }) => {
    test.setTimeout(180_000)
    await openPiece(page, moving(deep))
    const folder = mkdtempSync(join(tmpdir(), 'open-tide-given-'))
    try {
      await give(page)
      await chip(page, 'As', 'PNGs')
      await across(page, 640)
      unpacked(await given(page), folder)
      // From here on the worker has no card.
      await page.route('**/export.worker-*.js', async route => {
        const answer = await fetch(route.request().url())
        const none =
          'OffscreenCanvas.prototype.getContext=(real=>function(kind,...rest){return kind==="webgl2"?null:real.call(this,kind,...rest)})(OffscreenCanvas.prototype.getContext);'
        const kept = ['content-type', 'cross-origin-embedder-policy', 'cross-origin-resource-policy']
        const headers = Object.fromEntries([...answer.headers].filter(([name]) => kept.includes(name)))
        await route.fulfill({ status: answer.status, headers, body: none + (await answer.text()) })
      })
      const drawings = page.evaluate(() => {
        const real = URL.createObjectURL
        return new Promise<string>(done => {
          URL.createObjectURL = (it: Blob) => {
            if (it.type.startsWith('image/svg')) done(it.type)
            return real(it)
          }
        })
      })
      await chip(page, 'As', 'WebM')
      await across(page, 640)
      const file = join(folder, 'drawn.webm')
      writeFileSync(file, await given(page))
      expect(await drawings).toBe('image/svg+xml')
      expect(probed(file)).toBe('vp9,640,360,30')
      expect(likeness(file, folder)).toBeGreaterThan(30)
    } finally {
      rmSync(folder, { recursive: true })
    }
  })

test('K2: numbers are the engine’s own; a blurred still differs from the sharp one; stopped, nothing is kept', async ({
  page,
}) => {
  await openPiece(page, moving(false))
  const key = await keyOf(page, 'Star y')
  await give(page)
  await dialog(page).getByRole('button', { name: 'Numbers' }).click()
  const csv = (await given(page)).toString()
  const [head, ...rows] = csv
    .trimEnd()
    .split('\r\n')
    .map(l => l.split(','))
  expect(rows).toHaveLength(30)
  const at = head!.indexOf('Star[3].y')
  for (const k of [0, 7, 29]) expect(Number(rows[k]![at])).toBe((await values(page, key, k / 30))[3])
  await chip(page, 'As', 'JSON')
  const json = JSON.parse((await given(page)).toString()) as { columns: string[]; rows: number[][] }
  expect(json.columns).toEqual(head)
  expect(json.rows.map(r => r.map(String))).toEqual(rows)
  // Eight moments of half a frame: what moves is smeared.
  await dialog(page).getByRole('button', { name: 'Still' }).click()
  await across(page, 640)
  const sharp = await given(page)
  await chip(page, 'Blur', '8 samples per frame')
  const blurred = await apart(page, sharp, await given(page))
  expect(blurred.count).toBeGreaterThan(200)
  expect(blurred.most).toBeLessThan(255)
  await dialog(page).getByRole('button', { name: 'Film' }).click()
  await chip(page, 'What', 'the stretch')
  await expect(dialog(page).getByRole('alert')).toContainText('No stretch is marked')
  await expect(dialog(page).getByRole('button', { name: 'Export', exact: true })).toBeDisabled()
  await dialog(page).getByLabel('Laps').fill('60')
  await dialog(page).getByLabel('Laps').press('Tab')
  await expect(page.locator('[data-plan]')).toContainText('1800 frames')
  await dialog(page).getByRole('button', { name: 'Export', exact: true }).click()
  await expect(dialog(page).getByRole('status')).toContainText(/frame [1-9]\d* of 1800/)
  await dialog(page).getByRole('button', { name: 'Cancel', exact: true }).click()
  await expect(dialog(page).getByRole('status')).toHaveCount(0)
  await expect(page.getByRole('link', { name: 'Download' })).toHaveCount(0)
  await expect.poll(() => keptOf(page)).toBe(0)
  // What is made lies on disk until another takes its place.
  for (const laps of ['1', '2']) {
    await dialog(page).getByLabel('Laps').fill(laps)
    await dialog(page).getByLabel('Laps').press('Tab')
    expect((await given(page)).subarray(0, 4).toString('hex')).toBe('1a45dfa3')
    await expect.poll(() => keptOf(page)).toBe(1)
  }
})

/** Files in the browser's private storage. */
const keptOf = (page: Page): Promise<number> =>
  page.evaluate(async () => {
    const all = await (await navigator.storage.getDirectory()).getDirectoryHandle('given-out', { create: true })
    let count = 0
    for await (const _ of all.keys()) count++
    return count
  })
