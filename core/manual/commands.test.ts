/** The command table is consistent: no key has two meanings in one place. */
import { describe, expect, it } from 'vitest'
import { COMMAND_NAMES, commandEntry, isSingleKey, type CommandPlace } from './commands.ts'

const keysIn = (...places: CommandPlace[]) =>
  COMMAND_NAMES.flatMap(name => {
    const { keys = [], place = 'piece' } = commandEntry(name)
    return places.includes(place) ? [...keys] : []
  })

describe('commands', () => {
  it('no two have the same key where both are heard', () => {
    // The scope's keys work on the whole page.
    for (const keys of [keysIn('piece', 'scope'), keysIn('stage')]) expect(new Set(keys).size).toBe(keys.length)
  })

  it('keys are printed one way: Ctrl, Alt, Shift, then the key', () => {
    const named = 'Space|Enter|Esc|Del|Home|Tab|F1|[←↑→↓]'
    for (const keys of keysIn('piece', 'stage', 'scope'))
      expect(keys).toMatch(new RegExp(`^(Ctrl )?(Alt )?(Shift )?(${named}|[A-Z]|[^\\p{L}\\s])$`, 'u'))
  })

  it('a key of one character is one that may be hit by accident; keys with Ctrl, arrows and named keys are not', () => {
    for (const keys of ['C', '0', '/', '?', '[', 'Shift ,']) expect(isSingleKey(keys), keys).toBe(true)
    for (const keys of ['Space', 'Enter', 'F1', 'Ctrl C', '↑', 'Esc', 'Ctrl Shift Z'])
      expect(isSingleKey(keys), keys).toBe(false)
  })

  it('with single keys turned off, the search and the shortcuts are still reached by keys', () => {
    const { keys = [] } = commandEntry('Find anything')
    expect(keys.filter(k => !isSingleKey(k))).toEqual(['Ctrl K'])
  })
})
