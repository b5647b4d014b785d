/** Finds a place in the manual by words: names first, then what is said of them. */
import { EASING_NAMES } from '../signal/easing.ts'
import { FUNCTIONS } from '../functions/index.ts'
import { BUILTINS } from '../formula/words.ts'
import { PROPERTIES } from '../piece/properties.ts'
import { UNITS } from '../units/units.ts'
import { SECTIONS, callSignature } from './manual.ts'
import { matching, type Searched } from './matching.ts'
import { RULES } from './rules.ts'
import { FUNCTION_WORDS, PROPERTY_WORDS } from './trade-words.ts'
import { WORKING } from './working.ts'

export interface ManualPlace {
  /** The id of what to go to. */
  readonly anchor: string
  readonly title: string
  readonly says: string
}

/** The id of a heading. */
export const anchorOf = (title: string): string => title.toLowerCase().replace(/[^a-z]+/g, '-')

const plain = (text: string): string => text.replaceAll(/[`*]/g, '')

/** What stands in the manual as tables and pictures. */
const TABLES: readonly (readonly [title: string, says: string])[] = [
  ['Easings', 'All easings as curves.'],
  ['Units', 'All units, and what they measure.'],
  ['Words', 'All words of the formula language that aren’t functions.'],
  ['Properties', 'All properties with their units.'],
]

/** The headings of the manual's text: of the language, of the tasks, and of its tables. */
export const topics = (): ManualPlace[] => [
  ...[...SECTIONS, ...WORKING].map(s => ({ anchor: anchorOf(s.title), title: s.title, says: plain(s.says[0]!) })),
  ...TABLES.map(([title, says]) => ({ anchor: anchorOf(title), title, says })),
]

interface Found extends Searched {
  readonly place: ManualPlace
}
const found = (place: ManualPlace, { also = '', more = '' }: { also?: string; more?: string } = {}): Found => ({
  place,
  name: place.title.split('(')[0]!,
  also,
  says: `${place.title} ${place.says} ${more}`,
})

/** Every place, with what else it may be found by. */
let places: readonly Found[] | null = null
const all = () =>
  (places ??= [
    ...FUNCTIONS.map(f =>
      found(
        { anchor: `fn-${f.name}`, title: callSignature(f), says: plain(f.description) },
        { also: FUNCTION_WORDS[f.name], more: f.parameters.map(p => `${p.name} ${p.description}`).join(' ') },
      ),
    ),
    ...BUILTINS.map(b => found({ anchor: anchorOf('Words'), title: b.name, says: plain(b.says) })),
    ...PROPERTIES.map(p =>
      found(
        { anchor: anchorOf('Properties'), title: p.name, says: p.description },
        { also: PROPERTY_WORDS[p.name], more: p.unit },
      ),
    ),
    ...UNITS.map(u => found({ anchor: anchorOf('Units'), title: u.name, says: u.says })),
    ...EASING_NAMES.map(n => found({ anchor: anchorOf('Easings'), title: n, says: 'an easing' })),
    ...[...SECTIONS, ...WORKING].map(s =>
      found(
        { anchor: anchorOf(s.title), title: s.title, says: plain(s.says[0]!) },
        { more: s.says.slice(1).join(' ') },
      ),
    ),
    ...Object.values(RULES).flatMap(section =>
      Object.entries(section.rules).map(([id, says]) =>
        found({ anchor: `rule-${id}`, title: section.title, says: plain(says) }),
      ),
    ),
  ])

/** Most that are told. */
const MOST = 24

/** The places where all words of a question are found, the best first; at most 24. */
export const search = (question: string): ManualPlace[] => matching(question, all(), MOST).map(f => f.place)
