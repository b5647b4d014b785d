/** Lantern Pier, a small made-up night fair on a wooden pier: the piece that every picture and example shows. */
import { Builder } from '../core/piece/build.ts'
import { setKeys } from '../core/piece/parts.ts'
import type { Copies, Part, Piece } from '../core/piece/schema.ts'

/** Colours of the fair: lightness %, chroma, hue in degrees. */
const COLOURS = {
  cream: [93, 0.03, 88],
  coral: [60, 0.16, 34],
  deepCoral: [48, 0.14, 32],
  sea: [58, 0.085, 215],
  deepSea: [36, 0.06, 225],
  wood: [66, 0.07, 76],
  plank: [34, 0.035, 66],
  darkWood: [46, 0.06, 66],
  brass: [78, 0.12, 82],
  light: [92, 0.1, 88],
  night: [17, 0.035, 235],
} as const
type Colour = keyof typeof COLOURS

const paint = (of: 'fill' | 'stroke', name: Colour, alpha = 100) => {
  const [lightness, chroma, hue] = COLOURS[name]
  return { [`${of}Lightness`]: lightness, [`${of}Chroma`]: chroma, [`${of}Hue`]: hue, [`${of}Alpha`]: alpha }
}
const ring = (count: number, radius: number, turn = true): Copies => ({
  layout: 'ring',
  count,
  radius,
  from: 90,
  sweep: 360,
  turn,
})
const row = (count: number, dx: number): Copies => ({ layout: 'row', count, dx, dy: 0 })
/** A part that stands on its middle `order` above its siblings. */
const on = (parent: string | null, order: number, more: Partial<Part> = {}): Partial<Part> => ({
  parent,
  order,
  ...more,
})

const CENTRE = { x: 0, y: -72 }

export function lanternPier(): Piece {
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
  strings(b)
  shore(b)
  return b.piece
}

function carousel(b: Builder): void {
  const ride = b.part('Carousel', { type: 'group' }, on(null, 40, { symmetry: 1 }), CENTRE)
  b.drive(ride, 'rotation', 'time * 45deg/s * fairPace')

  const mount = b.part('Mount', { type: 'ellipse' }, on(ride, 6, { copies: ring(12, 170) }), {
    width: 46,
    height: 56,
    ...paint('fill', 'coral'),
    ...paint('stroke', 'cream', 90),
    strokeWidth: 2.5,
  })
  const liveries = [COLOURS.coral, COLOURS.cream, COLOURS.sea] as const
  b.copies(mount, 'fillLightness', 12, i => liveries[i % 3]![0])
  b.copies(mount, 'fillChroma', 12, i => liveries[i % 3]![1])
  b.copies(mount, 'fillHue', 12, i => liveries[i % 3]![2])
  b.drive(mount, 'y', 'sine(every: 2s, amp: 24px, phase: index / count * 1turn)')
  b.drive(mount, 'scale', '100% + own.y / 24px * 9%')
  const canopy = b.part('Canopy', { type: 'group' }, on(null, 50, { symmetry: 10 }), CENTRE)
  b.drive(canopy, 'rotation', 'carousel.rotation * -0.3')
  b.part('Scallop', { type: 'ellipse' }, on(canopy, 1, { copies: ring(10, 84) }), {
    width: 56,
    height: 52,
    ...paint('fill', 'cream'),
    ...paint('stroke', 'deepCoral'),
    strokeWidth: 3,
  })
  b.part('Roof', { type: 'polygon', sides: 10 }, on(canopy, 2), {
    radius: 92,
    rotation: 18,
    ...paint('fill', 'coral'),
    ...paint('stroke', 'deepCoral'),
    strokeWidth: 2,
  })
  b.part('Panel', { type: 'polygon', sides: 3 }, on(canopy, 3, { copies: ring(10, 46) }), {
    radius: 34,
    scaleX: 38,
    rotation: 180,
    ...paint('fill', 'cream'),
  })
  b.part('Crown', { type: 'star', points: 10 }, on(canopy, 4), {
    radius: 26,
    innerRadius: 17,
    ...paint('fill', 'brass'),
    ...paint('stroke', 'deepCoral'),
    strokeWidth: 2,
  })

  b.part('Platform', { type: 'ellipse' }, on(ride, 1), {
    width: 484,
    height: 484,
    ...paint('fill', 'wood'),
    ...paint('stroke', 'darkWood'),
    strokeWidth: 3,
  })
  b.part('Deck line', { type: 'line' }, on(ride, 2, { copies: ring(24, 160) }), {
    width: 150,
    rotation: 90,
    ...paint('stroke', 'darkWood', 55),
    strokeWidth: 2,
  })
  b.part('Rim', { type: 'ring' }, on(ride, 3), { radius: 246, innerRadius: 226, ...paint('fill', 'deepCoral') })
  const bulb = b.part('Rim bulb', { type: 'ellipse' }, on(ride, 4, { copies: ring(24, 236) }), {
    width: 9,
    height: 9,
    ...paint('fill', 'light'),
  })
  b.drive(bulb, 'fillLightness', '62% + 34% * sine(freq: 8/lap, phase: index / 4 * 1turn)')

  const shadow = b.part('Shadow', { type: 'ellipse' }, on(ride, 5, { copies: ring(12, 170) }), {
    y: -5,
    width: 50,
    height: 56,
    ...paint('fill', 'night', 26),
  })
  b.drive(shadow, 'scale', '104% - mount[index].y / 24px * 10%')
  b.part('Saddle', { type: 'ellipse' }, on(mount, 1), { y: -4, width: 22, height: 20, ...paint('fill', 'night', 38) })
  b.part('Mane', { type: 'ellipse' }, on(mount, 2), { y: 17, width: 12, height: 15, ...paint('fill', 'brass') })
}

