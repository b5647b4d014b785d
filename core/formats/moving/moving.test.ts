import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Builder } from '../../acts/build.ts'
import { Program } from '../../engine/program.ts'
import { Scene } from '../../rig/scene.ts'
import { momentOfSeconds } from '../../time/moment.ts'
import { fromNumber, rational } from '../../time/rational.ts'
import { affineOf, poseOf, type FlatMatrix } from './posed.ts'
import { keyframesPage, movingSvg } from './printing.ts'
import { motionOf, type Moving } from './sampling.ts'
import { straight, thinTrack, type Track } from './thin-track.ts'

describe('a pose', () => {
  const number = fc.double({ min: -3, max: 3, noNaN: true })
  it('says the same map again, whatever it is', () => {
    fc.assert(
      fc.property(
        fc.tuple(number, number, number, number, number, number),
        fc.double({ min: -4, max: 4, noNaN: true }),
        (m, before) => {
          // What is flattened to a line has more than one slant.
          fc.pre(Math.abs(m[0] * m[3] - m[1] * m[2]) > 1e-3 && Math.hypot(m[0], m[1]) > 1e-2)
          const back = affineOf(poseOf(m as FlatMatrix, before))
          back.forEach((v, k) => expect(v).toBeCloseTo(m[k]!, 9))
          expect(Math.abs(poseOf(m as FlatMatrix, before)[2] - before)).toBeLessThanOrEqual(0.25 + 1e-9)
        },
      ),
    )
  })
  it('goes on turning past a whole turn, and through a stretch of nothing without a leap', () => {
    let turns = 0
    for (let k = 0; k <= 40; k++) {
      const a = (2 * Math.PI * k) / 16
      turns = poseOf([Math.cos(a), Math.sin(a), -Math.sin(a), Math.cos(a), 0, 0], turns)[2]
    }
    expect(turns).toBeCloseTo(2.5, 9)
    // A card that is turned over: its width goes through 0 and below.
    const widths = [1, 0.5, 0, -0.5, -1].map(w => poseOf([w, 0, 0, 1, 0, 0], 0))
    expect(widths.map(p => p[2])).toEqual([0, 0, 0, 0, 0])
    expect(widths.map(p => p[3])).toEqual([1, 0.5, 0, -0.5, -1])
  })
})

describe('thinning', () => {
  it('keeps nothing of what stands still, two moments of what grows steadily, and no more than is asked', () => {
    const at = Array.from({ length: 101 }, (_, k) => k / 100)
    expect(thinTrack({ at, rows: at.map(() => [4]) }, [0.1]).rows).toEqual([[4]])
    expect(thinTrack({ at, rows: at.map(t => [3 * t]) }, [0.1]).at).toEqual([0, 1])
    const wave = thinTrack({ at, rows: at.map(t => [10 * Math.sin(2 * Math.PI * t)]) }, [0.05])
    expect(wave.at.length).toBeLessThan(40)
    for (const t of at)
      expect(Math.abs(between(wave, t)[0]! - 10 * Math.sin(2 * Math.PI * t))).toBeLessThanOrEqual(0.05)
  })
  it('tells a row that is off by its worst value', () => {
    expect(straight([0, 0], [2, 10], [1, 6], 0.5, [1, 0.5])).toBe(2)
  })
})

/** What a track says at a share of the whole. */
function between({ at, rows }: Track, t: number): readonly number[] {
  if (rows.length === 1) return rows[0]!
  let k = 0
  while (k < at.length - 2 && at[k + 1]! <= t) k++
  const share = (t - at[k]!) / (at[k + 1]! - at[k]!)
  return rows[k]!.map((v, c) => v + (rows[k + 1]![c]! - v) * share)
}

/** A piece with what is hard: a leap, a card turned over, a slanted thing, noise, a fast turn, a size, two colours. */
function hard() {
  const b = new Builder('Hard', 5)
  b.piece = { ...b.piece, lap: { length: { n: 2, d: 1 }, start: 0 } }
  const deck = b.part('Deck', { type: 'rectangle' }, {}, { width: 300, height: 200, strokeWidth: 4 })
  b.drive(deck, 'rotation', 'time * 720deg/s')
  b.drive(deck, 'scaleX', 'sine(every: 2s, amp: 100%)')
  const mast = b.part(
    'Mast',
    { type: 'polygon', sides: 3 },
    { parent: deck, copies: { layout: 'row', count: 3, dx: 40, dy: 0 } },
    { radius: 30 },
  )
  b.drive(mast, 'rotation', 'square(every: 0.37s, amp: 40deg)')
  b.drive(mast, 'y', 'noise(freq: 3Hz, amp: 60px)')
  const bulb = b.part('Bulb', { type: 'ellipse' }, {}, { width: 80, height: 30, strokeWidth: 3 })
  b.drive(bulb, 'width', '80px + sine(every: 1s, amp: 40px)')
  b.drive(bulb, 'fillHue', 'time * 1turn/s')
  b.drive(bulb, 'opacity', 'square(every: 1s, low: 0%, high: 100%)')
  return b.piece
}
const LAP = { from: rational(0), span: rational(2), frames: 60 }

