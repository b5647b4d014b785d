/** Maps keys to commands and commands to their keys. */
import { createGlobalState, useStorage } from '@vueuse/core'
import { COMMAND_NAMES, commandEntry, isSingleKey, type Command, type CommandPlace } from '~~/core/manual/commands.ts'
import { storage } from '~/services/storage.ts'
import { chordOf } from './chord.ts'

const HEARD = new Map<string, Command>()
for (const name of COMMAND_NAMES) {
  const { keys = [], place = 'piece' } = commandEntry(name)
  for (const chord of keys) HEARD.set(`${place} ${chord}`, name)
}

/** Whether single-key shortcuts are on; stored in this browser. */
export const useSingleKeys = createGlobalState(() => useStorage('open-tide-single-keys', true, storage))

export function useCommandKeys() {
  const single = useSingleKeys()
  /** Shortcuts that only work while the stage has the focus are exempt (WCAG 2.1.4). */
  const isOff = (chord: string, place: CommandPlace) => !single.value && place !== 'stage' && isSingleKey(chord)

  /** The command for a pressed key, or null. */
  function commandFor(e: KeyboardEvent, place: CommandPlace): Command | null {
    const chord = chordOf(e)
    return isOff(chord, place) ? null : (HEARD.get(`${place} ${chord}`) ?? null)
  }
  /** The keys of a command that are turned on. */
  function keysOf(name: Command): readonly string[] {
    const { keys = [], place = 'piece' } = commandEntry(name)
    return keys.filter(chord => !isOff(chord, place))
  }
  /** Appends the first key of a command to a tooltip. */
  function withKeys(text: string, name: Command): string {
    const [first] = keysOf(name)
    return first === undefined ? text : `${text} (${first})`
  }
  return { isOff, commandFor, keysOf, withKeys }
}
