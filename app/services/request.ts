/** Requests to this server. The answer is read by a schema; what went wrong is one plain sentence. */
import * as v from 'valibot'
import { SavedRevision } from '~~/core/piece/api.ts'

/** What is said where the server's own sentence may be somebody else's. */
const SAYS: Readonly<Record<number, string>> = {
  401: 'The server asks for its key: reload this page and enter it.',
}

/** Said when the answer comes from another version or from a proxy. */
const UNKNOWN = 'The server’s answer couldn’t be understood. Try again in a moment.'

export type Answer<T = unknown> = { ok: true; value: T } | { ok: false; status: number; says: string }

/** A body that is JSON already. */
export class JsonText {
  constructor(readonly text: string) {}
}

/** @param patience milliseconds after which it is given up */
async function request<T>(
  method: string,
  path: string,
  answer: v.GenericSchema<unknown, T>,
  body?: unknown,
  patience = 60_000,
): Promise<Answer<T>> {
  try {
    const response = await fetch(path, {
      method,
      ...sent(body),
      signal: AbortSignal.timeout(patience),
    })
    const value: unknown = await response.json().catch(() => null)
    if (response.ok) {
      const read = v.safeParse(answer, value)
      return read.success ? { ok: true, value: read.output } : { ok: false, status: response.status, says: UNKNOWN }
    }
    const says = SAYS[response.status] ?? (value as { message?: string } | null)?.message
    return {
      ok: false,
      status: response.status,
      says: says ?? `The server answered ${response.status}. Try again in a moment.`,
    }
  } catch (e) {
    const late = (e as Error).name === 'TimeoutError'
    const says = late ? 'The server isn’t responding.' : 'The server isn’t responding. Is Open Tide still running?'
    return { ok: false, status: 0, says }
  }
}

/** JSON, or bytes as they are. */
function sent(body: unknown): RequestInit {
  if (body === undefined) return {}
  if (body instanceof Uint8Array)
    return { headers: { 'content-type': 'application/octet-stream' }, body: body as Uint8Array<ArrayBuffer> }
  const text = body instanceof JsonText ? body.text : JSON.stringify(body)
  return { headers: { 'content-type': 'application/json' }, body: text }
}

/** For answers that aren't read. */
const ANY = v.unknown()

export const get = <T>(path: string, answer: v.GenericSchema<unknown, T>, patience?: number): Promise<Answer<T>> =>
  request('GET', path, answer, undefined, patience)
/** A POST whose answer is read. */
export const create = <T>(path: string, answer: v.GenericSchema<unknown, T>, body: unknown): Promise<Answer<T>> =>
  request('POST', path, answer, body)
export const post = (path: string, body: unknown = {}): Promise<Answer> => request('POST', path, ANY, body)
export const put = (path: string, body: unknown): Promise<Answer> => request('PUT', path, ANY, body)
/** Saves a document. The answer is its revision. */
export const save = (
  path: string,
  body: unknown,
  patience?: number,
): Promise<Answer<v.InferOutput<typeof SavedRevision>>> => request('PUT', path, SavedRevision, body, patience)
export const patch = (path: string, body: unknown): Promise<Answer> => request('PATCH', path, ANY, body)
export const remove = (path: string): Promise<Answer> => request('DELETE', path, ANY)
