/** Documents that mean no good: made up from a seed, for the campaign (`scripts/hostile.ts`) and for the tests. */
import { FUNCTIONS } from '../../core/functions/index.ts'
import { lanternPier } from '../../demo/lantern-pier.ts'
import type { Random } from '../random.ts'
import { THOUGHT_OF } from './thought.ts'

const HARD = [0, -0, 1, -1, 0.1, 1e-9, -1e-9, 1e9, -1e9, 1e21, -1e308, 5e-324, 4294967295, 2 ** 53, NaN, Infinity, 1e10]
const WORDS = [
  '',
  ' ',
  'x',
  'constructor',
  '__proto__',
  'toString',
  'p1',
  'p2.x',
  '~s1',
  '\0',
  '\uD800',
  '😀',
  'a'.repeat(300),
  '`',
  'time',
  'p1.rotation',
  'circle',
  'group',
  'ring',
  '\u202eright to left',
  'let',
]

function wild(r: Random, depth = 0): unknown {
  switch (r(depth > 2 ? 4 : 7)) {
    case 0:
      return HARD[r(HARD.length)]
    case 1:
      return WORDS[r(WORDS.length)]
    case 2:
      return null
    case 3:
      return r(2) === 0
    case 4:
      return Array.from({ length: r(4) }, () => wild(r, depth + 1))
    case 5:
      return { type: WORDS[r(WORDS.length)], [WORDS[r(WORDS.length)]!]: wild(r, depth + 1) }
    default:
      return FUNCTIONS[r(FUNCTIONS.length)]!.example.text
  }
}

type Node = Record<string, unknown>

/** One change somewhere in a document. */
function mutate(document: Node, r: Random): void {
  let at: Node = document
  for (let deep = 1 + r(5); ; deep--) {
    const keys = Object.keys(at)
    if (keys.length === 0) return
    const key = keys[r(keys.length)]!
    const next = at[key]
    if (deep > 0 && Object.keys(Object(next) as Node).length > 0 && typeof next !== 'string') {
      at = next as Node
      continue
    }
    const how = r(12)
    if (how === 0) Reflect.deleteProperty(at, key)
    else if (how === 1) at[WORDS[r(WORDS.length)]!] = structuredClone(next)
    else if (how === 2) at[`${key}${r(9)}`] = structuredClone(next)
    else if (how < 6 && typeof next === 'number') at[key] = HARD[r(HARD.length)]
    else if (how < 9 && typeof next === 'number') at[key] = next * (r(2000) / 100 - 5)
    else if (how < 9 && typeof next === 'string') at[key] = FUNCTIONS[r(FUNCTIONS.length)]!.example.text
    else at[key] = wild(r)
    return
  }
}

/** Formulas that ask for much, of the demo's own things. */
const GREEDY = [
  'accumulate(accumulate(noise(9Hz, 3)))',
  'average(average(noise(3Hz, 9), 9s), 9s)',
  'delay(base, 1000000s) + delay(base, 0.000001s)',
  'noise(100000Hz, 9, octaves: 8) on slow',
  'let a = noise(1Hz, 3); let b = a + a; let c = b * b; c / (c - c)',
  'mod(time * 1e9, 1e-9) + floor(time * 1e8)',
  'sine(freq: abs(noise(3Hz, 900)) * 1Hz, amp: 1e9)',
  'if mod(floor(time * 999999Hz), 2) == 0 then 1e9 else -1e9',
  'ramp(from: -1e9, to: 1e9, over: 1e-6s, then: repeat)',
  '1 / 0 + sqrt(-1) + index / (count - count)',
]

/** One change that a careful enemy would make: of the right kind, so that it is taken. */
function bend(document: Node, r: Random): void {
  const drives = Object.values(document.drives as Record<string, Node>)
  const bases = Object.values(document.bases as Record<string, Node>)
  const parts = Object.values(document.parts as Record<string, Node>)
  const far = [1e9, -1e9, 1e-9, 0, 1e6, -1, 3.5]
  switch (r(6)) {
    case 0:
    case 1: {
      if (drives.length === 0) return
      const text = r(2) ? GREEDY[r(GREEDY.length)]! : FUNCTIONS[r(FUNCTIONS.length)]!.example.text
      Object.assign(drives[r(drives.length)]!, { text, good: text })
      return
    }
    case 2:
      if (bases.length > 0) bases[r(bases.length)]!.value = far[r(far.length)]
      return
    case 3:
      if (parts.length > 0)
        parts[r(parts.length)]!.copies = { layout: 'row', count: 1 + r(400), dx: far[r(far.length)], dy: 1 }
      return
    case 4:
      document.lap = { length: { n: 1 + r(1e9), d: 1 + r(1e9) }, start: far[r(far.length)] }
      return
    default:
      for (const clock of Object.values(document.clocks as Record<string, Node>)) clock.hold = r(2) ? 1e9 : 1e-9
  }
}

/** Texts of documents, made once: to make one takes longer than to try it. */
const texts = new Map<() => object, string>()
function textOf(make: () => object): string {
  let text = texts.get(make)
  if (text === undefined) texts.set(make, (text = JSON.stringify(make())))
  return text
}

/** A made-up document: the demo or one that was thought of, changed a little or a lot. */
export function document(r: Random): unknown {
  const made = Object.values(THOUGHT_OF)
  const out = JSON.parse(textOf(r(3) > 0 ? lanternPier : made[r(made.length)]!)) as Node
  const change = r(3) > 0 ? bend : mutate
  for (let n = r(3) === 0 ? 1 + r(40) : 1 + r(3); n > 0; n--) change(out, r)
  // As it comes over the line.
  return JSON.parse(JSON.stringify(out)) as unknown
}
