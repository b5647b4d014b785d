/**
 * What a frame costs before it reaches the graphics card: the values of all formulas, where everything stands, the table
 * of the picture and what of it is sent. `npm run bench:picture`, in Node; each piece in one run with a loop by hand that
 * fills as long a table, so that a slow machine is known by it.
 */
import { readFileSync } from 'node:fs'
import { Builder } from '../core/acts/build.ts'
import { setEye } from '../core/acts/settings.ts'
import { Program } from '../core/engine/program.ts'
import { PER_DEEP } from '../core/rig/deep.ts'
import { Plate, type Range } from '../core/rig/plate.ts'
import { PER_ROW, ROWS_ACROSS } from '../core/rig/rows.ts'
import { Scene } from '../core/rig/scene.ts'
import { PER_CORNER } from '../core/rig/sheet.ts'
import { momentOfSeconds } from '../core/time/moment.ts'
import { rational } from '../core/time/rational.ts'
import type { Piece } from '../core/piece/schema.ts'

function ellipses(): Piece {
  const b = new Builder('Ellipses', 1)
  const id = b.part('Dot', { type: 'ellipse' }, { copies: { layout: 'grid', count: 250, columns: 25, dx: 40, dy: 40 } })
  b.drive(id, 'x', 'sine(every: 2s, amp: 12px, phase: index * 7deg)')
  b.drive(id, 'y', 'sine(every: 3s, amp: 12px, phase: index * 11deg)')
  b.drive(id, 'width', '20px + sine(every: 4s, amp: 9px, phase: index * 5deg)')
  b.drive(id, 'fillHue', 'time * 40deg/s + index * 3deg')
  return b.piece
}

function bulbs(): Piece {
  const b = new Builder('Bulbs', 1)
  const strings = b.part('Strings', { type: 'group' }, { copies: { layout: 'row', count: 10, dx: 0, dy: 60 } })
  const copies = { layout: 'grid', count: 1000, columns: 100, dx: 12, dy: 6 } as const
  const id = b.part('Bulb', { type: 'ellipse' }, { parent: strings, copies }, { height: 6 })
  b.drive(id, 'x', 'sine(every: 2s, amp: 3px, phase: index * 7deg)')
  b.drive(id, 'y', 'sine(every: 3s, amp: 3px, phase: index * 11deg + parent.index * 30deg)')
  b.drive(id, 'width', '5px + sine(every: 4s, amp: 2px, phase: index * 5deg)')
  b.drive(id, 'rotation', 'time * 20deg/s + index * 1deg')
  b.drive(id, 'opacity', '60% + sine(every: 5s, amp: 40%, phase: index * 3deg)')
  b.drive(id, 'fillLightness', '60% + square(every: 2s, amp: 20%, phase: index * 9deg)')
  return b.piece
}

function letters(): Piece {
  const b = new Builder('Letters', 1)
  b.do(setEye(b.piece, 1400))
  const depth = b.part('Depth', { type: 'group' }, { copies: { layout: 'layers', count: 24, dz: 5 } })
  const text = { type: 'text', words: 'LANTERN PIER', shows: 'letters', decimals: 0, prefix: '', suffix: '' } as const
  const copies = { layout: 'row', count: 12, dx: 90, dy: 0 } as const
  const id = b.part('Letter', { ...text, align: 'middle' }, { parent: depth, copies }, { size: 120 })
  b.drive(id, 'scale', '100% + sine(freq: 4/lap, amp: 8%, phase: index * 30deg - layer * 9deg)')
  b.drive(id, 'rotation', 'sine(freq: 3/lap, amp: 6deg, phase: index * 40deg - layer * 7deg)')
  b.drive(id, 'y', 'sine(freq: 1/lap, amp: 12px, phase: index * 25deg - layer * 6deg)')
  b.drive(id, 'thickness', '5px + sine(freq: 2/lap, amp: 3px, phase: index * 50deg - layer * 12deg)')
  return b.piece
}

function water(): Piece {
  const b = new Builder('Water', 1)
  b.do(setEye(b.piece, 1400))
  const shape = { type: 'waves', longest: 420, depth: 160, wind: 15, waves: 24, tile: 0, seed: 5, fields: 128 } as const
  const id = b.part('Basin', shape, {}, { width: 1000, thickness: 900, foam: 50 })
  b.drive(id, 'swell', '30px + sine(every: 6s, amp: 10px)')
  return b.piece
}

const demo = JSON.parse(readFileSync('demo/lantern-pier.json', 'utf8')) as Piece
const PIECES: readonly (readonly [string, Piece, number])[] = [
  ['demo', demo, 2000],
  ['250 ellipses', ellipses(), 2000],
  ['10,000 bulbs, six driven', bulbs(), 600],
  ['letters in depth, 12 × 24', letters(), 1000],
  ['water 128 × 128 with foam', water(), 2000],
]

const bytesOf = (ranges: readonly Range[], each: number) => ranges.reduce((n, [a, b]) => n + (b - a) * each * 4, 0)
const ms = (t: number) => t.toFixed(t < 1 ? 3 : 2).padStart(9)

console.log(`${'ms a frame'.padEnd(30)}   values    scene  picture     both  kB sent  ÷ loop  heap kB`)
for (const [name, piece, frames] of PIECES) {
  const program = new Program(piece)
  const scene = new Scene(program)
  const plate = new Plate()
  const values = new Float64Array(program.size)
  const spent = [0, 0, 0]
  let sent = 0
  const frame = (k: number) => {
    const m = momentOfSeconds(rational(BigInt(k + 30), 30n), program.measures.frameRate)
    const t0 = performance.now()
    program.moment(m, values)
    const t1 = performance.now()
    scene.update(values, m)
    const t2 = performance.now()
    plate.build(scene, 1)
    const t3 = performance.now()
    spent[0]! += t1 - t0
    spent[1]! += t2 - t1
    spent[2]! += t3 - t2
    const lines = Math.ceil(plate.rows.count / ROWS_ACROSS) * ROWS_ACROSS * 4
    const { changed, deep } = plate
    sent += lines * (PER_ROW + (deep ? PER_DEEP : 0)) + (deep?.waters.data.byteLength ?? 0)
    sent += bytesOf(changed.corners, PER_CORNER + 1 + (deep ? 3 : 0)) + bytesOf(changed.indices, 1)
  }
  for (let k = 0; k < 100; k++) frame(k)
  spent.fill(0)
  sent = 0
  const heap = process.memoryUsage().heapUsed
  for (let k = 0; k < frames; k++) frame(k)
  const grown = (process.memoryUsage().heapUsed - heap) / frames / 1024
  // A table as long, filled with a sine by hand.
  const table = new Float32Array(Math.max(1, plate.rows.count) * PER_ROW)
  const from = performance.now()
  for (let k = 0; k < 50; k++) for (let i = 0; i < table.length; i++) table[i] = Math.sin(i * 0.001 + k)
  const loop = (performance.now() - from) / 50
  const [v, s, p] = spent.map(t => t / frames) as [number, number, number]
  const line = [ms(v), ms(s), ms(p), ms(s + p), (sent / frames / 1024).toFixed(0).padStart(8)]
  console.log(
    `${name.padEnd(30)}${line.join('')}${((s + p) / loop).toFixed(1).padStart(8)}${grown.toFixed(1).padStart(9)}`,
  )
}
