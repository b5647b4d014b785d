import { describe, expect, it } from 'vitest'
import { daysOf, readDay, shiftDay } from './days.ts'

describe('days', () => {
  it('are read as people type them', () => {
    for (const text of ['2027-03-12', '12 Mar 2027', '12.3.2027', '12/3/2027', '12 march 2027', ' 12 Mar, 2027 '])
      expect(readDay(text), text).toBe('2027-03-12')
    expect(readDay('')).toBe('')
  })
  it('that are not in the calendar are none', () => {
    for (const text of ['2027-02-29', '31.4.2027', '12 Brumaire 2027', '2027-13-01', 'tomorrow', '12 3', '0.1.2027'])
      expect(readDay(text), text).toBeNull()
    expect(readDay('2028-02-29')).toBe('2028-02-29')
  })
  it('go on over the ends of months and years, and stay the last where a month is shorter', () => {
    expect(shiftDay('2027-12-31', { days: 1 })).toBe('2028-01-01')
    expect(shiftDay('2027-01-31', { months: 1 })).toBe('2027-02-28')
    expect(shiftDay('2028-03-31', { months: -1 })).toBe('2028-02-29')
    expect(shiftDay('2027-03-28', { days: 1 })).toBe('2027-03-29')
  })
  it('of a month are six weeks from a Monday', () => {
    const days = daysOf('2027-02-10')
    expect(days).toHaveLength(42)
    expect(days[0]).toEqual({ iso: '2027-02-01', day: 1, within: true })
    expect(days.filter(d => d.within)).toHaveLength(28)
    expect(daysOf('2026-12-01')[0]!.iso).toBe('2026-11-30')
    expect(new Date(`${daysOf('2029-07-04')[0]!.iso}T12:00:00Z`).getUTCDay()).toBe(1)
  })
})
