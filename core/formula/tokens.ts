/**
 * The tokens that a grammar alone cannot tell: numbers with their units, the bare time word after a slash,
 * and the keywords, which like all words are the same in capitals.
 */
import { ExternalTokenizer, type InputStream } from '@lezer/lr'
import { isRateWord } from '../units/units.ts'
import * as terms from './formula.parser.terms.ts'

const DOT = 46
const SLASH = 47
const PERCENT = 37
const OPENERS = new Set([40, 46, 91]) // ( . [

const DEGREE = 0xb0
/** Signs of reckoning that are no letters: ° · × ÷ – −. */
const SIGNS = new Set([DEGREE, 0xb7, 0xd7, 0xf7, 0x2013, 0x2212])

const isDigit = (c: number) => c >= 48 && c <= 57
const isLetter = (c: number) =>
  (c >= 65 && c <= 90) ||
  (c >= 97 && c <= 122) ||
  c === 95 ||
  (c >= 0xaa && !SIGNS.has(c) && !/\s/.test(String.fromCharCode(c)))
const isWord = (c: number) => isLetter(c) || isDigit(c)

const LONGEST_RATE_WORD = 7

/** The length of a rate word at `offset` that stands alone and is not called, indexed or read from; else 0. */
function rateWordAt(input: InputStream, offset: number): number {
  let word = ''
  while (word.length <= LONGEST_RATE_WORD && isWord(input.peek(offset + word.length)))
    word += String.fromCharCode(input.peek(offset + word.length))
  if (!isRateWord(word)) return 0
  return OPENERS.has(input.peek(offset + word.length)) ? 0 : word.length
}

export const numbers = new ExternalTokenizer(input => {
  const first = input.next
  if (isLetter(first) && input.peek(-1) === SLASH) {
    const length = rateWordAt(input, 0)
    if (length > 0) input.acceptToken(terms.TimeWord, length)
    return
  }
  if (!isDigit(first) && !(first === DOT && isDigit(input.peek(1)))) return
  let n = 0
  while (isDigit(input.peek(n))) n++
  if (input.peek(n) === DOT && isDigit(input.peek(n + 1))) {
    n++
    while (isDigit(input.peek(n))) n++
  }
  if (input.peek(n) === 101 || input.peek(n) === 69) {
    const sign = input.peek(n + 1) === 43 || input.peek(n + 1) === 45 ? 1 : 0
    if (isDigit(input.peek(n + 1 + sign))) {
      n += 1 + sign
      while (isDigit(input.peek(n))) n++
    }
  }
  const digits = n
  if (input.peek(n) === PERCENT || input.peek(n) === DEGREE) n++
  else while (isWord(input.peek(n))) n++
  if (n > digits && input.peek(n) === SLASH) {
    const length = rateWordAt(input, n + 1)
    if (length > 0) n += 1 + length
  }
  input.acceptToken(terms.Number, n)
})

const KEYWORDS: Readonly<Record<string, number>> = {
  if: terms._if,
  then: terms.then,
  else: terms._else,
  and: terms.and,
  or: terms.or,
  not: terms.not,
  on: terms.on,
  let: terms._let,
}

/** The keyword a name is, or −1. */
export const keyword = (name: string, _stack?: unknown): number => KEYWORDS[name.toLowerCase()] ?? -1

/** Words that the grammar keeps for itself. */
export const KEYWORD_NAMES = Object.keys(KEYWORDS)
