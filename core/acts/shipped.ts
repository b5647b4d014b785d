/** The patterns that ship with Open Tide: small pieces, each with one idea, to be put on parts of one's own. */
import type { Copies, Piece, Shape } from '../piece/schema.ts'
import { Builder } from './build.ts'

const row = (count: number, dx: number): Copies => ({ layout: 'row', count, dx, dy: 0 })
const fill = (lightness: number, chroma: number, hue: number) => ({
  fillLightness: lightness,
  fillChroma: chroma,
  fillHue: hue,
})
const BRASS = fill(78, 0.12, 82)
const SEA = fill(58, 0.085, 215)
const CORAL = fill(60, 0.16, 34)
const words = (text: string, shows: 'words' | 'letters' | 'number'): Shape => ({
  type: 'text',
  words: text,
  shows,
  decimals: 0,
  prefix: '',
  suffix: '',
  align: 'middle',
})

type Making = (b: Builder) => void

const PATTERNS: Readonly<Record<string, Making>> = {
  'In, hold, out': b => {
    const arrow = b.part(
      'Arrow',
      { type: 'line' },
      { cap: 'round' },
      { width: 700, strokeWidth: 40, strokeLightness: 78, strokeChroma: 0.12, strokeHue: 82, strokeAlpha: 100 },
    )
    b.drive(arrow, 'lineEnd', 'envelope(attack: 1s, release: 0.01s, ease: cubicInOut, over: span) * 100%')
    b.drive(arrow, 'lineStart', 'ramp(start: spanEnd - 1s, length: 1s, from: 0%, to: 100%, ease: cubicInOut)')
  },
  'Breathing row': b => {
    const bulb = b.part('Bulb', { type: 'ellipse' }, { copies: row(7, 140) }, { width: 110, height: 110, ...BRASS })
    b.drive(bulb, 'scale', '100% + sine(freq: 2/lap, amp: 18%, phase: index / count * 1turn)')
    b.drive(bulb, 'fillLightness', '66% + sine(freq: 2/lap, amp: 14%, phase: index / count * 1turn)')
  },
  'Following chain': b => {
    const chain: Copies = { layout: 'chain', count: 7, dx: 0, dy: -80 }
    const flag = b.part(
      'Flag',
      { type: 'rectangle' },
      { copies: chain },
      { width: 60, height: 76, corners: 12, ...CORAL },
    )
    b.dial('bend', { low: 0, high: 60, value: 24, initial: 24, unit: 'deg' })
    b.drive(flag, 'rotation', 'delay(sine(every: 2s, amp: bend), index * 90ms) * pow(0.85, index)')
  },
  'Idle wander': b => {
    const moth = b.part('Moth', { type: 'star', points: 5 }, {}, { radius: 70, innerRadius: 40, ...BRASS })
    b.drive(moth, 'x', 'base + noise(freq: 0.4Hz, amp: 160px, octaves: 2)')
    b.drive(moth, 'y', 'base + noise(freq: 0.4Hz, amp: 100px, octaves: 2)')
    b.drive(moth, 'rotation', 'base + noise(freq: 0.6Hz, amp: 20deg)')
  },
  Blink: b => {
    const eye = b.part('Eye', { type: 'ellipse' }, { copies: row(2, 260) }, { width: 150, height: 150, ...SEA })
    b.cue('wink', [1.2], 3.1)
    b.drive(eye, 'scaleY', '100% - 95% * clamp(1 - abs(since(wink) - 90ms) / 90ms, 0, 1)')
  },
  'Gear train': b => {
    const gear = (name: string, teeth: number, x: number, y: number, colour: object) =>
      b.part(name, { type: 'gear', teeth, spokes: teeth < 14 ? 0 : 6, module: 12 }, {}, { x, y, ...colour })
    const pinion = gear('Pinion', 12, -300, 0, CORAL)
    const idler = gear('Idler', 24, -84, 0, BRASS)
    const crown = gear('Crown', 36, 276, 0, SEA)
    b.drive(pinion, 'rotation', 'time * 1turn/lap * 6')
    b.drive(idler, 'rotation', 'engage(Pinion)')
    b.drive(crown, 'rotation', 'engage(Idler)')
  },
  'Counting up': b => {
    const count = b.part('Count', words('', 'number'), {}, { size: 260, ...BRASS })
    b.dial('goal', { type: 'whole', low: 0, high: 10_000, value: 954, initial: 954 })
    b.drive(count, 'value', 'ramp(start: spanStart, length: 2s, from: 0, to: goal, ease: cubicOut)')
  },
  'Burst on a cue': b => {
    const ring: Copies = { layout: 'ring', count: 12, radius: 130, from: 90, sweep: 360, turn: true }
    const ray = b.part(
      'Ray',
      { type: 'line' },
      { copies: ring, cap: 'round' },
      {
        width: 150,
        rotation: 90,
        strokeWidth: 14,
        strokeLightness: 92,
        strokeChroma: 0.1,
        strokeHue: 88,
        strokeAlpha: 100,
      },
    )
    b.cue('strike', [0.5], 2)
    b.drive(ray, 'lineEnd', 'smoothstep(0s, 0.35s, since(strike)) * 100%')
    b.drive(ray, 'lineStart', 'smoothstep(0.12s, 0.55s, since(strike)) * 100%')
  },
  'Wave through letters': b => {
    const sign = b.part('Sign', words('LANTERNS', 'letters'), { copies: row(8, 120) }, { size: 150, ...BRASS })
    b.drive(sign, 'y', 'base + sine(freq: 2/lap, amp: 40px, phase: -index * 45deg)')
    b.drive(sign, 'rotation', 'base + sine(freq: 2/lap, amp: 9deg, phase: -index * 45deg + 90deg)')
  },
  'Once round per lap': b => {
    const wheel = b.part('Wheel', { type: 'polygon', sides: 6 }, {}, { radius: 190, ...SEA })
    b.drive(wheel, 'rotation', 'base + lapProgress * 1turn')
  },
  'Sway in the wind': b => {
    const reed = b.part(
      'Reed',
      { type: 'rectangle' },
      { copies: row(9, 100), pivot: { x: 0, y: -210 } },
      { width: 26, height: 420, corners: 13, ...fill(62, 0.09, 130) },
    )
    b.dial('breeze', { low: 0, high: 100, value: 50, initial: 50, unit: '%' })
    b.drive(
      reed,
      'rotation',
      'base + breeze * (6deg + noise(freq: 0.5Hz, amp: 16deg, seed: 3)) + sine(every: 1.3s, amp: 2deg, phase: index * 70deg)',
    )
  },
  'Bounce and settle': b => {
    const ball = b.part('Ball', { type: 'ellipse' }, {}, { width: 150, height: 150, y: -200, ...CORAL })
    b.drive(ball, 'y', 'base + ramp(start: spanStart, length: 1.6s, from: 420px, to: 0px, ease: bounceOut)')
    b.drive(ball, 'scaleX', '100% + 14% * envelope(attack: 0.05s, hold: 0s, release: 0.4s)')
  },
}

/** Names of the patterns that ship, in the order they are shown. */
export const SHIPPED: readonly string[] = Object.keys(PATTERNS)

/** One of them, as a piece of its own. */
export function shipped(name: string): Piece {
  const b = new Builder(name, 7)
  b.piece = { ...b.piece, lap: { length: { n: 4, d: 1 }, start: 0 } }
  PATTERNS[name]!(b)
  return b.piece
}
