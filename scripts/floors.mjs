// The house of floors as lint rules: in core/ no file imports from a room above its own, and no files import one
// another in a circle.
import { existsSync, readFileSync, statSync } from 'node:fs'
import { dirname, relative, resolve } from 'node:path'

/** The rooms of core/ from the ground up (docs/architecture.md). */
const ROOMS = [
  ...['time', 'units', 'signal', 'facts', 'piece', 'form', 'columns', 'functions'],
  ...['formula', 'acts', 'engine'],
  ...['rig/text', 'rig/outline', 'rig/depth', 'rig/motion', 'rig', 'rig/stage-mesh'],
  ...['insight', 'formats', 'manual', 'testing'],
]
const CORE = resolve(import.meta.dirname, '../core')

/** The room of a file in core/, or null: a room within a room has doors of its own. */
const roomOf = file => {
  const [room, inner, rest] = relative(CORE, file).split('/')
  if (rest && ROOMS.includes(`${room}/${inner}`)) return `${room}/${inner}`
  return inner && ROOMS.includes(room) ? room : null
}

const IMPORT = /^(?:import|export)\b[^;'"]*?from\s*['"](\.[^'"]+)['"]/gm
const known = new Map()

/** The files that a file imports by a relative path. */
function importsOf(file) {
  const changed = statSync(file).mtimeMs
  const before = known.get(file)
  if (before?.changed === changed) return before.files
  const files = [...readFileSync(file, 'utf8').matchAll(IMPORT)]
    .map(([, path]) => resolve(dirname(file), path))
    .filter(path => existsSync(path) && statSync(path).isFile())
  known.set(file, { changed, files })
  return files
}

/** The shortest way from a file to another along imports, or null. */
function way(from, to) {
  const ways = new Map([[from, [from]]])
  for (const [file, path] of ways) {
    if (file === to) return path
    for (const next of importsOf(file)) if (!ways.has(next)) ways.set(next, [...path, next])
  }
  return null
}

/** A rule that looks at every relative import of a file in core/. */
const onImports = look => ({
  meta: { type: 'problem', schema: [] },
  create(context) {
    const visit = node => {
      const path = node.source?.value
      if (typeof path !== 'string' || !path.startsWith('.')) return
      const message = look(context.filename, resolve(dirname(context.filename), path))
      if (message) context.report({ node, message })
    }
    return { ImportDeclaration: visit, ExportNamedDeclaration: visit, ExportAllDeclaration: visit }
  },
})

const up = onImports((file, target) => {
  const [here, there] = [roomOf(file), roomOf(target)]
  if (!here || !there || ROOMS.indexOf(there) <= ROOMS.indexOf(here)) return null
  return `core/${here} stands below core/${there} and may not import from it: hand it in, or move the type down.`
})

const circle = onImports((file, target) => {
  const back = existsSync(target) && target !== file && way(target, file)
  return back ? `Files in a circle: ${[file, ...back].map(f => relative(CORE, f)).join(' → ')}.` : null
})

export default { rules: { up, circle } }
