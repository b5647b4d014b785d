/** Pictures for the stage, fetched once and kept while they are shown anywhere. */

export type Picture = ImageBitmap | 'coming' | 'gone'

const known = new Map<string, Picture>()
const waiting = new Set<() => void>()

/** The picture of a hash; while it is fetched `coming`, and `again` is called when it is there or known to be gone. */
export function pictureOf(hash: string, again: () => void): Picture {
  const found = known.get(hash)
  if (found === 'coming') waiting.add(again)
  if (found) return found
  known.set(hash, 'coming')
  waiting.add(again)
  void fetched(hash).then(it => {
    known.set(hash, it)
    const all = [...waiting]
    waiting.clear()
    for (const call of all) call()
  })
  return 'coming'
}

async function fetched(hash: string): Promise<Picture> {
  try {
    const answer = await fetch(`/api/assets/${hash}`)
    if (!answer.ok) return 'gone'
    return await createImageBitmap(await answer.blob(), { premultiplyAlpha: 'premultiply' })
  } catch {
    return 'gone'
  }
}
