/** Requests to this server, with what went wrong as one plain sentence. */

export type Answer = { ok: true; value: unknown } | { ok: false; status: number; says: string }

async function request(method: string, path: string, body?: unknown): Promise<Answer> {
  try {
    const response = await fetch(path, {
      method,
      headers: body === undefined ? {} : { 'content-type': 'application/json' },
      body: body === undefined ? null : JSON.stringify(body),
    })
    const value: unknown = await response.json().catch(() => null)
    if (response.ok) return { ok: true, value }
    const says = (value as { message?: string } | null)?.message
    return {
      ok: false,
      status: response.status,
      says: says ?? `The server answered ${response.status}. Try again in a moment.`,
    }
  } catch {
    return { ok: false, status: 0, says: 'The server cannot be reached. Is Open Tide still running?' }
  }
}

export const get = (path: string): Promise<Answer> => request('GET', path)
export const post = (path: string, body: unknown = {}): Promise<Answer> => request('POST', path, body)
export const put = (path: string, body: unknown): Promise<Answer> => request('PUT', path, body)
export const patch = (path: string, body: unknown): Promise<Answer> => request('PATCH', path, body)
export const remove = (path: string): Promise<Answer> => request('DELETE', path)
