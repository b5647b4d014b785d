/** Drawing without the workbench: a browser without a window that the prompt starts, which brings the pictures itself. */
import { planOf } from '~~/core/formats/give/plan.ts'
import type { Asked } from '~~/core/formats/give/written.ts'
import { carriedPictures } from '~/running/carried.ts'
import { drawn } from './drawing.ts'

/** Made once; fetched in pieces. */
let file: Uint8Array = new Uint8Array()

/** @returns how many bytes there are */
export async function give(
  asked: Asked,
  addresses: Readonly<Record<string, string>>,
  tell: (done: number) => void,
): Promise<number> {
  file = await drawn(asked, planOf(asked.piece, asked.wanted), carriedPictures(addresses), tell)
  return file.length
}

/** Some of the bytes, in base 64. */
export function bytes(from: number, to: number): string {
  let text = ''
  for (const b of file.subarray(from, to)) text += String.fromCharCode(b)
  return btoa(text)
}
