/** Which command a key stands for, and which keys a command has. */
import { createGlobalState, useStorage } from '@vueuse/core'
import { COMMAND_NAMES, commandEntry, isSingleKey, type Command, type CommandPlace } from '~~/core/manual/commands.ts'
import { storage } from '~/services/storage.ts'
import { chordOf } from './chord.ts'

const HEARD = new Map<string, Command>()
for (const name of COMMAND_NAMES) {
  const { keys = [], place = 'piece' } = commandEntry(name)
  for (const chord of keys) HEARD.set(`${place} ${chord}`, name)
}

/** Whether single characters are shortcuts; kept in this browser. */
export const useSingleKeys = createGlobalState(() => useStorage('open-tide-single-keys', true, storage))

export function useCommandKeys() {
  const single = useSingleKeys()
  /** Keys that are heard only while one thing has the focus may stay as they are. */
  const off = (chord: string, place: CommandPlace) => !single.value && place !== 'stage' && isSingleKey(chord)

  /** The command that was asked for by a key, or null. */
  function commandFor(e: KeyboardEvent, place: CommandPlace): Command | null {
    const chord = chordOf(e)
    return off(chord, place) ? null : (HEARD.get(`${place} ${chord}`) ?? null)
  }
  /** The keys of a command that work now, or none. */
  function keysOf(name: Command): readonly string[] {
    const { keys = [], place = 'piece' } = commandEntry(name)
    return keys.filter(chord => !off(chord, place))
  }
  /** A tooltip with the command's keys behind it. */
  function withKeys(text: string, name: Command): string {
    const [first] = keysOf(name)
    return first === undefined ? text : `${text} (${first})`
  }
  return { single, commandFor, keysOf, withKeys }
}
