/**
 * Patterns: a set of drives with the dials, signals, curves, clocks and cues that they need, kept as a small piece of its own
 * and put on other parts. Its parts are roles; times that belonged to a span or a lap follow those of where it is put.
 */
import { drivenPart, propertyKey } from '../piece/drive-key.ts'
import { parse } from '../formula/parse.ts'
import { change, type Change } from '../formula/problem.ts'
import { ofOneAlone, renamedIn } from '../formula/renaming.ts'
import { argumentsOf } from '../formula/arguments.ts'
import { everyNode, type Formula, type NumberNode } from '../formula/tree.ts'
import { functionNamed } from '../functions/index.ts'
import { operation, type Operation } from '../piece/operation.ts'
import { propertiesOf } from '../piece/properties.ts'
import type { Drive, Part, Piece } from '../piece/schema.ts'
import { seedOf } from '../signal/hash.ts'
import { toNumber } from '../time/rational.ts'
import { alike } from '../piece/alike.ts'
import { bringNamed, transferOf, PasteBuilder, mentions, remapTexts } from './transfer.ts'

/** A part of a pattern that another takes the place of. */
export interface Role {
  readonly id: string
  readonly name: string
  /** The properties that it is given; none where it is only read. */
  readonly driven: readonly string[]
}

const TIMES: Readonly<Record<string, number>> = { s: 1, ms: 0.001, min: 60 }
/** Arguments that tell how long something takes, not when it is. */
const LENGTHS = new Set(['every', 'length', 'attack', 'hold', 'release', 'by', 'lag', 'shift', 'over'])

/** Numbers of a formula that are lengths of time. */
function lengthsIn(formula: Formula): Set<NumberNode> {
  const found = new Set<NumberNode>()
  for (const node of everyNode(formula)) {
    // `4s - 1s` is one second before 4 s.
    if (node.type === 'binary' && node.left.type === 'number' && node.right.type === 'number') found.add(node.right)
    const entry = node.type === 'call' ? functionNamed(node.name) : undefined
    if (node.type !== 'call' || !entry) continue
    for (const { parameter, arg } of argumentsOf(node, entry).filled)
      if (arg.value.type === 'number' && LENGTHS.has(parameter.name)) found.add(arg.value)
  }
  return found
}

/** A formula whose typed times say *the span* or *the lap* where they were just as long, or just there. */
export function belonging(text: string, span: Part['span'] | null, lap: number): string {
  const { formula } = parse(text)
  if (!formula) return text
  const lengths = lengthsIn(formula)
  const changes: Change[] = []
  for (const node of everyNode(formula)) {
    const size = node.type === 'number' ? TIMES[node.unit] : undefined
    if (node.type !== 'number' || size === undefined) continue
    const seconds = toNumber(node.value) * size
    const is = (at: number) => Math.abs(seconds - at) < 1e-9
    const long = lengths.has(node)
    let insert: string | null = null
    if (span && long) insert = is(span.to - span.from) ? '(spanEnd - spanStart)' : null
    else if (span) insert = is(span.to) ? 'spanEnd' : is(span.from) ? 'spanStart' : null
    else insert = is(lap) ? '1lap' : null
    if (insert !== null) changes.push({ from: node.from, to: node.to, insert })
  }
  return change(text, changes)
}

/** What is chosen as a pattern under a name: with the parts that its formulas read, but none that only hang on them. */
export function patternOf(piece: Piece, ids: readonly string[], title: string): Piece {
  const texts = (of: readonly string[]) =>
    Object.values(piece.drives)
      .filter(d => of.includes(d.part))
      .map(d => d.text)
  const all = [...ids]
  for (const [id, part] of Object.entries(piece.parts))
    if (!all.includes(id) && texts(ids).some(t => mentions(t, part.name))) all.push(id)
  const carried = transferOf(piece, all)
  const lap = piece.lap.length.n / piece.lap.length.d
  const drives = Object.fromEntries(
    Object.entries(carried.drives)
      .filter(([, d]) => ids.includes(d.part))
      .map(([key, d]) => {
        const own = (text: string) => belonging(text, piece.parts[d.part]!.span, lap)
        return [key, { ...d, text: own(d.text), good: own(d.good), takes: [] }]
      }),
  )
  const kept = (id: string) => all.includes(id) || ids.some(i => hangsOn(carried, id, i))
  const parts = Object.fromEntries(Object.entries(carried.parts).filter(([id]) => kept(id)))
  const bases = Object.fromEntries(Object.entries(carried.bases).filter(([key]) => parts[drivenPart(key)]))
  const { stage, lap: length, frameRate, camera } = piece
  return { ...carried, title, stage, lap: length, frameRate, camera, parts, bases, drives }
}

