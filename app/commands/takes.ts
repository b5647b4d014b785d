/** Takes of a drive: other formulas that are kept, and put in its place while it plays. */
import { MOST_TAKES, keepTake, takeInHand } from '~~/core/acts/sources.ts'
import { useOpenPiece } from '../stores/open-piece.ts'
import { useTuning } from './tuning.ts'

export function useTakes() {
  const store = useOpenPiece()
  const tuning = useTuning()
  const of = (key: string | null) => (key === null ? undefined : store.piece.drives[key])

  /** Keeps what runs now as a take. */
  function keep(key: string | null): void {
    const drive = of(key)
    if (!drive) return
    if (drive.takes.length >= MOST_TAKES) {
      store.say(`A drive can keep ${MOST_TAKES} takes. Delete one first.`)
      return
    }
    if (takeInHand(drive) >= 0) {
      store.say(`It’s already kept, as ${drive.takes[takeInHand(drive)]!.name}. Change the formula, then keep it.`)
      return
    }
    store.act(keepTake(store.piece, key!))
  }

  /** Puts a take in the place of the formula; what ran and is no take yet is kept first, so that nothing is lost. */
  function put(key: string, nth: number): void {
    const drive = of(key)
    const take = drive?.takes[nth]
    if (!drive || !take) return
    store.beginGesture()
    if (takeInHand(drive) < 0 && drive.takes.length < MOST_TAKES) store.act(keepTake(store.piece, key))
    tuning.exactly(key, take.text)
    store.endGesture()
  }

  /** The take before the one that runs, round and round. */
  function before(key: string | null): void {
    const drive = of(key)
    if (!drive || drive.takes.length === 0) {
      store.say('No takes yet. T keeps the selected formula as one.')
      return
    }
    const at = takeInHand(drive)
    put(key!, at < 0 ? drive.takes.length - 1 : (at - 1 + drive.takes.length) % drive.takes.length)
  }

  return { keep, put, before }
}
