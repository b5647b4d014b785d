/** Formulas of the language made up at random, all of them an angle on the example fair: for tests and for measuring. */
import fc from 'fast-check'

const number = (unit: string, low = 1, high = 400) => fc.integer({ min: low, max: high }).map(n => `${n / 10}${unit}`)
const [degrees, seconds, hertz] = [number('deg'), number('s'), number('Hz')]
const perLap = fc.integer({ min: 1, max: 9 }).map(n => `${n}/lap`)
const pace = fc.oneof(hertz, perLap)
const octaves = fc.integer({ min: 1, max: 4 })
const easing = fc.constantFrom('linear', 'smooth', 'backOut', 'elasticInOut', 'bounceIn', 'powIn(3.5)')
const after = fc.constantFrom('hold', 'repeat', 'mirror')
const clock = fc.constantFrom('slow', 'back', 'slower', 'toAndFro', 'again', 'stepped', 'onBlow')
const cue = fc.constantFrom('blow', 'beat')
const share = fc.constantFrom(
  'wind',
  'dusk',
  'lapProgress',
  '0.5',
  'smoothstep(1s, 4s, time)',
  'envelope(0.2s, 0.3s, 1s)',
  '(if fires(beat) then 1 else 0.2)',
)

/** A formula that takes angles, made of its parts. */
const made = (parts: TemplateStringsArray, ...of: fc.Arbitrary<string | number>[]) =>
  fc.tuple(...of).map(values => parts.reduce((text, part, i) => `${text}${values[i - 1]}${part}`))

/** Any formula that gives an angle. */
export const anAngle: fc.Arbitrary<string> = fc.letrec(tie => {
  const x = tie('angle') as fc.Arbitrary<string>
  return {
    angle: fc.oneof(
      { depthSize: 'small', withCrossShrink: true },
      degrees,
      made`sine(every: ${seconds}, amp: ${degrees}, phase: ${degrees})`,
      made`${fc.constantFrom('triangle', 'saw', 'square')}(freq: ${pace}, low: -${degrees}, high: ${degrees})`,
      made`noise(${pace}, ${degrees}, octaves: ${octaves})`,
      made`random(${degrees}, ${degrees}, ${pace})`,
      made`ramp(length: ${seconds}, to: ${degrees}, after: ${after}, ease: ${easing})`,
      made`accumulate(${degrees} / 1s)`,
      made`sine(freq: ${hertz} * (1 + 0.4 * sine(every: ${seconds})), amp: ${degrees})`,
      made`accumulate(sine(every: ${seconds}, amp: ${degrees}) / 1s)`,
      made`atan2(noise(${pace}), 1.5 + sine(every: ${seconds}))`,
      made`curve(rocking, after: ${after})`,
      made`play(swing, cue: ${cue}, channel: arm)`,
      made`time * ${degrees} / 1s`,
      made`(${x} ${fc.constantFrom('+', '-')} ${x})`,
      made`${x} * ${share}`,
      made`mix(${x}, ${x}, lapProgress)`,
      made`${fc.constantFrom('max', 'min')}(${x}, ${x})`,
      made`abs(${x})`,
      made`sin(${x}) * ${degrees}`,
      made`average(${x}, ${seconds})`,
      made`round(${x}, to: ${degrees})`,
      made`clamp(${x}, -${degrees}, ${degrees})`,
      made`${fc.constantFrom('wrap', 'mirror')}(${x}, -${degrees}, ${degrees})`,
      made`remap(${x}, 0deg, ${degrees}, 0deg, ${degrees}, limit: ${fc.constantFrom('yes', 'no')})`,
      made`(if time < ${seconds} then ${x} else ${x})`,
      made`(if ${x} < ${degrees} then ${x} else ${x})`,
      made`delay(${x}, ${seconds})`,
      made`hold(${x}, ${pace})`,
      made`at(${x}, time: ${seconds})`,
      made`(time * ${degrees} / 1s + ${x} on ${clock})`,
    ),
  }
}).angle as fc.Arbitrary<string>

/** The same of a part that stands in copies: each copy has a formula of its own in some way. */
export const anAngleOfCopies: fc.Arbitrary<string> = fc.oneof(
  made`delay(${anAngle}, index * ${seconds})`,
  made`ramp(start: index * ${seconds}, length: ${seconds}, to: ${degrees}, after: ${after}, ease: ${easing})`,
  made`(if index > ${fc.integer({ min: 0, max: 4 })} then ${anAngle} else ${anAngle})`,
  made`(if index == 0 then ${anAngle} else step(index * ${seconds}, time) * ${degrees})`,
  made`sine(every: (1 + index) * ${seconds}, amp: ${degrees} * (1 + along))`,
  made`sine(freq: (index + 1) * ${fc.integer({ min: 1, max: 5 })}/lap, amp: ${degrees})`,
  made`time * index * ${degrees} / 1s`,
  made`time * (index + 1) * ${fc.constantFrom('45deg/s', '90deg/s', '30deg/s')}`,
  made`(${anAngle} + along * ${degrees})`,
  made`${anAngle} * (1 + index)`,
  made`(if mod(index, 2) == 0 then ${degrees} else ${anAngle})`,
  made`noise(${pace}, ${degrees})`,
  made`clamp((time - index * ${seconds}) * ${degrees} / 1s, 0deg, ${degrees})`,
)
