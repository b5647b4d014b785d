import { describe, expect, it } from 'vitest'
import { stillSvg } from '../../formats/svg.ts'
import { Builder } from '../../acts/build.ts'
import type { Part, Shape } from '../../piece/schema.ts'
import { Program } from '../../engine/program.ts'
import { at } from '../../testing/fair.ts'
import { rational } from '../../time/rational.ts'
import { hit } from '../hit.ts'
import { numberText, layOutText, shown } from './letters.ts'
import { StageMesh } from '../stage-mesh/stage-mesh.ts'
import { covered, simulateVertexShader } from '../stage-mesh/simulated-shader.ts'
import { Scene } from '../scene.ts'

type Text = Extract<Shape, { type: 'text' }>
const text = (given: Partial<Text> = {}): Text => ({
  type: 'text',
  words: 'PIER',
  shows: 'words',
  decimals: 0,
  prefix: '',
  suffix: '',
  align: 'middle',
  ...given,
})
function stage(shape: Text, hand: Readonly<Record<string, number>> = {}, given: Partial<Part> = {}, value?: string) {
  const b = new Builder('Letters', 1)
  const id = b.part('Sign', shape, given, { size: 100, ...hand })
  if (value) b.drive(id, 'value', value)
  const program = new Program(b.piece)
  const scene = (s = 0) => new Scene(program).update(program.moment(at(s), new Float64Array(program.size)), at(s))
  return { b, id, scene }
}
/** The area of a picture, px². */
const area = (scene: Scene, pixel = 1) => covered(simulateVertexShader(new StageMesh().build(scene, pixel), pixel))
const ringArea = (points: Float64Array) => {
  let sum = 0
  for (let i = 0, j = points.length - 2; i < points.length; j = i, i += 2)
    sum += points[j]! * points[i + 1]! - points[i]! * points[j + 1]!
  return Math.abs(sum) / 2
}

describe('letters', () => {
  it('every letter is filled by its triangles, but for its holes', () => {
    for (const letter of 'ABDOPQRagé%&8@') {
      for (const a of layOutText(letter, 'left').areas) {
        const points = [a.outline, ...a.holes].flatMap(p => [...p])
        let filled = 0
        for (let k = 0; k < a.triangles.length; k += 3) {
          const [x, y, z] = [0, 1, 2].map(i => 2 * a.triangles[k + i]!)
          filled += ringArea(Float64Array.from([x!, y!, z!].flatMap(i => [points[i]!, points[i + 1]!])))
        }
        const wanted = ringArea(a.outline) - a.holes.reduce((n, h) => n + ringArea(h), 0)
        expect(filled / wanted, letter).toBeCloseTo(1, 6)
      }
    }
  })
  it('stand from the left, in the middle or from the right', () => {
    const wide = layOutText('PIER', 'left').right
    expect(wide).toBeGreaterThan(1500)
    expect([layOutText('PIER', 'middle').left, layOutText('PIER', 'right').left]).toEqual([-wide / 2, -wide])
    expect(layOutText('PIER', 'left')).toBe(layOutText('PIER', 'left'))
    expect(layOutText('P\u{1F3A0}IER', 'left').right).toBe(wide)
  })
  it('what is shown: words, a number, a letter a copy', () => {
    const price = text({ shows: 'number', decimals: 2, prefix: '× ', suffix: ' laps' })
    expect(shown(price, 12.345, 0)).toBe('× 12.35 laps')
    expect(shown(text(), 7, 3)).toBe('PIER')
    expect([0, 3, 4].map(k => shown(text({ shows: 'letters' }), 0, k))).toEqual(['P', 'R', ''])
    expect([numberText(-0.004, 2), numberText(-3.5, 1), numberText(NaN, 0), numberText(1e21, 1)]).toEqual([
      '0.00',
      '−3.5',
      '–',
      '1.0e+21',
    ])
  })
})

describe('a text part', () => {
  it('is drawn as large as its size has it, and where it is hit', () => {
    const drawn = (size: number) => area(stage(text(), { size }).scene(), 0.01)
    expect(drawn(200) / drawn(100)).toBeCloseTo(4, 1)
    const scene = stage(text()).scene()
    expect(hit(scene, 0, 0, 1)?.instance).toBe(0)
    expect(hit(scene, 0, 90, 1)).toBeNull()
  })
  it('counts up with what drives it', () => {
    const { scene } = stage(text({ shows: 'number' }), {}, {}, 'time / 1s * 11')
    expect(area(scene(0))).toBe(area(stage(text({ words: '0' })).scene()))
    expect(area(scene(8))).toBe(area(stage(text({ words: '88' })).scene()))
  })
  it('shows its thickness only when it is turned', () => {
    const drawn = (rotationY: number, thickness: number) => area(stage(text(), { rotationY, thickness }).scene())
    expect(drawn(0, 40)).toBe(drawn(0, 0))
    expect(drawn(30, 40)).toBeGreaterThan(3 * drawn(30, 0))
  })
  it('is one path in a still picture', () => {
    const svg = stillSvg(stage(text()).b.piece, rational(0))
    expect(svg.match(/<path/g)).toHaveLength(1)
    expect(svg).toContain('fill-rule="evenodd"')
  })
})
