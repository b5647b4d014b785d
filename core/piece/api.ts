/** Schemas of the API's answers: the server gives them, the app reads them. */
import * as v from 'valibot'
import { DeviceSchema } from './device.ts'
import type { Piece } from './schema.ts'

/** The server has validated the document, so the app doesn't do it again. */
const document = v.custom<Piece>(value => typeof value === 'object' && value !== null, 'A document is missing.')
/** ISO 8601. */
const time = v.string()

/** A piece as the harbour shows it. */
export const PieceSummary = v.pipe(
  v.object({
    id: v.string(),
    title: v.string(),
    revision: v.number(),
    changed: time,
    /** Where it lies in the harbour; empty where it lies with all the others. */
    folder: v.string(),
  }),
  v.readonly(),
)
export type PieceSummary = v.InferOutput<typeof PieceSummary>

/** A pattern that was saved: a small piece of its own. */
export const Pattern = v.pipe(v.object({ id: v.string(), document }), v.readonly())
export type Pattern = v.InferOutput<typeof Pattern>

/** A kept state of a piece. */
export const Version = v.pipe(
  v.object({
    version: v.number(),
    revision: v.number(),
    /** `refused`: made from a state that was no longer the newest, and kept aside. */
    state: v.picklist(['saved', 'refused']),
    at: time,
  }),
  v.readonly(),
)
export type Version = v.InferOutput<typeof Version>

/** A piece with its document, and the revision it is. */
export const Stored = v.pipe(v.object({ id: v.string(), revision: v.number(), document }), v.readonly())
export type Stored = v.InferOutput<typeof Stored>

const dialLoan = v.pipe(
  v.object({
    /** The dial's id. */
    dial: v.string(),
    /** What it is called there. */
    says: v.string(),
    low: v.number(),
    high: v.number(),
  }),
  v.readonly(),
)
const tuned = v.pipe(v.record(v.string(), v.number()), v.readonly())

/** What was handed over, as its maker sees it. */
export const Handover = v.pipe(
  v.object({
    id: v.number(),
    lent: v.pipe(v.array(dialLoan), v.readonly()),
    formats: v.pipe(v.array(v.string()), v.readonly()),
    /** Values as the receiver left them, by the dial's id. */
    tuned,
    tunedAt: v.nullable(time),
    made: time,
    until: v.nullable(time),
    withdrawn: v.nullable(time),
  }),
  v.readonly(),
)
export type Handover = v.InferOutput<typeof Handover>

/** As its receiver gets it: the piece as it was handed over, and what was tuned of it. */
export const Received = v.pipe(
  v.object({
    document,
    lent: v.pipe(v.array(dialLoan), v.readonly()),
    formats: v.pipe(v.array(v.string()), v.readonly()),
    tuned,
  }),
  v.readonly(),
)
export type Received = v.InferOutput<typeof Received>

/** How sending to a device goes. */
export const DeviceStatus = v.pipe(
  v.object({
    sending: v.boolean(),
    /** Who lets it run: a window that plays, or the server alone. */
    by: v.nullable(v.picklist(['quay', 'alone'])),
    packets: v.number(),
    /** What went wrong last. */
    says: v.string(),
  }),
  v.readonly(),
)
export type DeviceStatus = v.InferOutput<typeof DeviceStatus>

/** Short answers. */
export const SavedRevision = v.object({ revision: v.pipe(v.number(), v.integer()) })
export const Created = v.object({ id: v.string() })
export const Link = v.object({ token: v.string() })
export const KeptPicture = v.object({ hash: v.string() })
export const Document = v.object({ document: v.unknown() })
export const DeviceAnswer = v.object({ device: DeviceSchema, status: DeviceStatus })
