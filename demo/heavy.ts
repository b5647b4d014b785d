/** A piece that is far too large on purpose: so many lamps in rows, each driven, every tenth following the one before. */
import { propertyKey } from '../core/piece/drive-key.ts'
import { Builder } from '../core/acts/build.ts'
import { putDrive, type Put } from '../core/piece/operation.ts'
import type { Piece } from '../core/piece/schema.ts'

/** @param count parts, each with one drive */
export function heavy(count: number): Piece {
  const b = new Builder(`${count} drives`, 7)
  const first = b.part('Lamp', { type: 'ellipse' })
  const key = b.drive(first, 'y', '0').piece.drives[propertyKey(first, 'y')]!
  const lamp = b.piece.parts[first]!
  const puts: Put[] = []
  // All in one operation: one after another, each would copy all that are there already.
  for (let i = 0; i < count; i++) {
    const part = `p${i + 1}`
    puts.push({ in: 'parts', id: part, value: { ...lamp, name: `Lamp ${i}`, order: i + 1 } })
    const hand = { x: (i % 40) * 30 - 600, y: 300 - Math.floor(i / 40) * 24, width: 20, height: 20 }
    for (const [property, value] of Object.entries(hand))
      puts.push({ in: 'bases', id: propertyKey(part, property), value: { value } })
    const own = [`sine(every: ${1 + (i % 7)}s, amp: 10px)`, `noise(${1 + (i % 3)}Hz, 8px)`, `saw(every: 2s, amp: 6px)`][
      i % 3
    ]!
    const text = i % 10 === 9 ? `delay(\`Lamp ${i - 1}\`.y, 100ms) * 0.5` : `base + ${own}`
    puts.push(putDrive({ ...key, part, property: i % 2 ? 'x' : 'y', text, good: text, seed: i + 1 }))
  }
  return b.do({ undoLabel: '', puts: [{ in: 'drives', id: propertyKey(first, 'y'), value: null }, ...puts] }).piece
}
