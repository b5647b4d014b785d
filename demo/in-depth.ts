/** Small pieces in depth: a gear train of thick wheels, letters that wave layer by layer, lanterns that climb. */
import { Builder } from '../core/acts/build.ts'
import { addGear } from '../core/acts/gear-acts.ts'
import { setEye, setStage } from '../core/acts/settings.ts'
import { placedLetters } from '../core/acts/text-parts.ts'
import type { Piece, Shape } from '../core/piece/schema.ts'
import { spotsOf } from '../core/rig/text/letters.ts'
import { fill, paint } from './kit.ts'

function inDepth(title: string, seed: number, distance: number, [lightness, chroma, hue]: readonly number[]): Builder {
  const b = new Builder(title, seed)
  b.do(setEye(b.piece, distance))
  const background = { lightness: lightness!, chroma: chroma!, hue: hue! }
  b.piece = { ...b.piece, stage: { ...b.piece.stage, background } }
  return b
}

/** The words over the way in, a word a line: scale, turn, height and thickness each have their own loop, later a letter and a layer. */
export function ticketArch(): Piece {
  const b = inDepth('Ticket arch', 742, 1500, [0.24, 0.045, 232])
  b.dial('wave', { value: 100, low: 0, high: 200, initial: 100 })
  const layers = b.part(
    'Depth',
    { type: 'group' },
    { copies: { layout: 'layers', count: 16, dz: 5 } },
    { rotationY: -22 },
  )
  const shape: Extract<Shape, { type: 'text' }> = {
    type: 'text',
    words: 'LANTERN PIER',
    shows: 'letters',
    decimals: 0,
    prefix: '',
    suffix: '',
    align: 'middle',
    lines: 'words',
  }
  const size = 190
  const copies = placedLetters(shape, size * 1.12, spotsOf)
  const letter = b.part('Letter', shape, { parent: layers, copies }, { size, ...paint('fill', 'brass') })
  b.drive(letter, 'scale', '100% + sine(freq: 4/lap, amp: 7%, phase: index * 30deg - layer * 9deg) * wave')
  b.drive(letter, 'rotation', 'sine(freq: 3/lap, amp: 5deg, phase: index * 40deg - layer * 7deg) * wave')
  b.drive(letter, 'y', 'sine(freq: 1/lap, amp: 13px, phase: index * 25deg - layer * 6deg) * wave')
  b.drive(letter, 'thickness', '5px + sine(freq: 2/lap, amp: 4px, phase: index * 50deg - layer * 12deg) * wave')
  b.drive(letter, 'fillHue', 'base + index / count * 60deg')
  return b.piece
}

/** A motor pinion, an idler and the crown of the carousel as thick wheels that interlock. */
export function driveRoom(): Piece {
  const b = inDepth('Drive room', 615, 1400, [0.9, 0.02, 80])
  b.dial('pace', { value: 100, low: 0, high: 200, initial: 100 })
  const table = b.part('Bench', { type: 'group' }, {}, { rotationX: -38, rotationY: 14, y: -20 })
  const wheel = { thickness: 70, strokeWidth: 0 }
  const pinion = b.part(
    'Pinion',
    { type: 'gear', teeth: 12, spokes: 0, module: 15 },
    { parent: table },
    { x: -440, y: -60, ...wheel, thickness: 110, ...paint('fill', 'coral') },
  )
  b.drive(pinion, 'rotation', 'time * 60deg/s * pace')
  let last = pinion
  for (const [name, teeth, spokes, colour] of [
    ['Idler', 30, 5, 'brass'],
    ['Crown wheel', 24, 6, 'sea'],
  ] as const) {
    const made = addGear(b.piece, last, { teeth, spokes })
    b.do(made.op)
    const part = b.piece.parts[made.id]!
    b.do({ undoLabel: `name ${name}`, puts: [{ in: 'parts', id: made.id, value: { ...part, name } }] })
    for (const [property, value] of Object.entries({ ...wheel, ...paint('fill', colour) }))
      b.do({ undoLabel: 'set', puts: [{ in: 'bases', id: `${made.id}.${property}`, value: { value } }] })
    last = made.id
  }
  b.part(
    'Motor',
    { type: 'rectangle' },
    { parent: table, order: -1 },
    { x: -440, y: -60, z: -120, width: 190, height: 190, corners: 22, thickness: 120, ...paint('fill', 'darkWood') },
  )
  return b.piece
}

