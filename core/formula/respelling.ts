/**
 * What is written in other notations, and how it is written here: each rule gives the text with one habit changed, and
 * whoever asks tries whether that helps (`mending.ts`). Only notations that many languages share are known.
 */
import { FUNCTIONS } from '../functions/index.ts'
import { FAMILIES } from '../signal/easing.ts'
import { readUnit } from '../units/units.ts'

/** A rate with blanks in it: `3 / lap`. */
const CLOSE: readonly [RegExp, string] = [/\s*\/\s*(ms|min|laps?|f|s)(?![\w(.[])/gi, '/$1']

/** The text with its rates written close. */
export const closeUnits = (text: string): string[] => {
  const close = text.replace(...CLOSE)
  return close === text ? [] : [close]
}

/** Signs and words for which there is one of ours. */
const SIGNS: readonly (readonly [RegExp, string])[] = [
  [/\s*&&\s*/g, ' and '],
  [/\s*\|\|\s*/g, ' or '],
  [/!==|<>/g, '!='],
  [/===/g, '=='],
  [/=</g, '<='],
  [/=>/g, '>='],
  [/\*\*/g, '^'],
  [/!(?!=)\s*/g, 'not '],
  [/(\d),(\d)/g, '$1.$2'],
  [/->/g, '.'],
  [/\[\s*["'](\w+)["']\s*\]/g, '.$1'],
  [/["']/g, ''],
  [/\bmath\s*\.\s*(\w+)/gi, '$1'],
  [/\s+per\s+/g, '/'],
  [/(\d)\s*percent\b|(\d)\s*pct\b|(\d)\s+%/gi, '$1$2$3%'],
  [/(\d)\s*(?:pt|pixels?)\b/gi, '$1px'],
  [/(\d)\s*rpm\b/gi, '$1turn/min'],
  [/(\d)\s*hertz\b/gi, '$1Hz'],
  [/(\d)\s*msecs?\b/gi, '$1ms'],
  [/(\d)\s+([A-Za-z°]+)\s*\/\s*([A-Za-z]+)/g, '$1$2/$3'],
  [/(\d)\s+(?!and\b|or\b|on\b|then\b|else\b|in\b)([A-Za-z°]+)(?![\w(.[])/g, '$1$2'],
  CLOSE,
  [/;\s*(?=else\b)/g, ' '],
  [/;\s*$/, ''],
  [/,\s*(?=\))/g, ''],
  [/([+*/^-])\s*([+*/^])/g, '$1'],
]

/** How lines begin, and how a part is given a name, elsewhere. */
const LINES: readonly (readonly [RegExp, string])[] = [
  [/^\s*(?:return\b|=(?!=))\s*/, ''],
  [/;\s*return\b\s*/, '; '],
  [/\b(?:var|const)\s+/g, 'let '],
  [/^\s*(\w+)\s*=(?!=)\s*([^;=]+);/, 'let $1 = $2;'],
  [/^\s*\w+\s*=(?!=)\s*([^;]+)$/, '$1'],
  [/\blet\s+(\w+)\s*:=?\s*/, 'let $1 = '],
  [/\blet\s+(\w+)\s*=\s*([^;\n]+)\n/, 'let $1 = $2; '],
  [/\blet\s+(\w+)\s*=\s*([^;,]+),\s*/, 'let $1 = $2; '],
  [/\blet\s+(\w+)\s*=\s*(.+?)\s+in\s+/, 'let $1 = $2; '],
]

const BRACKETS: readonly (readonly [RegExp, string])[] = [
  [/\)\s*\{\s*([^{}]*?)\s*\}\s*else\s*\{\s*([^{}]*?)\s*\}/, ') then $1 else $2'],
  [/(^|[^\w\])])\[([^\][]*)\]/g, '$1($2)'],
  [/(\w)\s*\[([^\][]*)\]/g, '$1($2)'],
  [/(\w+)\((\d+)\)\./g, '$1[$2].'],
  [/\b([A-Za-z_]+)(\d+)\./g, '$1[$2].'],
  [/\{([^{}]*)\}/g, '($1)'],
  [/^\s*(\w+)\s+(\w+\s*:.*)$/, '$1($2)'],
  [/([(,]\s*\w+)\s*=(?!=)\s*/g, '$1: '],
  [/;(?=[^()]*\))/g, ','],
]

/** Functions by the names that they have elsewhere, and arguments by theirs. */
const FUNCTION_NAMES: Readonly<Record<string, string>> = {
  lerp: 'mix',
  map: 'remap',
  rand: 'random',
  rnd: 'random',
  ceiling: 'ceil',
  frac: 'fract',
  fmod: 'mod',
  modulo: 'mod',
  power: 'pow',
  sawtooth: 'saw',
  tri: 'triangle',
  pulse: 'square',
  perlin: 'noise',
  clip: 'clamp',
  constrain: 'clamp',
  limit: 'clamp',
  sgn: 'sign',
  loop: 'wrap',
  pingpong: 'mirror',
  integrate: 'accumulate',
  integral: 'accumulate',
  lag: 'delay',
  smooth: 'average',
}
const LABELS: Readonly<Record<string, string>> = {
  period: 'every',
  frequency: 'freq',
  amplitude: 'amp',
  min: 'low',
  max: 'high',
  duration: 'length',
  easing: 'ease',
  loop: 'after',
}
const WORDS: Readonly<Record<string, string>> = {
  t: 'time',
  frames: 'frame',
  i: 'index',
  n: 'index',
  value: 'base',
  loop: 'repeat',
  pingpong: 'mirror',
}

const known = new Set(FUNCTIONS.map(f => f.name.toLowerCase()))

/** The texts with a name from elsewhere put as it is here. */
export function renamedHere(text: string): string[] {
  const found: string[] = []
  const change = (pattern: RegExp, to: (word: string, whole: string) => string | undefined) => {
    const changed = text.replace(pattern, (whole: string, word: string) => to(word, whole) ?? whole)
    if (changed !== text) found.push(changed)
  }
  const own = (list: Readonly<Record<string, string>>, word: string) =>
    Object.hasOwn(list, word.toLowerCase()) ? list[word.toLowerCase()] : undefined
  change(/\b([A-Za-z]+)(?=\s*\()/g, word => (known.has(word.toLowerCase()) ? undefined : own(FUNCTION_NAMES, word)))
  change(/\b([A-Za-z]+)(?=\s*:)/g, word => own(LABELS, word))
  change(/\b([A-Za-z]+)\b(?!\s*[(:.[])/g, word => own(WORDS, word))
  const families = FAMILIES.map(f => f.name).join('|')
  for (const pattern of [
    new RegExp(`\\b(?:ease)?(InOut|In|Out)_?(${families})\\b`, 'gi'),
    new RegExp(`\\b()(${families})_?(?:ease)(InOut|In|Out)\\b`, 'gi'),
  ]) {
    const way = (w: string) => ({ inout: 'InOut', in: 'In', out: 'Out' })[w.toLowerCase()] ?? ''
    const changed = text.replace(
      pattern,
      (_, a: string, family: string, b?: string) =>
        `${family.toLowerCase()}${way(a || (typeof b === 'string' ? b : ''))}`,
    )
    if (changed !== text) found.push(changed)
  }
  return found
}

/** `a ? b : c` as an if; in brackets where it stands within something else. */
function asked(text: string): string | null {
  const at = text.indexOf('?')
  if (at < 0) return null
  const level = (from: number, step: 1 | -1, stop: (c: string) => boolean): number => {
    let depth = 0
    for (let i = from; i >= 0 && i < text.length; i += step) {
      const c = text[i]!
      const [open, close] = step > 0 ? '()' : ')('
      if (c === open) depth++
      else if (c === close && depth-- === 0) return i
      else if (depth === 0 && stop(c)) return i
    }
    return step > 0 ? text.length : -1
  }
  const before = level(at - 1, -1, c => c === ',' || c === ';' || c === ':') + 1
  const word = Math.max(text.lastIndexOf('else ', at) + 5, text.lastIndexOf('then ', at) + 5)
  const from = Math.max(before, word > 4 ? word : 0)
  let questions = 0
  const colon = level(at + 1, 1, c => (c === '?' && ++questions < 0) || (c === ':' && questions-- === 0))
  if (text[colon] !== ':') return null
  const end = level(colon + 1, 1, c => c === ',' || c === ';')
  const [test, yes, no] = [text.slice(from, at), text.slice(at + 1, colon), text.slice(colon + 1, end)]
  return `${text.slice(0, from)}if ${test.trim()} then ${yes.trim()} else ${no.trim()}${text.slice(end)}`
}

/** The texts with one habit of writing changed, the likeliest first. */
export function respelt(text: string): string[] {
  const found: string[] = []
  const add = (t: string | null) => {
    if (t !== null && t !== text && !found.includes(t)) found.push(t)
  }
  for (const [pattern, to] of [...SIGNS, ...LINES]) add(text.replace(pattern, to))
  add(asked(text))
  for (const t of renamedHere(text)) add(t)
  for (const [pattern, to] of BRACKETS) add(text.replace(pattern, to))
  if (/\bthen\b/i.test(text) && !/\belse\b/i.test(text)) add(`${text.trimEnd()} else base`)
  add(text.replace(/^(\s*if\s*)(\((?:[^()]|\([^()]*\))*\))\s*(?!then|and|or|[<>=!*/+^-])/i, '$1$2 then '))
  add(text.replace(/([\w.]+|\([^()]*\))\s*(<=?|>=?)\s*([\w.]+)\s*(<=?|>=?)\s*([\w.]+)/, '$1 $2 $3 and $3 $4 $5'))
  add(text.replace(/([\w.]+)(\s*(?:<=?|>=?|==)\s*[\w.]+\s+(?:and|or)\s+)(<=?|>=?|==)/, '$1$2$1 $3'))
  add(text.replace(/([\w.]+|\((?:[^()]|\([^()]*\))*\))\s+%\s*([\w.]+|\([^()]*\))/, 'mod($1, $2)'))
  add(text.replace(/(\d)([A-Za-z]\w*)/g, (all, d: string, word: string) => (readUnit(word) ? all : `${d} * ${word}`)))
  add(text.replace(/\s+at\s+(\w+)\s*$/, ' on $1'))
  add(text.replace(/\s+on\s+\w+\s*$/, ''))
  add(text.replace(/\s+on\s*$/, ''))
  return found
}
