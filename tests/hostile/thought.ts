/** Documents that mean no good, each thought of by someone. */
import { Builder } from '../../core/acts/build.ts'
import type { Piece, Shape } from '../../core/piece/schema.ts'
import { lanternPier } from '../../demo/lantern-pier.ts'

const row = (count: number) => ({ copies: { layout: 'row', count, dx: 3, dy: 0 } }) as const
const emitter = { type: 'emitter', seed: 1, flight: 'changing', reverses: true } as const

/** A chain of so many parts, each driven by a text in which `$` is the one before. */
function chain(count: number, text: string, b = new Builder('Chain', 1)): Piece {
  let before = ''
  for (let i = 0; i < count; i++) {
    const id = b.part(`K${i}`, { type: 'rectangle' })
    b.drive(id, 'x', i === 0 ? 'sine(every: 2s, amp: 9px)' : text.replaceAll('$', before))
    before = `k${i}`
  }
  return b.piece
}

/** One part with copies and a drive. */
function copies(count: number, text: string, shape: Shape = { type: 'rectangle' }): Piece {
  const b = new Builder('Copies', 1)
  b.drive(b.part('Row', shape, row(count)), 'x', text)
  return b.piece
}

function one(
  shape: Shape,
  drives: Readonly<Record<string, string>>,
  hand: Readonly<Record<string, number>> = {},
): Piece {
  const b = new Builder('One', 1)
  const id = b.part('One', shape, {}, hand)
  for (const [property, text] of Object.entries(drives)) b.drive(id, property, text)
  return b.piece
}

const doubled = Array.from({ length: 40 }, (_, i) => `let a${i + 1} = a${i} + a${i};`).join(' ')

