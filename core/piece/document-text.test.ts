import { describe, expect, it } from 'vitest'
import { lanternPier } from '../../demo/lantern-pier.ts'
import { addDial } from '../acts/drives.ts'
import { setText } from '../acts/sources.ts'
import { apply } from './operation.ts'
import { documentText } from './document-text.ts'

describe('the text of a piece', () => {
  it('is what JSON.stringify makes of it, before and after changes', () => {
    let piece = lanternPier()
    expect(documentText(piece)).toBe(JSON.stringify(piece))
    for (const key of Object.keys(piece.drives).slice(0, 20)) {
      piece = apply(piece, setText(piece, key, `${piece.drives[key]!.text} + "quoted\\n" ü`, false))
      expect(documentText(piece)).toBe(JSON.stringify(piece))
    }
    piece = apply(piece, addDial(piece, { name: 'Tide "high"' }).op)
    piece = apply(piece, { undoLabel: '', puts: [{ set: 'title', value: 'Späte „Lichter“ \u2028 \ud83c\udf0a' }] })
    expect(documentText(piece)).toBe(JSON.stringify(piece))
    const first = Object.keys(piece.parts)[0]!
    piece = apply(piece, { undoLabel: '', puts: [{ in: 'parts', id: first, value: null }] })
    expect(documentText(piece)).toBe(JSON.stringify(piece))
  })

  it('leaves out what is undefined, and has empty collections', () => {
    const piece = { ...lanternPier(), camera: undefined, dials: {}, stretch: null } as never
    expect(documentText(piece)).toBe(JSON.stringify(piece))
  })
})
