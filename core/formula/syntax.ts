/** Says in plain words what is wrong where the grammar stopped, and what to write instead. */
import type { SyntaxNode } from '@lezer/common'
import { problem, replacing, type Problem, type Span } from './problem.ts'

const OPERATOR = /(\+|-|\*|\/|\^|<=?|>=?|==|!=|=|,|:|\b(?:and|or|not|if|then|else|on|let))\s*$/i

/** Signs of other notations, and what stands for them here. */
const ELSEWHERE: readonly (readonly [RegExp, string])[] = [
  [/^\?/, 'Write a choice as if … then … else ….'],
  [/^&/, 'Write and when both must be true.'],
  [/^\|/, 'Write or when one of them is enough.'],
  [/^!/, 'Write not for the opposite.'],
  [/^%/, 'For the remainder of a division, write mod(x, by). % means per cent and follows its number.'],
  [/^[{}]/, 'Use round brackets here.'],
  [/^["']/, 'Words don’t need quotes.'],
]

/** The problem at the first place the grammar could not follow. */
export function syntaxProblem(text: string, error: SyntaxNode): Problem {
  if (text.replace(/\/\/.*/g, '').trim() === '') {
    return problem('syntax', { from: 0, to: text.length }, 'There’s no formula yet. Try one such as sine(every: 2s).')
  }
  const bracket = unmatched(text)
  if (bracket) return bracket
  const at: Span = { from: error.from, to: Math.max(error.to, Math.min(text.length, error.from + 1)) }
  const before = text.slice(0, error.from).trimEnd()
  const rest = text.slice(error.from).trimStart()
  const here = text.length - rest.length
  const next = /^(`[^`]*`|[\p{L}\p{N}_.%]+|\S)/u.exec(rest)?.[0] ?? ''
  const nextAt: Span = { from: here, to: here + Math.max(1, next.length) }

  if (/^(<=?|>=?|==|!=)/.test(next) || (error.parent?.name === 'Compare' && /^[<>=!]/.test(next))) {
    return problem('syntax', nextAt, 'A comparison has two sides. Join two comparisons with and.')
  }
  const dangling = OPERATOR.exec(before)
  if (dangling && (next === '' || /^[)\],;*/^<>=]/.test(next))) {
    const from = before.length - dangling[1]!.length
    const fix =
      next === '' || /[*/^+-]/.test(dangling[1]!) ? [replacing({ from, to: before.length }, '', 'delete it')] : []
    return problem('syntax', { from, to: before.length }, `Something is missing after ${dangling[1]}.`, ...fix)
  }
  const ours = ELSEWHERE.find(([pattern]) => pattern.test(rest))
  if (ours) return problem('syntax', nextAt, ours[1])
  if (next === '') return problem('syntax', at, 'The formula ends too early: something is missing here.')
  if (next === '=')
    return problem('syntax', nextAt, 'To compare, write ==. To name a value, start with let.', replacing(nextAt, '=='))
  if (/^[\p{L}\p{N}_.`(]/u.test(next) && /[\p{L}\p{N}_)\]`%]$/u.test(before)) {
    const last = /[\p{L}\p{N}_.%]+$|[)\]`]$/u.exec(before)?.[0] ?? ''
    const join = { label: 'put * between them', changes: [{ from: before.length, to: here, insert: ' * ' }] }
    return problem('syntax', nextAt, `There’s no operator between ${last} and ${next}.`, join)
  }
  if (/^[*/^]/.test(next)) return problem('syntax', nextAt, `Something is missing before ${next}.`)
  return problem('syntax', nextAt, `${next} doesn’t belong here.`, replacing(nextAt, '', 'delete it'))
}

/** The first bracket without its other half, with the way to mend it. */
function unmatched(text: string): Problem | null {
  const open: { at: number; close: string }[] = []
  let quoted = false
  for (let i = 0; i < text.length; i++) {
    const c = text[i]!
    if (c === '`') quoted = !quoted
    if (quoted) continue
    if (c === '/' && text[i + 1] === '/') {
      const end = text.indexOf('\n', i)
      if (end < 0) break
      i = end
      continue
    }
    if (c === '(' || c === '[') open.push({ at: i, close: c === '(' ? ')' : ']' })
    if (c !== ')' && c !== ']') continue
    const at = { from: i, to: i + 1 }
    const last = open.pop()
    if (!last) return problem('syntax', at, `This ${c} closes nothing.`, replacing(at, '', 'delete it'))
    if (last.close !== c)
      return problem('syntax', at, `Here ${last.close} was expected, not ${c}.`, replacing(at, last.close))
  }
  if (quoted) {
    const from = text.lastIndexOf('`')
    return problem(
      'syntax',
      { from, to: text.length },
      'This name has no closing backquote.',
      replacing({ from: text.length, to: text.length }, '`'),
    )
  }
  const last = open.pop()
  if (!last) return null
  const end = { from: text.length, to: text.length }
  return problem(
    'syntax',
    { from: last.at, to: last.at + 1 },
    'This bracket is never closed.',
    replacing(end, last.close, `add ${last.close} at the end`),
  )
}
