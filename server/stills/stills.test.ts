import { afterAll, describe, expect, it } from 'vitest'
import { emptyPiece } from '../../core/piece/schema.ts'
import { lanternPier } from '../../demo/lantern-pier.ts'
import { still, stopStills } from './stills'

afterAll(stopStills)

describe('stills', () => {
  it('are drawn one after another by one worker, each once', async () => {
    let read = 0
    const of = (id: string, title: string) =>
      still(id, 1, async () => {
        read++
        return { text: JSON.stringify({ ...lanternPier(), title }), pictures: [] }
      })
    const made = await Promise.all([of('a', 'One'), of('b', 'Two'), of('c', 'Three'), of('a', 'One')])
    for (const m of made) expect(m.svg).toMatch(/^<svg .*<path/)
    expect(await of('b', 'Two')).toBe(made[1])
    expect(read).toBe(3)
  }, 60_000)
  it('what is no piece, or no document at all, gets the reason, and the next one is drawn', async () => {
    expect(await still('d', 1, async () => ({ text: '{"version":1}', pictures: [] }))).toMatchObject({
      svg: null,
      why: expect.stringContaining('missing'),
    })
    expect(await still('e', 1, async () => ({ text: 'nothing', pictures: [] }))).toMatchObject({
      svg: null,
      why: expect.stringContaining('JSON'),
    })
    await expect(still('f', 1, () => Promise.reject(new Error('gone')))).rejects.toThrow('gone')
    expect(
      (await still('g', 1, async () => ({ text: JSON.stringify(emptyPiece('Empty', 1)), pictures: [] }))).svg,
    ).toMatch(/^<svg/)
  }, 60_000)
})
