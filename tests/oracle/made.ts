/** Formulas made up at random, kind by kind, for the trials: all of them an angle on the flag or the carousel. */
import type { Random } from '../random.ts'

export interface Kind {
  readonly name: string
  /** Whether times far away are tried: not where the trial itself must add up a rate. */
  readonly far: boolean
  /** Whether whole turns must come out whole, to the bit. */
  readonly exact?: true
  readonly make: (r: Random) => string
}

const pick = <T>(r: Random, ...of: readonly T[]): T => of[r(of.length)]!
const deg = (r: Random) => `${pick(r, '', '', '-')}${pick(r, '7.5', '12', '30', '45', '90', '33.3', '120')}deg`
const up = (r: Random) => `${pick(r, '7.5', '12', '30', '45', '90', '33.3', '120')}deg`
const hz = (r: Random) => pick(r, '1Hz', '6Hz', '0.3Hz', '7.77Hz', '2Hz', '0.125Hz', '1.5Hz', '3/lap', '5/lap', '90bpm')
const s = (r: Random) => pick(r, '0.5s', '1s', '2s', '3s', '1.7s', '700ms', '12f', '0.25lap')
const whole = (r: Random) => pick(r, '2', '3', '5', '7', '12')
/** Something that grows steadily, in plain numbers. */
const grows = (r: Random): string =>
  pick(
    r,
    `time / ${s(r)}`,
    `time * ${hz(r)}`,
    'frame',
    `frame / ${whole(r)}`,
    `(time - ${s(r)}) * ${hz(r)}`,
    `time * ${hz(r)} + index`,
    `(frame - 3 * index) / ${whole(r)}`,
    `lapProgress * ${whole(r)}`,
    `lapIndex + lapProgress`,
  )
/** A whole number that changes with time. */
const number = (r: Random): string =>
  pick(
    r,
    `floor(${grows(r)})`,
    `round(${grows(r)})`,
    `ceil(${grows(r)})`,
    `floor(${grows(r)}) * floor(${grows(r)})`,
    `floor(${grows(r)}) ^ 2`,
    `floor(${grows(r)}) + index`,
    `abs(floor(${grows(r)}))`,
    `max(floor(${grows(r)}), ceil(${grows(r)}))`,
    `floor(mod(${grows(r)}, ${whole(r)}))`,
    `floor(clamp(${grows(r)}, -4, ${whole(r)}))`,
  )
/** A plain number made of straight pieces. */
const pieces = (r: Random): string =>
  pick(
    r,
    `mod(${grows(r)}, ${whole(r)})`,
    `clamp(${grows(r)}, 0, ${whole(r)})`,
    `max(${grows(r)}, ${whole(r)} - ${grows(r)})`,
    `abs(${grows(r)} - ${whole(r)})`,
    `remap(time, 0s, ${s(r)}, 0, ${whole(r)})`,
    `remap(time, ${s(r)}, 4s, 0, ${whole(r)}, limit: yes)`,
    `ramp(length: ${s(r)}, to: ${whole(r)}, after: ${pick(r, 'hold', 'repeat', 'mirror')})`,
    `saw(freq: ${hz(r)}, low: 0, high: ${whole(r)})`,
    `triangle(freq: ${hz(r)}, low: 0, high: ${whole(r)})`,
    `wrap(${grows(r)}, -1, ${whole(r)})`,
    `mirror(${grows(r)}, -1, ${whole(r)})`,
    `fract(${grows(r)})`,
    `min(${grows(r)}, ${grows(r)})`,
    `mix(${grows(r)}, ${whole(r)}, 0.25)`,
    `(if time < ${s(r)} then ${grows(r)} else ${grows(r)})`,
    `delay(${grows(r)}, ${s(r)})`,
    `hold(${grows(r)}, ${hz(r)})`,
    `${grows(r)} * ${grows(r)}`,
  )
const wave = (r: Random): string =>
  `${pick(r, 'sine', 'sine', 'triangle', 'saw', 'square')}(${pick(r, `every: ${s(r)}`, `freq: ${hz(r)}`)}, amp: ${up(r)}${pick(r, '', `, phase: ${deg(r)}`, ', phase: 0.25turn', `, offset: ${deg(r)}`)})`
