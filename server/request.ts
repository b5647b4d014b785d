/** Reading requests: what is wrong comes back as one plain sentence with the status that fits. */
import type { H3Event } from 'h3'
import * as v from 'valibot'
import { readPiece } from '../core/piece/migrate'
import type { Piece } from '../core/piece/schema'
import { roomFor } from './database/current'

/** The largest document taken, in bytes of JSON. */
export const LARGEST = 8 * 1024 * 1024
/** Milliseconds in which a body has to be there. */
const PATIENCE = 20_000

export const refuse = (statusCode: number, says: string, data?: unknown) =>
  createError({ statusCode, message: says, data })

/** Turns nothing into something else unseen. */
const UTF8 = new TextDecoder('utf-8', { fatal: true })
const TOO_LARGE = 'This piece is larger than 8 MB and was not saved.'

export function idOf(event: H3Event): string {
  const id = getRouterParam(event, 'id') ?? ''
  if (!/^[A-Za-z0-9_-]{1,40}$/.test(id)) throw refuse(404, 'There is no such piece.')
  return id
}

/** A token in a path, whatever it is: one that is none is answered like one that is not good. */
export const tokenOf = (event: H3Event): string => (getRouterParam(event, 'token') ?? '').slice(0, 64)

/** One answer for what never was, is over or was withdrawn. */
export const notHanded = () =>
  refuse(
    404,
    'This link does not open: it was withdrawn, is over, or is not complete. Ask whoever sent it for a new one.',
  )

/** A whole number in a path. Throws 404. */
export function numberOf(event: H3Event, name: string): number {
  const given = getRouterParam(event, name) ?? ''
  const n = Number(given)
  if (!/^\d{1,10}$/.test(given) || n > 2147483647) throw refuse(404, 'There is no such version.')
  return n
}

/** A body, cut off at the limit while it is read. Throws 413 or 408. */
export function bytesOf(event: H3Event, most: number, tooLarge: string): Promise<Uint8Array> {
  const { req } = event.node
  return new Promise((done, fail) => {
    const parts: Buffer[] = []
    let size = 0
    const end = (e: unknown) => {
      clearTimeout(timer)
      req.removeAllListeners('data')
      req.pause()
      // What still comes is not read; the connection ends with the answer.
      event.node.res.setHeader('connection', 'close')
      fail(e)
    }
    const timer = setTimeout(() => end(refuse(408, 'The request did not come whole in time. Try again.')), PATIENCE)
    req.on('data', (part: Buffer) => {
      size += part.length
      if (size > most) end(refuse(413, tooLarge))
      else parts.push(part)
    })
    req.on('end', () => {
      clearTimeout(timer)
      done(Buffer.concat(parts))
    })
    req.on('error', e => {
      clearTimeout(timer)
      fail(e)
    })
    req.on('aborted', () => clearTimeout(timer))
  })
}

async function textOf(event: H3Event): Promise<string> {
  const bytes = await bytesOf(event, LARGEST, TOO_LARGE)
  try {
    return UTF8.decode(bytes)
  } catch {
    throw refuse(400, 'The request is no text in UTF-8.')
  }
}

/** A JSON body of a shape. Throws 413, 408, 507 or 400. */
export async function bodyOf<T extends v.GenericSchema>(event: H3Event, shape: T): Promise<v.InferOutput<T>> {
  const length = Number(getRequestHeader(event, 'content-length') ?? 0)
  if (length > LARGEST) {
    event.node.res.setHeader('connection', 'close')
    throw refuse(413, TOO_LARGE)
  }
  const raw = await textOf(event)
  if (!(await roomFor(raw.length)))
    throw refuse(507, 'The disk is full: nothing was saved. Make room on it; the next try will do.')
  let value: unknown
  try {
    value = JSON.parse(raw)
  } catch {
    throw refuse(400, 'The request is no JSON.')
  }
  const result = v.safeParse(shape, value, { abortEarly: true })
  if (!result.success) {
    const issue = nearest(result.issues[0])
    throw refuse(400, `At ${v.getDotPath(issue) ?? 'the top'}: ${issue.message}`.slice(0, 400))
  }
  return result.output
}

/** Of the shapes that a request may have, what is wrong with the one that it comes nearest to. */
function nearest(issue: v.BaseIssue<unknown>): v.BaseIssue<unknown> {
  const deep = (i: v.BaseIssue<unknown>): number => (i.type === 'strict_object' ? 0 : 1) + 2 * (i.path?.length ?? 0)
  const [best] = [...(issue.issues ?? [])].sort((a, b) => deep(b) - deep(a))
  return best && deep(best) > deep(issue) ? best : issue
}

/** A title as a request gives it: the same rules as in a document. */
export const Title = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1, 'A piece needs a title.'),
  v.maxLength(120, 'A title has at most 120 characters.'),
  v.check(s => !/\p{Surrogate}|\p{Control}/u.test(s), 'A title holds no control characters.'),
)

/** A document from a request, raised to this version and checked. Throws 422. */
export function documentOf(input: unknown): Piece {
  const { piece, problem } = readPiece(input)
  if (!piece) throw refuse(422, `${problem} Nothing was saved.`)
  return piece
}
