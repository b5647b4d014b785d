/** A piece that is far too large on purpose: so many lamps in rows, each driven, every tenth following the one before. */
import { Builder } from '../core/acts/build.ts'
import type { Piece } from '../core/piece/schema.ts'

/** @param count parts, each with one drive */
export function heavy(count: number): Piece {
  const b = new Builder(`${count} drives`, 7)
  for (let i = 0; i < count; i++) {
    const part = b.part(
      `Lamp ${i}`,
      { type: 'ellipse' },
      {},
      { x: (i % 40) * 30 - 600, y: 300 - Math.floor(i / 40) * 24, width: 20, height: 20 },
    )
    const own = [`sine(every: ${1 + (i % 7)}s, amp: 10px)`, `noise(${1 + (i % 3)}Hz, 8px)`, `saw(every: 2s, amp: 6px)`][
      i % 3
    ]!
    b.drive(part, i % 2 ? 'x' : 'y', i % 10 === 9 ? `delay(\`Lamp ${i - 1}\`.y, 100ms) * 0.5` : `base + ${own}`)
  }
  return b.piece
}
