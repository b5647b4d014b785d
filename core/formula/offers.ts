/** What can be written at a place in a formula: words, functions, things of the piece, properties, units. */
import { PROPERTIES, propertiesOf } from '../piece/properties.ts'
import { UNITS } from '../units/units.ts'
import { EASING_NAMES } from '../signal/easing.ts'
import { FUNCTIONS, functionNamed } from '../functions/index.ts'
import { canonical } from '../units/names.ts'
import { BUILTINS, RELATIVES, written } from './words.ts'
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
    ...FUNCTIONS.map(f => ({ text: `${f.name}(`, type: 'function' as const, says: f.says })),
    ...words.map(b => ({ text: b.name, type: 'word' as const, says: b.says })),
    ...RELATIVES.filter(() => target.part !== null).map(r => ({
      text: `${r}.`,
      type: 'part' as const,
      says: r === 'own' ? 'another property of this part' : 'a property of the part it hangs on',
    })),
    ...names.all().flatMap((t): Offer[] => {
      if (t.type === 'part') return [{ text: `${written(t.name)}.`, type: 'part', says: 'a part' }]
      if (t.type === 'dial' || t.type === 'signal')
        return [{ text: written(t.name), type: t.type, says: `a ${t.type}` }]
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
  const read: Offer[] = FUNCTIONS.filter(f => f.takes[0]?.thing === 'waves' && shape === 'waves').map(f => ({
    text: `${f.name}(`,
    type: 'function',
    says: f.says,
  }))
  return [...read, ...list.map(p => ({ text: p.name, type: 'property' as const, says: p.says }))]
}

/** The function whose brackets are open at the end of a text, with the argument being written. */
function enclosing(before: string): { name: string; label: string } | null {
  let depth = 0
  for (let i = before.length - 1; i >= 0; i--) {
    if (before[i] === ')') depth++
    if (before[i] !== '(' || depth-- > 0) continue
    const name = /[\p{L}_][\p{L}\p{N}_]*$/u.exec(before.slice(0, i).trimEnd())?.[0]
    const label = /([\p{L}_][\p{L}\p{N}_]*)\s*:\s*$/u.exec(before.slice(i + 1))?.[1] ?? ''
    return name ? { name, label } : null
  }
  return null
}

function inCall({ name, label }: { name: string; label: string }): Offer[] {
  const entry = functionNamed(name)
  if (!entry) return []
  if (label === '') return entry.takes.map(p => ({ text: `${p.name}: `, type: 'argument', says: p.says }))
  const words = entry.takes.find(p => canonical(p.name) === canonical(label))?.words?.() ?? []
  return words.map(w => ({ text: w, type: 'easing', says: EASING_NAMES.includes(w) ? 'an easing' : `for ${label}` }))
}
