/**
 * The open piece, for all that is only there while a piece is open: its page shows none of it before, and takes it away
 * with the piece. Whoever may be there without one asks `usePiece`.
 */
import type { Program } from '~~/core/engine/program.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import type { Player } from '~/player/player.ts'
import { usePiece } from './piece.ts'

type PieceStore = ReturnType<typeof usePiece>

export type OpenPiece = Omit<PieceStore, 'piece' | 'program' | 'player'> & {
  readonly piece: Piece
  readonly program: Program
  readonly player: Player
}

/** The one place where a piece is taken to be open. */
export const useOpenPiece = (): OpenPiece => usePiece() as OpenPiece
