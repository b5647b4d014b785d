import { describe, expect, it } from 'vitest'
import { readTime, showTime } from './reading.ts'
import { rational, toNumber } from './rational.ts'

const scale = { frameRate: rational(30), lapLength: rational(8) }
const read = (text: string) => {
  const r = readTime(text, scale)
  return r.seconds ? toNumber(r.seconds) : r.says
}

describe('a typed time', () => {
  it.each([
    ['12.4', 12.4],
    ['90s', 90],
    ['1:30.5', 90.5],
    ['2:00:00', 7200],
    ['372f', 12.4],
    ['3lap', 24],
    ['365d 6h', 31557600],
    ['-1:30', -90],
    ['−4 s', -4],
    ['250ms', 0.25],
    ['1min 30s', 90],
    ['.5', 0.5],
  ])('%s', (text, seconds) => expect(read(text)).toBe(seconds))

  it.each(['', 'soon', '12 furlongs', '1:99', '--3', '1e9'])('%s is said to be none', text =>
    expect(read(text)).toMatch(/Type a time in seconds/),
  )
  it('ends at a thousand years', () => expect(read('400000d')).toMatch(/thousand years/))
})

describe('a shown time', () => {
  it.each([
    [12.4, '00:12.400'],
    [0, '00:00.000'],
    [-0.0001, '00:00.000'],
    [-75.25, '−01:15.250'],
    [3600, '1:00:00.000'],
    [31557612.4, '365d 06:00:12.400'],
    [59.9996, '01:00.000'],
  ])('%d s', (seconds, text) => expect(showTime(seconds)).toBe(text))

  it('reads back as it was', () => {
    for (const s of [12.4, 3671.033, -0.5]) expect(read(showTime(s).replace('−', '-'))).toBeCloseTo(s, 9)
  })
})
