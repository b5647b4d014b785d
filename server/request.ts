/** Reading requests: what is wrong comes back as one plain sentence with the status that fits. */
import type { H3Event } from 'h3'
import * as v from 'valibot'
import { readPiece } from '../core/piece/migrate'
import type { Piece } from '../core/piece/schema'

/** The largest document taken, in bytes of JSON. */
export const LARGEST = 8 * 1024 * 1024

export const refuse = (statusCode: number, says: string, data?: unknown) =>
  createError({ statusCode, message: says, data })

export function idOf(event: H3Event): string {
  const id = getRouterParam(event, 'id') ?? ''
  if (!/^[A-Za-z0-9_-]{1,40}$/.test(id)) throw refuse(404, 'There is no such piece.')
  return id
}

/** A JSON body of a shape. Throws 413 or 400. */
export async function bodyOf<T extends v.GenericSchema>(event: H3Event, shape: T): Promise<v.InferOutput<T>> {
  const length = Number(getRequestHeader(event, 'content-length') ?? 0)
  if (length > LARGEST) throw refuse(413, 'This piece is larger than 8 MB and was not saved.')
  const raw = (await readRawBody(event, 'utf8')) ?? ''
  if (raw.length > LARGEST) throw refuse(413, 'This piece is larger than 8 MB and was not saved.')
  let value: unknown
  try {
    value = JSON.parse(raw)
  } catch {
    throw refuse(400, 'The request is no JSON.')
  }
  const result = v.safeParse(shape, value)
  if (!result.success) {
    const issue = result.issues[0]
    throw refuse(400, `At ${v.getDotPath(issue) ?? 'the top'}: ${issue.message}`)
  }
  return result.output
}

/** A document from a request, raised to this version and checked. Throws 422. */
export function documentOf(input: unknown): Piece {
  const { piece, problem } = readPiece(input)
  if (!piece) throw refuse(422, `${problem} Nothing was saved.`)
  return piece
}
