/** Small pieces that show on the stage what a task of the manual tells: one idea each, set at Lantern Pier. */
import { Builder } from '../acts/build.ts'
import { setEye } from '../acts/settings.ts'
import type { Piece } from '../piece/schema.ts'

/** A colour by hand: lightness in per cent, chroma, hue in degrees. */
const paint = (of: 'fill' | 'stroke', lightness: number, chroma: number, hue: number) => ({
  [`${of}Lightness`]: lightness,
  [`${of}Chroma`]: chroma,
  [`${of}Hue`]: hue,
})
type Tint = readonly [lightness: number, chroma: number, hue: number]
const SEA: Tint = [50, 0.09, 215]
const RED: Tint = [58, 0.16, 34]
const BRASS: Tint = [72, 0.13, 78]
const DARK: Tint = [30, 0.04, 215]

function begun(title: string): Builder {
  const b = new Builder(title, 7)
  const { stage, lap } = b.piece
  b.piece = {
    ...b.piece,
    stage: { ...stage, width: 640, height: 360 },
    lap: { ...lap, length: { n: 4, d: 1 } },
  }
  return b
}

export const PICTURES = {
  /** Each flag follows the one before it a little later. */
  chain() {
    const b = begun('A chain of flags')
    let before = ''
    for (let k = 0; k < 7; k++) {
      const flag = b.part(
        `Flag ${k + 1}`,
        { type: 'polygon', sides: 3 },
        { pivot: { x: 0, y: 40 } },
        { x: -240 + 80 * k, y: -20, radius: 46, rotation: 180, ...paint('fill', ...[SEA, RED, BRASS][k % 3]!) },
      )
      b.drive(
        flag,
        'rotation',
        before
          ? `180deg + (delay(\`${before}\`.rotation, 0.25s) - 180deg) * 0.92`
          : '180deg + sine(every: 2s, amp: 26deg)',
      )
      before = `Flag ${k + 1}`
    }
    return b.piece
  },
  /** Two blades: one turns about its end, one about its middle. */
  pivot() {
    const b = begun('The pivot')
    for (const [name, x, at] of [
      ['About its middle', -150, 0],
      ['About its end', 150, -80],
    ] as const) {
      const blade = b.part(
        name,
        { type: 'rectangle' },
        { pivot: { x: at, y: 0 } },
        { x, width: 180, height: 30, corners: 15, ...paint('fill', ...(at === 0 ? SEA : RED)) },
      )
      b.drive(blade, 'rotation', 'time * 90deg/s')
      b.part(
        `Pin of ${name}`,
        { type: 'ellipse' },
        {},
        { x: x + at, width: 14, height: 14, ...paint('fill', ...BRASS) },
      )
    }
    return b.piece
  },
  /** Two poses of one path, and all that lies between them. */
  poses() {
    const b = begun('Poses')
    const sail = (wide: number) =>
      [
        [-70, -120, false],
        [wide, -80, true],
        [wide * 0.7, 60, true],
        [-70, 130, false],
      ].map(([x, y, smooth]) => ({ x: x as number, y: y as number, smooth: smooth as boolean }))
    const path = b.part(
      'Sail',
      { type: 'path', closed: true, poses: [[sail(40)], [sail(190)]] },
      {},
      { x: -30, ...paint('fill', 93, 0.03, 88), strokeWidth: 4, ...paint('stroke', ...DARK) },
    )
    b.drive(path, 'pose', 'sine(every: 4s, low: 0, high: 1)')
    return b.piece
  },
  /** A boat that floats on a basin. */
  water() {
    const b = begun('Water')
    const basin = b.part(
      'Basin',
      { type: 'waves', longest: 260, depth: 90, wind: 0, waves: 7, tile: 0, seed: 3 },
      {},
      { y: -90, width: 640, height: 180, swell: 22, crest: 40, ...paint('fill', ...SEA) },
    )
    const name = b.piece.parts[basin]!.name
    const boat = b.part(
      'Boat',
      { type: 'polygon', sides: 3 },
      {},
      { y: -90, radius: 56, rotation: 180, ...paint('fill', ...RED) },
    )
    b.drive(boat, 'y', `base + 22px + ${name}.height(own.x)`)
    b.drive(boat, 'x', 'sine(every: 4s, amp: 60px)')
    return b.piece
  },
  /** Blocks at three depths, turning before a camera. */
  depth() {
    const b = begun('In depth')
    b.do(setEye(b.piece, 700))
    for (const [k, colour] of [SEA, BRASS, RED].entries()) {
      const block = b.part(
        `Block ${k + 1}`,
        { type: 'rectangle' },
        {},
        {
          x: -160 + 140 * k,
          y: 10,
          z: -100 + 100 * k,
          width: 110,
          height: 110,
          corners: 8,
          thickness: 60,
          ...paint('fill', ...colour),
        },
      )
      b.drive(block, 'rotationY', `time * 90deg/s + ${40 * k}deg`)
      b.drive(block, 'rotationX', `sine(every: 4s, amp: 20deg, phase: ${60 * k}deg)`)
    }
    return b.piece
  },
  /** Letters, each later than the one before. */
  letters() {
    const b = begun('Letters')
    const words = 'PIER'
    const text = b.part(
      'Sign',
      { type: 'text', words, shows: 'letters', align: 'middle', decimals: 0, prefix: '', suffix: '' },
      {},
      { size: 150, ...paint('fill', ...RED) },
    )
    b.do({
      undoLabel: 'set',
      puts: [
        {
          in: 'parts',
          id: text,
          value: {
            ...b.piece.parts[text]!,
            copies: { layout: 'row', count: words.length, dx: 120, dy: 0 },
          },
        },
      ],
    })
    b.drive(text, 'y', 'sine(every: 2s, amp: 30px, phase: index * -60deg)')
    b.drive(text, 'fillHue', '34deg + index * 60deg')
    return b.piece
  },
} as const satisfies Record<string, () => Piece>

export type ManualPictureName = keyof typeof PICTURES
