/**
 * Who is let in. On this machine alone: anyone, under the machine's own names. Beyond it: only who has the key that
 * was made at the first start, and only under names that were given.
 */
import { createHash, randomBytes, timingSafeEqual } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const LOOPBACK = ['127.0.0.1', 'localhost', '::1']
/** Tries of a key, by anyone, in a minute. */
const TRIES = 10

/** Letters and digits that are not mistaken for one another. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789'

let key: string | null = null
let tries: number[] = []

/** Where the server listens. */
const hostOf = (env: NodeJS.ProcessEnv): string => env.NITRO_HOST || env.HOST || '127.0.0.1'

export const isLoopback = (host: string): boolean => LOOPBACK.includes(host)

/** The names the server may be called by: its own, and those of OPEN_TIDE_NAMES. */
export function names(env: NodeJS.ProcessEnv = process.env): string[] {
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
const cookieOf = (k: string): string => hashed(`open-tide ${k}`).toString('hex')
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

/** Tries a key, some times a minute. */
export function tryKey(
  given: string,
  now = Date.now(),
): { let: true; cookie: string } | { let: false; wait: boolean; says: string } {
  tries = tries.filter(t => now - t < 60_000)
  if (tries.length >= TRIES) return { let: false, wait: true, says: 'Too many tries. Wait a minute, then try again.' }
  if (key !== null && same(given.trim(), key)) return { let: true, cookie: cookieOf(key) }
  tries.push(now)
  return { let: false, wait: false, says: 'This is not the key.' }
}

/** The page that asks for the key. */
export const page = (says: string): string => `<!doctype html>
<html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Open Tide</title>
<body style="font:16px/1.5 sans-serif;margin:20vh auto;max-width:26em;padding:0 1em;background:#f4efe3;color:#16323a">
<h1 style="font-size:20px">Open Tide</h1>
<form method="post" action="/api/enter"><p><label for="key">Its key, as it was printed where it was started</label></p>
<p><input id="key" name="key" type="password" autocomplete="current-password" required autofocus style="font:inherit;padding:.3em;width:100%;box-sizing:border-box"></p>
<p role="alert" style="color:#b8401f">${says}</p><p><button style="font:inherit;padding:.3em 1em">Enter</button></p></form></body></html>`
