import { describe, expect, it } from 'vitest'
import { filledAreas } from './areas.ts'
import { elementPathData, joinFlat, ringsOfPathData, SAME, transformOf, type Flat, type PathRing } from './path-data.ts'
import { colourOf, PLAIN_STYLE, rulesOf, shareOf, styleOf } from './style.ts'
import { treeOf, type SvgElement } from './svg-tree.ts'

const near = (a: Flat | null, b: readonly number[]) => b.forEach((v, i) => expect(a![i]).toBeCloseTo(v, 9))
const element = (text: string): SvgElement => treeOf(`<svg>${text}</svg>`).children[0]!

describe('transforms of SVG', () => {
  const c = Math.cos(Math.PI / 6)
  it.each([
    ['', [1, 0, 0, 1, 0, 0]],
    ['translate(3, -4)', [1, 0, 0, 1, 3, -4]],
    ['translate(3)', [1, 0, 0, 1, 3, 0]],
    ['scale(2)', [2, 0, 0, 2, 0, 0]],
    ['scale(2 -3)', [2, 0, 0, -3, 0, 0]],
    ['rotate(30)', [c, 0.5, -0.5, c, 0, 0]],
    ['rotate(90, 10, 0)', [0, 1, -1, 0, 10, -10]],
    ['skewX(45)', [1, 0, 1, 1, 0, 0]],
    ['skewY(45)', [1, 1, 0, 1, 0, 0]],
    ['matrix(1 2 3 4 5 6)', [1, 2, 3, 4, 5, 6]],
    // The first that is written is the outermost.
    ['translate(10 0) scale(2)', [2, 0, 0, 2, 10, 0]],
    ['scale(2) translate(10 0)', [2, 0, 0, 2, 20, 0]],
  ] as const)('%s', (text, wanted) => near(transformOf(text), wanted))
  it('within one another are as one after the other', () => {
    const [a, b] = [transformOf('rotate(30) scale(2 1)')!, transformOf('translate(5 6)')!]
    near(joinFlat(a, b), transformOf('rotate(30) scale(2 1) translate(5 6)')!)
    near(joinFlat(SAME, a), a)
  })
})

describe('outlines', () => {
  const rings = (d: string, fine = 0.1) => ringsOfPathData(d, SAME, fine)!
  it('relative and short commands are what they stand for', () => {
    expect(rings('M10 10h20v20H10z')).toEqual(rings('M10 10L30 10L30 30L10 30Z'))
    expect(rings('m10 10 20 0 0 20z')).toEqual(rings('M10 10L30 10L30 30z'))
    expect(rings('M0 0C0 10 10 10 10 0S20 -10 20 0')).toEqual(rings('M0 0C0 10 10 10 10 0C10 -10 20 -10 20 0'))
    expect(rings('M0 0Q5 10 10 0T20 0')).toEqual(rings('M0 0Q5 10 10 0Q15 -10 20 0'))
  })
  it('a curve is laid as near as is asked, and never with a great many points', () => {
    const d = 'M0 0C0 200 300 200 300 0'
    const at = (t: number) => {
      const u = 1 - t
      return [3 * u * t * t * 300 + t * t * t * 300, 3 * u * u * t * 200 + 3 * u * t * t * 200] as const
    }
    for (const fine of [0.2, 1, 5]) {
      const { points } = rings(d, fine)[0]!
      for (let k = 0; k <= 200; k++) {
        const [x, y] = at(k / 200)
        const far = points.slice(1).map(([bx, by], i) => {
          const [ax, ay] = points[i]!
          const [dx, dy] = [bx - ax, by - ay]
          const share = Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy)))
          return Math.hypot(ax + dx * share - x, ay + dy * share - y)
        })
        expect(Math.min(...far)).toBeLessThan(fine * 1.25)
      }
      expect(points.length).toBeLessThan(60)
    }
  })
  it('a line of a great many points keeps its shape with few, also when each lies hardly off the one before', () => {
    const d = `M${Array.from({ length: 19_000 }, (_, k) => {
      const a = (k / 19_000) * 2 * Math.PI
      return `${100 * Math.cos(a)} ${100 * Math.sin(a)}`
    }).join('L')}z`
    const { points } = rings(d, 0.2)[0]!
    expect(points.length).toBeLessThan(200)
    points.forEach(([x, y], k) => {
      const [nx, ny] = points[(k + 1) % points.length]!
      expect(Math.hypot((x + nx) / 2, (y + ny) / 2)).toBeGreaterThan(99.9)
    })
    const wild = `M${Array.from({ length: 9000 }, (_, k) => `${k % 97} ${(k * 61) % 89}`).join('L')}`
    expect(rings(wild, 0.2)[0]!.points.length).toBeLessThanOrEqual(500)
  })
  it('an arc stays on its circle', () => {
    const { points } = rings(elementPathData(element('<circle cx="5" cy="-3" r="40"/>'))!)[0]!
    for (const [x, y] of points) expect(Math.hypot(x - 5, y + 3)).toBeCloseTo(40, 1)
    expect(points.length).toBeGreaterThan(12)
  })
  it('points on one another and on a straight line are left out; what is a point alone is none', () => {
    expect(rings('M0 0L5 0L10 0L10 0L10 10z')[0]!.points).toEqual([
      [0, 0],
      [10, 0],
      [10, 10],
    ])
    expect(rings('M5 5')).toEqual([])
    expect(rings('M5 5L5 5L5 5z')).toEqual([])
    // A line that turns back keeps its far end.
    expect(rings('M0 0L10 0L2 0')[0]!.points).toHaveLength(3)
  })
  it('after it is closed a path goes on from where it began', () => {
    const [, second] = rings('M10 10h5v5z l-5 -5 -5 5')
    expect(second!.points[0]).toEqual([10, 10])
  })
  it('what cannot be read is none', () => {
    expect(ringsOfPathData('M0 0 L', SAME, 1)).toBeNull()
    expect(ringsOfPathData('potato', SAME, 1)).toBeNull()
    expect(ringsOfPathData('M0 0L1e9 1', SAME, 1)).toBeNull()
    expect(ringsOfPathData(`M0 0${'l1 1l1 -1'.repeat(20_000)}`, SAME, 1)).toBeNull()
  })
})

