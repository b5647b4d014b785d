import { describe, expect, it } from 'vitest'
import { Program } from '../engine/program.ts'
import { momentOfFrame } from '../time/moment.ts'
import { at, fair, RATE, value } from '../testing/fair.ts'

describe('envelopes, curves and cues', () => {
  it('an envelope rises, holds and falls', () => {
    const e = (t: number) => value('envelope(attack: 1s, hold: 2s, release: 1s) * 1turn', t)
    expect([-1, 0.5, 2, 3.5, 5].map(e)).toEqual([0, 0.5, 1, 0.5, 0])
    expect(value('envelope(attack: 1s, release: 2s, over: lap) * 1turn', 15)).toBe(0.5)
    expect(value('envelope(attack: 1s, easeIn: quadIn, release: 1s, cue: blow) * 1turn', 2.5)).toBe(0.25)
    expect(value('envelope(attack: 1s, cue: never) * 1turn', 2.5)).toBe(0)
  })
  it('a curve holds, repeats, mirrors, or carries on', () => {
    // A cubic from −10 that sets off at 15 a second and lies level at 20: 5 + 2 · 15 ÷ 8.
    expect(value('curve(rocking)', 1)).toBeCloseTo(8.75 / 360, 12)
    expect([-5, 2, 9].map(t => value('curve(rocking)', t) * 360)).toEqual([-10, 20, -10].map(v => expect.closeTo(v, 9)))
    expect(value('curve(rocking, after: repeat)', 6)).toBeCloseTo(20 / 360, 12)
    expect(value('curve(climb, after: mirror) * 1turn', 3)).toBe(0.5)
    expect(value('curve(climb, after: carry) * 1turn', 5)).toBe(2.5)
    expect(value('curve(climb, after: carry) * 1turn', -1)).toBe(-0.5)
    expect(value('curve(swing, channel: puck)', 1)).toBeCloseTo(fair('curve(swing, puck)').value(1), 15)
  })
  it('a gesture whose hit is 18 frames in lands it on the cue', () => {
    const f = fair('play(strike, blow)', {
      change: b =>
        void b.curve(
          'strike',
          {
            arm: [
              [0, 0],
              [0.3, 40],
              [0.6, -60],
              [1, 0],
            ],
          },
          { unit: 'deg', hit: 0.6 },
        ),
    })
    const frame = (n: number) => f.slot.forms[0]!.at(momentOfFrame(n, RATE)) * 360
    expect(frame(60)).toBeCloseTo(-60, 12)
    expect(frame(42)).toBeCloseTo(0, 12)
    expect(frame(51)).toBeCloseTo(40, 12)
    expect(frame(0)).toBe(0)
    // The gesture of the mark at 5.5 s has begun at 4.9 s and cuts the one before.
    expect(frame(165)).toBeCloseTo(-60, 12)
    expect(frame(156)).toBeCloseTo(40, 12)
  })
  it('gestures that overlap are cut or added', () => {
    const curves = {
      change: (b: import('../acts/build.ts').Builder) =>
        void b.curve('bump', {
          up: [
            [0, 0, 'straight'],
            [1, 1, 'straight'],
            [2, 0],
          ],
        }),
    }
    expect(value('play(bump, blow) * 1turn', 5.75, curves)).toBeCloseTo(0.25, 12)
    expect(value('play(bump, blow, overlap: add) * 1turn', 5.75, curves)).toBeCloseTo(1, 12)
    expect(value('play(bump, blow, shift: 0.25s) * 1turn', 2.5, curves)).toBeCloseTo(0.25, 12)
    expect(value('play(bump, never) * 1turn', 5, curves)).toBe(0)
  })
  it('since and fires', () => {
    expect([1, 2, 4, 5.6, 9].map(t => value('since(blow) / 1s * 1turn', t))).toEqual(
      [-1, 0, 2, 0.1, 3.5].map(v => expect.closeTo(v, 12)),
    )
    expect(value('since(beat) / 1s * 1turn', 100.5)).toBeCloseTo(1.5, 12)
    expect([1.9, 2, 2.03, 2.04].map(t => value('if fires(blow) then 1turn else 0turn', t))).toEqual([0, 1, 1, 0])
  })
  it('say what is not there', () => {
    expect(fair('curve(rokking)').slot.problems[0]!.message).toBe('Unknown curve “rokking”. Did you mean rocking?')
    expect(fair('since(slow)').slot.problems[0]!.message).toMatch(/Unknown cue “slow”/)
    const p = fair('curve(swing, channel: arn)').slot.problems[0]!
    expect(p.message).toBe('swing has no channel arn. It has arm, puck.')
    expect(p.fixes[0]!.label).toBe('arm')
    expect(fair('curve(3)').slot.problems[0]!.code).toBe('argument-unknown')
    expect(fair('curve(climb)').slot.problems[0]!.message).toMatch(/is a plain number, but rotation needs an angle/)
  })
})

