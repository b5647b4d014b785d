/** Small pieces beside Lantern Pier, each to show one thing. */
import { Builder } from '../core/acts/build.ts'
import type { Piece } from '../core/piece/schema.ts'

const ground = (b: Builder, lightness: number, chroma: number, hue: number) => {
  b.piece = { ...b.piece, stage: { ...b.piece.stage, background: { lightness, chroma, hue } } }
}
const fill = (lightness: number, chroma: number, hue: number) => ({
  fillLightness: lightness,
  fillChroma: chroma,
  fillHue: hue,
})

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
    { trail: 6, strokeWidth: 3, strokeLightness: 70, strokeChroma: 0.13, strokeHue: 60, strokeAlpha: 70 },
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

/** A small wave surface with ducks that float on it, in three rows: each reads the water where it is. */
export function duckBasin(): Piece {
  const b = new Builder('Duck basin', 529)
  ground(b, 0.78, 0.06, 215)
  b.dial('swell', { unit: 'px', value: 34, low: 0, high: 80, initial: 34 })
  const waves = { type: 'waves', longest: 420, depth: 160, wind: 15, waves: 9, tile: 0 } as const
  for (const [k, name] of ['Far water', 'Middle water', 'Near water'].entries()) {
    const water = b.part(
      name,
      { ...waves, seed: 5 + k },
      { order: 1 + 2 * k },
      {
        y: -250 - 60 * k,
        width: 1400,
        height: 420,
        crest: 45,
        gradient: 100,
        gradientTurn: 270,
        gradientLightness: 42 - 8 * k,
        gradientChroma: 0.07,
        gradientHue: 230,
        ...fill(66 - 9 * k, 0.075, 216 + 4 * k),
      },
    )
    b.drive(water, 'swell', `swell * ${[60, 80, 100][k]}%`)
  }
  const duck = b.part(
    'Duck',
    { type: 'group' },
    { order: 4, copies: { layout: 'row', count: 4, dx: 290, dy: 0 } },
    { y: -74 },
  )
  const place = '(index - (count - 1) / 2) * 290px + own.x'
  b.drive(duck, 'x', 'sine(freq: 1/lap, amp: 26px, phase: along * 1turn)')
  b.drive(duck, 'y', `let here = ${place};\nbase + \`Middle water\`.height(here)`)
  b.drive(
    duck,
    'rotation',
    `let here = ${place};\natan2(\`Middle water\`.height(here + 40px) - \`Middle water\`.height(here - 40px), 80px) * 70%`,
  )
  b.part(
    'Tail',
    { type: 'polygon', sides: 3 },
    { parent: duck, order: 1 },
    { x: -52, y: 12, radius: 24, rotation: 20, ...fill(80, 0.14, 88) },
  )
  b.part('Body', { type: 'ellipse' }, { parent: duck, order: 2 }, { width: 116, height: 72, ...fill(84, 0.15, 92) })
  b.part(
    'Bill',
    { type: 'ellipse' },
    { parent: duck, order: 3 },
    { x: 76, y: 46, width: 34, height: 16, ...fill(66, 0.17, 48) },
  )
  b.part(
    'Head',
    { type: 'ellipse' },
    { parent: duck, order: 4 },
    { x: 44, y: 50, width: 54, height: 54, ...fill(86, 0.15, 94) },
  )
  b.part(
    'Eye',
    { type: 'ellipse' },
    { parent: duck, order: 5 },
    { x: 54, y: 56, width: 8, height: 8, ...fill(24, 0.03, 240) },
  )
  return b.piece
}
