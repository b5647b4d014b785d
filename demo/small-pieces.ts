/** Small pieces beside Lantern Pier, each to show one thing. */
import { Builder } from '../core/acts/build.ts'
import type { Piece } from '../core/piece/schema.ts'
import { fill } from './kit.ts'

const ground = (b: Builder, lightness: number, chroma: number, hue: number) => {
  b.piece = { ...b.piece, stage: { ...b.piece.stage, background: { lightness, chroma, hue } } }
}
/** One movement drives many in fixed ratios: a mast turns, its arms lean out, the seats stay upright. */
export function swingTower(): Piece {
  const b = new Builder('Swing tower', 311)
  ground(b, 0.94, 0.022, 85)
  b.dial('spin', { value: 100, low: 0, high: 200, initial: 100 })
  const mast = b.part('Mast', { type: 'group' })
  b.drive(mast, 'rotation', 'time * 30deg/s * spin')
  const arm = b.part(
    'Arm',
    { type: 'line' },
    { parent: mast, order: 1, copies: { layout: 'ring', count: 8, radius: 150, from: 0, sweep: 360, turn: true } },
    { width: 220, strokeWidth: 8, rotation: 90, strokeLightness: 45, strokeChroma: 0.06, strokeHue: 66 },
  )
  b.drive(arm, 'width', '220px + sine(freq: 2/lap, amp: 24px, phase: index / count * 2turn)')
  const seat = b.part(
    'Seat',
    { type: 'ellipse' },
    { parent: mast, order: 2, copies: { layout: 'ring', count: 8, radius: 270, from: 0, sweep: 360, turn: true } },
    {
      width: 76,
      height: 56,
      strokeWidth: 3,
      strokeLightness: 96,
      strokeChroma: 0.02,
      strokeHue: 88,
      ...fill(58, 0.15, 34),
    },
  )
  b.drive(seat, 'y', '(arm[index].width - 220px) / 2')
  b.drive(seat, 'rotation', 'mast.rotation * -1')
  b.drive(seat, 'fillHue', '34deg + index / count * 1turn')
  // The path of one seat over the last seconds: two movements, one figure of light.
  b.part(
    'Light trail',
    { type: 'trace', of: seat, x: 0, y: 0, every: 60 },
    { order: 0 },
    {
      trail: 6,
      strokeWidth: 8,
      tailWidth: 12,
      tailFade: 85,
      tailHue: -40,
      strokeLightness: 70,
      strokeChroma: 0.13,
      strokeHue: 60,
      strokeAlpha: 90,
    },
  )
  const crown = b.part(
    'Crown',
    { type: 'star', points: 8 },
    { order: 3, symmetry: 8 },
    {
      radius: 84,
      innerRadius: 60,
      strokeWidth: 3,
      strokeLightness: 42,
      strokeChroma: 0.1,
      strokeHue: 60,
      ...fill(76, 0.12, 82),
    },
  )
  b.drive(crown, 'rotation', 'mast.rotation * -2')
  return b.piece
}

/** Ten thousand copies of one bulb: four waves run through them, all by one line each. */
export function tenThousandBulbs(): Piece {
  const b = new Builder('Ten thousand bulbs', 10_000)
  ground(b, 0.17, 0.035, 268)
  b.dial('swell', { value: 100, low: 0, high: 200, initial: 100 })
  const bulb = b.part(
    'Bulb',
    { type: 'ellipse' },
    { copies: { layout: 'grid', count: 10_000, columns: 125, dx: 9.8, dy: 8.4 } },
    { width: 6, height: 6, ...fill(84, 0.13, 75) },
  )
  b.drive(bulb, 'x', 'sine(freq: 1/lap, amp: 9px * swell, phase: row * 9deg)')
  b.drive(bulb, 'y', 'sine(freq: 2/lap, amp: 12px * swell, phase: column * 5deg - row * 4deg)')
  b.drive(bulb, 'opacity', 'sine(freq: 3/lap, low: 8%, high: 100%, phase: column * 7deg + row * 6deg)')
  b.drive(bulb, 'fillHue', '60deg + sine(freq: 1/lap, amp: 45deg, phase: row * 3deg - column * 2deg)')
  return b.piece
}
