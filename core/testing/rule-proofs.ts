/** What the proofs of the rules look at: values, errors and fixes of a formula on the example fair. */
import { describe, it } from 'vitest'
import { RULES, type RuleId } from '../manual/rules.ts'
import { fair, type Fair, type Place } from './fair.ts'
import { change, type Problem } from '../formula/problem.ts'
import { Program } from '../engine/program.ts'
import type { Piece } from '../piece/schema.ts'
import { momentOfSeconds } from '../time/moment.ts'
import { fromNumber } from '../time/rational.ts'

/** Value in degrees (or px, by the place) at some seconds. */
export function value(text: string, seconds = 0, place: Place = {}, instance = 0): number {
  const f = fair(text, place)
  const errors = f.slot.problems.filter(p => p.level === 'error')
  if (errors.length > 0) throw new Error(`${text}: ${errors[0]!.message}`)
  const size = !place.property || /rotation|hue/i.test(place.property) ? 360 : 1
  return f.value(seconds, instance) * size
}
/** The same at all copies. */
export const copies = (text: string, place: Place, seconds = 0): number[] =>
  fair(text, place).slot.readers.map((_, i) => value(text, seconds, place, i))

export const problems = (text: string, place?: Place): readonly Problem[] => fair(text, place).slot.problems
/** The sentence of the first problem; '' when there is none. */
export const says = (text: string, place?: Place): string => problems(text, place)[0]?.message ?? ''
/** What the first fix makes of the text. */
export function fixed(text: string, place?: Place): string {
  const fix = problems(text, place)[0]?.fixes[0]
  return fix ? change(text, fix.changes) : ''
}
export const runs = (text: string, place?: Place): boolean => problems(text, place).length === 0
export const read = (f: Fair, piece: Piece, seconds: number, key = f.key): number =>
  new Program(piece).slots.get(key)!.readers[0]!.at(momentOfSeconds(fromNumber(seconds), f.program.measures.frameRate))

export type Proofs = Readonly<Partial<Record<RuleId, () => void>>>
/** Runs each proof as a test that is named after its rule. */
export function prove(proofs: Proofs): void {
  describe('rules', () => {
    for (const [id, proof] of Object.entries(proofs)) it(`${id}: ${textOf(id)}`, proof)
  })
}
function textOf(id: string): string {
  const [section, rule] = id.split('.') as [keyof typeof RULES, string]
  return (RULES[section].rules as Record<string, string>)[rule]!
}
