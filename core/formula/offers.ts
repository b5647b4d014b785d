/** What can be written at a place in a formula: words, functions, things of the piece, properties, units. */
import { PROPERTIES, propertiesOf } from '../piece/properties.ts'
import { UNITS } from '../units/units.ts'
import { EASING_NAMES } from '../signal/easing.ts'
import type { Entry } from '../functions/entry.ts'
import { FUNCTIONS, functionNamed } from '../functions/index.ts'
import { canonical } from '../units/names.ts'
import { BUILTINS, RELATIVES, quotedName } from './words.ts'
import { hasCopyWord, relative, type Names, type Target } from './scope.ts'

export interface Offer {
  /** What is written. */
  readonly text: string
  readonly type: 'function' | 'word' | 'part' | 'property' | 'dial' | 'signal' | 'argument' | 'unit' | 'easing'
  readonly says: string
}

export interface Offers {
  /** Where what is being written begins. */
  readonly from: number
  readonly offers: readonly Offer[]
}

/** Offers at the end of `before`, the text up to the caret; null where nothing fits, as in a comment. */
export function offersAt(before: string, names: Names, target: Target): Offers | null {
  if (/\/\/[^\n]*$/.test(before)) return null
  const member = /((?:`[^`]*`|[\p{L}_][\p{L}\p{N}_]*))(?:\[[^\]]*\])?\.([\p{L}\p{N}_]*)$/u.exec(before)
  if (member && !/^\d/.test(member[1]!))
    return { from: before.length - member[2]!.length, offers: properties(member[1]!, names, target) }
  const number = /(?:^|[^\p{L}\p{N}_.`])(\d+\.?\d*|\.\d+)([\p{L}%]*)$/u.exec(before)
  if (number) {
    if (number[2] === '') return null
    const units = UNITS.map(u => ({ text: u.name, type: 'unit' as const, says: u.says }))
    return { from: before.length - number[2]!.length, offers: units }
  }
  const word = /[\p{L}_][\p{L}\p{N}_]*$/u.exec(before)?.[0] ?? ''
  const from = before.length - word.length
  const call = enclosing(before.slice(0, from))
  return { from, offers: [...(call ? inCall(call) : []), ...values(names, target)] }
}

function values(names: Names, target: Target): Offer[] {
  const { part } = target
  const words = BUILTINS.filter(
    b => (!b.copies || (part !== null && hasCopyWord(names.piece, part, b))) && (target.property || b.name !== 'base'),
  )
  return [
    ...FUNCTIONS.map(f => ({ text: `${f.name}(`, type: 'function' as const, says: f.description })),
    ...words.map(b => ({ text: b.name, type: 'word' as const, says: b.says })),
    ...RELATIVES.filter(() => target.part !== null).map(r => ({
      text: `${r}.`,
      type: 'part' as const,
      says: r === 'own' ? 'another property of this part' : 'a property of its parent',
    })),
    ...names.all().flatMap((t): Offer[] => {
      if (t.type === 'part') return [{ text: `${quotedName(t.name)}.`, type: 'part', says: 'a part' }]
      if (t.type === 'dial' || t.type === 'signal')
        return [{ text: quotedName(t.name), type: t.type, says: `a ${t.type}` }]
      if (t.type === 'curve') return [{ text: quotedName(t.name), type: 'signal', says: 'a drawn curve' }]
      return []
    }),
  ]
}

function properties(word: string, names: Names, target: Target): Offer[] {
  const name = word.replace(/^`|`$/g, '')
  const near = (RELATIVES as readonly string[]).includes(canonical(name))
  const part = near ? relative(names.piece, canonical(name), target.part) : names.named(name)?.id
  const shape = typeof part === 'string' ? names.piece.parts[part]?.shape.type : undefined
  const list = shape ? propertiesOf(shape) : PROPERTIES
  const read: Offer[] = FUNCTIONS.filter(f => f.parameters[0]?.thing === 'waves' && shape === 'waves').map(f => ({
    text: `${f.name}(`,
    type: 'function',
    says: f.description,
  }))
  return [...read, ...list.map(p => ({ text: p.name, type: 'property' as const, says: p.description }))]
}

/** The function whose brackets are open at the end of a text, with the argument being written. */
/** A function that is being called at the end of a text: its parameters, and which of them is being written. */
export interface Signature {
  readonly name: string
  /** Where its name begins. */
  readonly from: number
  readonly parameters: readonly { readonly name: string; readonly description: string }[]
  /** −1 when all have been given. */
  readonly at: number
}

export function signatureAt(before: string): Signature | null {
  const call = enclosing(before)
  const entry = call && functionNamed(call.name)
  if (!call || !entry) return null
  return { name: entry.name, from: call.from, parameters: entry.parameters, at: writtenAt(entry, call) }
}

/** Which parameter is being written: the one that is named, else the next of those that are free. */
function writtenAt(entry: Entry, { label, args }: Enclosing): number {
  const named = (name: string) => entry.parameters.findIndex(p => canonical(p.name) === canonical(name))
  if (label !== '') return named(label)
  const given = args.map(a => LABEL.exec(a)?.[1]).map(l => (l === undefined ? -1 : named(l)))
  const free = entry.parameters.map((_, i) => i).filter(i => !given.includes(i))
  const at = free[given.filter(g => g < 0).length]
  return at ?? (entry.variadic ? entry.parameters.length - 1 : -1)
}
const LABEL = /^\s*([\p{L}_][\p{L}\p{N}_]*)\s*:/u

interface Enclosing {
  readonly name: string
  readonly from: number
  /** The argument being written is named so; '' when it has no name. */
  readonly label: string
  /** The arguments before it, as written. */
  readonly args: readonly string[]
}

function enclosing(before: string): Enclosing | null {
  let depth = 0
  for (let i = before.length - 1; i >= 0; i--) {
    if (before[i] === ')') depth++
    if (before[i] !== '(' || depth-- > 0) continue
    const head = before.slice(0, i).trimEnd()
    const name = /[\p{L}_][\p{L}\p{N}_]*$/u.exec(head)?.[0]
    const parts = parted(before.slice(i + 1))
    const label = LABEL.exec(parts.at(-1)!)?.[1] ?? ''
    return name ? { name, from: head.length - name.length, label, args: parts.slice(0, -1) } : null
  }
  return null
}

/** Arguments as they are separated by commas outside brackets. */
function parted(text: string): string[] {
  const found = ['']
  let depth = 0
  for (const c of text) {
    if (c === '(' || c === '[') depth++
    if (c === ')' || c === ']') depth--
    if (c === ',' && depth === 0) found.push('')
    else found[found.length - 1] += c
  }
  return found
}

function inCall(call: Enclosing): Offer[] {
  const entry = functionNamed(call.name)
  if (!entry) return []
  const { label, args } = call
  const given = new Set(args.flatMap(a => LABEL.exec(a)?.slice(1).map(canonical) ?? []))
  const words = entry.parameters[writtenAt(entry, call)]?.words?.() ?? []
  const named: Offer[] =
    label === ''
      ? entry.parameters
          .filter(p => !given.has(canonical(p.name)))
          .map(p => ({ text: `${p.name}: `, type: 'argument', says: p.description }))
      : []
  const ofWords: Offer[] = words.map(w => ({
    text: w,
    type: 'easing',
    says: EASING_NAMES.includes(w) ? 'an easing' : `for ${label || 'this argument'}`,
  }))
  return [...ofWords, ...named]
}
