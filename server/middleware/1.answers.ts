/** Addresses that are none, and ways of asking that are none. */
import { pathOf, refuse } from '../request'

/** Every address of the API and how it may be asked. */
const API: readonly (readonly [RegExp, string])[] = [
  [/^\/api\/health$/, 'GET HEAD'],
  [/^\/api\/backup$/, 'GET'],
  [/^\/api\/enter$/, 'POST'],
  [/^\/api\/assets$/, 'POST'],
  [/^\/api\/assets\/[^/]+$/, 'GET HEAD'],
  [/^\/api\/pieces$/, 'GET HEAD POST'],
  [/^\/api\/pieces\/file$/, 'POST'],
  [/^\/api\/deleted$/, 'GET HEAD'],
  [/^\/api\/pieces\/[^/]+\/device$/, 'GET HEAD PUT'],
  [/^\/api\/pieces\/[^/]+\/device\/run$/, 'POST'],
  [/^\/api\/pieces\/[^/]+\/device\/events$/, 'GET'],
  [/^\/api\/board\/events$/, 'GET'],
  [/^\/api\/patterns$/, 'GET HEAD POST'],
  [/^\/api\/patterns\/[^/]+$/, 'PATCH DELETE'],
  [/^\/api\/pieces\/[^/]+$/, 'GET HEAD PUT PATCH DELETE'],
  [/^\/api\/pieces\/[^/]+\/(still|versions)$/, 'GET HEAD'],
  [/^\/api\/pieces\/[^/]+\/versions\/[^/]+$/, 'GET HEAD'],
  [/^\/api\/pieces\/[^/]+\/restore$/, 'POST'],
  [/^\/api\/pieces\/[^/]+\/handovers$/, 'GET HEAD POST'],
  [/^\/api\/pieces\/[^/]+\/handovers\/[^/]+$/, 'DELETE'],
  [/^\/api\/handover\/[^/]+$/, 'GET HEAD PUT'],
  [/^\/api\/handover\/[^/]+\/assets\/[^/]+$/, 'GET HEAD'],
]

export default defineEventHandler(event => {
  const pathname = pathOf(event)
  if (!pathname.startsWith('/api/')) return
  setResponseHeader(event, 'cache-control', 'no-cache')
  const ways = API.find(([path]) => path.test(pathname))?.[1]
  if (!ways) throw refuse(404, 'There’s no such address.')
  if (!ways.split(' ').includes(event.method)) {
    setResponseHeader(event, 'allow', ways.replaceAll(' ', ', '))
    throw refuse(405, `This address only takes ${ways.replaceAll(' ', ' or ')}.`)
  }
})
