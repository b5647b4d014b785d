/** Motion that leaves Open Tide, read by the browser alone: drawings and running pages move as the engine says. */
import { mkdtempSync, rmSync, writeFileSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { Program } from '../../core/engine/program.ts'
import { affineOf, type FlatPose } from '../../core/formats/moving/posed.ts'
import { keyframesPage, movingSvg } from '../../core/formats/moving/printing.ts'
import { motionOf } from '../../core/formats/moving/sampling.ts'
import { rowOf } from '../../core/formats/moving/drawn-units.ts'
import { Scene } from '../../core/rig/scene.ts'
import { momentOfSeconds } from '../../core/time/moment.ts'
import { fromNumber, rational } from '../../core/time/rational.ts'
import { lanternPier } from '../../demo/lantern-pier.ts'
import { expect, freshFair, halt, test } from './fair.ts'
import { dialog, give, given } from './exporting.ts'

const LAP = {
  from: rational(0),
  // As far as the moments go: sampling the whole lap of the fair three times takes two minutes.
  span: rational(5, 2),
  frames: 75,
  seeThrough: false,
  pictures: new Map<string, string>(),
}
const MOMENTS = Array.from({ length: 160 }, (_, k) => Number((((k * 1979) % 2000) / 1000 + 0.000213).toFixed(6)))

test('K2: moving SVG and CSS keyframes of the fair stand where the engine has them, at 160 moments', async ({
  page,
}) => {
  test.setTimeout(300_000)
  const piece = lanternPier()
  const moving = motionOf(piece, LAP.from, LAP.span, LAP.frames)
  const posed = moving.map((m, k) => ({ m, k })).filter(({ m }) => m.unit.mode === 'posed' && m.unit.what !== 'picture')
  expect(posed.length).toBeGreaterThan(300)
  // The engine's word on each, at each moment.
  const program = new Program(piece)
  const values = new Float64Array(program.size)
  const here = new Scene(program)
  const wanted = MOMENTS.map(t =>
    program.queue.settle(() => {
      const moment = momentOfSeconds(fromNumber(t), program.measures.frameRate)
      here.update(program.moment(moment, values), moment)
      return posed.map(({ m: { unit } }) => {
        const now = { ...unit, body: here.bodies.get(unit.body.id)! }
        return affineOf(rowOf(now, null).where as unknown as FlatPose)
      })
    }),
  )
  const folder = mkdtempSync(join(tmpdir(), 'open-tide-motion-'))
  try {
    writeFileSync(join(folder, 'lap.svg'), movingSvg({ ...LAP, piece }))
    writeFileSync(join(folder, 'lap.html'), keyframesPage({ ...LAP, piece }))
    for (const file of ['lap.svg', 'lap.html']) {
      await page.goto(`file://${folder}/${file}`)
      const found = await page.evaluate(
        ({ ids, moments, css }) => {
          const svg = document.querySelector('svg') ?? (document.documentElement as unknown as SVGSVGElement)
          if (!css) svg.pauseAnimations()
          const animations = document.getAnimations()
          animations.forEach(a => a.pause())
          return moments.map(t => {
            if (css) animations.forEach(a => (a.currentTime = t * 1000))
            else svg.setCurrentTime(t)
            const back = svg.getScreenCTM()!.inverse()
            return ids.map(id => {
              const m = back.multiply((document.getElementById(id) as unknown as SVGGraphicsElement).getScreenCTM()!)
              return [m.a, m.b, m.c, m.d, m.e, m.f]
            })
          })
        },
        { ids: posed.map(({ k }) => `m${k}`), moments: MOMENTS, css: file.endsWith('html') },
      )
      let [worst, turned] = [0, 0]
      found.forEach((all, t) =>
        all.forEach((m, k) => {
          const want = wanted[t]![k]!
          const { rings } = posed[k]!.m.unit
          for (const { points } of rings.slice(0, 1))
            for (let n = 0; n < points.length; n += 6) {
              const [x, y] = [points[n]!, -points[n + 1]!]
              const at = (a: readonly number[]) =>
                [a[0]! * x + a[2]! * y + a[4]!, a[1]! * x + a[3]! * y + a[5]!] as const
              const [[px, py], [qx, qy]] = [at(m), at(want)]
              worst = Math.max(worst, Math.hypot(px - qx, py - qy))
            }
          const size = Math.hypot(want[0], want[1])
          if (size < 1e-3 || Math.hypot(m[0]!, m[1]!) < 1e-3) return
          const turn = Math.abs(Math.atan2(m[1]!, m[0]!) - Math.atan2(want[1], want[0])) * (180 / Math.PI)
          turned = Math.max(turned, Math.min(turn, Math.abs(360 - turn), Math.abs(180 - turn)))
        }),
      )
      console.log(`${file}: ${posed.length} elements, at most ${worst.toFixed(4)} px and ${turned.toFixed(4)}° off`)
      expect(worst).toBeLessThanOrEqual(0.25)
      expect(turned).toBeLessThanOrEqual(0.1)
    }
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
})

test('K2: the page that runs: from any folder, with no server and a strict policy, exact after a year', async ({
  page,
  context,
}) => {
  test.setTimeout(200_000)
  await freshFair(page)
  await halt(page)
  await give(page)
  await dialog(page)
    .getByRole('button', { name: /^Live page/ })
    .click()
  await dialog(page).getByRole('checkbox', { name: 'wind' }).uncheck()
  const html = await given(page)
  const runner = readFileSync('.output/public/runner-bundle.txt')
  expect(gzipSync(runner, { level: 9 }).length).toBeLessThanOrEqual(250_000)
  const folder = mkdtempSync(join(tmpdir(), 'open-tide page '))
  try {
    const file = join(folder, 'fair on a pier.html')
    writeFileSync(file, html)
    const alone = await context.newPage()
    const refused: string[] = []
    alone.on('console', m => {
      if (/Content Security Policy|Refused/.test(m.text())) refused.push(m.text())
    })
    await alone.goto(`file://${encodeURI(file)}`)
    await expect(alone.getByRole('button', { name: 'Pause', exact: true })).toBeVisible()
    await expect(alone.getByRole('slider')).toHaveCount(2)
    await alone.getByRole('slider', { name: 'fairPace' }).fill('50')
    await alone.getByRole('button', { name: 'Pause', exact: true }).click()
    await expect(alone.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
    expect(refused).toEqual([])

    // The module on a page of somebody's own, with its own strict policy.
    await dialog(page)
      .getByRole('radiogroup', { name: 'As', exact: true })
      .getByRole('radio', { name: 'script module' })
      .click()
    const code = await given(page)
    const own = await context.newPage()
    const policy = "default-src 'none'; script-src 'self'; style-src 'none'"
    await own.route('http://127.0.0.1:9/**', route => {
      const { pathname } = new URL(route.request().url())
      if (pathname === '/fair.js') return route.fulfill({ contentType: 'text/javascript', body: code })
      if (pathname === '/own.js')
        return route.fulfill({
          contentType: 'text/javascript',
          body: `import { mount } from './fair.js'\nwindow.it = mount(document.querySelector('main'), { controls: false, playing: false })`,
        })
      return route.fulfill({
        contentType: 'text/html',
        headers: { 'content-security-policy': policy },
        body: '<!doctype html><title>own</title><main></main><script type="module" src="/own.js"></script>',
      })
    })
    await own.goto('http://127.0.0.1:9/')
    await own.waitForFunction(() => 'it' in window)
    const piece = lanternPier()
    const program = new Program(piece)
    const YEAR = 365 * 86400 + 6 * 3600 + 12.4
    for (const [name, property, label] of [
      ['Carousel', 'rotation', 'Carousel.rotation'],
      ['Mount', 'y', 'Mount.y'],
      ['Canopy', 'rotation', 'Canopy.rotation'],
    ] as const) {
      const part = Object.entries(piece.parts).find(([, p]) => p.name === name)![0]
      const at = momentOfSeconds(fromNumber(YEAR), program.measures.frameRate)
      const want = program.slots.get(`${part}.${property}`)!.readers.map(r => program.queue.settle(() => r.at(at)))
      const found = await own.evaluate(
        ([l, t]) => (window as unknown as { it: { values(l: string, t: number): number[] } }).it.values(l, t),
        [label, YEAR] as const,
      )
      expect(found).toEqual(want)
    }
    const said = await own.evaluate(() => {
      const { it } = window as unknown as {
        it: {
          dial(n: string, v?: number): number
          seek(s: number): void
          seconds: number
          playing: boolean
          play(on?: boolean): void
          dials: string[]
          remove(): void
        }
      }
      it.play()
      const playing = it.playing
      it.play(false)
      it.seek(12.4)
      const all = [it.dial('fairPace', 9999), it.dial('fairPace', -5), it.dial('fairPace', NaN), it.dial('wind')]
      let wrong = ''
      try {
        it.dial('nothing')
      } catch (e) {
        wrong = (e as Error).message
      }
      return { playing, all, wrong, dials: it.dials }
    })
    expect(said).toEqual({
      playing: true,
      all: [200, 0, 0, 35],
      wrong: 'There’s no dial called nothing.',
      dials: ['fairPace', 'wind', 'dusk'],
    })
    await own.emulateMedia({ reducedMotion: 'reduce' })
    await own.reload()
    const still = await context.newPage()
    await still.emulateMedia({ reducedMotion: 'reduce' })
    await still.goto(`file://${encodeURI(file)}`)
    await expect(still.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
})