/** Under the left of the pier: a pinion, an idler and a crown that interlock; the crown goes with the carousel. */
function driveRoom(b: Builder): void {
  const gear = (teeth: number, spokes: number) => ({ type: 'gear', teeth, spokes, module: 3.4 }) as const
  const brassy = { ...paint('fill', 'brass'), ...paint('stroke', 'darkWood'), strokeWidth: 1.5 }
  const box = b.part('Drive room', { type: 'rectangle' }, on(null, 30), {
    x: -452,
    y: -256,
    width: 312,
    height: 200,
    corners: 10,
    ...paint('fill', 'night', 88),
    ...paint('stroke', 'brass', 70),
    strokeWidth: 2,
  })
  const crown = b.part('Crown wheel', gear(48, 6), on(box, 1, { symmetry: 6 }), { x: 62, y: -8, ...brassy })
  b.drive(crown, 'rotation', 'carousel.rotation / 2')
  const idler = b.part('Idler', gear(30, 5), on(box, 2, { symmetry: 5 }), {
    x: -62,
    y: 39,
    ...brassy,
    ...paint('fill', 'cream'),
  })
  b.drive(idler, 'rotation', 'engage(`Crown wheel`)')
  const pinion = b.part('Pinion', gear(12, 0), on(box, 3, { symmetry: 12 }), {
    x: -78,
    y: -30.6,
    ...brassy,
    ...paint('fill', 'coral'),
  })
  b.drive(pinion, 'rotation', 'engage(idler)')
}

/** A chain of flags at the right: each follows the one before at 80 %, 90 ms later. */
function pennants(b: Builder): void {
  const flags = 7
  const hues = [COLOURS.brass, COLOURS.sea, COLOURS.coral] as const
  const flag = b.part(
    'Pennant',
    { type: 'polygon', sides: 3 },
    on(null, 24, { copies: row(flags, 40), pivot: { x: 0, y: 22 } }),
    { x: -440, y: 100, radius: 23, rotation: 180, scaleX: 82 },
  )
  b.copies(flag, 'y', flags, i => 126 - i * 9)
  b.copies(flag, 'fillLightness', flags, i => hues[i % 3]![0])
  b.copies(flag, 'fillChroma', flags, i => hues[i % 3]![1])
  b.copies(flag, 'fillHue', flags, i => hues[i % 3]![2])
  b.drive(
    flag,
    'rotation',
    '180deg + (if index == 0 then noise(freq: 12/lap, amp: 50deg) * wind else delay(before.rotation - 180deg, 90ms) * 80%)',
  )
}

/** Needles that twitch, held at 10 a second; two of them share one value. */
function dynamo(b: Builder): void {
  const board = b.part('Dynamo board', { type: 'rectangle' }, on(null, 30), {
    x: 468,
    y: -258,
    width: 264,
    height: 112,
    corners: 10,
    ...paint('fill', 'night', 88),
    ...paint('stroke', 'brass', 70),
    strokeWidth: 2,
  })
  const needles = 4
  b.part('Dial face', { type: 'ellipse' }, on(board, 1, { copies: row(needles, 60) }), {
    width: 50,
    height: 50,
    ...paint('fill', 'cream'),
    ...paint('stroke', 'brass'),
    strokeWidth: 2,
  })
  const needle = b.part('Needle', { type: 'line' }, on(board, 2, { copies: row(needles, 60), pivot: { x: 0, y: 0 } }), {
    width: 36,
    strokeWidth: 3,
    rotation: 90,
    ...paint('stroke', 'deepCoral'),
  })
  b.signal('load', 'hold(noise(freq: 16/lap, octaves: 2), 10Hz)')
  b.drive(
    needle,
    'rotation',
    '90deg + (if index < 2 then load * 70deg else hold(noise(freq: 24/lap, amp: 60deg), 10Hz))',
  )
  b.part('Needle pin', { type: 'ellipse' }, on(board, 3, { copies: row(needles, 60) }), {
    width: 8,
    height: 8,
    ...paint('fill', 'darkWood'),
  })
}

