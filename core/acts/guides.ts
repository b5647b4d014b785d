/** Guides of one's own: upright ones at an x, level ones at a y; and the grid. All in stage px from its middle. */
import { setStage } from './settings.ts'
import { operation, type Operation } from '../piece/operation.ts'
import { MOST_GUIDES, type Piece } from '../piece/schema.ts'

/** On which axis a guide has its place: x for an upright one. */
export type GuideAxis = 'x' | 'y'
export type OwnGuides = Readonly<Record<GuideAxis, readonly number[]>>

const NONE: OwnGuides = { x: [], y: [] }

export const guidesOf = ({ stage }: Piece): OwnGuides => stage.ownGuides ?? NONE

/** A guide more; guides are shown from then on. Null when there are as many as there may be. */
export function layGuide(piece: Piece, axis: GuideAxis, at: number): Operation | null {
  const all = guidesOf(piece)
  if (all[axis].length >= MOST_GUIDES) return null
  return changed(piece, 'add a guide', { ...all, [axis]: [...all[axis], at] })
}

export function moveGuide(piece: Piece, axis: GuideAxis, nth: number, to: number): Operation {
  const all = guidesOf(piece)
  return changed(piece, 'move a guide', { ...all, [axis]: all[axis].map((v, k) => (k === nth ? to : v)) })
}

export function dropGuide(piece: Piece, axis: GuideAxis, nth: number): Operation {
  const all = guidesOf(piece)
  return changed(piece, 'delete a guide', { ...all, [axis]: all[axis].filter((_, k) => k !== nth) })
}

/** How far apart the lines of the grid lie, px; 0 for none. */
export function setGrid(piece: Piece, grid: number): Operation {
  const { grid: _, ...rest } = piece.stage
  return operation('change the grid', { set: 'stage', value: grid > 0 ? { ...rest, grid } : rest })
}

/** What is ruled over the stage, and what it is called. */
export const RULED = { guides: 'Guides and safe margins', rulers: 'Rulers', grid: 'Grid' } as const
export type Ruled = keyof typeof RULED
/** How wide a grid is that is switched on, px. */
const GRID = 40

export const isRuled = ({ stage }: Piece, what: Ruled): boolean => Boolean(stage[what])

/** Switched on, or off. */
export const rule = (piece: Piece, what: Ruled, on: boolean): Operation =>
  what === 'grid' ? setGrid(piece, on ? GRID : 0) : setStage(piece, { [what]: on })

const changed = (piece: Piece, says: string, { x, y }: OwnGuides): Operation => ({
  ...setStage(piece, { guides: true, ownGuides: { x: [...x], y: [...y] } }),
  undoLabel: says,
})
