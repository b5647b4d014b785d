/** Files taken in from outside: what they become, what was left, and why when nothing could be taken. */
import { apply } from '~~/core/piece/operation.ts'
import { readPiece } from '~~/core/piece/migrate.ts'
import { useHand } from './hand.ts'
import { usePiece } from './piece.ts'

export function useTaking() {
  const store = usePiece()
  const hand = useHand()

  /** @returns whether the file became parts */
  async function takeIn(file: File): Promise<boolean> {
    const { name } = file
    if (!/\.svg$/i.test(name) && file.type !== 'image/svg+xml') {
      store.notice = { says: `${name} is no SVG. Artwork is taken in from SVG files.` }
      return false
    }
    // What only some pieces need is fetched when it is.
    const [{ artworkOf }, text] = await Promise.all([import('~~/core/formats/artwork/artwork.ts'), file.text()])
    const taken = artworkOf(store.piece!, text, name.replace(/\.svg$/i, ''))
    const problem = 'op' in taken ? readPiece(apply(store.piece!, taken.op)).problem : taken.says
    if (!('op' in taken) || problem !== null) {
      store.notice = { says: `${name} was not taken in. ${problem}` }
      return false
    }
    store.act(taken.op)
    hand.choose(taken.ids[0] ?? null)
    const left = taken.left.length > 0 ? ` Not taken: ${taken.left.join('; ')}.` : ''
    store.notice = {
      says: `${name} became ${taken.parts === 1 ? 'a part' : `${taken.parts} parts`}.${left}`,
      act: { says: 'Undo', do: store.undo },
    }
    return true
  }

  return { takeIn }
}
