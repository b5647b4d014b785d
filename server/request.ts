/** Reading requests: what is wrong comes back as one plain sentence with the status that fits. */
import type { H3Event } from 'h3'
import * as v from 'valibot'
import { readPiece } from '../core/piece/migrate'
import type { Piece } from '../core/piece/schema'
import { roomFor } from './database/current'
import { DOCUMENT, SMALL_BODY, isWithin, readJsonText, type Bounds } from './reading/reading'

/** Milliseconds in which a body has to be there. */
const PATIENCE = 20_000

export const refuse = (statusCode: number, says: string, data?: unknown) =>
  createError({ statusCode, message: says, data })

/** Bytes beyond the limit that are let go by after the answer. */
const LET_BY = 64 * 1024 * 1024

/** Turns nothing into something else unseen. */
const UTF8 = new TextDecoder('utf-8', { fatal: true })
const TOO_LARGE = 'This piece is larger than 8 MB and was not saved.'

/** The path that was asked for, without its query; whatever name the server was called by. */
export const pathOf = (event: H3Event): string => event.path.split(/[?#]/)[0]!

export function idOf(event: H3Event): string {
  const id = getRouterParam(event, 'id') ?? ''
  if (!/^[A-Za-z0-9_-]{1,40}$/.test(id)) throw refuse(404, 'There’s no such piece.')
  return id
}

/** A token in a path, whatever it is: one that is none is answered like one that is not good. */
export const tokenOf = (event: H3Event): string => (getRouterParam(event, 'token') ?? '').slice(0, 64)

/** One answer for what never was, is over or was withdrawn. */
export const notHanded = () =>
  refuse(404, 'This link doesn’t work: it was revoked, has expired, or isn’t complete. Ask the sender for a new one.')

/** A whole number in a path. Throws 404. */
export function numberOf(event: H3Event, name: string): number {
  const given = getRouterParam(event, name) ?? ''
  const n = Number(given)
  if (!/^\d{1,10}$/.test(given) || n > 2147483647) throw refuse(404, 'There’s no such version.')
  return n
}

/** A body, cut off at the limit while it is read. Throws 413 or 408. */
export function bytesOf(event: H3Event, most: number, tooLarge: string): Promise<Uint8Array> {
  const { req } = event.node
  return new Promise((done, fail) => {
    const parts: Buffer[] = []
    let size = 0
    let timer: NodeJS.Timeout | undefined
    /** What still comes is let go by, so that the sender reads the answer and no broken connection; then it ends. */
    const end = (e: unknown) => {
      clearTimeout(timer)
      req.removeAllListeners('data')
      req.removeAllListeners('end')
      event.node.res.setHeader('connection', 'close')
      const over = () => {
        clearTimeout(timer)
        fail(e)
      }
      timer = setTimeout(over, PATIENCE)
      let rest = 0
      req.on('data', (part: Buffer) => {
        if ((rest += part.length) > LET_BY) over()
      })
      req.on('end', over)
    }
    if (Number(getRequestHeader(event, 'content-length') ?? 0) > most) return end(refuse(413, tooLarge))
    timer = setTimeout(() => fail(refuse(408, 'The request didn’t arrive in time. Try again.')), PATIENCE)
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
    req.on('aborted', () => {
      clearTimeout(timer)
      fail(refuse(400, 'The request was cut short.'))
    })
  })
}

/** A size in words. */
const sized = (bytes: number): string =>
  bytes >= 1024 * 1024 ? `${bytes / 1024 / 1024} MB` : `${Math.floor(bytes / 1024)} kB`

/** A body as text. Throws 413, 408 or 400. */
export async function textOf(event: H3Event, most: Bounds): Promise<string> {
  const tooLarge = most === DOCUMENT ? TOO_LARGE : `This request is larger than ${sized(most.bytes)}.`
  const bytes = await bytesOf(event, most.bytes, tooLarge)
  try {
    return UTF8.decode(bytes)
  } catch {
    throw refuse(400, 'The request isn’t UTF-8 text.')
  }
}

/** Documents that were checked in the worker. */
const checked = new WeakSet<object>()

/** A JSON body of a shape, within bounds. Throws 413, 408, 507, 422 or 400. */
export async function bodyOf<T extends v.GenericSchema>(
  event: H3Event,
  shape: T,
  most: Bounds = SMALL_BODY,
): Promise<v.InferOutput<T>> {
  const raw = await textOf(event, most)
  if (!(await roomFor(raw.length)))
    throw refuse(507, 'The disk is full: nothing was saved. Free some space and try again.')
  if (!isWithin(raw, most))
    throw refuse(413, 'This request is nested too deeply, or has too many values. Nothing was saved.')
  const read = await readJsonText(raw)
  if ('says' in read) throw refuse(read.status, read.status === 422 ? `${read.says} Nothing was saved.` : read.says)
  if (read.checked) checked.add((read.value as { document: object }).document)
  const result = v.safeParse(shape, read.value, { abortEarly: true })
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
  v.maxLength(120, 'A title can have up to 120 characters.'),
  v.check(s => !/\p{Surrogate}|\p{Control}/u.test(s), 'A title can’t contain control characters.'),
)

/** A document from a request, raised to this version and checked. Throws 422. */
export function documentOf(input: unknown): Piece {
  if (typeof input === 'object' && input !== null && checked.has(input)) return input as Piece
  const { piece, problem } = readPiece(input)
  if (!piece) throw refuse(422, `${problem} Nothing was saved.`)
  return piece
}
