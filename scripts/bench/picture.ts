/**
 * What a frame costs before it reaches the graphics card: where everything stands, the table of the picture, and what of it
 * is sent.
 */
import { readFileSync } from 'node:fs'
import { Program } from '../../core/engine/program.ts'
import { PER_DEEP } from '../../core/rig/stage-mesh/deep.ts'
import { StageMesh } from '../../core/rig/stage-mesh/stage-mesh.ts'
import { tableLines, type Range } from '../../core/rig/stage-mesh/row-ranges.ts'
import { PER_ROW, ROWS_ACROSS } from '../../core/rig/stage-mesh/instance-table.ts'
import { Scene } from '../../core/rig/scene.ts'
import { PER_CORNER } from '../../core/rig/stage-mesh/mesh-sheet.ts'
import type { Piece } from '../../core/piece/schema.ts'
import { bulbs, ellipses, letters, particles, resting, water } from './pieces.ts'
import { faultOf, played } from './proof.ts'
import type { Row } from './rows.ts'

interface Picture {
  readonly name: string
  readonly piece: Piece
  /** How many drives it has; null for the demo, of which some rest. */
  readonly driven: number | null
  /** Whether its rows change from frame to frame. */
  readonly moves: boolean
  /** Milliseconds of scene and picture, and kilobytes sent, at most. */
  readonly reach: number | null
  readonly sent: number | null
  /** Whether the values count with them. */
  readonly withValues?: true
  /** How many particles are there at least. */
  readonly particles?: number
}

const bytesOf = (ranges: readonly Range[], each: number) => ranges.reduce((n, [a, b]) => n + (b - a) * each * 4, 0)

export function pictureRows(tell: (row: Row) => void): void {
  const demo = JSON.parse(readFileSync('demo/lantern-pier.json', 'utf8')) as Piece
  const all: readonly Picture[] = [
    { name: 'demo', piece: demo, driven: null, moves: true, reach: 0.8, sent: 100 },
    { name: '250 ellipses', piece: ellipses(), driven: 4, moves: true, reach: 0.5, sent: null },
    {
      name: '10,000 bulbs, six driven',
      piece: bulbs(),
      driven: 6,
      moves: true,
      reach: 8,
      sent: 1000,
      withValues: true,
    },
    { name: 'letters in depth, 12 × 24', piece: letters(), driven: 4, moves: true, reach: 1.5, sent: null },
    { name: 'water 128 × 128 with foam', piece: water(), driven: 1, moves: true, reach: 1, sent: null },
    { name: '10,000 copies at rest', piece: resting(), driven: 0, moves: false, reach: null, sent: 0 },
    ...[
      { count: 12_000, piece: particles(2000, 6), reach: 3 },
      { count: 100_000, piece: particles(10_000, 10), reach: 20 },
    ].map(({ count, piece, reach }): Picture => {
      const name = `${count.toLocaleString('en')} particles`
      return { name, piece, driven: 0, moves: true, reach, sent: null, particles: count }
    }),
  ]
  for (const p of all) measure(p, tell)
}

function measure(
  { name, piece, driven, moves, reach, sent: most, withValues, particles: count }: Picture,
  tell: (row: Row) => void,
): void {
  const program = new Program(piece)
  const scene = new Scene(program)
  const mesh = new StageMesh()
  const values = new Float64Array(program.size)
  const spent = [0, 0, 0]
  let sent = 0
  const frame = (k: number) => {
    const m = played(program, k + 30)
    const t0 = performance.now()
    program.moment(m, values)
    const t1 = performance.now()
    scene.update(values, m)
    const t2 = performance.now()
    mesh.build(scene, 1)
    spent[0]! += t1 - t0
    spent[1]! += t2 - t1
    spent[2]! += performance.now() - t2
    const { changed, deep } = mesh
    const lines: Range[] =
      changed.all || deep ? [[0, Math.ceil(mesh.rows.count / ROWS_ACROSS)]] : tableLines(changed.rows, ROWS_ACROSS)
    sent += bytesOf(lines, ROWS_ACROSS * (PER_ROW + (deep ? PER_DEEP : 0))) + (deep?.waters.data.byteLength ?? 0)
    sent += bytesOf(changed.corners, PER_CORNER + 1 + (deep ? 3 : 0)) + bytesOf(changed.indices, 1)
  }
  for (let k = 0; k < 60; k++) frame(k)
  // What the card is told of waves counts with the rows.
  const told = () => [...mesh.rows.data, ...(mesh.deep?.waters.data ?? [])]
  const before = told()
  frame(61)
  const changes = told().some((v, i) => v !== before[i])
  const still = changes !== moves ? `its rows ${moves ? 'do not change' : 'change'} from frame to frame` : null
  const there = Array.from({ length: mesh.rows.count }, (_, i) => mesh.rows.data[i * PER_ROW + 3]!).filter(a => a > 0)
  const few = count && there.length < count ? `${there.length} particles are there` : null
  const fault = (driven === null ? null : faultOf(program, driven)) ?? still ?? few
  spent.fill(0)
  sent = 0
  const frames = 200
  for (let k = 0; k < frames; k++) frame(k)
  const [v, s, p] = spent.map(t => t / frames) as [number, number, number]
  const row = (what: string, value: number, unit: Row['unit'], at: number | null) =>
    tell({ name: `${name}: ${what}`, value, unit, reach: at, fault })
  row('values', v, 'ms', null)
  row('scene and picture', s + p, 'ms', withValues ? null : reach)
  if (withValues) row('values, scene and picture', v + s + p, 'ms', reach)
  row('sent a frame', sent / frames / 1024, 'kB', most)
}
