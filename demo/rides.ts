/** The small rides: pennants, the dynamo board, the tombola drum, the strength tower. */
import { keepTake, setText } from '../core/acts/sources.ts'
import type { Builder } from '../core/acts/build.ts'
import { setKeys } from '../core/acts/parts.ts'
import { COLOURS, on, paint, row } from './kit.ts'

/** A chain of flags at the right: each follows the one before at 80 %, 90 ms later. */
export function pennants(b: Builder): void {
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
export function dynamo(b: Builder): void {
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
export function tombola(b: Builder): void {
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
  // Two takes, to be put side by side: how it rocks, and how it shivered before.
  b.drive(drum, 'rotation', 'base + noise(freq: 6/lap, amp: 20deg)')
  b.do(keepTake(b.piece, `${drum}.rotation`, 'shivers'))
  b.do(setText(b.piece, `${drum}.rotation`, 'base + sine(freq: 4/lap, amp: 14deg)', true))
  b.do(keepTake(b.piece, `${drum}.rotation`, 'rocks'))
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
export function strengthTower(b: Builder): void {
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
  const counter = {
    type: 'text',
    words: '',
    shows: 'number',
    decimals: 0,
    prefix: '',
    suffix: '',
    align: 'middle',
  } as const
  const score = b.part('Counter', counter, on(null, 28), {
    x: x - 46,
    y: foot + 196,
    size: 34,
    ...paint('fill', 'brass'),
  })
  b.drive(score, 'value', '(play(strike, blow, channel: puck) / 150) ^ 2 * 999')
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
