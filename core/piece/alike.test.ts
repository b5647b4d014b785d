import { expect, it } from 'vitest'
import { lanternPier } from '../../demo/lantern-pier.ts'
import { alike } from './alike.ts'

it('documents are alike in whatever order their fields stand, and in nothing else', () => {
  const one = lanternPier()
  const turned = (x: unknown): unknown =>
    typeof x !== 'object' || x === null || Array.isArray(x)
      ? x
      : Object.fromEntries(
          Object.entries(x)
            .reverse()
            .map(([k, v]) => [k, turned(v)]),
        )
  expect(alike(one, turned(one))).toBe(true)
  expect(alike(one, { ...one, seed: one.seed + 1 })).toBe(false)
  expect(alike({ a: [1, 2] }, { a: [2, 1] })).toBe(false)
  expect(alike({ a: undefined }, { b: undefined })).toBe(false)
  expect(alike([], {})).toBe(false)
  expect(alike({ a: null }, { a: {} })).toBe(false)
})