describe('clocks', () => {
  it('slower, backwards, and a clock on a clock, all exact', () => {
    expect(value('time * 1turn/s on slow', 12.4)).toBe(6.2)
    expect(value('time * 1turn/s on back', 12.4)).toBe(-9.4)
    expect(value('time * 1turn/s on slower', 12.4)).toBe(4.1)
    expect(value('sine(every: 2s, amp: 1turn) on slow', 1)).toBe(1)
    expect(value('lapProgress * 1turn on slow', 12)).toBe(0.75)
    expect(fair('time * 45deg/s on slower').slot.forms[0]!.exact).not.toBeNull()
  })
  it('to and fro, again and again, on a cue, held', () => {
    expect([1, 4, 7].map(t => value('time * 1turn/s on toAndFro', t))).toEqual([1, 2, 1])
    expect([1.5, 3.5, -0.5].map(t => value('time * 1turn/s on again', t))).toEqual([1.5, 1.5, 1.5])
    expect([1, 3, 6].map(t => value('time * 1turn/s on onBlow', t))).toEqual([-1, 1, 0.5])
    expect(value('time * 1turn/s on stepped', 12.37)).toBeCloseTo(12.3, 12)
    expect(value('accumulate(90deg/s) on slow', 8)).toBe(1)
    expect(value('accumulate(time * 90deg/s / 1s) on again', 3)).toBeCloseTo(0.125, 12)
  })
  it('links, signals and dials keep their own clock: two linked parts on one slow clock are slowed once', () => {
    const f = fair('flag[0].rotation + time * 0deg/s on slow', { with: { 'Flag.rotation': 'time * 1turn/s on slow' } })
    expect(f.value(12)).toBe(6)
    expect(
      fair('flag[0].rotation on slow', { with: { 'Flag.rotation': 'time * 1turn/s' } }).slot.problems[0]!.code,
    ).toBe('clock')
  })
  it('the clock is for what it stands behind', () => {
    expect(value('(time * 1turn/s on slow) + time * 1turn/s', 4)).toBe(6)
    expect(value('let a = time * 1turn/s; (a on slow) + a', 4)).toBe(6)
    expect(value('delay(time * 1turn/s, 1s) on slow', 5)).toBe(2)
  })
  it('any time, in any order, gives the same bits', () => {
    const texts = [
      'accumulate(noise(1Hz, 9deg/s))',
      'average(random(0deg, 9deg, 3Hz), 1s)',
      'curve(rocking, after: repeat) on toAndFro',
      'play(swing, beat)',
      'noise(2Hz, 9deg) on stepped',
      'accumulate(abs(sine(1Hz, 9deg/s))) on slow',
    ]
    for (const text of texts) {
      const order = [86400, 3, -50, 31557600, 3.5, 86400, -50]
      const f = fair(text)
      const forward = [...order].sort((a, b) => a - b).map(t => [t, f.value(t)] as const)
      const again = new Program(f.piece)
      for (const t of order)
        expect(again.slots.get(f.key)!.readers[0]!.at(at(t)), `${text} at ${t}`).toBe(
          forward.find(([u]) => u === t)![1],
        )
    }
  })
})
