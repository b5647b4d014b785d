/** A piece at rest as an address that an image can show, drawn in this browser. */
import type { Piece } from '~~/core/piece/schema.ts'
import { posterOf } from '~~/core/piece/poster.ts'

/** As it stands on its card. */
export async function momentsOf(piece: Piece): Promise<string> {
  const { stillSvg } = await import('~~/core/formats/svg.ts')
  return `data:image/svg+xml,${encodeURIComponent(stillSvg(piece, posterOf(piece)))}`
}
