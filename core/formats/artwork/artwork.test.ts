import { describe, expect, it } from 'vitest'
import { Builder } from '../../acts/build.ts'
import { Program } from '../../engine/program.ts'
import { apply, inverse } from '../../piece/operation.ts'
import { readPiece } from '../../piece/migrate.ts'
import type { Piece } from '../../piece/schema.ts'
import { applyX, applyY } from '../../piece/transform.ts'
import { outlineOf } from '../../rig/outline/outline.ts'
import { StageMesh } from '../../rig/stage-mesh/stage-mesh.ts'
import { Scene } from '../../rig/scene.ts'
import { noSizes, sizesOf } from '../../rig/sizing.ts'
import { covered, simulateVertexShader } from '../../rig/stage-mesh/simulated-shader.ts'
import { hashUnit } from '../../signal/hash.ts'
import { at } from '../../testing/fair.ts'
import { artworkOf, MOST_PARTS, type ArtworkImport } from './artwork.ts'

const empty = () => new Builder('Artwork', 1).piece
const svg = (inner: string, box = '0 0 200 100') =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${box}">${inner}</svg>`

function take(text: string, piece = empty()): { piece: Piece; taken: ArtworkImport } {
  const taken = artworkOf(piece, text, 'sign')
  if (!('op' in taken)) throw new Error(taken.says)
  const after = apply(piece, taken.op)
  expect(readPiece(after).problem).toBeNull()
  expect(apply(after, inverse(piece, taken.op))).toEqual(piece)
  return { piece: after, taken }
}
const says = (text: string): string => {
  const taken = artworkOf(empty(), text, 'sign')
  return 'says' in taken ? taken.says : ''
}
const scene = (piece: Piece) => {
  const program = new Program(piece)
  return new Scene(program).update(program.moment(at(0), new Float64Array(program.size)), at(0))
}
const area = (piece: Piece) => covered(simulateVertexShader(new StageMesh().build(scene(piece), 0.01), 0.01))
/** The corners of the one part of a name, on the stage. */
function corners(piece: Piece, name: string): [number, number][] {
  const [id] = Object.entries(piece.parts).find(([, p]) => p.name === name)!
  const body = scene(piece).bodies.get(id)!
  const { points } = outlineOf(body.part.shape, sizesOf(body, 0, noSizes()))!
  const m = body.worlds[0]!
  return Array.from({ length: points.length / 2 }, (_, k) => [
    Math.round(applyX(m, points[2 * k]!, points[2 * k + 1]!)),
    Math.round(applyY(m, points[2 * k]!, points[2 * k + 1]!)),
  ])
}
const hand = (piece: Piece, name: string, property: string) => {
  const [id] = Object.entries(piece.parts).find(([, p]) => p.name === name)!
  return piece.bases[`${id}.${property}`]?.value
}

