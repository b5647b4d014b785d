/** The small fair that the manual's examples run on, with its dials, clocks, cues and curves; tests run on it too. */
import { Builder } from '../acts/build.ts'

/** The fair, and its parts' ids by name. */
export function exampleFair(): { b: Builder; ids: Record<string, string> } {
  const b = new Builder('Example fair', 77)
  b.dial('fairPace')
  b.dial('wind', { value: 35, high: 100 })
  b.dial('dusk', { unit: '', value: 0.8, low: 0, high: 1 })
  b.clock('slow', { way: { type: 'steady', rate: 0.5, ahead: 0 } })
  b.clock('back', { way: { type: 'steady', rate: -1, ahead: 3 } })
  b.clock('slower', { on: 'k1', way: { type: 'steady', rate: 0.5, ahead: 1 } })
  b.clock('toAndFro', { way: { type: 'toAndFro', length: 3 } })
  b.clock('again', { way: { type: 'restart', every: 2 } })
  b.clock('stepped', { hold: 10 })
  b.cue('blow', [2, 5, 5.5])
  b.cue('beat', [1], 2)
  b.cue('never', [])
  b.clock('onBlow', { way: { type: 'cue', cue: 'q1' } })
  b.curve(
    'rocking',
    {
      angle: [
        [0, -10],
        [2, 20],
        [4, -10],
      ],
    },
    { unit: 'deg' },
  )
  b.curve(
    'swing',
    {
      arm: [
        [0, 0],
        [0.6, 40],
        [0.9, -60, 'straight'],
        [1.2, 0],
      ],
      puck: [
        [0, 0, 'stepped'],
        [0.9, 100],
        [2, 0],
      ],
    },
    { unit: 'deg', hit: 0.9 },
  )
  b.curve('climb', {
    height: [
      [0, 0, 'straight'],
      [2, 1],
    ],
  })
  const ids: Record<string, string> = {}
  ids.Carousel = b.part('Carousel', { type: 'ellipse' })
  const round = { layout: 'ring', count: 12, radius: 170, from: 0, sweep: 360, turn: true } as const
  ids.Mount = b.part('Mount', { type: 'ellipse' }, { parent: ids.Carousel, copies: round })
  ids.Flag = b.part('Flag', { type: 'rectangle' }, { copies: { layout: 'row', count: 5, dx: 40, dy: 0 } })
  ids['Ticket arch'] = b.part('Ticket arch', { type: 'star', points: 6 })
  ids.Pinion = b.part('Pinion', { type: 'gear', teeth: 12, spokes: 0, module: 4 })
  ids.Idler = b.part('Idler', { type: 'gear', teeth: 30, spokes: 5, module: 4 }, {}, { x: 84 })
  const basin = { type: 'waves', longest: 240, depth: 120, wind: 20, waves: 9, tile: 0, seed: 5 } as const
  ids.Basin = b.part('Basin', basin, {}, { y: -200, swell: 24 })
  return { b, ids }
}
