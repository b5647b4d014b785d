/** Proofs of the rules of writing, of numbers and names, of kinds and of what there is to read. */
import { expect } from 'vitest'
import { nameProblem, setPart } from '../acts/parts.ts'
import type { Place } from '../testing/fair.ts'
import { fair } from '../testing/fair.ts'
import { copies, fixed, problems, runs, says, value, prove, type Proofs } from '../testing/rule-proofs.ts'

const grid: Place['change'] = b =>
  void b.do(setPart(b.piece, 'p3', { copies: { layout: 'grid', count: 5, columns: 2, dx: 9, dy: 9 } }))
const nested: Place['change'] = b => void b.do(setPart(b.piece, 'p3', { parent: 'p2' }))
const layered: Place['change'] = b =>
  void b.do(setPart(b.piece, 'p3', { parent: 'p2', copies: { layout: 'layers', count: 3, dz: 4 } }))
const spanned: Place['change'] = b => void b.do(setPart(b.piece, 'p1', { span: { from: 1.5, to: 4 } }))

const LANGUAGE = {
  'writing.comments': () => expect(value('10deg // + 5deg\n + 2deg')).toBeCloseTo(12, 12),
  'writing.lets': () => expect(value('let a = 3; let b = a * 2; (a + b) * 1deg')).toBeCloseTo(9, 12),
  'writing.onBindsLoosest': () => expect(value('time * 10deg/s + time * 1deg/s on slow', 4)).toBeCloseTo(22, 12),
  'writing.ifInBrackets': () => {
    expect(problems('1deg + if time < 1s then 2deg else 3deg')[0]!.code).toBe('syntax')
    expect(value('1deg + (if time < 1s then 2deg else 3deg)')).toBeCloseTo(3, 12)
  },
  'writing.oneComparison': () => {
    expect(problems('if 1 < 2 < 3 then 1deg else 2deg')[0]!.code).toBe('syntax')
    expect(value('if 1 < 2 and 2 < 3 then 1deg else 2deg')).toBeCloseTo(1, 12)
  },
  'writing.orAndNot': () => {
    // not false and false is (not false) and false; true or false and false is true or (false and false).
    expect(value('if not 1 > 2 and 1 > 2 then 1deg else 2deg')).toBeCloseTo(2, 12)
    expect(value('if 1 < 2 or 1 > 2 and 1 > 2 then 1deg else 2deg')).toBeCloseTo(1, 12)
  },
  'writing.powers': () => {
    expect(value('-2 ^ 2 * 1deg')).toBeCloseTo(-4, 12)
    expect(value('2 ^ 3 ^ 2 * 1deg')).toBeCloseTo(512, 10)
  },
  'writing.arguments': () => {
    expect(value('sine(amp: 9deg, phase: 0.25turn, every: 2s)')).toBeCloseTo(9, 12)
    expect(value('sine(amp: 9deg, 0.5Hz, phase: 0.25turn)')).toBeCloseTo(9, 12)
  },
  'writing.argumentWords': () => {
    // A dial named like an easing does no harm: the word is the argument's own.
    const dial: Place = { change: b => void b.dial('steepness') }
    expect(value('ramp(length: 2s, to: 8deg, ease: quadIn)', 1, dial)).toBeCloseTo(2, 12)
    expect(value('ramp(length: 2s, to: 8deg, ease: quadIn)', 1, { change: b => void b.dial('quadIn') })).toBeCloseTo(
      2,
      12,
    )
  },

  'numbers.exponent': () => {
    expect(value('1e3 * 1deg')).toBeCloseTo(1000, 9)
    expect(says('1e * 1deg')).toMatch(/unit/)
  },
  'numbers.unitIsWhole': () => {
    expect(problems('2sine * 1deg')[0]!.code).toBe('unit')
    expect(runs('2sine(every: 2s)')).toBe(false)
  },
  'numbers.rates': () => {
    expect(value('time * 90deg/s', 1)).toBeCloseTo(90, 12)
    expect(value('90deg/speed', 0, { signals: { speed: '4' } })).toBeCloseTo(22.5, 12)
    expect(value('8s/s * 1deg')).toBeCloseTo(8, 12)
  },
  'numbers.onePer': () => {
    expect(value('sine(freq: 3/lap, amp: 9deg)', 8 / 12)).toBeCloseTo(9, 12)
    expect(value('sine(freq: waves/lap, amp: 9deg)', 8 / 12, { signals: { waves: '3' } })).toBeCloseTo(9, 12)
    expect(value('time/lap * 1turn', 2)).toBeCloseTo(90, 12)
  },
  'numbers.letters': () => {
    const named: Place = { change: b => void b.dial('wäve_2', { unit: '', value: 7, low: 0, high: 9 }) }
    expect(value('WÄVE_2 * 1deg', 0, named)).toBeCloseTo(7, 12)
    expect(value('ｗäve_2 * 1deg', 0, named)).toBeCloseTo(7, 12)
  },
  'numbers.backquotes': () => expect(value('`Ticket arch`.rotation + 3deg')).toBeCloseTo(3, 12),
  'numbers.ownNames': () => {
    const { piece } = fair('0')
    expect(nameProblem(piece, 'FAIRPACE')).toMatch(/already something named/)
    expect(nameProblem(piece, 'Sine')).toBeNull()
    expect(nameProblem(piece, 'Lantern')).toBeNull()
  },

  'numbers.wordNames': () => {
    const named: Place = {
      change: b => {
        b.dial('Frame', { value: 50 })
        b.drive(b.part('Step', { type: 'ellipse' }), 'rotation', '12deg')
        b.drive(b.part('Sign', { type: 'ellipse' }, { copies: { layout: 'row', count: 3, dx: 9, dy: 0 } }), 'x', '3px')
        b.drive(b.part('Own', { type: 'ellipse' }), 'rotation', '7deg')
      },
    }
    expect(value('frame * 1deg', 2, named)).toBeCloseTo(60, 9)
    expect(value('`frame` * 1deg', 2, named)).toBeCloseTo(0.5, 9)
    expect(value('step.rotation + step(1s, time) * 1deg', 2, named)).toBeCloseTo(13, 9)
    expect(value('sign[2].x / 1px * 1deg + sign(-2) * 1deg', 2, named)).toBeCloseTo(2, 9)
    expect(value('`own`.rotation', 2, named)).toBeCloseTo(7, 9)
  },

  'kinds.physics': () => {
    expect(value('90deg / 2s * 3s')).toBeCloseTo(135, 12)
    expect(value('6px / 2px * 10deg')).toBeCloseTo(30, 12)
    expect(says('12deg + 3px')).toBe('These can’t be added: an angle and a length.')
  },
  'kinds.bareInPlace': () => {
    expect(value('clamp(time * 45deg/s, -90, 90)', 9)).toBeCloseTo(90, 12)
    expect(value('if time < 1s then -30 else 2')).toBeCloseTo(-30, 12)
    expect(value('12', 0, { property: 'x' })).toBe(12)
    expect(runs('base + noise(1Hz, 6)')).toBe(true)
  },
  'kinds.bareNotThroughProducts': () => {
    expect(runs('2 * 3deg')).toBe(true)
    expect(fixed('noise(2Hz, amp: 6) * dusk')).toBe('noise(2Hz, amp: 6deg) * dusk')
    expect(runs('let a = 3; a')).toBe(false)
  },
  'kinds.bothKinds': () => {
    expect(says('time * 40')).toBe('This is a time, but rotation needs an angle.')
    expect(fixed('time * 40')).toBe('time * 40deg/s')
    expect(fixed('index * 30', { on: 'Mount' })).toBe('index * 30deg')
  },
  'kinds.timesCarryUnits': () => {
    expect(fixed('sine(every: 2, amp: 3)')).toBe('sine(every: 2s, amp: 3)')
    expect(runs('delay(carousel.rotation, 2)', { on: 'Flag' })).toBe(false)
  },
  'kinds.zeroFits': () => expect(runs('if time < 0 then 0 else delay(0, 0)')).toBe(true),
  'kinds.share': () => {
    expect(value('50% * 90deg')).toBeCloseTo(45, 12)
    expect(value('fairPace', 0, { property: 'scale' })).toBe(1)
  },
  'kinds.anglesForSin': () => {
    expect(fixed('sin(30) * 9deg')).toBe('sin(30deg) * 9deg')
    expect(problems('sin(time) * 9deg')[0]!.code).toBe('kind')
  },
  'kinds.roundTo': () => {
    expect(problems('round(own.x)', { property: 'y' })[0]!.code).toBe('kind')
    expect(value('round(17px, to: 5px)', 0, { property: 'x' })).toBe(15)
    expect(runs('floor(3px)', { property: 'x' })).toBe(false)
  },

  'values.time': () => {
    expect(value('time * 1deg/s + frame * 1deg', 2)).toBeCloseTo(62, 9)
    expect(value('fps / 1Hz * 1deg + frameTime * 30deg/s')).toBeCloseTo(31, 9)
    expect(value('time * 1deg/s on slow', 2)).toBeCloseTo(1, 12)
  },
  'values.lap': () => {
    expect(value('lapProgress * 1deg + lapIndex * 10deg', 18)).toBeCloseTo(20.25, 9)
    expect(value('lapLength * 1deg/s')).toBeCloseTo(8, 12)
  },
  'values.span': () => {
    expect(value('(spanStart + spanEnd) * 1deg/s', 0, { change: spanned })).toBeCloseTo(5.5, 12)
    expect(value('(spanStart + spanEnd) * 1deg/s')).toBeCloseTo(8, 12)
  },
  'values.stretch': () => {
    const marked: Place['change'] = b => void (b.piece = { ...b.piece, stretch: { from: 2, to: 5 } })
    expect(value('(stretchEnd - stretchStart) * 1deg/s', 0, { change: marked })).toBeCloseTo(3, 12)
  },
  'values.base': () => {
    const held: Place['change'] = b =>
      void b.do({ undoLabel: '', puts: [{ in: 'bases', id: 'p1.x', value: { value: 40 } }] })
    expect(value('base + 2px', 0, { property: 'x', change: held })).toBe(42)
  },
  'values.index': () =>
    expect(copies('(index + count) * 1deg', { on: 'Flag' }).map(Math.round)).toEqual([5, 6, 7, 8, 9]),
  'values.along': () => {
    expect(copies('along * 1turn', { on: 'Flag' })).toEqual([0, 90, 180, 270, 360])
    expect(copies('along * 1turn', { on: 'Mount' })[3]).toBe(90)
  },
  'values.rows': () =>
    expect(copies('row * 1deg + rows * 10deg', { on: 'Flag', change: grid }).map(Math.round)).toEqual([
      30, 30, 31, 31, 32,
    ]),
  'values.layers': () =>
    expect(
      copies('index * 100deg + layer * 10deg + layers * 1deg + depth * 2deg', { on: 'Flag', change: layered })
        .slice(3, 6)
        .map(v => Number(v.toFixed(6))),
    ).toEqual([103, 114, 125]),
  'values.outer': () =>
    expect(value('parent.index * 100deg + index * 1deg', 0, { on: 'Flag', change: nested }, 7)).toBeCloseTo(102, 9),
  'values.dialsAndSignals': () => {
    expect(value('wind * 100deg')).toBeCloseTo(35, 12)
    expect(value('lull * 100deg', 0, { signals: { lull: '1 - wind' } })).toBeCloseTo(65, 12)
    expect(value('curve(rocking)', 2)).toBeCloseTo(20, 12)
  },
  'values.properties': () => {
    const mounts = { 'Mount.rotation': 'index * 1deg' }
    expect(value('mount[3].rotation', 0, { with: mounts })).toBeCloseTo(3, 12)
    expect(says('mount.rotation', { with: mounts })).toMatch(/Say which one/)
    const before = 'if index > 0 then mount[index - 1].y else 5px'
    expect(copies(before, { on: 'Mount', property: 'x', with: { 'Mount.y': 'index * 1px' } }).slice(0, 3)).toEqual([
      5, 0, 1,
    ])
  },
  'values.own': () => {
    expect(value('own.x + 1px', 0, { property: 'y', with: { 'Carousel.x': '4px' } })).toBe(5)
    expect(value('parent.rotation', 2, { on: 'Mount', with: { 'Carousel.rotation': 'time * 9deg/s' } })).toBeCloseTo(
      18,
      9,
    )
    const chain = 'if index == 0 then 8px else before.x * 50%'
    expect(copies(chain, { on: 'Flag', property: 'x' })).toEqual([8, 4, 2, 1, 0.5])
    // For the first copy it is what the property holds by hand.
    expect(copies('before.x + 1px', { on: 'Flag', property: 'x' })).toEqual([1, 2, 3, 4, 5])
  },
  'values.settings': () => expect(value('idler.teeth * 1deg')).toBeCloseTo(30, 12),
  'values.guarded': () => {
    expect(problems('mount[12].y', { property: 'y' })[0]!.code).toBe('index')
    expect(problems('mount[index - 1].y', { on: 'Mount', property: 'x' })[0]!.code).toBe('index')
    expect(runs('if index > 0 then mount[index - 1].y else 0', { on: 'Mount', property: 'x' })).toBe(true)
  },
} satisfies Proofs
export type Proved = keyof typeof LANGUAGE
prove(LANGUAGE)
