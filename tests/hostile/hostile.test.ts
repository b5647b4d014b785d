import { describe, expect, it } from 'vitest'
import { readPiece } from '../../core/piece/migrate.ts'
import { document } from './documents.ts'
import { random } from '../random.ts'
import { THOUGHT_OF } from './thought.ts'
import { tryDocument } from './trial.ts'

describe('hostile documents', () => {
  it.each(Object.entries(THOUGHT_OF))(
    '%s',
    (_, make) => {
      expect(tryDocument(make(), 'whole').wrong).toBeNull()
    },
    60_000,
  )

  it('300 made up: none breaks anything, none is stored otherwise than sent', () => {
    const r = random(20_261)
    // The reader sees them all; every third of those it takes is opened, run and drawn.
    const tried = Array.from({ length: 300 }, (_, k) => tryDocument(document(r), k % 3 === 0 ? 'briefly' : 'read'))
    expect(tried.filter(t => t.wrong !== null)).toEqual([])
    expect(tried.filter(t => t.taken).length).toBeGreaterThan(60)
  }, 900_000)

  it('are refused by their first fault, in one sentence', () => {
    const drives = Object.fromEntries(Array.from({ length: 3900 }, (_, i) => [`p${i}.x`, { text: 'x'.repeat(2000) }]))
    const { problem } = readPiece({ version: 1, title: 'Faults', drives })
    expect(problem!.length).toBeLessThan(420)
  })
})