/** Paper lanterns fill with light until a moment, then let go and climb, counted from their own start; each at another time. */
export function skyLanterns(): Piece {
  const b = inDepth('Sky lanterns', 903, 1300, [0.2, 0.05, 250])
  // All five in the air.
  b.do(setStage(b.piece, { poster: 7 }))
  b.dial('letGo', { type: 'moment', unit: 's', value: 2, low: 0.5, high: 6, initial: 2 })
  b.dial('breeze', { value: 50, low: 0, high: 100, initial: 50 })
  const lantern = b.part(
    'Lantern',
    { type: 'group' },
    { copies: { layout: 'row', count: 5, dx: 200, dy: 0 } },
    { y: -230 },
  )
  const late = 'index * 0.9s'
  b.drive(
    lantern,
    'y',
    `base + (if time < letGo + ${late} then 0px else (time - letGo - ${late}) * 62px/s * smoothstep(letGo + ${late}, letGo + ${late} + 2s, time))`,
  )
  b.drive(
    lantern,
    'x',
    `sine(every: 5s, amp: 26px, phase: index * 80deg) * breeze * smoothstep(letGo + ${late}, letGo + ${late} + 1.5s, time)`,
  )
  b.drive(lantern, 'z', 'base + sine(every: 8s, amp: 160px, phase: index * 137deg)')
  b.drive(
    lantern,
    'rotation',
    `sine(every: 3.5s, amp: 6deg, phase: index * 60deg) * breeze * smoothstep(letGo + ${late}, letGo + ${late} + 1s, time)`,
  )
  const paper = b.part(
    'Paper',
    { type: 'polygon', sides: 6 },
    { parent: lantern, order: 1, symmetry: 6 },
    {
      rotationX: 90,
      radius: 54,
      thickness: 120,
      taper: 124,
      y: -60,
      strokeWidth: 2,
      ...paint('fill', 'light'),
      ...paint('stroke', 'brass'),
    },
  )
  b.drive(paper, 'fillLightness', `34% + 54% * smoothstep(0s, letGo + ${late}, time)`)
  b.drive(paper, 'fillChroma', `0.05 + 0.07 * smoothstep(0s, letGo + ${late}, time)`)
  b.part(
    'Pier edge',
    { type: 'rectangle' },
    { order: -2, locked: true },
    {
      y: -330,
      z: 40,
      width: 1500,
      height: 420,
      rotationX: -90,
      thickness: 30,
      ...paint('fill', 'plank'),
    },
  )
  return b.piece
}

/** A small wave surface with ducks that float on it: each reads the water where it is, its height and its slope. */
export function duckBasin(): Piece {
  const b = inDepth('Duck basin', 529, 1500, [0.86, 0.04, 215])
  b.dial('swell', { unit: 'px', value: 26, low: 0, high: 80, initial: 26 })
  const tilt = b.part('Stand', { type: 'group' }, {}, { rotationX: 24, y: -60, z: -80 })
  const basin = b.part(
    'Basin',
    { type: 'waves', longest: 420, depth: 160, wind: 20, waves: 9, tile: 0, seed: 5 },
    { parent: tilt, order: 1 },
    { width: 1060, height: 130, thickness: 760, z: 380, crest: 55, foam: 55, ...paint('fill', 'sea') },
  )
  b.drive(basin, 'swell', 'swell')
  const duck = b.part(
    'Duck',
    { type: 'group' },
    { parent: tilt, order: 2, copies: { layout: 'row', count: 4, dx: 240, dy: 0 } },
    {},
  )
  b.do({ undoLabel: 'set', puts: [{ in: 'bases', id: `${duck}.y`, value: { value: 11 } }] })
  const x = '(index - (count - 1) / 2) * 240px + own.x'
  const z = 'own.z - 380px'
  b.drive(duck, 'x', 'sine(freq: 1/lap, amp: 26px, phase: along * 1turn)')
  b.drive(duck, 'z', 'base + (mod(index * 3, 4) - 1.5) * 130px + sine(freq: 1/lap, amp: 30px, phase: index * 70deg)')
  b.drive(duck, 'y', `base + basin.height(${x}, ${z})`)
  b.drive(duck, 'rotation', `atan2(basin.height(${x} + 40px, ${z}) - basin.height(${x} - 40px, ${z}), 80px) * 70%`)
  b.drive(duck, 'rotationY', 'sine(freq: 1/lap, amp: 40deg, phase: index * 90deg)')
  const thick = (thickness: number) => ({ thickness, z: thickness / 2 })
  b.part(
    'Tail',
    { type: 'polygon', sides: 3 },
    { parent: duck, order: 1 },
    { x: -52, y: 12, radius: 24, rotation: 20, ...thick(20), ...fill(80, 0.14, 88) },
  )
  b.part(
    'Body',
    { type: 'ellipse' },
    { parent: duck, order: 2 },
    { width: 116, height: 72, ...thick(60), ...fill(84, 0.15, 92) },
  )
  b.part(
    'Bill',
    { type: 'ellipse' },
    { parent: duck, order: 3 },
    { x: 76, y: 46, width: 34, height: 16, ...thick(20), ...fill(66, 0.17, 48) },
  )
  b.part(
    'Head',
    { type: 'ellipse' },
    { parent: duck, order: 4 },
    { x: 44, y: 50, width: 54, height: 54, ...thick(44), ...fill(86, 0.15, 94) },
  )
  b.part(
    'Eye',
    { type: 'ellipse' },
    { parent: duck, order: 5 },
    { x: 54, y: 56, width: 8, height: 8, z: 23, ...fill(24, 0.03, 240) },
  )
  return b.piece
}
