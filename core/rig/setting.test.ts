import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { keepAsPath } from '../acts/path-edits.ts'
import { placedLetters, setLetterSize, setWords } from '../acts/text-parts.ts'
import { setEye } from '../acts/settings.ts'
import { apply } from '../piece/operation.ts'
import { readPiece } from '../piece/migrate.ts'
import type { Shape } from '../piece/schema.ts'
import { Program } from '../engine/program.ts'
import { foamAt, steepness, wavesOf } from '../signal/waves.ts'
import { at, fair } from '../testing/fair.ts'
import { emitterOf } from './motion/emitter.ts'
import { layOutText, spotsOf } from './text/letters.ts'

const TEXT: Extract<Shape, { type: 'text' }> = {
  type: 'text',
  words: 'AVA',
  shows: 'letters',
  decimals: 0,
  prefix: '',
  suffix: '',
  align: 'middle',
}

describe('text as it is set', () => {
  it('letters that lean on one another stand closer than their widths say', () => {
    const wide = (t: string) => layOutText(t, 'left').right
    expect(wide('AV')).toBeLessThan(wide('A') + wide('V'))
    expect(wide('OO') - 2 * wide('O')).toBeGreaterThan(wide('AV') - wide('A') - wide('V'))
  })
  it('a word a line, so far apart as its leading says, each line aligned for itself', () => {
    const lines = { lines: 'words', leading: 150 } as const
    const spots = spotsOf('IO I', 'left', lines)
    expect(spots).toHaveLength(4)
    const [first, , , last] = spots
    expect(first!.y - last!.y).toBeCloseTo(1500, 6)
    expect(first!.x).toBeCloseTo(last!.x, 6)
    expect(first!.y + last!.y).toBeCloseTo(0, 6)
    const typed = spotsOf('IO\nI', 'right', {})
    expect(typed[0]!.y - typed[3]!.y).toBeCloseTo(1200, 6)
    const right = layOutText('IO\nI', 'right')
    expect(right.right).toBeCloseTo(0, 6)
    expect(right.rise + right.fall).toBeGreaterThan(1200)
  })
  it('nothing is set as nothing, at its place', () => {
    expect(layOutText('', 'middle')).toMatchObject({ areas: [], left: 0, right: 0 })
    expect(spotsOf('', 'middle', {})).toEqual([])
  })
  it('with a letter a copy each stands where it is set; other words are set anew, and what drives them stays', () => {
    const b = new Builder('Sign', 1)
    const id = b.part('Sign', TEXT, { copies: placedLetters(TEXT, 100, spotsOf) }, { size: 100 })
    b.drive(id, 'rotation', 'index * 10deg')
    const xs = () => {
      const { copies } = b.piece.parts[id]!
      return copies?.layout === 'placed' ? copies.points.map(p => p.x) : []
    }
    expect(xs()).toHaveLength(3)
    expect(xs()[0]! + xs()[2]!).toBeCloseTo(0, 1)
    b.do(setWords(b.piece, id, { words: 'AVIARY' }, spotsOf))
    expect(xs()).toHaveLength(6)
    expect(b.piece.drives[`${id}.rotation`]!.text).toBe('index * 10deg')
    b.do(setLetterSize(b.piece, id, 50))
    expect(b.piece.parts[id]!.copies).toMatchObject({ size: 50 })
    expect(b.piece.bases[`${id}.size`]!.value).toBe(50)
    b.do(setWords(b.piece, id, { words: '' }, spotsOf))
    expect(xs()).toEqual([0])
    b.do(setWords(b.piece, id, { shows: 'words' }, spotsOf))
    expect(b.piece.parts[id]!.copies).toBeNull()
    expect(readPiece(b.piece).problem).toBeNull()
  })
})

describe('foam', () => {
  const waves = wavesOf({ longest: 200, depth: 100, wind: 0, waves: 6, tile: 0, seed: 1 }, 8)
  it('lies on crests of steep water, the more the further down, and never on calm water', () => {
    const steep = steepness(waves) * 40
    expect(steep).toBeGreaterThan(0.3)
    expect(foamAt(0.9, 0.5, steep)).toBeGreaterThan(0.9)
    expect(foamAt(-0.5, 0.5, steep)).toBe(0)
    expect(foamAt(0.2, 0.9, steep)).toBeGreaterThan(foamAt(0.2, 0.6, steep))
    expect(foamAt(1, 1, steepness(waves))).toBe(0)
    expect(foamAt(1, 0, steep)).toBe(0)
  })
  it('is read at a place, beside the height', () => {
    const foam = (text: string) => fair(text, { on: 'Mount', property: 'scale' }).value(1.3, 2)
    const value = foam('Basin.foam(homeX)')
    expect(value).toBeGreaterThanOrEqual(0)
    expect(value).toBeLessThanOrEqual(1)
    expect(foam('Basin.foam(homeX) * 0 + 2')).toBe(2)
  })
})

