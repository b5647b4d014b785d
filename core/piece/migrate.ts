/** Documents at the border: raised from older versions, checked whole, told in plain words when they fail. */
import * as v from 'valibot'
import { PieceSchema, VERSION, type Piece } from './schema.ts'

type Raw = Record<string, unknown>

/** What raises a document of version n to n + 1, by n. */
const RAISE: Readonly<Record<number, (old: Raw) => Raw>> = {}

export type ReadPiece =
  { readonly piece: Piece; readonly problem: null } | { readonly piece: null; readonly problem: string }

/** A document from outside: raised to this version and checked. Never throws. */
export function readPiece(input: unknown): ReadPiece {
  if (typeof input !== 'object' || input === null || Array.isArray(input)) return fail('This isn’t an Open Tide piece.')
  let raw = input as Raw
  const version = raw.version
  if (!Number.isSafeInteger(version)) return fail('This isn’t an Open Tide piece: it has no version.')
  if ((version as number) > VERSION)
    return fail(`This piece was written by a newer Open Tide (version ${version}; this one reads up to ${VERSION}).`)
  for (let at = version as number; at < VERSION; at++) {
    const raise = Object.hasOwn(RAISE, at) ? RAISE[at] : undefined
    if (!raise) return fail(`This piece has version ${version}, which Open Tide can’t read.`)
    raw = raise(raw)
  }
  // The first fault is told: a document of a million faults is refused at once.
  const result = v.safeParse(PieceSchema, raw, { abortEarly: true })
  if (result.success) return { piece: result.output, problem: null }
  const issue = result.issues[0]
  const path = v.getDotPath(issue)
  return fail(brief(path ? `At ${path}: ${issue.message}` : issue.message))
}

/** One sentence stays one, whatever the document holds. */
const brief = (says: string): string => (says.length <= 400 ? says : `${says.slice(0, 200)} … ${says.slice(-190)}`)

const fail = (problem: string): ReadPiece => ({ piece: null, problem })
