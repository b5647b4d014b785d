/**
 * Who is let in. On this machine alone: anyone, under the machine's own names. Beyond it: only who has the key that
 * was made at the first start, and only under names that were given.
 */
import { createHash, randomBytes, timingSafeEqual } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const LOOPBACK = ['127.0.0.1', 'localhost', '::1']
/** Wrong keys from one address, in a minute. */
const TRIES = 10
/** Addresses that are remembered. */
const REMEMBERED = 1000

/** Letters and digits that are not mistaken for one another. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789'

let key: string | null = null
/** Times of wrong keys by the sender's address, so that one sender's guesses delay nobody else. */
const tries = new Map<string, number[]>()

/** Where the server listens. */
const hostOf = (env: NodeJS.ProcessEnv): string => env.NITRO_HOST || env.HOST || '127.0.0.1'

export const isLoopback = (host: string): boolean => LOOPBACK.includes(host)

/** The names the server may be called by: its own, and those of OPEN_TIDE_NAMES. */
export function serverNames(env: NodeJS.ProcessEnv = process.env): string[] {
  const host = hostOf(env)
  const given = (env.OPEN_TIDE_NAMES ?? '').split(/[\s,]+/).filter(n => n !== '')
  const own = host === '0.0.0.0' || host === '::' ? [] : [host]
  return [...new Set([...LOOPBACK, ...own, ...given].map(n => n.toLowerCase()))]
}

/** Takes the key of a data folder, made at the first start. Gives it, or null where none is asked for. */
export function takeKey(folder: string, env: NodeJS.ProcessEnv = process.env): string | null {
  key = null
  if (isLoopback(hostOf(env))) return null
  const file = join(folder, 'key')
  const known = existsSync(file) ? readFileSync(file, 'utf8').trim() : ''
  key = known.length >= 16 ? known : Array.from(randomBytes(20), b => LETTERS[b % LETTERS.length]).join('')
  if (known !== key) writeFileSync(file, `${key}\n`, { mode: 0o600 })
  return key
}

const hashed = (text: string): Buffer => createHash('sha256').update(text).digest()
/** What a browser that was let in shows: not the key itself. */
export const cookieOf = (k: string): string => hashed(`open-tide ${k}`).toString('hex')
const same = (a: string, b: string): boolean => timingSafeEqual(hashed(a), hashed(b))

/** Whether a browser with this cookie may come in. */
export const isOpen = (cookie: string): boolean => key === null || same(cookie, cookieOf(key))

/** What the pages are made of: nothing of anybody's. */
const SHELL = /^\/(_nuxt\/[\w./-]+|icon\.svg|runner\.txt)$/
/** What was handed over: it has a right of its own, and no other. */
const HANDED = /^\/(api\/)?handover\/[^/]+(\/assets\/[^/]+)?$/

/** What is answered without the key. */
export const needsNoKey = (pathname: string): boolean =>
  pathname === '/api/health' || HANDED.test(pathname) || SHELL.test(pathname)

/** Tries a key that an address sends, some times a minute. */
export function tryKey(
  given: string,
  from: string,
  now = Date.now(),
): { let: true; cookie: string } | { let: false; wait: boolean; says: string } {
  const late = (tries.get(from) ?? []).filter(t => now - t < 60_000)
  if (late.length >= TRIES) return { let: false, wait: true, says: 'Too many tries. Wait a minute, then try again.' }
  if (key !== null && same(given.trim(), key)) return { let: true, cookie: cookieOf(key) }
  tries.delete(from)
  tries.set(from, [...late, now])
  for (const oldest of tries.keys()) {
    if (tries.size <= REMEMBERED) break
    tries.delete(oldest)
  }
  return { let: false, wait: false, says: 'That isn’t the key.' }
}

/** The policy of a page: scripts of this server alone, and of those within it the ones whose hash is named. */
export function pageHeaders(html: string): Record<string, string> {
  const hashes = [...html.matchAll(INLINE)].map(
    ([, code]) =>
      `'sha256-${createHash('sha256')
        .update(code ?? '')
        .digest('base64')}'`,
  )
  return {
    'content-security-policy': [
      "default-src 'self'",
      `script-src 'self' 'wasm-unsafe-eval' ${hashes.join(' ')}`.trim(),
      "style-src 'self' 'unsafe-inline'",
      "img-src 'self' data: blob:",
      "font-src 'self' data:",
      "object-src 'none'",
      "base-uri 'none'",
      "frame-ancestors 'none'",
      "form-action 'self'",
    ].join('; '),
  }
}
const INLINE = /<script(?![^>]*\ssrc=)[^>]*>([\s\S]*?)<\/script>/g

/** The page that asks for the key. */
export const page = (says: string): string => `<!doctype html>
<html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Open Tide</title>
<body style="font:16px/1.5 sans-serif;margin:20vh auto;max-width:26em;padding:0 1em;background:#f4efe3;color:#16323a">
<h1 style="font-size:20px">Open Tide</h1>
<form method="post" action="/api/enter"><p><label for="key">The key printed where Open Tide was started</label></p>
<p><input id="key" name="key" type="password" autocomplete="current-password" required autofocus style="font:inherit;padding:.3em;width:100%;box-sizing:border-box"></p>
<p role="alert" style="color:#b8401f">${says}</p><p><button style="font:inherit;padding:.3em 1em">Enter</button></p></form></body></html>`
