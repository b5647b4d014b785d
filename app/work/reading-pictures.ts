/** A picture file read, looked at and kept on the server under its hash. */
import { headOf } from '~~/core/formats/pictures/head.ts'
import { KeptPicture } from '~~/core/piece/api.ts'
import type { AddedPicture } from '~~/core/formats/pictures/adding.ts'
import { create } from '~/services/request.ts'

export type ReadPicture = AddedPicture | { readonly name: string; readonly says: string }

export async function readPicture(file: File): Promise<ReadPicture> {
  const { name } = file
  const bytes = new Uint8Array(await file.arrayBuffer())
  const head = headOf(bytes)
  if ('says' in head) return { name, says: head.says }
  // Only what the browser can draw is taken: a head alone proves little.
  const drawn = await createImageBitmap(new Blob([bytes], { type: head.type })).catch(() => null)
  if (!drawn)
    return { name, says: 'It’s damaged: the browser can’t draw it. Save it again from the program that made it.' }
  // A turned photograph is as wide as it is drawn.
  const { width, height } = drawn
  drawn.close()
  const answer = await create('/api/assets', KeptPicture, bytes)
  if (!answer.ok) return { name, says: answer.says }
  const { hash } = answer.value
  return { name, hash, bytes: bytes.length, head: { ...head, width, height } }
}
