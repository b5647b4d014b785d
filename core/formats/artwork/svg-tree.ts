/** An SVG file as a tree of elements: read by a parser that knows no scripts, no outside, and no entities. */
import { XMLParser, XMLValidator } from 'fast-xml-parser'

export interface SvgElement {
  readonly name: string
  readonly attributes: Readonly<Record<string, string>>
  readonly children: readonly SvgElement[]
  /** What stands in it as text. */
  readonly text: string
}

/** Characters of a file, at most. */
const LARGEST = 4_000_000
/** Elements of a file, and how deep they stand in one another, at most. */
const MOST = 20_000
const DEEPEST = 80

const parser = new XMLParser({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  processEntities: false,
  parseTagValue: false,
  parseAttributeValue: false,
  ignoreDeclaration: true,
  ignorePiTags: true,
})

/** Why a file cannot be read, in a sentence. */
export class Unreadable extends Error {}

type Raw = Record<string, unknown>

/** @throws {Unreadable} */
export function treeOf(text: string): SvgElement {
  if (text.length > LARGEST) throw new Unreadable('This file is larger than 4 million characters.')
  // A document type may declare entities that unfold for ever; none of it is needed.
  const bare = text.replace(/<!DOCTYPE[^>[]*(\[[\s\S]*?\])?\s*>/i, '').replace(/^\uFEFF/, '')
  let raw: Raw[]
  try {
    const sound = XMLValidator.validate(bare)
    if (sound !== true) throw new Unreadable(`This SVG is damaged: ${sound.err.msg} (line ${sound.err.line}).`)
    raw = parser.parse(bare) as Raw[]
  } catch (e) {
    if (e instanceof Unreadable) throw e
    throw new Unreadable('This isn’t an SVG that Open Tide can read.')
  }
  let count = 0
  const read = (list: readonly Raw[], depth: number): SvgElement[] => {
    if (depth > DEEPEST) throw new Unreadable(`Its elements are nested more than ${DEEPEST} deep.`)
    return list.flatMap(item => {
      const name = Object.keys(item).find(k => k !== ':@' && k !== '#text')
      if (name === undefined) return []
      if (++count > MOST) throw new Unreadable(`It has more than ${MOST.toLocaleString('en')} elements.`)
      const inner = item[name] as Raw[]
      const attributes = Object.fromEntries(
        Object.entries((item[':@'] ?? {}) as Record<string, unknown>).map(([k, v]) => [k, String(v)]),
      )
      const said = inner.map(i => (typeof i['#text'] === 'string' ? i['#text'] : '')).join('')
      return [{ name: name.replace(/^svg:/, ''), attributes, children: read(inner, depth + 1), text: said }]
    })
  }
  const root = read(raw, 0).find(e => e.name === 'svg')
  if (!root) throw new Unreadable('There’s no svg element in this file.')
  return root
}
