/** Every request of the app goes to a route that the server has, with a method that it answers. */
import { readFileSync, readdirSync } from 'node:fs'
import { expect, it } from 'vitest'

/** The method of each function of `services/request.ts`. */
const METHODS: Readonly<Record<string, string>> = {
  get: 'get',
  create: 'post',
  post: 'post',
  put: 'put',
  save: 'put',
  patch: 'patch',
  remove: 'delete',
}
const filesOf = (room: string) =>
  readdirSync(room, { recursive: true, encoding: 'utf8' })
    .filter(file => /\.(ts|vue)$/.test(file) && !file.endsWith('.test.ts'))
    .map(file => `${room}/${file}`)

/** Routes as `get /api/pieces/*`, from the tree of files. */
const ROUTES = new Set(
  filesOf('server/api').map(file => {
    const [, path, method] = /^server(\/.+?)(?:\/index)?\.(get|post|put|patch|delete)\.ts$/.exec(file) ?? []
    return `${method} ${path?.replace(/\[[^\]]+\]/g, '*')}`
  }),
)

/** Requests of a file as `get /api/pieces/*`: addresses as they are written, and those under a name in the file. */
function requestsOf(text: string): string[] {
  const named = new Map(
    [...text.matchAll(/const (\w+) = (?:\(\) => )?(?:`([^`]*)`|'([^']*)')/g)].map(([, name, a, b]) => [name!, a ?? b!]),
  )
  const written = (address: string): string =>
    address
      .replace(/\$\{(\w+)(?:\(\))?\}/g, (all, name: string) => (named.has(name) ? written(named.get(name)!) : all))
      .replace(/\$\{[^}]*\}/g, '*')
  const calls = new RegExp(`\\b(${Object.keys(METHODS).join('|')})\\((?:\`([^\`]*)\`|'([^']*)'|(\\w+)(?:\\(\\))?)`, 'g')
  return [...text.matchAll(calls)].flatMap(([, by, template, literal, name]) => {
    const address = template ?? literal ?? (named.has(name!) ? named.get(name!)! : '')
    const path = written(address)
    return path.startsWith('/api/') ? [`${METHODS[by!]} ${path}`] : []
  })
}

const requests = filesOf('app').flatMap(file =>
  [...new Set(requestsOf(readFileSync(file, 'utf8')))].map(request => [file, request] as const),
)

it('finds the requests of the app', () => {
  expect(requests.length).toBeGreaterThanOrEqual(24)
})

it.each(requests)('%s asks for %s', (_, request) => {
  expect(ROUTES).toContain(request)
})
