/** A piece at rest as an address that an image can show, drawn in this browser. */
import type { Piece } from '~~/core/piece/schema.ts'
import { rational } from '~~/core/time/rational.ts'

/** As it stands a little into its lap. */
export async function momentsOf(piece: Piece): Promise<string> {
  const { stillSvg } = await import('~~/core/formats/svg.ts')
  return `data:image/svg+xml,${encodeURIComponent(stillSvg(piece, rational(3, 4)))}`
}
