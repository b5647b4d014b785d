import { readdirSync, readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import type { Proved as ProvedOfDepth } from './depth.proofs.test.ts'
import type { Proved as ProvedOfKnown } from './known.proofs.test.ts'
import type { Proved as ProvedOfLanguage } from './language.proofs.test.ts'
import type { Proved as ProvedOfMoving } from './moving.proofs.test.ts'
import type { Proved as ProvedOfPlaces } from './places.proofs.test.ts'
import { RULES, type RuleId } from './rules.ts'

type Unproved = Exclude<RuleId, ProvedOfDepth | ProvedOfKnown | ProvedOfLanguage | ProvedOfMoving | ProvedOfPlaces>
/** A rule without a proof does not compile. */
const everyRule: [Unproved] extends [never] ? true : Unproved = true

it('every rule has one proof, and nothing is proved that is no rule', () => {
  expect(everyRule).toBe(true)
  const ids = Object.entries(RULES).flatMap(([s, { rules }]) => Object.keys(rules).map(r => `${s}.${r}`))
  const texts = readdirSync(import.meta.dirname)
    .filter(name => name.endsWith('.proofs.test.ts'))
    .map(name => readFileSync(`${import.meta.dirname}/${name}`, 'utf8'))
  const proved = texts.flatMap(text => [...text.matchAll(/^ {2}'(\w+\.\w+)': /gm)].map(([, id]) => id!))
  expect(proved.sort()).toEqual(ids.sort())
})
