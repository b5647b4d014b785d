import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { fair } from '../../testing/fair.ts'
import { rational } from '../../time/rational.ts'
import { samplesOf, soundValues, wavOf } from './wav.ts'

const of = (text: string, rate: number) => {
  const { program, key, value } = fair(text)
  const sounding = { drive: key, copy: 0, from: rational(1), span: rational(1, 2), rate }
  return { program, sounding, value }
}

it.each([44_100, 48_000, 96_000])('at %i samples a second each sample is the engine’s value to half a step', rate => {
  const { program, sounding, value } = of('sine(freq: 440Hz, amp: 30deg) + 10deg', rate)
  const bytes = wavOf(program, sounding)
  const view = new DataView(bytes.buffer)
  const text = (at: number, n = 4) => String.fromCharCode(...bytes.subarray(at, at + n))
  expect([text(0), text(8), text(12)]).toEqual(['RIFF', 'WAVE', 'fmt '])
  expect(view.getUint32(4, true)).toBe(bytes.length - 8)
  expect([
    view.getUint16(20, true),
    view.getUint16(22, true),
    view.getUint32(24, true),
    view.getUint16(34, true),
  ]).toEqual([1, 1, rate, 24])
  let at = 12
  let comment = ''
  while (text(at) !== 'data') {
    if (text(at) === 'LIST') comment = text(at + 20, view.getUint32(at + 16, true)).replace(/\0+$/, '')
    at += 8 + view.getUint32(at + 4, true)
  }
  const count = view.getUint32(at + 4, true) / 3
  expect(count).toBe(samplesOf(sounding))
  const [, low, high] = /-1 is (\S+), 1 is (\S+)$/.exec(comment)!.map(Number)
  const values = soundValues(program, sounding)
  for (let k = 0; k < count; k += 7) {
    const b = at + 8 + 3 * k
    const raw = bytes[b]! | (bytes[b + 1]! << 8) | (bytes[b + 2]! << 16)
    const step = (raw << 8) >> 8
    const back = (step / 8_388_607) * ((high! - low!) / 2) + (high! + low!) / 2
    expect(Math.abs(back - values[k]!)).toBeLessThanOrEqual((high! - low!) / 2 / 8_388_607 / 2 + 1e-15)
    if (k % 700 === 0) expect(values[k]).toBeCloseTo(value(1 + k / rate), 11)
  }
})

it('is read by another reader: length, rate, channel; what stands still is silence', () => {
  const folder = mkdtempSync(join(tmpdir(), 'open-tide-wav-'))
  try {
    const { program, sounding } = of('20deg', 48_000)
    const bytes = wavOf(program, sounding)
    expect(bytes.subarray(-300).every(b => b === 0)).toBe(true)
    writeFileSync(join(folder, 'a.wav'), bytes)
    const said = execFileSync('ffprobe', [
      '-v',
      'error',
      '-show_entries',
      'stream=codec_name,sample_rate,channels,duration_ts',
      '-of',
      'csv=p=0',
      join(folder, 'a.wav'),
    ])
    expect(said.toString().trim()).toBe('pcm_s24le,48000,1,24000')
  } finally {
    rmSync(folder, { recursive: true })
  }
})

it('says that there is no such drive', () => {
  const { program, sounding } = of('20deg', 48_000)
  expect(() => wavOf(program, { ...sounding, drive: 'gone' })).toThrow('no such drive')
  expect(() => wavOf(program, { ...sounding, copy: 9 })).toThrow('fewer copies')
})