describe('a lap as motion', () => {
  const piece = hard()
  const all = motionOf(piece, LAP.from, LAP.span, LAP.frames)
  const program = new Program(piece)
  const scene = new Scene(program)
  const values = new Float64Array(program.size)
  const show = (seconds: number) =>
    program.queue.settle(() => {
      const moment = momentOfSeconds(fromNumber(seconds), program.measures.frameRate)
      scene.update(program.moment(moment, values), moment)
    })
  const poseAt = (m: Moving, t: number): FlatMatrix =>
    affineOf([m.move, m.turn, m.stretch, m.slant].flatMap(track => between(track, t)) as never)

  it('shows each fill and line where the stage has it, at 500 moments: ≤ 0.25 px', () => {
    let worst = 0
    let far = 0
    for (let n = 0; n < 500; n++) {
      const t = ((n * 7919) % 500) / 500 + 0.00037
      show(2 * t)
      for (const m of all) {
        if (m.unit.mode !== 'posed') continue
        const [a, b, c, d, e, f] = poseAt(m, t)
        const w = scene.bodies.get(m.unit.body.id)!.worlds[m.unit.i]!
        const { points } = m.unit.rings[0]!
        const [sx, sy] = m.unit.body.part.name === 'Bulb' ? [values.length > 0 ? widthNow() / 80 : 1, 1] : [1, 1]
        for (let k = 0; k < points.length; k += 8) {
          const [x, y] = [points[k]!, points[k + 1]!]
          const [px, py] = [a * x + c * -y + e, b * x + d * -y + f]
          const [qx, qy] = [w[0]! * x * sx + w[1]! * y * sy + w[3]!, -(w[4]! * x * sx + w[5]! * y * sy + w[7]!)]
          const off = Math.hypot(px - qx, py - qy)
          if (off > 0.25) far++
          worst = Math.max(worst, off)
        }
      }
    }
    expect(far, `the furthest ${worst}`).toBe(0)
    function widthNow(): number {
      const body = [...scene.bodies.values()].find(x => x.part.name === 'Bulb')!
      return body.get('width', 0)
    }
  })

  it('carries the line of what is stretched to one side by its points, and steady turning by two moments', () => {
    const line = all.find(m => m.unit.body.part.name === 'Deck' && m.unit.what === 'line')!
    expect(line.unit.mode).toBe('formed')
    const fill = all.find(m => m.unit.body.part.name === 'Deck' && m.unit.what === 'fill')!
    expect(fill.turn.rows.map(([t]) => t)).toEqual([0, -4])
    expect(fill.turn.at).toEqual([0, 1])
  })

  it('tells a leap within a four-thousandth of a frame', () => {
    const bulb = all.find(m => m.unit.body.part.name === 'Bulb' && m.unit.what === 'fill')!
    const k = bulb.solid.rows.findIndex(([s], n) => n > 0 && s !== bulb.solid.rows[n - 1]![0])
    expect(bulb.solid.at[k]! - bulb.solid.at[k - 1]!).toBeLessThanOrEqual(1 / 60 / 4096 + 1e-12)
    expect(2 * bulb.solid.at[k]!).toBeCloseTo(0.5, 4)
  })
})

describe('drawings', () => {
  const lap = { ...LAP, piece: hard(), seeThrough: false, pictures: new Map<string, string>() }
  it('are one lap for ever, without script or outside address, whatever the title holds', () => {
    const piece = { ...lap.piece, title: '</title><script>alert(1)</script>' }
    for (const text of [movingSvg({ ...lap, piece }), keyframesPage({ ...lap, piece })]) {
      expect(text).not.toContain('<script')
      expect(text.replaceAll('http://www.w3.org/2000/svg', '')).not.toContain('http')
      expect(text).toMatch(/infinite|indefinite/)
    }
  })
  it('have no ground when it is to be seen through', () => {
    const open = movingSvg({ ...lap, seeThrough: true })
    expect(open).not.toContain('<rect')
    expect(movingSvg(lap)).toContain('<rect')
  })
  it('refuse a piece in depth with a way out', () => {
    const piece = { ...lap.piece, camera: { distance: 900, lines: 'screen' as const } }
    expect(() => movingSvg({ ...lap, piece })).toThrow(/film/)
  })
  it('leave a gradient that is fixed to the stage where it is, whatever moves over it', () => {
    const made = (gradientFrame: 'part' | 'stage') => {
      const b = new Builder('Over a gradient', 1)
      b.piece = { ...b.piece, lap: { length: { n: 2, d: 1 }, start: 0 } }
      const card = b.part('Card', { type: 'rectangle' }, { gradientFrame }, { width: 100, height: 60, gradient: 100 })
      b.drive(card, 'x', 'sine(every: 2s, amp: 300px)')
      b.drive(card, 'rotation', 'time * 180deg/s')
      const svg = movingSvg({ ...lap, piece: b.piece })
      const [unit] = motionOf(b.piece, rational(0), rational(2), 60).filter(m => m.unit.what === 'fill')
      const ends = /x1="([^"]+)" y1="([^"]+)" x2="([^"]+)" y2="([^"]+)"/.exec(svg)!.slice(1).map(Number)
      return { ends, mode: unit!.unit.mode, high: b.piece.stage.height }
    }
    const { ends, mode, high } = made('stage')
    expect(mode).toBe('formed')
    expect(ends).toEqual([0, high / 2, 0, -high / 2])
    expect(made('part')).toMatchObject({ mode: 'posed', ends: [0, 30, 0, -30] })
  })
  it('draw what never changes its form once, and what changes it frame by frame', () => {
    const b = new Builder('Counter', 1)
    const text = b.part(
      'Count',
      { type: 'text', words: '', shows: 'number', decimals: 0, prefix: '', suffix: '', align: 'middle' } as never,
      {},
      { size: 60 },
    )
    b.drive(text, 'value', 'floor(time / 1s)')
    const all = motionOf(b.piece, rational(0), rational(4), 120)
    expect(all.map(m => m.unit.mode)).toEqual(['stepped'])
    expect(all[0]!.forms).toHaveLength(120)
  })
})
