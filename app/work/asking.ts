/** What the page and the worker that knows about its piece say to each other. */
import type { Operation } from '~~/core/piece/operation.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import type { Costs } from '~~/core/insight/costs.ts'
import type { Closing } from '~~/core/insight/closings.ts'
import type { Rational } from '~~/core/time/rational.ts'
import type { OffStage } from '~~/core/insight/off-stage.ts'
import type { Overlap } from '~~/core/insight/overlaps.ts'
import type { DriveFacts, DriveJumps } from '~~/core/insight/drive-facts.ts'

/** What may be asked of a drive. */
export interface Answers {
  readonly known: DriveFacts
  readonly leaping: DriveJumps
  /** What would close it at the lap. */
  readonly closing: readonly Closing[]
  /** The shortest lap with which all of the piece closes that comes back; whatever drive is named. */
  readonly shortest: Rational
  /** Copies of a part that overlap in the lap; asked by the part's id. */
  readonly touching: readonly Overlap[]
  /** Parts that leave the stage in the lap; whatever drive is named. */
  readonly leaving: readonly OffStage[]
  /** What the values of the piece cost a frame on this machine; whatever drive is named. */
  readonly costs: Costs
}
export type About = keyof Answers

export type InsightRequest =
  | { readonly is: 'opened'; readonly piece: Piece; readonly version: number }
  | { readonly is: 'done'; readonly op: Operation; readonly version: number }
  | { readonly is: 'asked'; readonly key: string; readonly about: About }

/** Null where there is nothing to tell. `version`: of the piece that it was worked out for. */
export interface Answered {
  readonly key: string
  readonly about: About
  readonly version: number
  readonly answer: Answers[About] | null
}
