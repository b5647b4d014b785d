/** The carousel: a platform, mounts that rise and fall, a canopy that turns the other way; and its drive room. */
import type { Builder } from '../core/acts/build.ts'
import { CENTRE, COLOURS, on, paint, ring } from './kit.ts'

export function carousel(b: Builder): void {
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
export function driveRoom(b: Builder): void {
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
