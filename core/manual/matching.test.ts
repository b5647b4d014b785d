/** Searching by the words of the trade: each leads where it should, also with a slip of the finger. */
import { describe, expect, it } from 'vitest'
import { FUNCTIONS } from '../functions/index.ts'
import { PROPERTIES } from '../piece/properties.ts'
import { fit, matching, slips, type Searched } from './matching.ts'
import { topics } from './search.ts'
import { COMMAND_NAMES, commandEntry } from './commands.ts'
import { FUNCTION_WORDS, PROPERTY_WORDS } from './trade-words.ts'

/** All that the search of a piece offers besides the piece's own names. */
const ALL: readonly Searched[] = [
  ...COMMAND_NAMES.map(name => ({ name, also: commandEntry(name).words })),
  ...PROPERTIES.map(p => ({ name: p.name, also: PROPERTY_WORDS[p.name] ?? '', says: p.description })),
  ...FUNCTIONS.map(f => ({ name: f.name, also: FUNCTION_WORDS[f.name] ?? '', says: f.description })),
  ...topics().map(t => ({ name: t.title, says: t.says })),
]

/** What each search leads to: one of its first three results. */
const LEADS: Readonly<Record<string, string>> = {
  'Export…':
    'export, download, render, film, video, movie, mp4, webm, gif, png sequence, save as, publish, deliver, csv, wav, gltf, html, embed, screenshot, output, animation file',
  'Hand over…': 'share, link to client, review, publish link, collaborate, viewer, send',
  'Version history…': 'history, versions, backup, restore, revisions, autosave, recover',
  'Save now': 'save, disk',
  Harbour: 'home, projects, dashboard, open file, folder',
  'Rename the piece': 'rename, title, project name',
  'Play or pause': 'play, pause, stop, preview, playback, run',
  'Back to time 0': 'rewind, first frame, beginning, go to start',
  'Go to a time': 'seek, timecode, playhead, scrub, jump to time',
  'Playback speed': 'slow motion, playback rate, speed, pace, tempo',
  'Play backwards': 'reverse, backward',
  'Play every frame': 'dropped frames, every frame, stutter',
  'Mark the cue here': 'marker, tap, mark',
  'Start the stretch here': 'in point, work area, loop region',
  'End the stretch here': 'out point, stretch end',
  'Solo the selected part, or show everything again': 'solo, isolate, isolation, hide others',
  'Set a keyframe here': 'keyframe, key, set keyframe, insert key',
  'Poster frame': 'thumbnail, cover, poster',
  'Keep a take of the selected formula': 'take, snapshot, variant',
  'Copy the selected formula': 'copy formula, copy expression',
  Patterns: 'preset, template, library, pattern, recipe',
  Undo: 'undo, revert, mistake',
  Redo: 'redo',
  'Keyboard shortcuts': 'hotkeys, shortcuts, key bindings',
  'Open or close the manual': 'help, documentation, tutorial, manual, reference',
  'Add a part…': 'new shape, add layer, text, image, rectangle, star, particles, new object, circle',
  'Import artwork or pictures…': 'import svg, png, jpeg, import image, illustration, bitmap',
  'Import a table…': 'spreadsheet, import csv, json data',
  'Draw a path': 'pen, pen tool, bezier, freehand, draw',
  'Parts list': 'layers, hierarchy, parent, outliner, stacking, child, front, lock, nest',
  'Duplicate the selected part': 'duplicate, clone',
  'Delete the selected part': 'delete, remove, trash',
  'Group the selected parts': 'group, combine',
  'Align the selected parts': 'align, distribute, center, even spacing',
  'Desk: Scope': 'value graph, waveform, scope',
  'Desk: Part': 'inspector, properties, attributes',
  'Desk: Links': 'links, connections, constraint, parenting, dependency',
  'Loop: the Lap page': 'loop, duration, cycle, lap, seamless loop',
  'Desk: Piece': 'settings, document, composition, canvas',
  'Lap length': 'loop length, lap length, loop duration',
  'Seam at the loop point': 'seam, onion, first last frame',
  'Stage size': 'resolution, artboard, aspect ratio, 1080p, dimensions, hd',
  'Frame rate': 'fps, frame rate, frames per second',
  Background: 'background, backdrop, stage color',
  'In depth': '3d, perspective, three dimensional',
  'Camera distance': 'camera, focal length, field of view, lens',
  'Look around': 'orbit, tumble',
  'Seed of new drives': 'seed, random seed',
  'Reset tuning offsets': 'reset tuning, settle',
  'Smooth tuning': 'no jump, smooth tuning, glitch',
  Guides: 'guides, safe margins, title safe',
  Rulers: 'rulers, measure',
  Grid: 'grid, snap, snapping',
  Overlaps: 'overlap, collision, intersect',
  'Off-stage parts': 'off stage, cropped, out of frame',
  'Cost per frame': 'performance, profiler, optimize, heavy',
  'Motion path': 'motion path, trajectory',
  'Fit the stage': 'fit, zoom to fit',
  'Zoom in': 'zoom, magnify',
  'Single-key shortcuts': 'turn off shortcuts, disable letters',
  'Find anything': 'command palette, find',
  'One frame forward': 'next frame, step forward',
  'Select all parts': 'select all',
  'Actual size': '100%, actual size',
  Pivot: 'pivot, anchor point, origin, hinge',
  Copies: 'repeater, array, instances, copies, radial',
  Span: 'layer start, duration of a layer, appear',
  'Drive a property…': 'expression, animate, drive, driver, bind',
  'New dial': 'slider, parameter, variable, knob, dial',
  'New cue': 'new cue, beat sync',
  'New clock': 'time stretch, clock, bpm',
  'New curve': 'animation curve, new curve',
  'New signal': 'new signal, shared formula',
  'Dark or light theme': 'dark mode, light mode, theme',
  sine: 'sine, oscillate, lfo, pendulum, wobble',
  noise: 'noise, perlin, jitter, turbulence',
  random: 'random, chance, flicker',
  ramp: 'tween, ramp, linear',
  envelope: 'adsr, envelope, attack',
  ease: 'easing, ease in, ease out, overshoot',
  mix: 'lerp, blend, crossfade, mix',
  remap: 'remap, normalize',
  clamp: 'clamp, limit',
  wrap: 'modulo, wrap',
  mirror: 'ping pong, mirror',
  delay: 'delay, lag, stagger, offset in time',
  hold: 'sample and hold, posterize',
  average: 'moving average, low pass',
  accumulate: 'integrate, accumulate, odometer',
  rateOf: 'derivative, velocity',
  engage: 'gear, cog, mesh',
  rotation: 'rotation, spin, rotate',
  opacity: 'opacity, transparency, fade',
  scale: 'scale, resize',
  x: 'position, horizontal',
  corners: 'corner radius, rounded',
  strokeWidth: 'stroke, border, outline thickness',
  lineEnd: 'trim, write on',
  thickness: 'extrude, extrusion',
  pose: 'morph',
  births: 'emission rate, spawn',
}
const cases = Object.entries(LEADS).flatMap(([name, words]) => words.split(', ').map(w => [w, name] as const))

