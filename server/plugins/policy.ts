/**
 * The content security policy: scripts come from this server alone, and of those in a page only the ones whose
 * hash is named. WebAssembly may run; text may never become code. Styles are put on elements while it runs (by the
 * editor, by Vue), so those are allowed. An address that is no page is answered 404, with the house's own page.
 */
import { pageHeaders } from '../door'
import { pathOf } from '../request'

const PAGES = /^\/(manual|board|piece\/[^/]+|handover\/[^/]+)?\/?$/

export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('render:response', (response, { event }) => {
    if (typeof response.body !== 'string') return
    if (!PAGES.test(pathOf(event))) response.statusCode = 404
    response.headers = { ...response.headers, ...pageHeaders(response.body) }
  })
})
