/** What the same would take as a loop by hand over typed arrays, with the same sine and the same noise. */
import { octaveNoise, octavesOf } from '../../core/signal/noise.ts'
import { sineOfTurns } from '../../core/signal/sine.ts'

/** F1: one oscillator over so many times. */
export function oneOscillator(times: Float64Array, out: Float64Array): void {
  for (let i = 0; i < times.length; i++) out[i] = 30 * sineOfTurns(0.5 * times[i]!)
}

/** F2: four oscillators summed, times a smoothstep, clamped. */
export function fourOscillators(times: Float64Array, out: Float64Array): void {
  for (let i = 0; i < times.length; i++) {
    const t = times[i]!
    const sum =
      10 * sineOfTurns(t / 2) + 8 * sineOfTurns(t / 3 + 0.1) + 6 * sineOfTurns(t / 5) + 4 * sineOfTurns(t / 7 + 0.3)
    const s = (t - 1) / 3
    const v = sum * (s <= 0 ? 0 : s >= 1 ? 1 : s * s * (3 - 2 * s))
    out[i] = v < -20 ? -20 : v > 20 ? 20 : v
  }
}

const OCTAVES = octavesOf(7, 3, 0.5)
/** F3: three octaves of noise. */
export function threeOctaves(times: Float64Array, out: Float64Array): void {
  for (let i = 0; i < times.length; i++) {
    const x = 2 * times[i]!
    const whole = Math.floor(x)
    out[i] = 9 * octaveNoise(OCTAVES, whole, x - whole, 0)
  }
}

/** Bulbs of which four properties are driven: a sine three times and a steady turn, from columns of phases. */
export function bulbLoop(count: number): (t: number, out: Float64Array) => void {
  const phase = (degrees: number) => Float64Array.from({ length: count }, (_, i) => (i * degrees) / 360)
  const [x, y, turn, glow] = [7, 11, 1, 3].map(phase) as [Float64Array, Float64Array, Float64Array, Float64Array]
  return (t, out) => {
    for (let i = 0; i < count; i++) out[i] = 3 * sineOfTurns(t / 2 + x[i]!)
    for (let i = 0; i < count; i++) out[count + i] = 3 * sineOfTurns(t / 3 + y[i]!)
    for (let i = 0; i < count; i++) out[2 * count + i] = (t * 20) / 360 + turn[i]!
    for (let i = 0; i < count; i++) out[3 * count + i] = 0.6 + 0.4 * sineOfTurns(t / 5 + glow[i]!)
  }
}

/** Copies behind one another, by so many seconds each: of a post, and of a swing of their own. */
export function followerLoop(count: number): (t: number, out: Float64Array) => void {
  const lags = (seconds: number) => Float64Array.from({ length: count }, (_, i) => i * seconds)
  const [x, y] = [lags(0.005), lags(0.007)]
  return (t, out) => {
    for (let i = 0; i < count; i++) out[i] = 30 * sineOfTurns((t - x[i]!) / 2)
    for (let i = 0; i < count; i++) out[count + i] = 8 * sineOfTurns((t - y[i]!) / 3)
  }
}

/** So many sines from columns of what they are made of. */
export function mixedLoop(count: number): (t: number, out: Float64Array) => void {
  const column = (of: (i: number) => number) => Float64Array.from({ length: count }, (_, i) => of(i))
  const [amp, rate, ahead, base] = [
    column(i => 5 + (i % 7)),
    column(i => 1 / (1 + (i % 7))),
    column(i => i / 9),
    column(i => i),
  ]
  return (t, out) => {
    for (let i = 0; i < count; i++) out[i] = base[i]! + amp[i]! * sineOfTurns(t * rate[i]! + ahead[i]!)
  }
}

/** The readings of a chain of so many links: half their square. */
export function chainLoop(links: number): (t: number, out: Float64Array) => void {
  return (t, out) => {
    let sum = 0
    for (let i = 0; i < links; i++) for (let k = 0; k < i; k++) sum += sineOfTurns((t - 0.09 * k) / 3)
    out[0] = sum
  }
}