/** Those that were thought of, by what they are. */
export const THOUGHT_OF: Readonly<Record<string, () => Piece>> = {
  'births without end': () => one(emitter, { births: '1000000000', life: '1000000000s' }),
  'births by formula': () => one(emitter, { births: '1000000 * 1000000 * 10000' }, { life: 1e9 }),
  'births set by hand': () => one(emitter, {}, { births: 1e9, life: 1e9, speed: 1e9 }),
  'a speed that turns back': () => one(emitter, { speed: 'noise(3Hz, 90px/s)' }, { births: 1e5, life: 100 }),
  'births below nothing, a speed that turns back': () => {
    const piece = one(emitter, { speed: 'noise(3Hz, 90px/s)' }, { births: -1, life: 100 })
    const [[id, part]] = Object.entries(piece.parts) as [[string, Piece['parts'][string]]]
    return { ...piece, parts: { [id]: { ...part, ...row(377) } } }
  },
  'many emitters': () => copies(2000, 'sine(every: 2s, amp: 4px)', emitter),
  'two delays a link': () =>
    copies(64, 'if index == 0 then sine(every: 2s, amp: 9px) else delay(before.x, 50ms) + delay(before.x, 90ms)'),
  'two odd delays a link': () =>
    copies(
      64,
      'if index == 0 then sine(every: 2s, amp: 9px) else delay(before.x, index * 7ms) + delay(before.x, index * 13ms)',
    ),
  'delays that vary': () => chain(40, 'delay($.x, 50ms + noise(2Hz, 20ms)) + delay($.x, 80ms + noise(3Hz, 20ms))'),
  'averages of averages': () => chain(5, 'average($.x, 1s) + noise(2Hz, 3px)'),
  'sums of sums': () => chain(6, 'accumulate(abs($.x) / 1s) + noise(2Hz, 3px)'),
  'speeds of speeds': () => chain(16, 'rate($.x) * 1s'),
  'a chain of 2,000': () => chain(2000, '$.x * 0.99 + 1px'),
  'a chain of 400 delays': () => chain(400, 'delay($.x, 33ms)'),
  'a circle of 500': () => {
    const piece = chain(500, '$.x + 1px')
    const [first] = Object.keys(piece.drives)
    return {
      ...piece,
      drives: { ...piece.drives, [first!]: { ...piece.drives[first!]!, text: 'k499.x', good: 'k499.x' } },
    }
  },
  '10,000 copies': () =>
    copies(2000, 'noise(2Hz, 9px) + sine(every: 2s, amp: 3px, phase: index * 7deg) * clamp(time / 1s, 0, 1)'),
  'copies that read the one before': () => copies(2000, 'if index == 0 then time * 3px/s else before.x * 0.9 + 1px'),
  'names doubled': () => one({ type: 'rectangle' }, { x: `let a0 = noise(1Hz, 1px); ${doubled} a40` }),
  'a lap of 1e9 s': () => ({ ...lanternPier(), lap: { length: { n: 1e9, d: 1 }, start: -1e9 } }),
  'a lap of a billionth': () => ({ ...lanternPier(), lap: { length: { n: 1, d: 1e9 }, start: 0.1 } }),
  '1e9 frames a second': () => ({ ...lanternPier(), frameRate: { n: 1e9, d: 1 } }),
  'a frame in 1e9 seconds': () => ({ ...lanternPier(), frameRate: { n: 1, d: 1e9 } }),
  'a pace of 1e9': () =>
    one({ type: 'rectangle' }, { x: 'random(0px, 9px, rate: 1000000000Hz) + square(freq: 999999999Hz, amp: 3px)' }),
  'marks close together': () => {
    const b = new Builder('Marks', 1)
    b.cue(
      'blow',
      Array.from({ length: 10000 }, (_, i) => i / 1e7),
      0.000001,
    )
    b.drive(
      b.part('Bell', { type: 'ellipse' }),
      'x',
      'envelope(on: blow, attack: 1ms, hold: 1ms, release: 1s) * 9px + count(blow) * 1px',
    )
    return b.piece
  },
  'clocks upon clocks': () => {
    const b = new Builder('Clocks', 1)
    let on: string | null = null
    for (let i = 0; i < 16; i++)
      on = b.clock(`c${i}`, {
        on,
        way: i % 3 ? { type: 'toAndFro', length: 1e-6 + i } : { type: 'restart', every: 1e-5 },
        hold: i % 2 ? 1e9 : null,
      })
    b.drive(b.part('Hand', { type: 'line' }), 'rotation', 'time * 1deg/s on c15')
    return b.piece
  },
  'a clock on a channel that is none': () => {
    const b = new Builder('Clock', 1)
    const curve = b.curve(
      'swing',
      {
        a: [
          [0, 0],
          [1, 1],
        ],
      },
      {},
    )
    b.clock('drawn', { way: { type: 'curve', curve, channel: 'constructor' } })
    b.clock('lost', { way: { type: 'curve', curve: 'nothing', channel: 'a' } })
    b.clock('away', { way: { type: 'cue', cue: 'nothing' } })
    const hand = b.part('Hand', { type: 'line' })
    b.drive(hand, 'rotation', 'time * 9deg/s on drawn')
    b.drive(hand, 'x', 'time * 9px/s on lost')
    b.drive(hand, 'y', 'time * 9px/s on away')
    return b.piece
  },
  'properties that are none': () => {
    const piece = one({ type: 'rectangle' }, { x: 'time * 1px/s' })
    const [id] = Object.keys(piece.parts)
    const drive = Object.values(piece.drives)[0]!
    const drives = Object.fromEntries(
      ['toString', 'valueOf', 'nothing', 'teeth', 'X'].map(p => [`${id}.${p}`, { ...drive, property: p }]),
    )
    return {
      ...piece,
      drives,
      bases: { [`${id}.hasOwnProperty`]: { value: 1 }, 'zz.x': { value: 3 } },
      ties: { t: { a: `${id}.nothing`, b: 'zz.x', ratio: 0, offset: 1 } },
    }
  },
  'traces without end': () => {
    const b = new Builder('Trace', 1)
    const of = b.part('Pen', { type: 'ellipse' })
    b.drive(of, 'x', 'noise(3Hz, 300px)')
    for (let i = 0; i < 40; i++)
      b.part(`Line ${i}`, { type: 'trace', of, x: i, y: 0, every: 240 }, row(40), { trail: 1e6 })
    return b.piece
  },
  'wheels with many teeth': () => copies(2000, 'time * 3px/s', { type: 'gear', teeth: 400, spokes: 64, module: 3 }),
  'letters without end': () =>
    copies(400, 'time * 3px/s', {
      type: 'text',
      words: 'Wave '.repeat(40),
      shows: 'words',
      decimals: 0,
      prefix: '',
      suffix: '',
      align: 'left',
    }),
  'rough water': () =>
    one({ type: 'waves', longest: 1e-3, depth: 1e6, wind: 1e9, waves: 64, tile: 1, seed: 4 }, { width: '1000000px' }),
  'gears in a ring': () => {
    const b = new Builder('Gears', 1)
    const gear = { type: 'gear', teeth: 12, spokes: 0, module: 4 } as const
    for (let i = 0; i < 300; i++)
      b.drive(b.part(`G${i}`, gear), 'rotation', i === 0 ? 'time * 9deg/s' : `engage(g${i - 1})`)
    return b.piece
  },
  'ties in a ring': () => {
    const b = new Builder('Ties', 1)
    const ids = Array.from({ length: 200 }, (_, i) => b.part(`T${i}`, { type: 'rectangle' }))
    const ties = Object.fromEntries(
      ids.map((id, i) => [`t${i}`, { a: `${id}.x`, b: `${ids[(i + 1) % ids.length]}.x`, ratio: 1.01, offset: 1 }]),
    )
    return { ...b.piece, ties }
  },
  '20,000 hand values': () => {
    const b = new Builder('Hand', 1)
    const ids = Array.from({ length: 900 }, (_, i) => b.part(`P${i}`, { type: 'rectangle' }))
    const bases: Piece['bases'] = {}
    for (const id of ids)
      for (const p of [
        'x',
        'y',
        'rotation',
        'scale',
        'scaleX',
        'scaleY',
        'opacity',
        'width',
        'height',
        'corners',
        'fillLightness',
        'fillChroma',
        'fillHue',
        'fillAlpha',
        'strokeLightness',
        'strokeChroma',
        'strokeHue',
        'strokeAlpha',
        'strokeWidth',
        'z',
        'rotationX',
        'rotationY',
      ])
        bases[`${id}.${p}`] = { value: 1 + ids.indexOf(id) }
    return { ...b.piece, bases: Object.fromEntries(Object.entries(bases).slice(0, 19990)) }
  },
  'keys in crowds': () => {
    const points = Array.from({ length: 2000 }, (_, i) => ({
      time: i * 1e-6,
      value: (i * 7919) % 100,
      shape: 'smooth' as const,
    }))
    const piece = one({ type: 'rectangle' }, {})
    const [id] = Object.keys(piece.parts)
    return {
      ...piece,
      bases: Object.fromEntries(
        ['x', 'y', 'rotation'].map(p => [`${id}.${p}`, { value: 0, keys: { points, after: 'mirror' as const } }]),
      ),
    }
  },
  'parts in parts': () => {
    const b = new Builder('Deep', 1)
    let parent: string | null = null
    for (let i = 0; i < 199; i++) parent = b.part(`D${i}`, { type: 'group' }, { parent }, { rotation: 1e9, scale: 1e9 })
    return b.piece
  },
}