const easing = (r: Random) =>
  pick(r, 'linear', 'smooth', 'quadIn', 'cubicOut', 'quartInOut', 'sineInOut', 'backOut', 'powIn(3.5)', 'circOut')
const gate = (r: Random): string =>
  pick(
    r,
    `smoothstep(${s(r)}, 4s, time)`,
    `step(${s(r)}, time)`,
    `(if sine(every: ${s(r)}) > ${pick(r, '0', '0.3', '-0.5')} then 1 else ${pick(r, '0', '0.25')})`,
    `abs(sine(every: ${s(r)}))`,
    `max(0, sine(freq: ${hz(r)}))`,
    `clamp(time / ${s(r)}, 0, 1)`,
    `ramp(length: ${s(r)})`,
    `min(1, abs(triangle(every: ${s(r)}) * 1.6))`,
    `floor(time / ${s(r)})`,
    `mod(floor(time / ${s(r)}), 2)`,
    `square(every: ${s(r)}, low: 0.2, high: 1)`,
    `saw(freq: ${hz(r)}, low: 0, high: 1)`,
    `(1 + 0.5 * sine(every: ${s(r)}))`,
    `(if time < ${s(r)} then 0.5 else 1.5)`,
    `lapProgress`,
    `gust`,
    `time / 4s`,
    `(time / 4s) ^ 2`,
  )
const link = (r: Random) =>
  pick(r, 'idler.rotation', 'pinion.rotation', 'arch.rotation', 'flag[2].rotation', 'gust * 90deg')

const any = (r: Random, deep: number): string => {
  if (deep === 0) return pick(r, wave(r), deg(r), `time * ${up(r)} / 1s`, link(r))
  const x = () => any(r, deep - 1)
  return pick(
    r,
    `(${x()} + ${x()})`,
    `(${x()} - ${x()})`,
    `${gate(r)} * ${deg(r)}`,
    `max(${x()}, ${x()})`,
    `clamp(${x()}, -45deg, 45deg)`,
    `wrap(${x()}, -45deg, 90deg)`,
    `round(${x()}, to: 15deg)`,
    `mod(${x()}, 90deg)`,
    `mix(${x()}, ${x()}, ${pick(r, '0.25', 'lapProgress', 'wind')})`,
    `delay(${x()}, ${s(r)})`,
    `hold(${x()}, ${hz(r)})`,
    `at(${x()}, time: ${s(r)})`,
    `(if time < ${s(r)} then ${x()} else ${x()})`,
    `(if ${x()} > ${deg(r)} then ${x()} else ${x()})`,
    `sin(${x()}) * ${up(r)}`,
    `(let u = ${x()}; u + u * 0.5)`.replace(/^\(let (.*?); (.*)\)$/, (_, a: string) => `${a.slice(4)} * 1.5`),
  )
}