/** The drum rocks for ever; hand keys tip it over now and then. */
function tombola(b: Builder): void {
  const drum = b.part('Tombola drum', { type: 'polygon', sides: 8 }, on(null, 31, { symmetry: 1 }), {
    x: 340,
    y: -120,
    radius: 46,
    ...paint('fill', 'sea'),
    ...paint('stroke', 'cream'),
    strokeWidth: 3,
  })
  b.do(
    setKeys(b.piece, drum, 'rotation', {
      after: 'repeat',
      points: [
        { time: 0, value: 0, shape: 'smooth' },
        { time: 5, value: 0, shape: 'smooth' },
        { time: 6.2, value: 360, shape: 'smooth' },
        { time: 8, value: 360, shape: 'smooth' },
      ],
    }),
  )
  b.drive(drum, 'rotation', 'base + sine(freq: 4/lap, amp: 14deg)')
  b.part('Hatch', { type: 'rectangle' }, on(drum, 1), {
    y: 26,
    width: 34,
    height: 10,
    corners: 3,
    ...paint('fill', 'brass'),
  })
  b.part('Drum star', { type: 'star', points: 5 }, on(drum, 2), {
    radius: 17,
    innerRadius: 8,
    ...paint('fill', 'cream'),
  })
  b.part('Drum foot', { type: 'polygon', sides: 3 }, on(null, 29), {
    x: 340,
    y: -184,
    radius: 44,
    scaleX: 70,
    ...paint('fill', 'darkWood'),
  })
}

/** On a cue the mallet winds up and hits, the puck shoots up the tower and bounces, and the bell flashes. */
function strengthTower(b: Builder): void {
  b.cue('blow', [2], 4)
  b.curve(
    'strike',
    {
      arm: [
        [0, 0],
        [0.6, 62],
        [0.75, -34, 'straight'],
        [1.3, -34],
        [2.2, 0],
      ],
      puck: [
        [0, 0, 'stepped'],
        [0.75, 0],
        [1.15, 150],
        [1.75, 0],
        [1.95, 22],
        [2.15, 0],
      ],
      bell: [
        [0, 0, 'stepped'],
        [1.1, 0],
        [1.15, 60],
        [1.7, 0],
      ],
    },
    { hit: 0.75 },
  )
  const [x, foot] = [506, -196]
  b.part('Tower', { type: 'rectangle' }, on(null, 26), {
    x,
    y: foot + 96,
    width: 22,
    height: 192,
    corners: 4,
    ...paint('fill', 'wood'),
    ...paint('stroke', 'darkWood'),
    strokeWidth: 2,
  })
  b.part('Tower slot', { type: 'rectangle' }, on(null, 27), {
    x,
    y: foot + 96,
    width: 6,
    height: 172,
    corners: 3,
    ...paint('fill', 'night', 70),
  })
  const puck = b.part('Puck', { type: 'ellipse' }, on(null, 28), {
    x,
    y: foot + 16,
    width: 18,
    height: 12,
    ...paint('fill', 'coral'),
  })
  b.drive(puck, 'y', 'base + play(strike, blow, channel: puck) * 1px')
  const bell = b.part('Bell', { type: 'ellipse' }, on(null, 28), {
    x,
    y: foot + 200,
    width: 34,
    height: 26,
    ...paint('fill', 'brass'),
  })
  b.drive(bell, 'scale', '100% + play(strike, blow, channel: bell) * 1%')
  const mallet = b.part('Mallet', { type: 'group' }, on(null, 29), { x: x + 62, y: foot + 8 })
  b.drive(mallet, 'rotation', 'play(strike, blow, channel: arm) * -1deg')
  b.part('Handle', { type: 'rectangle' }, on(mallet, 1), {
    y: 36,
    width: 6,
    height: 78,
    corners: 3,
    ...paint('fill', 'darkWood'),
  })
  b.part('Mallet head', { type: 'rectangle' }, on(mallet, 2), {
    y: 74,
    width: 40,
    height: 24,
    corners: 5,
    ...paint('fill', 'brass'),
  })
}

