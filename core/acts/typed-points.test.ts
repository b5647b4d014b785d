import { describe, expect, it } from 'vitest'
import { pointsTyped, pointsWritten } from './typed-points.ts'

const typed = (text: string, least = 2, smooth = true) => pointsTyped(text, least, smooth)

describe('points as people type them', () => {
  it('x and y a line, with a comma, a space or both; a semicolon for a line', () => {
    const wanted = [
      { x: 12, y: -40, smooth: false },
      { x: 0, y: 0.5, smooth: false },
    ]
    for (const text of ['12, -40\n0, .5', '12 -40\n0 .5', ' 12,-40 ;\n\n 0 , 0.5 ', '12, −40\n0, 5e-1'])
      expect(typed(text)).toEqual({ points: wanted })
  })
  it('smooth where it says so, and where it may', () => {
    expect(typed('1, 2 smooth\n3, 4 SMOOTH')).toEqual({
      points: [
        { x: 1, y: 2, smooth: true },
        { x: 3, y: 4, smooth: true },
      ],
    })
    expect(typed('1, 2 smooth\n3, 4', 2, false)).toEqual({
      says: '“1, 2 smooth” isn’t a point: write x and y, such as 120, -40.',
    })
  })
  it.each(['1', '1, 2, 3, 4', 'here, there', '1, NaN', '1, Infinity', '1, 2e12', '1, 2 soft', '1, 2 smooth 3'])(
    'what isn’t a point is told by its line: %s',
    line => {
      const answer = typed(`0, 0\n${line}\n5, 5`)
      expect('says' in answer ? answer.says : '').toContain(`“${line}” isn’t a point`)
    },
  )
  it('too few or too many are told', () => {
    expect(typed('1, 2')).toEqual({ says: 'A path needs 2 to 500 points.' })
    expect(typed('1, 2\n3, 4', 3)).toEqual({ says: 'A path needs 3 to 500 points.' })
    expect(typed('')).toEqual({ says: 'A path needs 2 to 500 points.' })
    expect('points' in typed('1, 2\n'.repeat(500))).toBe(true)
    expect('says' in typed('1, 2\n'.repeat(501))).toBe(true)
  })
  it('what was written is read again as it was', () => {
    const points = [
      { x: -3.25, y: 1e6, smooth: true },
      { x: 0, y: -0.01, smooth: false },
    ]
    expect(typed(pointsWritten(points))).toEqual({ points })
  })
})
