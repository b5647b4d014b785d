/** Formulas copied and pasted, also between pieces: kept in this browser. */
import { addDrive } from '~~/core/acts/drives.ts'
import { sourceName, sourceOf } from '~~/core/acts/sources.ts'
import { propertiesOf } from '~~/core/piece/properties.ts'
import { focusFormula } from '~/editor/focus.ts'
import { useHand } from './hand.ts'
import { useListing } from './listing.ts'
import { usePiece } from './piece.ts'

const PLACE = 'open-tide-clip'

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

export function useClip() {
  const store = usePiece()
  const hand = useHand()
  const listing = useListing()

  /** The formula in hand. */
  function copy(): void {
    const key = hand.drive
    const source = key === null ? undefined : sourceOf(store.piece!, key)
    if (!key || !source) {
      store.notice = { says: 'Take an entry of the tide table in hand, then copy it.' }
      return
    }
    const clip: Clip = { property: key.slice(key.indexOf('.') + 1), text: source.text }
    localStorage.setItem(PLACE, JSON.stringify(clip))
    store.notice = {
      says: `${sourceName(store.piece!, key)} is copied. Choose a part and paste it there, also in another piece.`,
    }
  }

  /** Onto the chosen part, on the same property. */
  function paste(): void {
    let clip: unknown = null
    try {
      clip = JSON.parse(localStorage.getItem(PLACE) ?? 'null')
    } catch {
      // What is no clip is none.
    }
    const part = hand.part === null ? undefined : store.piece!.parts[hand.part]
    if (!isClip(clip) || !part) {
      store.notice = { says: part ? 'Nothing has been copied yet.' : 'Choose the part that is to have it.' }
      return
    }
    const { property, text } = clip
    const known = propertiesOf(part.shape.type).find(p => p.name === property)
    if (!known) {
      store.notice = { says: `${part.name} has no ${property}.` }
      return
    }
    const key = `${hand.part}.${property}`
    const before = store.piece!.drives[key]
    store.act(addDrive(store.piece!, hand.part!, property, text))
    listing.reveal(key)
    const was = before ? ` What it had before, ${before.text.slice(0, 60)}, comes back with undo.` : ''
    store.notice = {
      says: `${part.name} ${property} has the copied formula.${was}`,
      act: { says: 'Undo', do: store.undo },
    }
    nextTick(() => focusFormula(key))
  }

  return { copy, paste }
}