describe('particles in space', () => {
  const born = (birth: 'point' | 'line' | 'ring' | 'area', distance: number | null, spread = 30) => {
    const b = new Builder('Petals', 1)
    b.do(setEye(b.piece, distance))
    const id = b.part(
      'Fan',
      { type: 'emitter', seed: 3, flight: 'fixed', reverses: false, birth },
      {},
      { births: 100, life: 2, speed: 0, spread, birthSize: 80 },
    )
    const still = emitterOf(new Program(b.piece), id, b.piece.parts[id]!, 0)(at(5))
    b.drive(id, 'speed', '100px/s')
    const flying = emitterOf(new Program(b.piece), id, b.piece.parts[id]!, 0)(at(5))
    return { still, flying }
  }
  const far = (points: Float64Array) =>
    Array.from({ length: points.length / 2 }, (_, k) => Math.hypot(points[2 * k]!, points[2 * k + 1]!))
  it('set off on a point, a line across their way, a ring or all over an area', () => {
    expect(Math.max(...far(born('point', null).still.points))).toBe(0)
    const line = born('line', null).still.points
    expect(Math.max(...line.filter((_, k) => k % 2 === 0).map(Math.abs))).toBe(0)
    expect(Math.max(...line.filter((_, k) => k % 2 === 1).map(Math.abs))).toBeGreaterThan(35)
    for (const r of far(born('ring', null).still.points)) expect(r).toBeCloseTo(40, 9)
    const area = far(born('area', null).still.points)
    expect(Math.max(...area)).toBeLessThanOrEqual(40)
    // Evenly: half of them lie within the inner half of the area.
    const inner = area.filter(r => r < 40 / Math.SQRT2).length / area.length
    expect(Math.abs(inner - 0.5)).toBeLessThan(0.1)
  })
  it('flat they stay on the stage; in depth they set off all round their way, as fast', () => {
    expect(Math.max(...born('point', null).flying.heights.map(Math.abs))).toBe(0)
    const { points, heights, ages } = born('point', 1000, 90).flying
    expect(Math.max(...heights)).toBeGreaterThan(40)
    expect(Math.min(...heights)).toBeLessThan(-40)
    for (let k = 0; k < heights.length; k++)
      expect(Math.hypot(points[2 * k]!, points[2 * k + 1]!, heights[k]!)).toBeCloseTo(200 * ages[k]!, 6)
  })
})

describe('a trace that is kept', () => {
  it('becomes a path of as few points as keep to it, where it lies, and looks the same', () => {
    const b = new Builder('Light', 1)
    const id = b.part(
      'Trail',
      { type: 'trace', of: null, x: 0, y: 0, every: 30 },
      {},
      { strokeWidth: 9, strokeHue: 40 },
    )
    const laid = Float64Array.from({ length: 2000 }, (_, i) => {
      const t = Math.floor(i / 2) / 100
      return i % 2 === 0 ? 100 + 10 * t * Math.cos(t) : 50 + 10 * t * Math.sin(t)
    })
    const made = keepAsPath(b.piece, id, laid)!
    const piece = apply(b.piece, made.op)
    expect(readPiece(piece).problem).toBeNull()
    const { shape } = piece.parts[made.id]!
    const points = shape.type === 'path' ? shape.poses[0]![0]! : []
    expect(points.length).toBeGreaterThan(30)
    expect(points.length).toBeLessThan(500)
    const value = (p: string) => piece.bases[`${made.id}.${p}`]?.value ?? 0
    expect(points[0]!.x + value('x')).toBeCloseTo(100, 1)
    expect(points[0]!.y + value('y')).toBeCloseTo(50, 1)
    expect([value('strokeWidth'), value('strokeHue')]).toEqual([9, 40])
    expect(keepAsPath(b.piece, id, new Float64Array(0))).toBeNull()
  })
})