describe('the search', () => {
  it('knows the words of the trade: more than 250 lead where they should', () => {
    expect(cases.length).toBeGreaterThan(250)
    const astray = cases.filter(([word, name]) => !matching(word, ALL, 3).some(f => f.name === name))
    expect(
      astray.map(([word, name]) => `${word}: not ${name}, but ${matching(word, ALL, 3).map(f => f.name)}`),
    ).toEqual([])
  })
  it('forgives a slip of the finger: a letter wrong, missing, doubled or swapped', () => {
    for (const [word, name] of [
      ['exprot', 'Export…'],
      ['keyfrme', 'Set a keyframe here'],
      ['backgroud', 'Background'],
      ['dupplicate', 'Duplicate the selected part'],
      ['opactiy', 'opacity'],
      ['perspektive', 'In depth'],
    ] as const)
      expect(
        matching(word, ALL, 3).map(f => f.name),
        word,
      ).toContain(name)
    for (const name of COMMAND_NAMES) expect(matching(name, ALL, 1)[0]!.name).toBe(name)
  })
  it('finds nothing for what is no word of it, and nothing for nothing', () => {
    expect(matching('zzzzqx', ALL, 12)).toEqual([])
    expect(matching('  ', ALL, 12)).toEqual([])
    expect(fit('export zzzzqx', { name: 'Export…' })).toBe(0)
  })
  it('counts slips as few as there are', () => {
    expect([
      slips('rotation', 'rotation', 2),
      slips('rotaiton', 'rotation', 2),
      slips('rotate', 'rotation', 2),
    ]).toEqual([0, 1, 3])
    expect(slips('a', 'abcdef', 2)).toBe(3)
  })
})

describe('what people ask first', () => {
  it.each([
    ['loop', 'Loop: the Lap page'],
    ['easing', 'Easings'],
    ['export', 'Export…'],
    ['poster', 'Poster frame'],
  ])('%s leads to %s', (asked, first) => expect(matching(asked, ALL, 1)[0]!.name).toBe(first))
})