describe('areas and their holes', () => {
  const square = (size: number, x = 0, closed = true): PathRing => ({
    points: [
      [x - size, -size],
      [x + size, -size],
      [x + size, size],
      [x - size, size],
    ],
    closed,
  })
  const turned = (r: PathRing): PathRing => ({ ...r, points: [...r.points].reverse() })
  const filled = (rings: readonly PathRing[], rule: 'nonzero' | 'evenodd' = 'nonzero', lined = false) =>
    filledAreas(rings, true, lined, rule)
  /** What is filled, px²: areas less their holes. */
  const covered = (areas: readonly { rings: readonly PathRing['points'][] }[]) => {
    const size = (p: PathRing['points']) =>
      Math.abs(p.reduce((n, [x, y], k) => n + x * p[(k + 1) % p.length]![1] - p[(k + 1) % p.length]![0] * y, 0)) / 2
    return areas.reduce(
      (n, { rings: [outer, ...holes] }) => n + size(outer!) - holes.reduce((m, h) => m + size(h), 0),
      0,
    )
  }
  it('every other one: a ring in a ring is a hole, one in a hole an area again, one beside is its own', () => {
    const [a, b, c, d] = [square(10), square(6), square(2), square(3, 40)]
    const { areas, whole } = filled([c, a, d, b], 'evenodd', true)
    expect(areas.map(x => x.rings.length)).toEqual([1, 2, 1])
    expect(areas.find(x => x.rings[0] === a.points)!.rings[1]).toBe(b.points)
    expect(areas.find(x => x.rings[0] === c.points)!.rings).toHaveLength(1)
    expect(whole).toBe(true)
  })
  it('wound: a ring in a ring is a hole only where it runs the other way', () => {
    const [a, b] = [square(10), square(6)]
    expect(covered(filled([a, turned(b)]).areas)).toBe(400 - 144)
    const { areas, lines, whole } = filled([a, b], 'nonzero', true)
    expect([covered(areas), whole, lines.length]).toEqual([400, false, 2])
    expect(covered(filled([a, b], 'evenodd').areas)).toBe(400 - 144)
  })
  it('what crosses is cut: two squares are one, or leave out what both have; a bow is two wings', () => {
    const [a, b] = [square(10), square(10, 10)]
    expect(covered(filled([a, b]).areas)).toBeCloseTo(600, 1)
    expect(covered(filled([a, turned(b)]).areas)).toBeCloseTo(400, 1)
    expect(covered(filled([a, b], 'evenodd').areas)).toBeCloseTo(400, 1)
    const bow: PathRing = {
      points: [
        [0, 0],
        [10, 10],
        [10, 0],
        [0, 10],
      ],
      closed: true,
    }
    const { areas, lines, whole } = filled([bow], 'nonzero', true)
    expect([areas.length, whole]).toEqual([2, false])
    expect(covered(areas)).toBeCloseTo(50, 1)
    // Its line runs as it was drawn.
    expect(lines).toEqual([{ rings: [bow.points], closed: true }])
  })
  it('a star of five crossing lines is whole when wound, has a hole when every other one counts', () => {
    const points = [0, 2, 4, 1, 3].map((k): [number, number] => {
      const a = (2 * Math.PI * k) / 5
      return [100 * Math.cos(a), 100 * Math.sin(a)]
    })
    const star: PathRing = { points, closed: true }
    const [wound, other] = [filled([star]).areas, filled([star], 'evenodd').areas]
    expect(covered(wound) - covered(other)).toBeCloseTo(2.5 * 38.1966 * 38.1966 * Math.sin((2 * Math.PI) / 5), 0)
  })
  it('what runs over itself without end is filled as its points say, and that is told', () => {
    const far = (k: number) => (k * 7919) % 1000
    const wild: PathRing = { points: Array.from({ length: 400 }, (_, k) => [far(k), far(3 * k + 1)]), closed: true }
    const { areas, wild: told } = filled([wild])
    expect([areas.length, told]).toEqual([1, true])
  })
  it('left open it is an area where it is filled, else a line', () => {
    const open = square(5, 0, false)
    expect(filled([open])).toMatchObject({ areas: [{ rings: [open.points], closed: true }], lines: [], whole: true })
    // Its line is not closed by that.
    expect(filled([open], 'nonzero', true)).toMatchObject({
      whole: false,
      lines: [{ rings: [open.points], closed: false }],
    })
    expect(filledAreas([open], false, true, 'nonzero')).toMatchObject({
      areas: [],
      lines: [{ rings: [open.points], closed: false }],
    })
  })
})

