/** The exit arrow of light, and the organ with its blob of sound and its streamer. */
import type { Builder } from '../core/acts/build.ts'
import { cosineOfTurns, sineOfTurns } from '../core/signal/sine.ts'
import { on, paint } from './kit.ts'

const smooth = (points: readonly (readonly [number, number])[]) => points.map(([x, y]) => ({ x, y, smooth: true }))

/** A curled arrow that draws on, stays and draws off with its span; its hue goes round once a lap. */
export function exitArrow(b: Builder): void {
  const span = { from: 1, to: 41 }
  const line = { strokeWidth: 9, ...paint('stroke', 'light'), strokeChroma: 0.13 }
  const curl = smooth([
    [-118, -34],
    [-66, 22],
    [-6, 36],
    [30, 4],
    [2, -30],
    [-26, 0],
    [14, 40],
    [66, 44],
    [112, 14],
  ])
  const arrow = b.part(
    'Exit arrow',
    { type: 'path', closed: false, poses: [[curl]] },
    on(null, 44, { span, cap: 'round', join: 'round' }),
    { x: 470, y: 108, ...line },
  )
  b.drive(arrow, 'lineEnd', 'envelope(attack: 1.6s, release: 0.01s, ease: cubicInOut, over: span) * 100%')
  b.drive(arrow, 'lineStart', 'ramp(start: spanEnd - 1.6s, length: 1.2s, from: 0%, to: 100%, ease: cubicInOut)')
  b.drive(arrow, 'strokeHue', 'base + time * 1turn/lap')
  const tip = [
    [-26, 26],
    [0, 0],
    [-34, -10],
  ] as const
  const head = b.part(
    'Arrow head',
    { type: 'path', closed: false, poses: [[tip.map(([x, y]) => ({ x, y, smooth: false }))]] },
    on(arrow, 1, { span, cap: 'round', join: 'round' }),
    { x: 112, y: 14, ...line },
  )
  b.drive(
    head,
    'strokeAlpha',
    'smoothstep(spanStart + 1.3s, spanStart + 1.6s, time) * smoothstep(spanEnd - 0.4s, spanEnd - 0.8s, time) * 100%',
  )
  b.drive(head, 'strokeHue', '`Exit arrow`.strokeHue')
}

/** A blob that goes through four poses for ever, and a streamer of seven that one swing bends. */
export function organ(b: Builder): void {
  const at = { x: -452, y: -106 }
  const case_ = b.part('Organ', { type: 'rectangle' }, on(null, 25), {
    ...at,
    width: 136,
    height: 92,
    corners: 10,
    strokeWidth: 3,
    ...paint('fill', 'deepCoral'),
    ...paint('stroke', 'brass'),
  })
  const pipe = b.part(
    'Organ pipe',
    { type: 'line' },
    on(case_, 1, { cap: 'round', copies: { layout: 'row', count: 6, dx: 20, dy: 0 } }),
    { y: 30, width: 22, rotation: 90, strokeWidth: 9, ...paint('stroke', 'brass') },
  )
  b.drive(pipe, 'width', '24px + sine(freq: 4/lap, amp: 9px, phase: index * 60deg)')
  const rounds = [
    [26, 22, 27, 21, 26, 22, 27, 21],
    [31, 17, 24, 24, 31, 17, 24, 24],
    [20, 30, 20, 27, 20, 30, 20, 27],
    [24, 24, 32, 16, 24, 24, 32, 16],
  ].map(radii => [
    smooth(radii.map((r, k) => [r * 1.35 * cosineOfTurns(k / 8), r * 0.85 * sineOfTurns(k / 8)] as const)),
  ])
  const blob = b.part('Blob of sound', { type: 'path', closed: true, poses: rounds }, on(case_, 2), {
    y: -14,
    strokeWidth: 2.5,
    ...paint('fill', 'sea'),
    ...paint('stroke', 'cream'),
  })
  b.drive(blob, 'pose', 'time * 4/lap')
  b.drive(blob, 'scale', '100% + sine(freq: 8/lap, amp: 5%)')
  const streamer = b.part(
    'Streamer',
    { type: 'rectangle' },
    on(case_, 0, { pivot: { x: 0, y: -8 }, copies: { layout: 'chain', count: 7, dx: 0, dy: 16 } }),
    { y: 54, width: 9, height: 17, corners: 4, ...paint('fill', 'brass') },
  )
  b.drive(streamer, 'rotation', 'sine(freq: 3/lap, amp: 4deg + wind * 12deg)')
  b.drive(streamer, 'fillLightness', '70% - index * 4%')
}
