/**
 * A drive or a signal as sound: WAV (RIFF, 24-bit linear PCM, one channel). Its least and greatest value become −1 and 1, and
 * stand in the file's comment; each sample lies within half a step of the engine's value.
 */
import { strToU8 } from 'fflate'
import type { Program } from '../../engine/program.ts'
import { driveLabel } from '../../formula/labels.ts'
import { momentOfSeconds } from '../../time/moment.ts'
import { over, plus, rational, toNumber, type Rational } from '../../time/rational.ts'

export const SAMPLE_RATES = [44_100, 48_000, 96_000] as const
const STEPS = 8_388_607
/** Samples of one file. */
export const MOST_SAMPLES = 30_000_000

export interface Sounding {
  /** Key of the drive, or the id of the signal. */
  readonly drive: string
  readonly copy: number
  readonly from: Rational
  readonly span: Rational
  /** Samples a second. */
  readonly rate: number
}

/** How many samples there will be. */
export const samplesOf = ({ span, rate }: Pick<Sounding, 'span' | 'rate'>): number => Math.round(toNumber(span) * rate)

/** The values themselves, in base measure. @throws with a sentence when there is no such drive or copy */
export function soundValues(
  program: Program,
  { drive, copy, from, span, rate }: Sounding,
  done = (_n: number) => {},
): Float64Array {
  const reader = program.slots.get(drive)?.readers[copy]
  if (!reader) throw new Error('There’s no such drive, or it has fewer copies.')
  const values = new Float64Array(samplesOf({ span, rate }))
  const { frameRate } = program.measures
  for (let k = 0; k < values.length; k++) {
    const at = momentOfSeconds(plus(from, over(rational(BigInt(k)), rational(BigInt(rate)))), frameRate)
    values[k] = program.queue.settle(() => reader.at(at))
    if (k % rate === 0) done(k)
  }
  return values
}

export function wavOf(program: Program, sounding: Sounding, done = (_n: number) => {}): Uint8Array<ArrayBuffer> {
  const values = soundValues(program, sounding, done)
  let [low, high] = [Infinity, -Infinity]
  for (const v of values) [low, high] = [Math.min(low, v), Math.max(high, v)]
  const [middle, half] = [(high + low) / 2, (high - low) / 2]
  const name = `${driveLabel(program.piece, sounding.drive)}: -1 is ${low}, 1 is ${high}`
  const comment = strToU8(`${name}\0${name.length % 2 === 0 ? '\0' : ''}`)
  const pad = comment.length % 2
  const info = 4 + 8 + comment.length + pad
  const data = values.length * 3
  const out = new Uint8Array(12 + 24 + 8 + info + 8 + data + (data % 2))
  const view = new DataView(out.buffer)
  let at = 0
  const word = (text: string) => [...text].forEach(c => (out[at++] = c.charCodeAt(0)))
  const long = (v: number) => (view.setUint32(at, v, true), (at += 4))
  const half2 = (v: number) => (view.setUint16(at, v, true), (at += 2))
  word('RIFF')
  long(out.length - 8)
  word('WAVEfmt ')
  long(16)
  half2(1)
  half2(1)
  long(sounding.rate)
  long(sounding.rate * 3)
  half2(3)
  half2(24)
  word('LIST')
  long(info)
  word('INFOICMT')
  long(comment.length)
  out.set(comment, at)
  at += comment.length + pad
  word('data')
  long(data)
  for (const v of values) {
    const step = half > 0 ? Math.round(((v - middle) / half) * STEPS) : 0
    out[at++] = step & 255
    out[at++] = (step >> 8) & 255
    out[at++] = (step >> 16) & 255
  }
  return out
}
