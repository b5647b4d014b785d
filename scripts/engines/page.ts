/** What a browser does with the work it is given: fetches it, works it out, sends the bits back. */
import { valuesOf, type Work } from './values.ts'

try {
  const work = (await (await fetch('/work')).json()) as Work
  const bits = valuesOf(work)
  await fetch('/done', { method: 'POST', body: JSON.stringify({ engine: navigator.userAgent, bits }) })
} catch (e) {
  await fetch('/done', { method: 'POST', body: JSON.stringify({ engine: navigator.userAgent, failed: String(e) }) })
}
