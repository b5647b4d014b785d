/** Keys as they are printed, whatever keyboard they come from. */
import { describe, expect, it } from 'vitest'
import { chordOf } from './chord.ts'

const pressed = (key: string, held: { ctrl?: true; meta?: true; alt?: true; shift?: true; sign?: true } = {}) =>
  chordOf({
    key,
    ctrlKey: held.ctrl ?? false,
    metaKey: held.meta ?? false,
    altKey: held.alt ?? false,
    shiftKey: held.shift ?? false,
    getModifierState: (of: string) => of === 'AltGraph' && (held.sign ?? false),
  } as KeyboardEvent)

describe('what was pressed', () => {
  it.each([
    ['c', {}, 'C'],
    ['C', { shift: true }, 'Shift C'],
    ['z', { ctrl: true }, 'Ctrl Z'],
    ['Z', { meta: true, shift: true }, 'Ctrl Shift Z'],
    [' ', {}, 'Space'],
    ['ArrowUp', { alt: true, shift: true }, 'Alt Shift ↑'],
    // Shift and comma, on an American and on a German keyboard.
    ['<', { shift: true }, 'Shift ,'],
    [';', { shift: true }, 'Shift ,'],
    [',', {}, ','],
    // Characters that need Shift on some keyboards only.
    ['?', { shift: true }, '?'],
    ['/', { shift: true }, '/'],
    ['+', {}, '+'],
    // A bracket typed with AltGr, which Windows reports as Ctrl and Alt.
    ['[', { ctrl: true, alt: true, sign: true }, '['],
  ] as const)('%s %j is %s', (key, held, printed) => expect(pressed(key, held)).toBe(printed))
})
