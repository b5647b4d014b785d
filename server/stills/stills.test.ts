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
  it('what the worker gave up is kept for a minute and then tried again; what cannot be drawn is kept', async () => {
    let time = 0
    const of = (id: string, text: string) =>
      still(
        id,
        1,
        async () => ({ text, pictures: [] }),
        () => time,
      )
    const [much, good] = [`[${'{},'.repeat(1.2e7)}0]`, JSON.stringify(emptyPiece('Empty', 1))]
    const first = await of('h', much)
    expect(first).toMatchObject({
      svg: null,
      why: expect.stringMatching(/takes too (long|much memory)/) as string,
      givenUp: true,
    })
    expect(await of('wrong', 'nothing')).toMatchObject({ svg: null, givenUp: false })
    time = 59_000
    expect(await of('h', good)).toBe(first)
    time = 61_000
    expect((await of('h', good)).svg).toMatch(/^<svg/)
    expect((await of('wrong', good)).svg).toBeNull()
  }, 60_000)
})
