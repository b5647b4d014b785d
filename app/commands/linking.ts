/** Links made by one gesture: at a crossing of the board, or by dropping an entry on what is to follow it. */
import { drivenProperty, isSignal } from '~~/core/piece/drive-key.ts'
import { driverName, link } from '~~/core/insight/changing-links.ts'
import { propertiesOf } from '~~/core/piece/properties.ts'
import { useListing } from '../stores/listing.ts'
import { useOpenPiece } from '../stores/open-piece.ts'
import { useSmoothing } from './smoothing.ts'

export function useLinking() {
  const store = useOpenPiece()
  const smoothing = useSmoothing()

  /** Whether it was linked; if not, why has been said. */
  function join(driver: string, driven: string): boolean {
    const made = link(store.program, driver, driven)
    if ('says' in made) {
      store.say(made.says)
      return false
    }
    smoothing.told(made.op, `${driverName(store.piece, driven)} follows ${driverName(store.piece, driver)}.`)
    return true
  }

  /** A part follows an entry by the property of the same name; gives the key of what was linked. */
  function follow(driver: string, part: string): string | null {
    const { name, shape } = store.piece.parts[part]!
    const property = drivenProperty(driver)
    const key = `${part}.${property}`
    if (isSignal(driver) || !propertiesOf(shape.type).some(p => p.name === property)) {
      const what = isSignal(driver) ? 'A signal has no property to drive' : `${name} has no ${property}`
      store.say(`${what}. Drop it on a formula, where it is read by its name.`)
      return null
    }
    if (key === driver) return null
    return join(driver, key) ? key : null
  }

  /** The same, and the entry that follows is shown. */
  function followed(driver: string, part: string): void {
    const key = follow(driver, part)
    if (key) useListing().reveal(key)
  }

  return { join, followed }
}
