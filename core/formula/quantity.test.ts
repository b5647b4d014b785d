import { describe, expect, it } from 'vitest'
import { rational } from '../time/rational.ts'
import { readQuantity } from './quantity.ts'

/** 30 frames a second, a lap of 8 s. */
const M = { frameRate: rational(30), lapLength: rational(8) }
const read = (text: string, unit: string) => readQuantity(text, unit, M).value

describe('a typed amount', () => {
  it.each([
    ['10f', 's', 10 / 30],
    ['333ms', 's', 0.333],
    ['240f', 's', 8],
    ['1lap', 's', 8],
    ['0.5 lap', 's', 4],
    ['1min', 's', 60],
    ['1:30', 's', 90],
    ['0:01.5', 's', 1.5],
    ['-2f', 's', -2 / 30],
    ['2', 's', 2],
    ['1turn', 'deg', 360],
    ['0.25turns', 'deg', 90],
    ['3.14rad', 'deg', 179.908747671],
    ['90°', 'deg', 90],
    ['−45', 'deg', -45],
    ['50%', '', 0.5],
    ['50%', '%', 50],
    ['50', '%', 50],
    ['1/3', '', 0.333333333],
    ['1/12', 'deg', 0.083333333],
    ['1/12 * 1turn', 'deg', 30],
    ['2*45', 'deg', 90],
    ['12,5', 'px', 12.5],
    ['12,5px', 'px', 12.5],
    ['2 * 3px + 4', 'px', 10],
    ['(1 + 2) * 2', 'px', 6],
    ['120bpm', 'Hz', 2],
    ['4/lap', 'Hz', 0.5],
    ['1 / 4s', 'Hz', 0.25],
    ['1turn/s', 'deg/s', 360],
    ['4 px/f', 'px/s', 120],
    ['0', 's', 0],
    ['0deg', 's', 0],
    ['.5', '', 0.5],
    ['1e2', '', 100],
    ['3 × 4', '', 12],
  ])('%s in a field of “%s” is %d', (text, unit, value) => expect(read(text, unit)).toBeCloseTo(value, 9))

  it.each([
    ['', 's', /Type a number, such as 1.5s/],
    ['soon', 's', /isn't a number/],
    ['10deg', 's', /is an angle, but this takes a time, such as 1.5s, 10f or 1lap/],
    ['2Hz', 's', /is a frequency, but this takes a time/],
    ['50%', 'deg', /is a plain number, but this takes an angle/],
    ['10px', '', /is a length, but this takes a plain number/],
    ['10parsec', 'px', /parsec/],
    ['1/0', '', /divides by 0/],
    ['10px + 1s', 'px', /adds a length and a time/],
    ['time', 's', /isn't a number/],
    ['sine(1Hz)', '', /isn't a number/],
    ['10 20', 's', /isn't a number/],
    ['let a = 2; a', '', /isn't a number/],
    ['2 on slow', 's', /isn't a number/],
    ['1e999', '', /./],
    ['9^9^9', '', /isn't a number/],
    ['('.repeat(500), '', /./],
  ])('%s in a field of “%s” is explained', (text, unit, says) => {
    const { value, says: said } = readQuantity(text, unit, M)
    expect(value).toBeNull()
    expect(said).toMatch(says)
  })
})
