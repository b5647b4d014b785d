/** Finds a place in the manual by words: names first, then what is said of them. */
import { EASING_NAMES } from '../signal/easing.ts'
import { FUNCTIONS } from '../functions/index.ts'
import { BUILTINS } from '../formula/words.ts'
import { PROPERTIES } from '../piece/properties.ts'
import { UNITS } from '../units/units.ts'
import { SECTIONS, signature } from './manual.ts'
import { RULES } from './rules.ts'
import { WORKING } from './working.ts'

export interface Place {
  /** The id of what to go to. */
  readonly anchor: string
  readonly title: string
  readonly says: string
}

/** The id of a heading. */
export const anchorOf = (title: string): string => title.toLowerCase().replace(/[^a-z]+/g, '-')

const plain = (text: string): string => text.replaceAll(/[`*]/g, '')

/** Every place, with what else it may be found by. */
let places: readonly (Place & { readonly more: string })[] | null = null
const all = () =>
  (places ??= [
    ...FUNCTIONS.map(f => ({
      anchor: `fn-${f.name}`,
      title: signature(f),
      says: plain(f.says),
      more: f.takes.map(p => `${p.name} ${p.says}`).join(' '),
    })),
    ...BUILTINS.map(b => ({ anchor: anchorOf('Words'), title: b.name, says: plain(b.says), more: '' })),
    ...PROPERTIES.map(p => ({ anchor: anchorOf('Properties'), title: p.name, says: p.says, more: p.unit })),
    ...UNITS.map(u => ({ anchor: anchorOf('Units'), title: u.name, says: u.says, more: '' })),
    ...EASING_NAMES.map(n => ({ anchor: anchorOf('Easings'), title: n, says: 'an easing', more: '' })),
    ...[...SECTIONS, ...WORKING].map(s => ({
      anchor: anchorOf(s.title),
      title: s.title,
      says: plain(s.says[0]!),
      more: s.says.slice(1).join(' '),
    })),
    ...Object.values(RULES).flatMap(section =>
      Object.entries(section.rules).map(([id, says]) => ({
        anchor: `rule-${id}`,
        title: section.title,
        says: plain(says),
        more: '',
      })),
    ),
  ])

/** Most that are told. */
const MOST = 24

/** How well a place fits a word: its name, the beginning of its name, in its name, in what is said; 0 not at all. */
function fits(place: Place & { readonly more: string }, word: string): number {
  const name = place.title.toLowerCase().split('(')[0]!
  if (name === word) return 8
  if (name.startsWith(word)) return 6
  if (name.includes(word)) return 4
  if (place.title.toLowerCase().includes(word)) return 3
  if (place.says.toLowerCase().includes(word)) return 2
  return place.more.toLowerCase().includes(word) ? 1 : 0
}

/** The places where all words of a question are found, the best first; at most 24. */
export function search(question: string): Place[] {
  const words = question.toLowerCase().split(/\s+/).filter(Boolean)
  if (words.length === 0) return []
  return all()
    .map(place => {
      const each = words.map(w => fits(place, w))
      return { place, fit: each.includes(0) ? 0 : each.reduce((a, b) => a + b) }
    })
    .filter(f => f.fit > 0)
    .sort((a, b) => b.fit - a.fit)
    .slice(0, MOST)
    .map(f => f.place)
}
