import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { setEye } from '../acts/settings.ts'
import { Program } from '../engine/program.ts'
import { stillSvg } from '../formats/svg.ts'
import { at } from '../testing/fair.ts'
import { rational } from '../time/rational.ts'
import { StageMesh } from './stage-mesh/stage-mesh.ts'
import { Scene } from './scene.ts'
import { covered, simulateVertexShader } from './stage-mesh/simulated-shader.ts'
import { ageOf, PIECES, runsOf } from './tail.ts'

describe('the pieces of a line by age', () => {
  const line = (points: number[], ages: number[]) => ({
    outline: { points: new Float64Array(points), closed: false },
    ages: new Float64Array(ages),
  })
  it('meet where one ends, at the place of that age', () => {
    const { outline, ages } = line([0, 0, 100, 0], [1, 0])
    const runs = runsOf(outline, ages, 4)
    expect(runs.map(r => r.nth)).toEqual([0, 1, 2, 3])
    expect(runs.map(r => r.spots.map(([x]) => x))).toEqual([
      [0, 25],
      [25, 50],
      [50, 75],
      [75, 100],
    ])
  })
  it('keep every point, and skip no piece where points lie far apart in time', () => {
    const { outline, ages } = line([0, 0, 10, 0, 10, 10, 0, 10, 50, 50], [1, 0.95, 0.9, 0.2, 0])
    const runs = runsOf(outline, ages, 8)
    expect(runs.map(r => r.nth)).toEqual([0, 1, 2, 3, 4, 5, 6, 7])
    const all = runs.flatMap(r => r.spots).map(([x, y]) => `${x} ${y}`)
    for (const p of ['0 0', '10 0', '10 10', '0 10', '50 50']) expect(all).toContain(p)
    for (let k = 1; k < runs.length; k++) expect(runs[k]!.spots[0]).toEqual(runs[k - 1]!.spots.at(-1))
  })
  it('of a part of the trail are those of its ages; of one point there are none', () => {
    const { outline, ages } = line([0, 0, 8, 0], [0.5, 0.25])
    expect(runsOf(outline, ages, 4).map(r => r.nth)).toEqual([2])
    expect(runsOf({ points: new Float64Array([1, 1]), closed: false }, new Float64Array([1]))).toEqual([])
  })
})

describe('the line of a trace', () => {
  const made = (hand: Record<string, number>, drives: Record<string, string> = {}, deep = false, y = '0px') => {
    const b = new Builder('Light', 1)
    const light = b.part('Light', { type: 'ellipse' }, { hidden: true })
    b.drive(light, 'x', 'time * 100px/s')
    b.drive(light, 'y', y)
    const shape = { type: 'trace', of: light, x: 0, y: 0, every: 30 } as const
    const id = b.part('Trail', shape, {}, { trail: 4, strokeWidth: 20, strokeAlpha: 100, ...hand })
    for (const [name, text] of Object.entries(drives)) b.drive(id, name, text)
    if (deep) b.do(setEye(b.piece, 1e6))
    const program = new Program(b.piece)
    const scene = new Scene(program).update(program.moment(at(6), new Float64Array(program.size)), at(6))
    return { piece: b.piece, mesh: new StageMesh().build(scene, 1) }
  }
  /** How wide the line is, and how solid, at a place across. */
  const across = (hand: Record<string, number>, x: number) => {
    const { positions, colours } = simulateVertexShader(made(hand).mesh, 1)
    let [wide, solid] = [0, 0]
    for (let c = 0; c < positions.length / 2; c++) {
      if (!(Math.abs(positions[2 * c]! - x) < 3) || !(colours[4 * c + 3]! > 0)) continue
      wide = Math.max(wide, 2 * Math.abs(positions[2 * c + 1]!))
      solid = colours[4 * c + 3]!
    }
    return [wide, solid] as const
  }
  it('grows narrower and fainter towards its old end', () => {
    // From 200 px to 600 px; its fringe is half a pixel on either side.
    const hand = { tailWidth: 0, tailFade: 100 }
    for (const [x, share] of [
      [595, 0.9875],
      [500, 0.75],
      [400, 0.5],
      [300, 0.25],
    ] as const) {
      const [wide, solid] = across(hand, x)
      expect(wide).toBeGreaterThan(20 * share - 1.5)
      expect(wide).toBeLessThan(20 * share + 0.1)
      expect(solid).toBeCloseTo(share, 1)
    }
    expect(across({ tailWidth: 200 }, 204)[0]).toBeGreaterThan(38)
  })
  it('thinner than a pixel it fades instead', () => {
    const [wide, solid] = across({ tailWidth: 0 }, 204)
    expect(wide).toBeLessThan(1.1)
    expect(solid).toBeLessThan(0.35)
  })
  it('that does not change covers what it covers in one piece, also round bends and in depth', () => {
    for (const deep of [false, true]) {
      const of = (drives: Record<string, string>) =>
        covered(simulateVertexShader(made({}, drives, deep, 'sine(every: 2s, amp: 60px)').mesh, 1))
      const [whole, pieces] = [of({}), of({ tailWidth: '100%' })]
      expect(whole).toBeGreaterThan(4000)
      expect(Math.abs(pieces / whole - 1)).toBeLessThan(1e-3)
    }
  })
  it('takes a row a piece, each with its hue, and none that is not seen', () => {
    const { mesh } = made({ tailHue: 180 })
    expect(mesh.rows.count).toBe(PIECES + 1)
    const colours = new Set(
      Array.from({ length: PIECES }, (_, k) => [...mesh.rows.data.slice((k + 1) * 24 + 12, (k + 1) * 24 + 15)].join()),
    )
    expect(colours.size).toBeGreaterThan(PIECES * 0.9)
    expect(ageOf(0)).toBeGreaterThan(ageOf(PIECES - 1))
  })
  it('is drawn only from a share of it to another, and in dashes, with the same ages', () => {
    const cut = { tailWidth: 0, lineStart: 50 }
    expect(across(cut, 300)[0]).toBe(0)
    expect(across(cut, 500)[0]).toBeGreaterThan(13.5)
    const dashes = covered(simulateVertexShader(made({ tailWidth: 0, dash: 20, dashGap: 20 }).mesh, 1))
    const whole = covered(simulateVertexShader(made({ tailWidth: 0 }).mesh, 1))
    expect(dashes / whole).toBeGreaterThan(0.45)
    expect(dashes / whole).toBeLessThan(0.55)
  })
  it('is in pieces in a picture too', () => {
    const { piece } = made({ tailWidth: 0, tailHue: 90 })
    const widths = [...stillSvg(piece, rational(6)).matchAll(/stroke-width="([\d.]+)"/g)].map(m => Number(m[1]))
    expect(widths.length).toBe(40)
    expect(Math.min(...widths)).toBeLessThan(0.5)
    expect(Math.max(...widths)).toBeGreaterThan(19)
    expect([...widths].sort((a, b) => a - b)).toEqual(widths)
  })
})
