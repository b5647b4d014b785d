import { describe, expect, it } from 'vitest'
import { ForkedMap } from './forked-map.ts'

describe('a map forked from another', () => {
  it('is at every step what a copied map is, in its order, and leaves what it was forked from as it was', () => {
    let seed = 7
    const draw = (n: number): number => (seed = (seed * 48271) % 2147483647) % n
    for (let round = 0; round < 30; round++) {
      let map = new ForkedMap<string, number>()
      let copy = new Map<string, number>()
      const before: [ForkedMap<string, number>, [string, number][]][] = []
      for (let step = 0; step < 120; step++) {
        const what = draw(8)
        if (what === 0) {
          before.push([map, [...copy]])
          map = map.fork()
          copy = new Map(copy)
        } else if (what === 1) expect([...map]).toEqual([...copy])
        else if (what === 2) expect([...map.values()]).toEqual([...copy.values()])
        else if (what === 3 && draw(20) === 0) {
          map.clear()
          copy.clear()
        } else {
          // Mostly keys that it has, so that values are replaced in what is shared.
          const key = `k${draw(what < 6 ? 10 : 40)}`
          map.set(key, step)
          copy.set(key, step)
          expect(map.get(key)).toBe(step)
        }
        const asked = `k${draw(50)}`
        expect(map.get(asked)).toBe(copy.get(asked))
        expect(map.has(asked)).toBe(copy.has(asked))
        expect(map.size).toBe(copy.size)
      }
      expect([...map.keys()]).toEqual([...copy.keys()])
      for (const [map, was] of before) expect([...map]).toEqual(was)
    }
  })

  it('two forks of one don’t see each other', () => {
    const first = new ForkedMap<string, number>().set('a', 1).set('b', 2)
    const [one, two] = [first.fork(), first.fork()]
    one.set('a', 3)
    two.set('c', 4)
    expect([[...first], [...one], [...two]]).toEqual([
      [
        ['a', 1],
        ['b', 2],
      ],
      [
        ['a', 3],
        ['b', 2],
      ],
      [
        ['a', 1],
        ['b', 2],
        ['c', 4],
      ],
    ])
  })
})
