/**
 * The content security policy: scripts come from this server alone, and of those in a page only the ones whose
 * hash is named. WebAssembly may run; text may never become code. Styles are put on elements while it runs (by the
 * editor, by Vue), so those are allowed. An address that is no page is answered 404, with the house's own page.
 */
import { createHash } from 'node:crypto'

const INLINE = /<script(?![^>]*\ssrc=)[^>]*>([\s\S]*?)<\/script>/g
const PAGES = /^\/(manual|board|piece\/[^/]+|handover\/[^/]+)?\/?$/

export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('render:response', (response, { event }) => {
    if (typeof response.body !== 'string') return
    if (!PAGES.test(getRequestURL(event).pathname)) response.statusCode = 404
    const hashes = [...response.body.matchAll(INLINE)].map(
      ([, code]) =>
        `'sha256-${createHash('sha256')
          .update(code ?? '')
          .digest('base64')}'`,
    )
    response.headers = {
      ...response.headers,
      'content-security-policy': [
        "default-src 'self'",
        `script-src 'self' 'wasm-unsafe-eval' ${hashes.join(' ')}`,
        "style-src 'self' 'unsafe-inline'",
        "img-src 'self' data: blob:",
        "font-src 'self' data:",
        "object-src 'none'",
        "base-uri 'none'",
        "frame-ancestors 'none'",
        "form-action 'self'",
      ].join('; '),
    }
  })
})
