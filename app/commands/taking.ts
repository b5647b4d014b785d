/** Files taken in from outside: what they become, what was left, and why when nothing could be taken. */
import { apply, type Operation } from '~~/core/piece/operation.ts'
import { readPiece } from '~~/core/piece/migrate.ts'
import { useSelection } from '../stores/selection.ts'
import { useOpenPiece } from '../stores/open-piece.ts'

/** Pictures taken at once, most. */
const MOST = 40

export function useTaking() {
  const store = useOpenPiece()
  const hand = useSelection()

  /** @returns whether the files became parts */
  async function takeIn(files: readonly File[]): Promise<boolean> {
    const [file] = files
    if (!file) return false
    if (/\.svg$/i.test(file.name) || file.type === 'image/svg+xml') return artwork(file)
    return pictures(files)
  }

  async function artwork(file: File): Promise<boolean> {
    const { name } = file
    // What only some pieces need is fetched when it is.
    const [{ artworkOf }, text] = await Promise.all([import('~~/core/formats/artwork/artwork.ts'), file.text()])
    const taken = artworkOf(store.piece, text, name.replace(/\.svg$/i, ''))
    if (!('op' in taken)) return refused(name, taken.says)
    const left = taken.left.length > 0 ? ` Not imported: ${taken.left.join('; ')}.` : ''
    return put(name, taken, `${name} became ${taken.parts === 1 ? 'a part' : `${taken.parts} parts`}.${left}`)
  }

  /** Pictures, all in one place, in the order of their names. */
  async function pictures(files: readonly File[]): Promise<boolean> {
    if (files.length > MOST)
      return refused(`${files.length} files`, `At most ${MOST} pictures can be imported at once.`)
    const { addPictures } = await import('~~/core/formats/pictures/adding.ts')
    const { readPicture } = await import('~/work/reading-pictures.ts')
    const all = [...files].sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }))
    const read = await Promise.all(all.map(readPicture))
    const good = read.flatMap(r => ('hash' in r ? [r] : []))
    const left = read.flatMap(r => ('says' in r ? [`${r.name}: ${r.says}`] : []))
    if (good.length === 0) return refused(all.length === 1 ? all[0]!.name : 'The files', left.join(' '))
    const says = good.length === 1 ? `${good[0]!.name} is a part.` : `${good.length} pictures are stacked in place.`
    const taken = addPictures(store.piece, good)
    return put(good[0]!.name, taken, left.length > 0 ? `${says} Not imported: ${left.join(' ')}` : says)
  }

  function put(name: string, { op, ids }: { op: Operation; ids: readonly string[] }, says: string): boolean {
    const { problem } = readPiece(apply(store.piece, op))
    if (problem !== null) return refused(name, problem)
    store.act(op)
    hand.chooseAll([...ids])
    store.sayWithUndo(says)
    return true
  }

  function refused(name: string, says: string): false {
    store.say(`${name} wasn’t imported. ${says}`)
    return false
  }

  return { takeIn }
}
