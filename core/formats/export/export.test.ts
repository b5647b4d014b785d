import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Program } from '../../engine/program.ts'
import { emptyPiece, type Piece } from '../../piece/schema.ts'
import { at, fair } from '../../testing/fair.ts'
import { rational } from '../../time/rational.ts'
import { numbersText } from './numbers-text.ts'
import { frameDelay, exportedMoment, exportPlan, exportSettings, type ExportSettings } from './export-plan.ts'

const film = (given: Partial<ExportSettings> = {}): ExportSettings => ({
  ...exportSettings(emptyPiece('Given', 1), 'webm'),
  ...given,
})
const piece = (given: Partial<Piece> = {}): Piece => ({ ...emptyPiece('Given', 1), ...given })

describe('what will come out', () => {
  it('is frames 0 … N − 1 of whole laps, from where the lap begins', () => {
    const p = piece({ lap: { length: { n: 5, d: 2 }, start: 1 } })
    const plan = exportPlan(p, film({ laps: 2 }))
    expect(plan).toMatchObject({ frames: 150, width: 1280, height: 720, problem: null })
    expect(exportedMoment(p, plan, 0).seconds).toBe(1)
    expect(exportedMoment(p, plan, 149).seconds).toBeCloseTo(1 + 149 / 30, 12)
    // At 29.97 a lap of 8 s has a frame that begins in it and ends beyond.
    expect(exportPlan(piece({ frameRate: { n: 30000, d: 1001 } }), film()).frames).toBe(240)
  })
  it('is the marked stretch, or a sentence where none is marked', () => {
    expect(exportPlan(piece({ stretch: { from: 1, to: 2.5 } }), film({ laps: null }))).toMatchObject({ frames: 45 })
    expect(exportPlan(piece(), film({ laps: null })).problem).toContain('No stretch is marked')
    expect(exportPlan(piece(), film({ as: 'png', laps: null, at: 3 }))).toMatchObject({ frames: 1, problem: null })
  })
  it('films have even sides; what is too large or too long is said with a way out', () => {
    const p = piece({ stage: { ...piece().stage, width: 1000, height: 333 } })
    expect(exportPlan(p, film({ width: 333 }))).toMatchObject({ width: 334, height: 110 })
    expect(exportPlan(p, film({ as: 'png', width: 333 }))).toMatchObject({ width: 333, height: 111 })
    expect(exportPlan(piece(), film({ width: 9000 })).problem).toContain('8192')
    expect(exportPlan(piece(), film({ laps: 1000 })).problem).toContain('fewer laps')
    expect(exportPlan(piece(), film({ as: 'csv', laps: 200 })).problem).toContain('36000 fit in one file')
    expect(exportPlan(piece(), film({ as: 'zip', laps: 100 })).problem).toContain('smaller')
    // A film or GIF is written as it is made: ten minutes, an hour.
    for (const as of ['webm', 'mp4', 'gif'] as const)
      expect(exportPlan(piece(), film({ as, laps: 900 }))).toMatchObject({ frames: 216_000, problem: null })
  })
  it('moments of a blurred frame lie within the first half of its time, the first at its beginning', () => {
    const plan = exportPlan(piece(), film())
    const moments = [0, 1, 2, 3].map(n => exportedMoment(piece(), plan, 10, n, 4).seconds * 30)
    moments.forEach((m, n) => expect(m).toBeCloseTo(10 + n / 8, 9))
  })
  it('frames of a GIF last so long that it keeps its pace, at any rate', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 50 }), fc.integer({ min: 1, max: 400 }), (fps, frames) => {
        const plan = { ...exportPlan(piece({ frameRate: { n: fps, d: 1 } }), film()), frames }
        let sum = 0
        for (let k = 0; k < frames; k++) sum += frameDelay(plan, k)
        expect(Math.abs(sum - (100 * frames) / fps)).toBeLessThanOrEqual(1)
      }),
    )
  })
})

describe('numbers', () => {
  it('are the values of the engine, bit for bit, from a first frame on', () => {
    const { piece: p, value } = fair('sine(every: 3s, amp: 50deg) + noise(1Hz, 9deg)')
    const text = numbersText(new Program(p), 'csv', rational(1n), rational(30n), 7)
    const [head, ...rows] = text
      .trimEnd()
      .split('\r\n')
      .map(l => l.split(','))
    const column = head!.indexOf('Carousel.rotation')
    rows.forEach((row, k) => {
      const moment = at(1 + k / 30)
      expect(Number(row[1])).toBe(30 + k)
      expect(Number(row[column])).toBeCloseTo(value(moment.seconds) * 360, 9)
    })
    const json = JSON.parse(numbersText(new Program(p), 'json', rational(1n), rational(30n), 7)) as { rows: number[][] }
    expect(json.rows.map(r => r.map(String))).toEqual(rows)
  })
})
