/** What is found by a word: every command and setting with the trade's words for it, functions, properties, topics. */
import { FUNCTIONS } from '~~/core/functions/index.ts'
import { callSignature } from '~~/core/manual/manual.ts'
import type { Searched } from '~~/core/manual/matching.ts'
import { topics } from '~~/core/manual/search.ts'
import { COMMAND_NAMES, commandEntry } from '~~/core/manual/commands.ts'
import { FUNCTION_WORDS, PROPERTY_WORDS } from '~~/core/manual/trade-words.ts'
import { PROPERTIES, propertiesOf } from '~~/core/piece/properties.ts'
import { reveal, revealInManual } from '~/editor/reveal.ts'
import { useCommandKeys } from '~/commands/keys.ts'
import { useCommands } from '~/commands/run-command.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

export interface Found extends Searched {
  readonly kind: string
  readonly key?: string
  readonly go: () => void
}

const DESK = '[aria-label="Desk"]'

export function useFinding() {
  const store = useOpenPiece()
  const hand = useSelection()
  const { runCommand } = useCommands()
  const { keysOf } = useCommandKeys()

  const manual = (anchor: string) => () => {
    hand.manual = true
    revealInManual(anchor)
  }
  // The search doesn't offer itself.
  const commands = COMMAND_NAMES.filter(name => name !== 'Find anything').map((name): Found => {
    const [key] = keysOf(name)
    const go = () => runCommand(name)
    return { name, also: commandEntry(name).words, kind: 'command', ...(key !== undefined && { key }), go }
  })

  /** On the Part page, where the selected part has it; else in the manual. */
  const property = (name: string) => () => {
    const part = hand.part === null ? undefined : store.piece.parts[hand.part]
    if (part && propertiesOf(part.shape.type).some(p => p.name === name)) {
      hand.desk = 'part'
      reveal(name, DESK)
    } else manual('properties')()
  }
  const known: readonly Found[] = [
    ...PROPERTIES.map(p => ({
      name: p.name,
      also: PROPERTY_WORDS[p.name] ?? '',
      says: p.description,
      kind: 'property',
      go: property(p.name),
    })),
    ...FUNCTIONS.map(f => ({
      name: f.name,
      also: FUNCTION_WORDS[f.name] ?? '',
      says: f.description,
      key: callSignature(f).slice(f.name.length),
      kind: 'function',
      go: manual(`fn-${f.name}`),
    })),
    ...topics().map(t => ({ name: t.title, says: t.says, kind: 'manual', go: manual(t.anchor) })),
  ]
  return { commands, known }
}
