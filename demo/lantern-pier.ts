/** Lantern Pier, a small made-up night fair on a wooden pier: the piece that every picture and example shows. */
import { Builder } from '../core/acts/build.ts'
import type { Piece } from '../core/piece/schema.ts'
import { carousel, driveRoom } from './carousel.ts'
import { exitArrow, organ } from './lights.ts'
import { petals, shore, strings, ticketArch } from './pier.ts'
import { dynamo, pennants, strengthTower, tombola } from './rides.ts'

/** @param whole false leaves out what stands round the rides: strings of lanterns, arch, organ, petals and shore */
export function lanternPier(whole = true): Piece {
  const b = new Builder('Lantern Pier', 20417)
  b.piece = { ...b.piece, stage: { ...b.piece.stage, background: { lightness: 0.235, chroma: 0.045, hue: 232 } } }
  b.dial('fairPace', { value: 100, low: 0, high: 200, initial: 100 })
  b.dial('wind', { value: 35, low: 0, high: 100, initial: 35 })
  b.dial('dusk', { unit: '', value: 0.8, low: 0, high: 1, initial: 0.8 })
  carousel(b)
  driveRoom(b)
  pennants(b)
  dynamo(b)
  tombola(b)
  strengthTower(b)
  if (whole) for (const place of [strings, ticketArch, exitArrow, organ, petals, shore]) place(b)
  return b.piece
}
