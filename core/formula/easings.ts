/** The easings of a formula: where they stand in its text, and where one could be written. */
import { functionNamed } from '../functions/index.ts'
import { EASING_NAMES, takesStrength } from '../signal/easing.ts'
import { canonical } from '../units/names.ts'
import { argumentsOf } from './arguments.ts'
import { parse } from './parse.ts'
import { change, type Span } from './problem.ts'
import { everyNode, type CallNode, type Formula } from './tree.ts'

/** An easing in a text: its name as the table has it, `linear` where none is written. */
export interface EasingPlace {
  readonly name: string
  /** Where its name stands; empty at the end of a call that has none yet. */
  readonly span: Span
  /** The same with its strength, `backOut(2)`. */
  readonly whole: Span
  /** What is written before a name put there. */
  readonly before: string
}

const NAMES = new Map(EASING_NAMES.map(name => [canonical(name), name]))

/** Every easing that is written, and for every call that takes one and has none the place for it, in text order. */
export const easingsOf = (formula: Formula): EasingPlace[] =>
  everyNode(formula)
    .filter((n): n is CallNode => n.type === 'call')
    .flatMap(call => inCall(call))
    .sort((a, b) => a.span.from - b.span.from)

/** The same of a text; none where it is not to be read. */
export function easingsIn(text: string): EasingPlace[] {
  const { formula } = parse(text)
  return formula ? easingsOf(formula) : []
}

function inCall(call: CallNode): EasingPlace[] {
  const entry = functionNamed(call.name)
  if (!entry?.parameters.some(p => p.easing)) return []
  const given = argumentsOf(call, entry).filled.filter(f => f.parameter.easing && f.word)
  const written = given.flatMap((f): EasingPlace[] => {
    const name = NAMES.get(canonical(f.word!.name))
    const { from, to } = f.arg.value
    return name ? [{ name, span: { from, to: from + f.word!.name.length }, whole: { from, to }, before: '' }] : []
  })
  if (given.length > 0) return written
  const end = call.to - 1
  const comma = call.args.length > 0 ? ', ' : ''
  const span = { from: end, to: end }
  return [{ name: 'linear', span, whole: span, before: `${comma}ease: ` }]
}

/** The easing whose name stands at a place of the text; null where none does. */
export const easingAt = (text: string, place: number): EasingPlace | null =>
  easingsIn(text).find(e => e.span.to > e.span.from && e.span.from <= place && place <= e.span.to) ?? null

/** The text with another easing at a place; its strength stays where the other takes one. */
export const withEasing = (text: string, { span, whole, before }: EasingPlace, name: string): string =>
  change(text, [{ ...(takesStrength(name) ? span : whole), insert: before + name }])
