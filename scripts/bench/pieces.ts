/** Pieces made for measuring: each says what it is, so that a row can prove that it is that. */
import { Builder } from '../../core/acts/build.ts'
import { setEye } from '../../core/acts/settings.ts'
import type { Piece } from '../../core/piece/schema.ts'

/** So many bulbs in a grid, four properties of each driven. */
export function bulbsInAGrid(count: number): Piece {
  const b = new Builder(`${count} bulbs`, 1)
  const columns = Math.max(1, Math.ceil(Math.sqrt(count)))
  const copies = { layout: 'grid', count, columns, dx: 12, dy: 6 } as const
  const id = b.part('Bulb', { type: 'ellipse' }, count > 1 ? { copies } : {}, { width: 6, height: 6 })
  const index = count > 1 ? 'index' : '3'
  b.drive(id, 'x', `sine(every: 2s, amp: 3px, phase: ${index} * 7deg)`)
  b.drive(id, 'y', `sine(every: 3s, amp: 3px, phase: ${index} * 11deg)`)
  b.drive(id, 'rotation', `time * 20deg/s + ${index} * 1deg`)
  b.drive(id, 'opacity', `60% + sine(every: 5s, amp: 40%, phase: ${index} * 3deg)`)
  return b.piece
}

/** 250 ellipses, four properties driven. */
export function ellipses(): Piece {
  const b = new Builder('Ellipses', 1)
  const id = b.part('Dot', { type: 'ellipse' }, { copies: { layout: 'grid', count: 250, columns: 25, dx: 40, dy: 40 } })
  b.drive(id, 'x', 'sine(every: 2s, amp: 12px, phase: index * 7deg)')
  b.drive(id, 'y', 'sine(every: 3s, amp: 12px, phase: index * 11deg)')
  b.drive(id, 'width', '20px + sine(every: 4s, amp: 9px, phase: index * 5deg)')
  b.drive(id, 'fillHue', 'time * 40deg/s + index * 3deg')
  return b.piece
}

/** 10,000 bulbs on ten strings, six properties driven. */
export function bulbs(): Piece {
  const b = new Builder('Bulbs', 1)
  const strings = b.part('Strings', { type: 'group' }, { copies: { layout: 'row', count: 10, dx: 0, dy: 60 } })
  const copies = { layout: 'grid', count: 1000, columns: 100, dx: 12, dy: 6 } as const
  const id = b.part('Bulb', { type: 'ellipse' }, { parent: strings, copies }, { height: 6 })
  b.drive(id, 'x', 'sine(every: 2s, amp: 3px, phase: index * 7deg)')
  b.drive(id, 'y', 'sine(every: 3s, amp: 3px, phase: index * 11deg + parent.index * 30deg)')
  b.drive(id, 'width', '5px + sine(every: 4s, amp: 2px, phase: index * 5deg)')
  b.drive(id, 'rotation', 'time * 20deg/s + index * 1deg')
  b.drive(id, 'opacity', '60% + sine(every: 5s, amp: 40%, phase: index * 3deg)')
  b.drive(id, 'fillLightness', '60% + triangle(every: 2s, amp: 20%, phase: index * 9deg)')
  return b.piece
}

/** Twelve letters, 24 layers each, looping. */
export function letters(): Piece {
  const b = new Builder('Letters', 1)
  b.do(setEye(b.piece, 1400))
  const depth = b.part('Depth', { type: 'group' }, { copies: { layout: 'layers', count: 24, dz: 5 } })
  const text = { type: 'text', words: 'LANTERN PIER', shows: 'letters', decimals: 0, prefix: '', suffix: '' } as const
  const copies = { layout: 'row', count: 12, dx: 90, dy: 0 } as const
  const id = b.part('Letter', { ...text, align: 'middle' }, { parent: depth, copies }, { size: 120 })
  b.drive(id, 'scale', '100% + sine(freq: 4/lap, amp: 8%, phase: index * 30deg - layer * 9deg)')
  b.drive(id, 'rotation', 'sine(freq: 3/lap, amp: 6deg, phase: index * 40deg - layer * 7deg)')
  b.drive(id, 'y', 'sine(freq: 1/lap, amp: 12px, phase: index * 25deg - layer * 6deg)')
  b.drive(id, 'thickness', '5px + sine(freq: 2/lap, amp: 3px, phase: index * 50deg - layer * 12deg)')
  return b.piece
}

