import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { addDrive, removeDrive } from '../acts/drives.ts'
import { setBase } from '../acts/parts.ts'
import { setText } from '../acts/sources.ts'
import { apply, type Operation } from '../piece/operation.ts'
import { propertyNamed } from '../piece/properties.ts'
import type { Piece } from '../piece/schema.ts'
import { momentOfTicks } from '../time/moment.ts'
import { rational } from '../time/rational.ts'
import { setDial } from './retime.ts'
import { Program } from './program.ts'

const PARTS = 12
const RATE = rational(30)

/** Parts in a row, the last of them in copies; each may read the one before it. */
function row(): { piece: Piece; ids: readonly string[]; dial: string } {
  const b = new Builder('Row', 7)
  const dial = b.dial('fast', { value: 1, low: 0, high: 4 })
  b.signal('gust', 'noise(1Hz, 5px)')
  const ids = Array.from({ length: PARTS }, (_, k) => {
    const copies = { layout: 'row', count: 5, dx: 9, dy: 0 } as const
    return b.part(`Part ${k}`, { type: 'ellipse' }, k === PARTS - 1 ? { copies } : {}, { x: k })
  })
  ids.slice(1).forEach((id, k) => b.drive(id, 'x', `delay(\`Part ${k}\`.x, 90ms) * 0.9`))
  return { piece: b.piece, ids, dial }
}

const text = (k: number, which: number): string => {
  const before = k > 0 ? `\`Part ${k - 1}\`.x` : 'base'
  return [
    `delay(${before}, 90ms) * 0.9`,
    `delay(${before}, 40ms) * 0.5 + ${before}`,
    `${before} * 0.7 + 1px`,
    'time * 3px/s',
    'time * 3px/s * fast',
    '7.3px',
    'sine(every: 3s, amp: 40px)',
    'sine(freq: 1Hz * fast, amp: 4px) + gust',
    'base + 2px',
    `hold(${before}, 7Hz)`,
    'sine(every: 3s, amp:',
    'index * 2px + gust',
    k > 1 ? `\`Part ${k - 2}\`.x + delay(gust, 0.1s)` : 'gust',
  ][which % 13]!
}

describe('a program that takes over from the one before', () => {
  const RUNS = Number(process.env.RUNS ?? 60)
  it('is to the bit what it is when it is made anew, after any changes', () => {
    const { piece: begun, ids, dial } = row()
    const step = fc.tuple(fc.nat(6), fc.nat(PARTS - 1), fc.nat(12))
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 9 }), steps => {
        let now = new Program(begun)
        const at = momentOfTicks(98_765, RATE)
        let last = 0
        for (const [kind, chosen, which] of steps) {
          // A number that is dragged changes one drive again and again.
          const k = kind > 3 ? last : chosen
          last = k
          now.queue.settle(() => now.moment(at, new Float64Array(now.size)))
          const key = `${ids[k]}.x`
          const { piece } = now
          const driven = piece.drives[key] !== undefined
          const op: Operation | null =
            kind === 0
              ? driven
                ? removeDrive(piece, key)
                : addDrive(piece, ids[k]!, 'x', text(k, which))
              : kind === 1
                ? setBase(piece, ids[k]!, propertyNamed('x')!.name, which / 3)
                : kind === 2
                  ? setDial(now, dial, which / 4, at, true)
                  : driven
                    ? setText(piece, key, text(k, which), which !== 10)
                    : null
          if (!op) continue
          now = new Program(apply(piece, op), now)
          const anew = new Program(now.piece)
          const [a, b] = [now, anew].map(p => p.queue.settle(() => p.moment(at, new Float64Array(p.size))))
          expect([...a!], JSON.stringify(steps)).toEqual([...b!])
        }
      }),
      { numRuns: RUNS, seed: Number(process.env.SEED ?? 3) },
    )
  })
})
