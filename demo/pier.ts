/** The pier itself: lantern strings between its posts, the sea and the planks. */
import { setPromises } from '../core/acts/drives.ts'
import type { Builder } from '../core/acts/build.ts'
import type { Copies } from '../core/piece/schema.ts'
import { on, paint, row } from './kit.ts'

/** Two cords between the posts, each with sixteen lanterns on it. */
export function strings(b: Builder): void {
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
  lanternString(b, 'Chase', 342, 34, 20, 'smoothstep(0.4, 1, sine(freq: 4/lap, phase: along * -2turn))')
  lanternString(b, 'Tide', 292, 50, 16, '0.5 + 0.3 * sine(freq: 2/lap) + 0.2 * sine(freq: 3/lap, phase: along * 1turn)')
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
/** The letters of the pier's name over the way in: they wave one after the other, and each turns round once a lap. */
export function ticketArch(b: Builder): void {
  const words = 'LANTERN PIER'
  const bend = Array.from({ length: 9 }, (_, k) => {
    const u = k / 4 - 1
    return { x: u * 262, y: 201 - 30 * u * u }
  })
  const letter = b.part(
    'Ticket arch',
    { type: 'text', words, shows: 'letters', decimals: 0, prefix: '', suffix: '', align: 'middle' },
    on(null, 52, {
      copies: { layout: 'path', count: words.length, points: bend, closed: false, smooth: true, turn: true },
    }),
    { size: 52, thickness: 16, ...paint('fill', 'light') },
  )
  b.drive(letter, 'y', 'sine(freq: 2/lap, amp: 7px, phase: along * -0.75turn)')
  b.drive(letter, 'rotationY', 'sine(freq: 1/lap, amp: 32deg, phase: along * -1turn)')
  b.drive(letter, 'fillHue', 'base + sine(freq: 1/lap, amp: 48deg, phase: along * -1turn)')
  b.drive(letter, 'fillChroma', '0.12')
}

/** Paper petals blow over the planks: gusts change their speed, which never turns back. */
export function petals(b: Builder): void {
  const fan = b.part('Petal fan', { type: 'emitter', seed: 11, flight: 'changing', reverses: false }, on(null, 35), {
    x: -648,
    y: -150,
    life: 9,
    births: 5,
    spread: 9,
    variety: 25,
    particle: 9,
    ...paint('fill', 'coral', 90),
  })
  b.drive(fan, 'speed', '40px/s + 260px/s * wind * (1 + noise(freq: 6/lap, octaves: 2))')
  // Petals never blow back.
  b.do(setPromises(b.piece, `${fan}.speed`, [{ of: 'value', side: 'above', than: 15 }]))
}

export function shore(b: Builder): void {
  const sky = b.part('Sky', { type: 'rectangle' }, on(null, 0, { locked: true }), {
    width: 1280,
    height: 720,
    ...paint('fill', 'night'),
    gradient: 100,
    gradientTurn: 270,
    gradientStart: 25,
    gradientEnd: 80,
    gradientChroma: 0.07,
    gradientHue: 250,
  })
  b.drive(sky, 'gradientLightness', '44% - 22% * dusk')
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
  // The water keeps a time of its own, at half the pace of everything else.
  b.clock('ebb', { way: { type: 'steady', rate: 0.5, ahead: 0 } })
  b.drive(glint, 'opacity', 'max(0%, noise(freq: 0.8Hz, amp: 70%)) on ebb')
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
