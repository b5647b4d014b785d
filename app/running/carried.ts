/** Pictures that a piece carries with it, read without asking anybody: no address is fetched. */
import type { Pictures } from '~/stage/card.ts'
import type { StagePicture } from '~/stage/pictures.ts'

function blobOf(address: string): Blob {
  const [head, body] = address.split(',', 2) as [string, string]
  const bytes = Uint8Array.from(atob(body), c => c.charCodeAt(0))
  return new Blob([bytes], { type: head.slice(5).split(';')[0]! })
}

/** @param addresses data addresses in base 64, by hash */
export const carriedPictures =
  (addresses: Readonly<Record<string, string>>) =>
  (again: () => void): Pictures => {
    const known = new Map<string, StagePicture>()
    return hash => {
      const found = known.get(hash)
      if (found) return found
      const address = addresses[hash]
      known.set(hash, address === undefined ? 'gone' : 'coming')
      if (address !== undefined)
        void createImageBitmap(blobOf(address), { premultiplyAlpha: 'premultiply' })
          .catch(() => 'gone' as const)
          .then(it => {
            known.set(hash, it)
            again()
          })
      return known.get(hash)!
    }
  }