function hangsOn({ parts }: Piece, id: string, on: string): boolean {
  for (let at = parts[id]?.parent ?? null; at !== null; at = parts[at]?.parent ?? null) if (at === on) return true
  return false
}

/** Whether a part has no copies, nor anything that it hangs on. */
function alone({ parts }: Piece, id: string): boolean {
  for (let at: string | null = id; at !== null; at = parts[at]?.parent ?? null) if (parts[at]?.copies) return false
  return true
}

/** The roles of a pattern, those that are driven first. */
export function rolesOf(pattern: Piece): Role[] {
  const drives = Object.values(pattern.drives)
  const roles = Object.entries(pattern.parts)
    .sort(([, a], [, b]) => a.order - b.order)
    .map(([id, { name }]) => ({ id, name, driven: drives.filter(d => d.part === id).map(d => d.property) }))
  const read = (r: Role) => drives.some(d => d.part !== r.id && mentions(d.text, r.name))
  return [...roles.filter(r => r.driven.length > 0), ...roles.filter(r => r.driven.length === 0 && read(r))]
}

/** What a part cannot be given, since its shape has no such property. */
export const missing = (part: Part, { driven }: Role): string[] => {
  const known = new Set(propertiesOf(part.shape.type).map(p => p.name))
  return driven.filter(name => !known.has(name))
}

/**
 * Puts a pattern on parts. What has a name that is taken comes along under another, unless it is just the same.
 * @param places for each role, the part that takes its place
 */
export function putPattern(piece: Piece, pattern: Piece, places: ReadonlyMap<string, string>): Operation {
  const growing = new PasteBuilder(piece)
  bringNamed(growing, pattern, (c, own, there) =>
    alike({ ...pattern[c][own]!, order: 0 }, { ...piece[c][there]!, order: 0 }),
  )
  growing.settle()
  const roles = rolesOf(pattern)
  // By way of names that nothing has, so that two that change places are not taken for one another.
  const between = (k: number) => `rolewithoutname${k}x`
  const about = (text: string): string => {
    let out = growing.about(text)
    roles.forEach((r, k) => (out = renamedIn(out, r.name, between(k))))
    roles.forEach((r, k) => (out = renamedIn(out, between(k), piece.parts[places.get(r.id) ?? '']?.name ?? r.name)))
    return out
  }
  for (const role of roles) {
    const part = places.get(role.id)
    if (part === undefined || !piece.parts[part]) continue
    const gone = missing(piece.parts[part], role)
    for (const property of role.driven) {
      if (gone.includes(property)) continue
      const drive = pattern.drives[propertyKey(role.id, property)]!
      const seed = seedOf(piece.seed, part, property)
      const here = alone(piece, part) ? (text: string) => ofOneAlone(about(text)) : about
      const value: Drive = { ...remapTexts(drive, here), part, takes: [], promises: drive.promises, seed }
      growing.put({ in: 'drives', id: propertyKey(part, property), value })
    }
  }
  return operation(`apply ${pattern.title} on`, ...growing.puts)
}

/** A pattern of one role on several parts, each its own; of more, once. */
export function putOnAll(piece: Piece, pattern: Piece, parts: readonly string[]): Operation {
  const [only] = rolesOf(pattern)
  const growing = new PasteBuilder(piece)
  for (const part of parts)
    for (const p of putPattern(growing.piece, pattern, new Map([[only!.id, part]])).puts)
      growing.put(p as Parameters<PasteBuilder['put']>[0])
  return operation(`apply ${pattern.title} to ${parts.length} parts`, ...growing.puts)
}
