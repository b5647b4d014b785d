/** Pictures for the stage, fetched once and kept while they are shown anywhere. */

export type StagePicture = ImageBitmap | 'coming' | 'gone'

const known = new Map<string, StagePicture>()
const waiting = new Set<() => void>()

/** Where the pictures of the house are asked for. */
export const ASSETS = '/api/assets'

/**
 * The picture of a hash; while it is fetched `coming`, and `again` is called when it is there or known to be gone.
 * @param from where it is asked for
 */
export function pictureOf(hash: string, again: () => void, from = ASSETS): StagePicture {
  const found = known.get(hash)
  if (found === 'coming') waiting.add(again)
  if (found) return found
  known.set(hash, 'coming')
  waiting.add(again)
  void fetched(`${from}/${hash}`).then(it => {
    known.set(hash, it)
    const all = [...waiting]
    waiting.clear()
    for (const call of all) call()
  })
  return 'coming'
}

/** Pictures that are asked for at an address. */
export const picturesFrom =
  (from: string) =>
  (again: () => void) =>
  (hash: string): StagePicture =>
    pictureOf(hash, again, from)

async function fetched(address: string): Promise<StagePicture> {
  try {
    const answer = await fetch(address)
    if (!answer.ok) return 'gone'
    return await createImageBitmap(await answer.blob(), { premultiplyAlpha: 'premultiply' })
  } catch {
    return 'gone'
  }
}