describe('artwork', () => {
  it('stands in the middle of the stage, y upwards, and covers what the file does', () => {
    const { piece } = take(svg('<rect id="board" x="20" y="10" width="100" height="50"/>'))
    expect(corners(piece, 'board').sort()).toEqual(
      [
        [-80, -10],
        [-80, 40],
        [20, -10],
        [20, 40],
      ].sort(),
    )
    expect(area(piece)).toBeCloseTo(5000, -1)
    const shapes = [
      ['<circle cx="50" cy="50" r="40"/>', Math.PI * 1600],
      ['<ellipse cx="50" cy="50" rx="40" ry="10"/>', Math.PI * 400],
      ['<rect width="80" height="60" rx="10"/>', 4800 - (4 - Math.PI) * 100],
      ['<polygon points="0,0 60,0 60,60"/>', 1800],
      ['<polyline points="0,0 60,0 60,60"/>', 1800],
      ['<line x1="0" y1="0" x2="90" y2="0" stroke="red" stroke-width="4"/>', 360],
      ['<path d="M0 0h80v80h-80z M20 20h40v40h-40z" fill-rule="evenodd"/>', 4800],
      ['<path d="M0 0h20v20h-20z M40 0h20v20h-20z"/>', 800],
      ['<path d="M0 0Q40 80 80 0z"/>', (80 * 80) / 3],
      ['<g transform="translate(9 9) rotate(30) scale(2 0.5)"><rect width="40" height="40"/></g>', 1600],
      ['<g transform="skewX(40)"><rect width="40" height="40"/></g>', 1600],
      ['<defs><rect id="r" width="30" height="30"/></defs><use href="#r"/><use href="#r" x="50"/>', 1800],
    ] as const
    for (const [text, wanted] of shapes)
      expect([text, area(take(svg(text)).piece) / wanted]).toEqual([text, expect.closeTo(1, 1)])
  })
  it('keeps its groups by their ids, each turning about its middle', () => {
    const { piece, taken } = take(
      svg(`<g id="wheel_1"><circle id="rim" cx="60" cy="40" r="20"/><g><path id="spoke" d="M60 40h20v2h-20z"/></g></g>
        <rect id="post" x="58" y="60" width="4" height="40"/>`),
    )
    const names = Object.values(piece.parts).map(p => p.name)
    expect(names).toEqual(expect.arrayContaining(['rim', 'spoke', 'wheel 1', 'post', 'sign']))
    expect(taken.parts).toBe(5)
    const wheel = Object.entries(piece.parts).find(([, p]) => p.name === 'wheel 1')![0]
    const m = scene(piece).bodies.get(wheel)!.worlds[0]!
    expect([m[3], m[7]]).toEqual([60 - 100, 50 - 40])
    expect(Object.values(piece.parts).find(p => p.name === 'rim')!.parent).toBe(wheel)
    // A name that is taken gets a number.
    const twice = take(svg('<rect id="post" width="9" height="9"/>'), piece)
    expect(Object.values(twice.piece.parts).map(p => p.name)).toContain('post2')
  })
  it('lines end and bend as the file says', () => {
    const { piece } = take(
      svg(`<g stroke="red" stroke-linejoin="round"><path id="one" d="M0 0h9v9" stroke-linecap="square"/>
        <path id="two" d="M0 0h9v9" stroke-linejoin="bevel"/><path id="three" d="M0 0h9v9" stroke="none"/></g>
        <path id="four" d="M0 0h9v9" stroke="red" stroke-linejoin="miter-clip" stroke-linecap="butt"/>`),
    )
    const ends = (name: string) => {
      const { cap, join } = Object.values(piece.parts).find(p => p.name === name)!
      return [cap, join]
    }
    expect(ends('one')).toEqual(['square', 'round'])
    expect(ends('two')).toEqual([undefined, 'bevel'])
    expect(ends('three')).toEqual([undefined, undefined])
    expect(ends('four')).toEqual([undefined, undefined])
  })
  it('is painted as the file says: attributes, classes, style, what is inherited, gradients', () => {
    const { piece } = take(
      svg(`<style>.a { fill: #ff0000; stroke: blue } rect { opacity: 0.5 }</style>
        <linearGradient id="dusk" x1="0" y1="1" x2="0" y2="0"><stop stop-color="black"/><stop offset="1" stop-color="white"/></linearGradient>
        <g fill="lime" stroke-width="3"><path id="one" class="a" d="M0 0h9v9z"/><path id="two" d="M0 0h9v9z" style="fill:none;stroke:#000"/></g>
        <rect id="three" width="9" height="9" fill="url(#dusk)" fill-opacity="50%"/>`),
    )
    expect(hand(piece, 'one', 'fillHue')).toBeCloseTo(29.23, 1)
    expect([hand(piece, 'one', 'strokeWidth'), hand(piece, 'two', 'strokeWidth')]).toEqual([3, 3])
    expect(hand(piece, 'two', 'fillAlpha')).toBe(0)
    expect([
      hand(piece, 'three', 'opacity'),
      hand(piece, 'three', 'gradient'),
      hand(piece, 'three', 'gradientTurn'),
    ]).toEqual([50, 100, 90])
    expect([hand(piece, 'three', 'fillLightness'), hand(piece, 'three', 'gradientLightness')]).toEqual([0, 100])
    expect(hand(piece, 'three', 'fillAlpha')).toBe(50)
  })
  it('what is larger than the stage is made smaller, with its lines', () => {
    const { piece } = take(
      svg('<rect id="r" width="2560" height="1440" stroke="red" stroke-width="8"/>', '0 0 2560 1440'),
    )
    expect(hand(piece, 'r', 'strokeWidth')).toBe(4)
    expect(Math.max(...corners(piece, 'r').map(c => c[0]))).toBe(640)
  })
  it('lists what it cannot take, each once, and takes the rest', () => {
    const { taken } = take(
      svg(`<script>alert(1)</script><text>Hi</text><text>Ho</text><image href="http://127.0.0.1/x.png"/>
        <rect width="9" height="9" filter="url(#f)"/><use href="other.svg#a"/><animate/><blink/>`),
    )
    expect(taken.parts).toBe(1)
    expect(taken.left.join('; ')).toMatch(
      /scripts, which are never run; text .*; pictures; filter .*other files; animations; blink elements/,
    )
  })
  it('says in a sentence why a file is nothing', () => {
    expect(says('')).toMatch(/SVG is damaged|no svg element/)
    expect(says('<html/>')).toMatch(/no svg element/)
    expect(says('<svg><g></svg>')).toMatch(/SVG is damaged: .*line/)
    expect(says(svg(''))).toMatch(/nothing in this file/i)
    expect(says(svg('<text>Only words</text>'))).toMatch(/only text/)
    expect(says(svg('<path d="hello"/>'))).toMatch(/couldn’t be read/)
    expect(says(svg('<rect width="1" height="1"/>'.repeat(MOST_PARTS + 9)))).toMatch(/more than 400 parts/)
    expect(says(`${'<svg>'.repeat(200)}${'</svg>'.repeat(200)}`)).toMatch(/deep|isn’t an SVG/)
  })
  it('entities unfold to nothing, uses within uses end, endless numbers are refused', () => {
    const bomb = `<!DOCTYPE svg [<!ENTITY a "lol"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]>${svg('<g id="&b;"><rect width="9" height="9"/></g>')}`
    expect(take(bomb).taken.parts).toBeLessThan(3)
    const round = svg('<g id="a"><rect width="9" height="9"/><use href="#b"/></g><g id="b"><use href="#a"/></g>')
    expect(take(round).taken.left.join()).toMatch(/refer to themselves/)
    expect(says(svg('<path d="M0 0L1e30 0L1e30 1e30z"/>'))).toMatch(/couldn’t be read/)
    expect(says(svg(`<path d="M0 0${'l1 1'.repeat(5)}1e999 2z"/>`))).not.toBe('')
  })
})

