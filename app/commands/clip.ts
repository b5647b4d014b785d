/** Formulas, and parts with all they carry, copied and pasted, also between pieces: kept in this browser. */
import { drivenProperty } from '~~/core/piece/drive-key.ts'
import { storage } from '../services/storage.ts'
import { transferOf, pasteTransfer } from '~~/core/acts/transfer.ts'
import { addDrive } from '~~/core/acts/drives.ts'
import { sourceName, sourceOf } from '~~/core/acts/sources.ts'
import { apply } from '~~/core/piece/operation.ts'
import { readPiece } from '~~/core/piece/migrate.ts'
import { propertiesOf } from '~~/core/piece/properties.ts'
import { focusFormula } from '~/editor/focus.ts'
import { useSelection } from '../stores/selection.ts'
import { useListing } from '../stores/listing.ts'
import { useOpenPiece } from '../stores/open-piece.ts'

const PLACE = 'open-tide-clip'
const PARTS = 'open-tide-parts'
const FULL = 'There’s no room left in this browser to copy anything.'

interface Clip {
  readonly property: string
  readonly text: string
}
const isClip = (x: unknown): x is Clip =>
  typeof x === 'object' &&
  x !== null &&
  'text' in x &&
  typeof x.text === 'string' &&
  'property' in x &&
  typeof x.property === 'string'

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}

export function useClip() {
  const store = useOpenPiece()
  const hand = useSelection()
  const listing = useListing()

  /** The formula in hand. */
  function copy(): void {
    const key = hand.drive
    const source = key === null ? undefined : sourceOf(store.piece, key)
    if (!key || !source) {
      store.say('Select an entry of the tide table, then copy it.')
      return
    }
    const clip: Clip = { property: drivenProperty(key), text: source.text }
    if (!storage.tryItem(PLACE, JSON.stringify(clip))) return store.say(FULL)
    store.say(`${sourceName(store.piece, key)} is copied. Select a part and paste it there, also in another piece.`)
  }

  /** Onto the chosen part, on the same property. */
  function paste(): void {
    const clip = parsed(storage.getItem(PLACE) ?? 'null')
    const part = hand.part === null ? undefined : store.piece.parts[hand.part]
    if (!isClip(clip) || !part) {
      store.say(part ? 'Nothing has been copied yet.' : 'Select the part to paste it on.')
      return
    }
    const { property, text } = clip
    const known = propertiesOf(part.shape.type).find(p => p.name === property)
    if (!known) {
      store.say(`${part.name} has no ${property}.`)
      return
    }
    const key = `${hand.part}.${property}`
    const before = store.piece.drives[key]
    store.act(addDrive(store.piece, hand.part!, property, text))
    listing.reveal(key)
    const was = before ? ` What it had before, ${before.text.slice(0, 60)}, comes back with undo.` : ''
    store.sayWithUndo(`${part.name} ${property} has the copied formula.${was}`)
    void nextTick(() => focusFormula(key))
  }

  const called = (ids: readonly string[]) =>
    ids.length === 1 ? store.piece.parts[ids[0]!]!.name : `${ids.length} parts`

  /** The chosen parts, with what they carry and what their formulas read. */
  function copyParts(): void {
    const ids = hand.chosen
    if (!storage.tryItem(PARTS, JSON.stringify(transferOf(store.piece, ids))))
      return store.say(`${called(ids)} is too large to copy with everything it needs.`)
    store.say(`${called(ids)} is copied with everything it needs; paste it on this stage or another.`)
  }

  /** Onto the chosen group, else the stage. */
  function pasteParts(): void {
    const text = storage.getItem(PARTS)
    const read = text === null ? null : readPiece(parsed(text))
    if (!read?.piece || Object.keys(read.piece.parts).length === 0) {
      store.say('No part has been copied yet.')
      return
    }
    const group = hand.part !== null && store.piece.parts[hand.part]?.shape.type === 'group' ? hand.part : null
    const { ids, op } = pasteTransfer(store.piece, read.piece, group, 'paste parts')
    const { problem } = readPiece(apply(store.piece, op))
    if (problem !== null) {
      store.say(`It couldn’t be pasted. ${problem}`)
      return
    }
    store.act(op)
    hand.chooseAll(ids)
    store.sayWithUndo(`${called(ids)} ${ids.length === 1 ? 'is' : 'are'} pasted.`)
  }

  return { copy, paste, copyParts, pasteParts }
}
