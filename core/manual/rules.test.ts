import { describe, expect, it } from 'vitest'
import { IN_DEPTH } from './in-depth.ts'
import { KNOWN } from './known.ts'
import { LANGUAGE } from './language.ts'
import { MOVING } from './moving.ts'
import type { Proof } from './reads.ts'
import { RECENT } from './recent.ts'
import { RULES, type RuleId } from './rules.ts'

/** A rule without a proof does not compile. */
const PROOFS: Record<RuleId, Proof> = { ...LANGUAGE, ...MOVING, ...KNOWN, ...RECENT, ...IN_DEPTH }

describe.each(Object.entries(RULES))('rules of %s', (section, { rules }) => {
  it.each(Object.entries(rules))('%s: %s', rule => PROOFS[`${section}.${rule}` as RuleId]())
})

it('nothing is proved that is no rule', () => {
  const ids = Object.entries(RULES).flatMap(([s, { rules }]) => Object.keys(rules).map(r => `${s}.${r}`))
  expect(Object.keys(PROOFS).sort()).toEqual(ids.sort())
})