describe('200 made-up hostile files', () => {
  const PIECES = [
    ...[
      '<svg>',
      '</svg>',
      '<g>',
      '</g>',
      '<g transform="',
      '"/>',
      '"',
      '>',
      '<path d="',
      'M0 0',
      'L9 9',
      'C1 2 3 4 5 6',
      'z',
    ],
    ...[
      'A5 5 0 0 1 9 9',
      '1e999',
      '-',
      'NaN',
      '<rect width="9" height="9"/>',
      '<use href="#a"/>',
      'id="a"',
      '<script>x</script>',
    ],
    ...[
      'fill="url(#a)"',
      'matrix(1 2 3 4 5 6)',
      'rotate(1e9)',
      'viewBox="0 0 0 0"',
      '<style>.a{fill:red',
      '}</style>',
      '\u0000',
    ],
    ...[
      '<![CDATA[',
      ']]>',
      '<!--',
      '-->',
      '&amp;',
      '&#0;',
      'constructor',
      '__proto__="1"',
      '<circle r="5" cx="',
      'style="fill:',
    ],
  ]
  /** Sound to an XML parser, and odd. */
  const ODD = [
    '<g transform="rotate(1e9) foo(2)"><rect width="9" height="9"/></g>',
    '<rect width="1e308" height="1e308"/>',
    '<rect width="-5" height="nothing"/>',
    '<circle r="0"/><ellipse rx="1e-12" ry="4"/>',
    '<path d="M0 0A0 0 0 0 1 9 9A5 5 720 1 1 -9 9z"/>',
    '<path d="M5 5"/><path d="M5 5z"/><path d="M0 0L0 0L0 0z"/>',
    '<path d="M0 0L9 9L9 0L0 9z" fill="url(#nothing)" stroke="url(#a)"/>',
    '<polygon points="1 2 3"/><polyline points=",,,"/>',
    '<g id="a"><use href="#a"/></g>',
    '<use href="javascript:alert(1)"/><script>alert(1)</script>',
    '<g id="__proto__" class="constructor toString"><rect width="9" height="9" style="fill:expression(1);opacity:-4"/></g>',
    '<rect id="&lt;script&gt;" width="9" height="9" fill="rgb(999,-1,none)"/>',
    '<svg viewBox="0 0 -1 NaN"><rect width="9" height="9"/></svg>',
    '<rect width="9" height="9" transform="matrix(0 0 0 0 0 0)"/>',
    '<rect width="9" height="9" stroke="red" stroke-width="1e9"/>',
    '<rect width="9" height="9" fill-opacity="250%" opacity="."/>',
  ]
  it('become parts that are sound, or a sentence; never a script, never a crash', () => {
    let [parts, refused] = [0, 0]
    for (let seed = 0; seed < 200; seed++) {
      const pick = (k: number, n: number) => Math.floor(hashUnit(k, seed) * n)
      const inner = Array.from({ length: 4 + pick(0, 40) }, (_, k) => PIECES[pick(k + 1, PIECES.length)]!).join(' ')
      const odd = Array.from({ length: 1 + pick(0, 9) }, (_, k) => ODD[pick(k + 50, ODD.length)]!).join('')
      const text = seed % 2 === 0 ? svg(odd) : seed % 3 === 0 ? inner : svg(inner.replaceAll(/<\/?svg>/g, ''))
      const taken = artworkOf(empty(), text, 'made up')
      if ('op' in taken) {
        parts++
        const after = apply(empty(), taken.op)
        expect([seed, readPiece(after).problem]).toEqual([seed, null])
        expect(JSON.stringify(after)).not.toMatch(/alert|http|<|javascript/)
        expect(Number.isFinite(area(after))).toBe(true)
      } else {
        refused++
        expect(taken.says.length).toBeLessThan(200)
      }
    }
    expect([parts > 5, refused > 5]).toEqual([true, true])
  })
})