/** Two cords between the posts, each with sixteen lanterns on it. */
function strings(b: Builder): void {
  for (const x of [-1, 1]) {
    b.part(x < 0 ? 'Left post' : 'Right post', { type: 'rectangle' }, on(null, 10), {
      x: x * 596,
      y: 68,
      width: 14,
      height: 580,
      corners: 3,
      ...paint('fill', 'darkWood'),
    })
    b.part(x < 0 ? 'Left knob' : 'Right knob', { type: 'ellipse' }, on(null, 12), {
      x: x * 596,
      y: 350,
      width: 22,
      height: 22,
      ...paint('fill', 'brass'),
    })
  }
  lanternString(b, 'Chase', 338, 62, 20, 'smoothstep(0.4, 1, sine(freq: 4/lap, phase: along * -2turn))')
  lanternString(b, 'Tide', 268, 66, 16, '0.5 + 0.3 * sine(freq: 2/lap) + 0.2 * sine(freq: 3/lap, phase: along * 1turn)')
}

const LANTERNS = 16
const SPAN = 1178

function lanternString(b: Builder, name: string, y: number, sag: number, size: number, lit: string): void {
  // A hanging cord: 0 at the posts, `sag` deep in the middle; the lanterns hang between its ends.
  const hanging = (from: number, to: number) =>
    Array.from({ length: 9 }, (_, k) => {
      const u = from + ((to - from) * k) / 8
      return { x: (u - 0.5) * SPAN, y: y - sag * (1 - (2 * u - 1) * (2 * u - 1)) }
    })
  const along = (count: number, from: number, to: number, turn: boolean): Copies => ({
    layout: 'path',
    count,
    points: hanging(from, to),
    closed: false,
    smooth: true,
    turn,
  })
  const pieces = 2 * (LANTERNS + 1)
  const half = 0.5 / pieces
  b.part(`${name} cord`, { type: 'line' }, on(null, 20, { copies: along(pieces, half, 1 - half, true) }), {
    width: SPAN / pieces + 3,
    ...paint('stroke', 'sea', 70),
    strokeWidth: 2,
  })
  const gap = 1 / (LANTERNS + 1)
  const lantern = b.part(
    `${name} lantern`,
    { type: 'group' },
    on(null, 22, { copies: along(LANTERNS, gap, 1 - gap, false), pivot: { x: 0, y: 0 } }),
  )
  b.drive(lantern, 'rotation', 'noise(freq: 0.7Hz, amp: 26deg) * wind')
  const glow = b.part(`${name} glow`, { type: 'ellipse' }, on(lantern, 1), {
    y: -size,
    width: size * 3.4,
    height: size * 3.4,
    ...paint('fill', 'brass', 26),
  })
  b.drive(glow, 'opacity', `(${lit}) * dusk`)
  b.part(`${name} cap`, { type: 'rectangle' }, on(lantern, 2), {
    y: -size * 0.35,
    width: size * 0.5,
    height: size * 0.35,
    corners: 2,
    ...paint('fill', 'darkWood'),
  })
  const bulb = b.part(`${name} bulb`, { type: 'ellipse' }, on(lantern, 3), {
    y: -size,
    width: size,
    height: size * 1.15,
    ...paint('fill', 'light'),
  })
  b.drive(bulb, 'fillLightness', `48% + ${name === 'Tide' ? '38%' : '48%'} * \`${name} glow\`.opacity`)
}

/** The sea behind and the planks below. */
function shore(b: Builder): void {
  const glints = 26
  const glint = b.part('Sea glint', { type: 'rectangle' }, on(null, 1, { copies: row(glints, 1) }), {
    width: 46,
    height: 3,
    corners: 1.5,
    ...paint('fill', 'sea', 80),
  })
  // Spread by steps of the golden ratio, which never fall together.
  const spread = (i: number, k: number) => (i * k) % 1
  b.copies(glint, 'x', glints, i => Math.round(spread(i + 1, 0.618034) * 1180 - 590))
  b.copies(glint, 'y', glints, i => Math.round(spread(i + 1, 0.754878) * 430 - 190))
  b.copies(glint, 'width', glints, i => Math.round(26 + spread(i + 1, 0.56984) * 44))
  b.drive(glint, 'opacity', 'max(0%, noise(freq: 0.4Hz, amp: 70%))')
  b.drive(glint, 'x', 'base + sine(freq: 1/lap, amp: 14px, phase: along * 3turn)')

  const planks = 33
  const plank = b.part('Plank', { type: 'rectangle' }, on(null, 4, { copies: row(planks, 40) }), {
    y: -292,
    width: 38,
    height: 168,
    corners: 2,
    ...paint('fill', 'plank'),
  })
  b.copies(plank, 'fillLightness', planks, i => 29 + Math.round(spread(i + 1, 0.618034) * 9))
  b.copies(plank, 'height', planks, i => 160 + Math.round(spread(i + 1, 0.754878) * 14))
  b.part('Rail', { type: 'rectangle' }, on(null, 5), { y: -206, width: 1290, height: 7, ...paint('fill', 'darkWood') })
}