export const KINDS: readonly Kind[] = [
  { name: 'whole numbers', far: true, exact: true, make: r => `mod(${number(r)}, ${whole(r)}) * 1deg` },
  {
    name: 'whole numbers of any size',
    far: true,
    exact: true,
    make: r => `(${number(r)}) * ${pick(r, '1turn', '1turn', '1deg')}`,
  },
  {
    name: 'chases over copies',
    far: true,
    exact: true,
    make: r => `if mod(${number(r)}, ${pick(r, 'count', whole(r))}) == index then 90deg else 0deg`,
  },
  {
    name: 'frames on a jump',
    far: true,
    exact: true,
    make: r => `${pick(r, 'floor', 'round', 'ceil')}(${pieces(r)} * ${whole(r)}) * 1turn`,
  },
  {
    name: 'comparisons of steady values',
    far: true,
    exact: true,
    make: r => `if ${pieces(r)} ${pick(r, '<', '<=', '>', '>=', '==', '!=')} ${whole(r)} then 90deg else 0deg`,
  },
  { name: 'waves', far: true, make: r => `${wave(r)} ${pick(r, '+', '-')} ${wave(r)}` },
  {
    name: 'waves on a jump',
    far: true,
    exact: true,
    make: r =>
      `square(freq: ${hz(r)}, amp: 1turn, duty: ${pick(r, '0.25', '0.3', '0.5')}, phase: ${pick(r, '0deg', '0.25turn', '30deg', '0.1turn')})`,
  },
  {
    name: 'ramps and easings',
    far: true,
    make: r =>
      `ramp(start: ${s(r)}, length: ${s(r)}, from: ${deg(r)}, to: ${deg(r)}, ease: ${easing(r)}, after: ${pick(r, 'hold', 'repeat', 'mirror')})`,
  },
  {
    name: 'envelopes',
    far: true,
    make: r =>
      `envelope(attack: ${s(r)}, ${pick(r, `hold: ${s(r)}, `, '')}release: ${s(r)}, ease: ${easing(r)}${pick(r, '', ', over: lap', ', cue: blow', ', cue: beat')}) * ${up(r)}`.replace(
        /hold: \S+ (.*over: lap)/,
        '$1',
      ),
  },
  {
    name: 'envelopes from mark to mark',
    far: true,
    make: r =>
      `envelope(attack: ${pick(r, '0.1s', '150ms', '6f')}, release: ${pick(r, '0.2s', '0.25s')}, over: cue, cue: ${pick(r, 'blow', 'beat')}) * ${up(r)}`,
  },
  {
    name: 'rates added up',
    far: false,
    make: r => `accumulate(${up(r)} / 1s * ${gate(r)}${pick(r, '', ` * ${gate(r)}`)})`,
  },
  {
    name: 'rates added up, with a reset',
    far: false,
    make: r => `accumulate(${up(r)} / 1s * ${gate(r)}, reset: ${pick(r, 'blow', 'beat')})`,
  },
  { name: 'waves of varying pace', far: false, make: r => `sine(freq: ${hz(r)} * ${gate(r)}, amp: ${up(r)})` },
  {
    name: 'waves of varying length',
    far: false,
    make: r =>
      `sine(every: ${s(r)} * (1 + 0.5 * ${pick(r, 'lapProgress', 'gust', `step(${s(r)}, time)`)}), amp: ${up(r)})`,
  },
  {
    name: 'averages',
    far: false,
    make: r => `average(${pick(r, wave(r), `${gate(r)} * ${up(r)}`, link(r))}, ${s(r)})`,
  },
  {
    name: 'clocks',
    far: true,
    make: r =>
      `(${pick(r, wave(r), `time * ${up(r)} / 1s`, `${pieces(r)} * ${up(r)}`)} on ${pick(r, 'slow', 'back', 'slower', 'toAndFro', 'again', 'stepped')}) + ${pick(r, '0deg', wave(r))}`,
  },
  {
    name: 'cues',
    far: true,
    make: r =>
      pick(
        r,
        `since(${pick(r, 'blow', 'beat')}) / 1s * ${up(r)}`,
        `if fires(${pick(r, 'blow', 'beat')}) then 90deg else 0deg`,
        `smoothstep(0s, ${s(r)}, since(${pick(r, 'blow', 'beat')})) * ${up(r)}`,
        `play(zigzag, ${pick(r, 'blow', 'beat')}, channel: ${pick(r, 'left', 'right')}${pick(r, '', ', shift: 0.2s')})`,
        `count(${pick(r, 'blow', 'beat')}) * 30deg`,
        `until(beat) / 1s * ${up(r)}`,
      ),
  },
  {
    name: 'curves',
    far: true,
    make: r =>
      pick(
        r,
        `curve(zigzag, channel: ${pick(r, 'left', 'right')}, after: ${pick(r, 'hold', 'repeat', 'mirror', 'carry')}) + ${deg(r)}`,
        `climb * ${up(r)}`,
        `zigzag + ${wave(r)}`,
      ),
  },
  {
    name: 'sines of an angle',
    far: true,
    make: r => `${pick(r, 'sin', 'cos')}(time * ${up(r)} / 1s + ${deg(r)}) * ${pick(r, '1turn', up(r))}`,
  },
  {
    name: 'links and other moments',
    far: true,
    make: r => `delay(${link(r)}, ${s(r)}) * ${pick(r, '0.5', '-0.3', '2')} + ${link(r)}`,
  },
  { name: 'everything combined', far: true, make: r => any(r, 2) },
]
