import { describe, expect, it } from 'vitest'
import { FUNCTIONS } from '../functions/index.ts'
import { WORKING } from './working.ts'
import { GROUPS, SECTIONS, argumentKind, functionsIn, running, callSignature } from './manual.ts'

describe('the manual', () => {
  it('every example runs', () => {
    for (const e of [...[...SECTIONS, ...WORKING].flatMap(s => s.examples ?? []), ...FUNCTIONS.map(f => f.example)])
      expect(running(e), e.text).not.toBeNull()
  })
  it('every function stands in one group, with its arguments in words', () => {
    expect(GROUPS.flatMap(([g]) => functionsIn(g))).toHaveLength(FUNCTIONS.length)
    for (const f of FUNCTIONS) {
      expect(callSignature(f).startsWith(`${f.name}(`)).toBe(true)
      for (const p of f.parameters) expect(argumentKind(p).length, `${f.name} ${p.name}`).toBeGreaterThan(0)
    }
  })
})
