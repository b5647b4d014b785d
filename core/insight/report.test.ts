import { describe, expect, it } from 'vitest'
import { fair, type Place } from '../testing/fair.ts'
import { reportOf } from './report.ts'

const report = (text: string, place?: Place) => {
  const f = fair(text, place)
  return reportOf(f.program, f.slot)
}

describe('what is said of a drive', () => {
  it.each([
    ['time * 45deg/s', 'every 8 s', '', 'loops'],
    ['time * 90deg/s', 'every 4 s', '', 'loops'],
    ['time * 40deg/s', 'every 9 s', '', '40.0° off at the loop point'],
    ['time * 45deg/s * fairPace', 'every 8 s', '', 'loops'],
    ['sine(every: 2s, amp: 24)', 'every 2 s', '−24 … 24°', 'loops'],
    ['sine(every: 3s, amp: 24)', 'every 3 s', '−24 … 24°', '20.8° off at the loop point'],
    ['sine(every: 2s, amp: 9) + sine(every: 1.6s, amp: 9)', 'every 8 s', '−18 … 18°', 'loops'],
    ['sine(every: 2s, amp: 9) + time * 45deg/s', 'grows', '', 'loops'],
    ['time * 45.001deg/s', 'every 8 s', '', '0.01° off at the loop point'],
    ['noise(2Hz, 6)', 'never repeats', '−6 … 6°', /.* off at the loop point/],
    ['noise(freq: 8/lap, amp: 6)', 'every 8 s', '−4.8 … 4.4°', 'loops'],
    ['random(10, 30, rate: 3Hz)', 'never repeats', '10 … 30°', / off at the loop point/],
    ['ramp(length: 4s, to: 90, after: repeat)', 'every 4 s', '0 … 90°', 'loops'],
    ['ceil(ramp(length: 4s, from: 10, to: 0)) * 1deg', 'settles after 4 s', '0 … 10°', 'settles after 4 s'],
    ['ramp(length: 3s, to: 100deg, ease: elasticOut)', 'settles after 3 s', '0 … 133°', 'settles after 3 s'],
    ['ramp(length: 3s, to: 90)', 'settles after 3 s', '0 … 90°', 'settles after 3 s'],
    [
      'sine(every: 40000.1s, amp: 1) + sine(every: 30000.7s, amp: 1)',
      'practically never repeats',
      '−2 … 2°',
      / off at the loop point/,
    ],
    ['12', 'still', '', 'loops'],
    ['clamp(noise(1Hz, 60), -45, 45)', 'never repeats', '−45 … 45°', /^\d+\.\d° off at the loop point$/],
    ['lapProgress * 1turn', 'every 8 s', '0 … 360°', 'loops'],
    ['sine(every: 2s, amp: 9deg) * smoothstep(1s, 4s, time)', 'every 2 s', '−9 … 9°', 'loops after 4 s'],
    ['if time < 3s then time * 30deg/s else 90deg', 'settles after 3 s', '', 'settles after 3 s'],
    ['delay(ramp(length: 3s, to: 90), 500ms)', 'settles after 3.5 s', '0 … 90°', 'settles after 3.5 s'],
    ['sine(every: 4s, amp: 9) on slow', 'every 8 s', '−9 … 9°', 'loops'],
    ['ramp(length: 3s, to: 90) on toAndFro', 'every 6 s', '0 … 90°', / off at the loop point/],
    ['sine(every: 4s, amp: 9) on again', 'every 2 s', '−9 … 9°', 'loops'],
    ['play(swing, cue: blow, channel: arm)', 'settles after 5.8 s', '−60 … 40°', 'settles after 5.8 s'],
    ['play(swing, cue: beat, channel: arm)', 'every 2 s', '−60 … 40°', 'loops after 0.1 s'],
  ])('%s', (text, period, range, closes) => {
    const r = report(text)
    expect(r.period).toBe(period)
    expect(r.range).toBe(range)
    if (typeof closes === 'string') expect(r.closes).toBe(closes)
    else expect(r.closes).toMatch(closes)
  })

  it('one axis of a spiral that grows is not left open where the other names its gap', () => {
    const of = (way: string) => report(`time * 10px/s * ${way}(time * 90deg/s)`, { property: 'y' }).closes
    expect(of('cos')).toBe('80.0 px off at the loop point')
    expect(of('sin')).toMatch(/^(79\.\d|80\.0) px off within the lap$/)
  })
  it('where something stands that turns steadily comes back with its turn', () => {
    const place: Place = { property: 'x', with: { 'Idler.rotation': 'time * 45deg/s' } }
    expect(report('Idler.stageX(200px, 0px)', place)).toMatchObject({ period: 'every 8 s', closes: 'loops' })
    expect(
      report('Mount[0].stageX', { ...place, with: { 'Carousel.rotation': 'time * -36deg/s' }, on: 'Flag' }).period,
    ).toBe('every 10 s')
    expect(report('Idler.stageX', { property: 'x', with: { 'Idler.scale': 'time * 3%/s' } }).period).toBe(
      'never repeats',
    )
  })
  it('a part that looks the same six times a turn closes at 60°', () => {
    const six = (b: { piece: import('../piece/schema.ts').Piece }) => {
      b.piece = { ...b.piece, parts: { ...b.piece.parts, p1: { ...b.piece.parts.p1!, symmetry: 6 } } }
    }
    expect(report('time * 7.5deg/s', { change: six }).closes).toBe('loops by symmetry')
    expect(report('time * 8deg/s', { change: six }).closes).toBe('4.0° off at the loop point')
    expect(report('time * 45deg/s', { change: six }).closes).toBe('loops')
  })

  it('a value costs what is worked out for it', () => {
    // A source, a product and a number of its own; the dial is worked out anyway.
    expect(report('sine(every: 2s, amp: 9deg) * wind').cost).toBeGreaterThan(report('sine(every: 2s, amp: 9)').cost)
    const deep = report('noise(2Hz, 6, octaves: 6)').cost
    expect(deep).toBeGreaterThan(5 * report('noise(2Hz, 6)').cost)
    expect(report('12').cost).toBe(0)
  })
  it('and whether it has one at every moment', () => {
    expect(report('time * 45deg/s').finite).toBe(true)
    expect(report('45deg / (time / 1s)').finite).toBe(false)
    expect(report('sqrt(lapProgress) * 9deg').finite).toBe(true)
    expect(report('sqrt(lapProgress - 0.5) * 9deg').finite).toBe(false)
  })
  it('of copies the worst is said', () => {
    expect(report('sine(every: if index == 3 then 3s else 2s, amp: 9)', { on: 'Mount' }).closes).toMatch(
      / off at the loop point/,
    )
  })
})
