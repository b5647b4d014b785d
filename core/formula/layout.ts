/** Long formulas laid out: each `let` and each term of the sum on a line of its own, then and else below their if. */
import { parse } from './parse.ts'
import { change, type Change } from './problem.ts'
import { outerSpan, type Node } from './tree.ts'

/** The same formula over several lines; one that cannot be read, or is one term alone, stays as it is. */
export function laidOut(text: string): string {
  const { formula } = parse(text)
  if (!formula) return text
  const changes: Change[] = []
  /** What stands between two places, blanks aside, begins a line. */
  const onLine = (from: number, to: number, indent: string): void => {
    const between = text.slice(from, to)
    const word = between.trim()
    if (word === '' || /[(){}]/.test(word)) return
    changes.push({ from, to, insert: `\n${indent}${word} ` })
  }
  const lay = (node: Node, indent: string): void => {
    if (node.type === 'binary' && (node.op === '+' || node.op === '-')) {
      lay(node.left, indent)
      onLine(outerSpan(node.left).to, outerSpan(node.right).from, indent)
    } else if (node.type === 'if') {
      onLine(outerSpan(node.test).to, outerSpan(node.yes).from, indent)
      onLine(outerSpan(node.yes).to, outerSpan(node.no).from, indent)
      lay(node.no, indent)
    }
  }
  for (const l of formula.lets) {
    const next = /^\s*;\s*/.exec(text.slice(l.to)) ?? /^\s*/.exec(text.slice(l.to))!
    changes.push({ from: l.to, to: l.to + next[0].length, insert: `${next[0].includes(';') ? ';' : ''}\n` })
  }
  lay(formula.body, '  ')
  const made = change(text, changes)
  return parse(made).formula ? made : text
}

/** All of it on one line again, but for the end of a note. */
export const onOneLine = (text: string): string =>
  text
    .split('\n')
    .map(line => line.trim())
    .filter(line => line !== '')
    .reduce(
      (all, line) =>
        `${all}${/(^|[^`])\/\/[^`]*$/.test(all.split('\n').at(-1)!) ? '\n' : all === '' ? '' : ' '}${line}`,
      '',
    )
