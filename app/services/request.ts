/** Requests to this server, with what went wrong as one plain sentence. */

/** What is said where the server's own sentence may be somebody else's. */
const SAYS: Readonly<Record<number, string>> = {
  401: 'The server asks for its key: reload this page and enter it.',
}

export type Answer = { ok: true; value: unknown } | { ok: false; status: number; says: string }

/** A body that is JSON already. */
export class JsonText {
  constructor(readonly text: string) {}
}

/** @param patience milliseconds after which it is given up */
async function request(method: string, path: string, body?: unknown, patience = 60_000): Promise<Answer> {
  try {
    const response = await fetch(path, {
      method,
      ...sent(body),
      signal: AbortSignal.timeout(patience),
    })
    const value: unknown = await response.json().catch(() => null)
    if (response.ok) return { ok: true, value }
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

export const get = (path: string, patience?: number): Promise<Answer> => request('GET', path, undefined, patience)
export const post = (path: string, body: unknown = {}): Promise<Answer> => request('POST', path, body)
export const put = (path: string, body: unknown, patience?: number): Promise<Answer> =>
  request('PUT', path, body, patience)
export const patch = (path: string, body: unknown): Promise<Answer> => request('PATCH', path, body)
export const remove = (path: string): Promise<Answer> => request('DELETE', path)