/** Water of 128 × 128 fields, its swell driven. */
export function water(): Piece {
  const b = new Builder('Water', 1)
  b.do(setEye(b.piece, 1400))
  const shape = { type: 'waves', longest: 420, depth: 160, wind: 15, waves: 24, tile: 0, seed: 5, fields: 128 } as const
  const id = b.part('Basin', shape, {}, { width: 1000, thickness: 900, foam: 50 })
  b.drive(id, 'swell', '30px + sine(every: 6s, amp: 10px)')
  return b.piece
}

/** 10,000 copies behind one another: of a post that swings, and of a swing of their own. */
export function followers(): Piece {
  const b = new Builder('Followers', 1)
  b.drive(b.part('Post', { type: 'ellipse' }), 'x', 'sine(every: 2s, amp: 30px)')
  const copies = { layout: 'grid', count: 10_000, columns: 100, dx: 12, dy: 6 } as const
  const id = b.part('Bulb', { type: 'ellipse' }, { copies })
  b.drive(id, 'x', 'delay(Post.x, index * 5ms)')
  b.drive(id, 'y', 'delay(sine(every: 3s, amp: 8px), index * 7ms)')
  return b.piece
}

/** 10,000 copies that play a drawn curve on a cue, and an envelope, each a little after the one before. */
export function players(): Piece {
  const b = new Builder('Players', 1)
  b.cue('beat', [0], 2)
  const points = [0, 18, -7, 0].map((v, k): [number, number] => [(k * 2) / 3, v])
  b.curve('sway', { arm: points }, { unit: 'px' })
  const copies = { layout: 'grid', count: 10_000, columns: 100, dx: 12, dy: 6 } as const
  const id = b.part('Bulb', { type: 'ellipse' }, { copies })
  b.drive(id, 'x', 'play(sway, beat, shift: index * 1ms)')
  b.drive(id, 'opacity', 'delay(envelope(attack: 0.5s, release: 1.5s, cue: beat), index * 1ms) * 100%')
  return b.piece
}

/** 10,000 copies of which nothing moves. */
export function resting(): Piece {
  const b = new Builder('Resting', 1)
  const copies = { layout: 'grid', count: 10_000, columns: 100, dx: 12, dy: 6 } as const
  b.part('Bulb', { type: 'ellipse' }, { copies }, { width: 6, height: 6 })
  return b.piece
}

/** A chain: every link follows the one before, a while later. `lag` falls between frames where it is 90 ms. */
export function chain(links: number, lag = '90ms'): Piece {
  const b = new Builder('Chain', 1)
  b.drive(b.part('Link 0', { type: 'ellipse' }), 'rotation', 'sine(every: 3s, amp: 40deg)')
  for (let i = 1; i < links; i++)
    b.drive(b.part(`Link ${i}`, { type: 'ellipse' }), 'rotation', `delay(\`Link ${i - 1}\`.rotation, ${lag}) * 0.99`)
  return b.piece
}

/** Particles in the air, so many at once. */
export function particles(births: number, life: number): Piece {
  const b = new Builder('Particles', 1)
  b.part(
    'Petals',
    { type: 'emitter', seed: 1, flight: 'fixed', reverses: false },
    {},
    { births, life, spread: 40, variety: 20, speed: 90, particle: 4 },
  )
  return b.piece
}

/** One formula on one part. */
export function single(text: string): Piece {
  const b = new Builder('One', 1)
  b.drive(b.part('Dot', { type: 'ellipse' }), 'rotation', text)
  return b.piece
}

/** Keeps a piece on a server. @returns its id */
export async function stored(url: string, document: Piece): Promise<string> {
  const made = await fetch(`${url}/api/pieces`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ document }),
  })
  return ((await made.json()) as { id: string }).id
}
