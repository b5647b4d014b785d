/**
 * The open piece, non-null, for components and commands that only exist while a piece is open. Code that can run without
 * one uses `usePiece`.
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

/** The only place that assumes an open piece. */
export const useOpenPiece = (): OpenPiece => usePiece() as OpenPiece
