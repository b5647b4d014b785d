/** Pictures for the stage, fetched once and kept while they are shown anywhere. */

export type StagePicture = ImageBitmap | 'coming' | 'gone'

const known = new Map<string, StagePicture>()
const waiting = new Set<() => void>()
/** Pictures whose request failed. Unlike missing ones, they are requested again until they load. */
const unreached = new Set<string>()
/** The first and the longest wait before the next request, in milliseconds. */
const [SOON, LATER] = [1000, 30_000]

/** Where the pictures of the house are asked for. */
export const ASSETS = '/api/assets'

/**
 * The picture of a hash; while it is fetched `coming`, and `again` is called when it is there or known to be gone.
 * @param from where it is asked for
 */
export function pictureOf(hash: string, again: () => void, from = ASSETS): StagePicture {
  const found = known.get(hash)
  if (found === 'coming' || unreached.has(hash)) waiting.add(again)
  if (found) return found
  known.set(hash, 'coming')
  waiting.add(again)
  load(hash, from, SOON)
  return 'coming'
}

/** Requests a picture. After a failed request it is drawn as missing until it loads. */
function load(hash: string, from: string, wait: number): void {
  void fetched(`${from}/${hash}`).then(it => {
    if (it === 'unreached') {
      unreached.add(hash)
      setTimeout(() => load(hash, from, Math.min(LATER, 2 * wait)), wait)
    } else unreached.delete(hash)
    const shown = it === 'unreached' ? 'gone' : it
    if (known.get(hash) === shown) return
    known.set(hash, shown)
    const all = [...waiting]
    waiting.clear()
    for (const call of all) call()
  })
}

/** Pictures that are asked for at an address. */
export const picturesFrom =
  (from: string) =>
  (again: () => void) =>
  (hash: string): StagePicture =>
    pictureOf(hash, again, from)

async function fetched(address: string): Promise<ImageBitmap | 'gone' | 'unreached'> {
  let bytes: Blob
  try {
    const answer = await fetch(address)
    if (!answer.ok) return answer.status < 500 ? 'gone' : 'unreached'
    bytes = await answer.blob()
  } catch {
    return 'unreached'
  }
  return createImageBitmap(bytes, { premultiplyAlpha: 'premultiply' }).catch(() => 'gone' as const)
}