describe('how it is painted', () => {
  it('colours in OKLCH, as CSS Color 4 has them', () => {
    expect(colourOf('#ff0000', undefined)).toEqual({ lightness: 62.8, chroma: 0.2577, hue: 29.23, alpha: 1 })
    expect(colourOf('white', undefined)).toMatchObject({ lightness: 100, chroma: 0 })
    expect(colourOf('rgb(0 0 255 / 50%)', undefined)).toMatchObject({ lightness: 45.2, alpha: 0.5 })
    expect(colourOf('currentColor', 'lime')).toEqual(colourOf('lime', undefined))
    for (const none of ['none', 'transparent', '', 'url(#a)', 'expression(1)', undefined])
      expect(colourOf(none, undefined)).toBeNull()
  })
  it('shares as numbers or per cent, held to what a share is', () => {
    expect(['0.5', '50%', '2', '-1', '.', undefined].map(t => shareOf(t, 1))).toEqual([0.5, 0.5, 1, 0, 1, 1])
  })
  it('a style counts more than a rule, a rule more than an attribute, all more than what is around', () => {
    const rules = rulesOf('/* note */ path { fill: green } .a, .b { stroke: red; } g > .c { fill: blue } .d{fill:pink')
    const of = (text: string, around = PLAIN_STYLE) => styleOf(element(text), around, rules)
    expect(of('<rect fill="red"/>').values.fill).toBe('red')
    expect(of('<path fill="red"/>').values.fill).toBe('green')
    expect(of('<path fill="red" style="fill: blue !important"/>').values.fill).toBe('blue')
    expect(of('<rect class="x b"/>').values.stroke).toBe('red')
    // What is written in ways that are not known is left out.
    expect(rules.has('.c')).toBe(false)
    const around = of('<g fill="tan" opacity="0.5" stroke-width="9"/>')
    expect(of('<rect fill="inherit"/>', around).values).toMatchObject({ fill: 'tan', 'stroke-width': '9' })
    expect(of('<rect opacity="0.5"/>', around).opacity).toBe(0.25)
    expect(of('<rect style="display:none"/>').opacity).toBe(0)
  })
})
