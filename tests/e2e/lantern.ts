/** A string of eight bulbs that light up in turn, for tests. */
import { Builder } from '../../core/acts/build.ts'

export function lantern(): Builder {
  const b = new Builder('Lantern string', 2)
  b.piece = { ...b.piece, lap: { length: { n: 2, d: 1 }, start: 0 } }
  const bulb = b.part(
    'Bulb',
    { type: 'ellipse' },
    { copies: { layout: 'row', count: 8, dx: 90, dy: 0 } },
    { width: 60, height: 80 },
  )
  b.drive(bulb, 'opacity', 'sine(freq: 1/lap, low: 0%, high: 100%, phase: index * 45deg)')
  b.drive(bulb, 'y', 'sine(freq: 2/lap, amp: 30px, phase: index * 30deg)')
  b.dial('glow', { low: 0, high: 1, value: 0.5, initial: 0.5 })
  return b
}
