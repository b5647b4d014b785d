import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Builder } from '../acts/build.ts'
import { Program } from '../engine/program.ts'
import { propertyNamed } from '../piece/properties.ts'
import { outlineAt } from '../rig/outlined.ts'
import { Scene } from '../rig/scene.ts'
import { at, fair } from '../testing/fair.ts'
import { waveHeight, wavesOf, type Wave, type WaveSettings } from './waves.ts'

const settings: WaveSettings = { longest: 240, depth: 150, wind: 0, waves: 9, tile: 0, seed: 5 }

describe('a wave surface', () => {
  it('is one running sine where it has one wave, at the speed that the depth gives it', () => {
    const one = { ...settings, waves: 1 }
    const [w] = wavesOf(one, 8)
    expect(w!.share).toBe(1)
    // ω² = g k tanh k d, by hand, and to the nearest whole number of swings in the lap.
    const k = 2 * Math.PI * w!.x
    const swings = (Math.sqrt(981 * k * Math.tanh(k * 150)) * 8) / (2 * Math.PI)
    expect(w!.swings).toBe(Math.round(swings))
    for (const [x, p] of [
      [0, 0],
      [37, 0.3],
      [-500, 0.71],
    ] as const)
      expect(waveHeight([w!], x, 0, p, 0)).toBeCloseTo(
        Math.sin(2 * Math.PI * (w!.x * x - w!.swings * p + w!.start)),
        10,
      )
  })
  it('shallow water slows long waves down', () => {
    const swings = (depth: number) => wavesOf({ ...settings, waves: 1, longest: 2000, depth }, 60)[0]!.swings
    expect(swings(20)).toBeLessThan(swings(2000) * 0.5)
  })
  it('never leaves ±1 anywhere, at any sharpness', () => {
    fc.assert(
      fc.property(
        fc.record({
          longest: fc.double({ min: 10, max: 2000, noNaN: true }),
          depth: fc.double({ min: 1, max: 2000, noNaN: true }),
          wind: fc.integer({ min: -360, max: 360 }),
          waves: fc.integer({ min: 1, max: 64 }),
          tile: fc.constantFrom(0, 400),
          seed: fc.nat(),
        }),
        fc.double({ min: -1e4, max: 1e4, noNaN: true }),
        fc.double({ min: 0, max: 0.999, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (s, x, p, crest) => {
          const h = waveHeight(wavesOf(s, 8), x, x / 3, p, crest)
          expect(Math.abs(h)).toBeLessThanOrEqual(1)
        },
      ),
      { numRuns: 300 },
    )
  })
  it('comes back tile by tile', () => {
    const tiled = wavesOf({ ...settings, tile: 400, wind: 30 }, 8)
    for (const x of [0, 13, 250.5])
      expect(waveHeight(tiled, x + 400, 7 - 800, 0.4, 0.3)).toBeCloseTo(waveHeight(tiled, x, 7, 0.4, 0.3), 9)
  })
  it('crests are sharper and troughs flatter', () => {
    const one = wavesOf({ ...settings, waves: 1 }, 8)
    const heights = (crest: number) => Array.from({ length: 1000 }, (_, i) => waveHeight(one, i * 2.7, 0, 0, crest))
    const above = (crest: number) => heights(crest).filter(h => h > 0).length
    expect(above(0)).toBeGreaterThan(480)
    expect(above(1)).toBeLessThan(380)
  })
  it('of noise over space has no way of its own: it differs as much across as back, and closes at the lap', () => {
    const noise = { ...settings, noise: { pace: 0.5 }, waves: 40, tile: 0 }
    /** How much the height differs over 30 px one way, on the mean of its squares. */
    const rough = (waves: readonly Wave[], dx: number, dz: number) => {
      let sum = 0
      for (let k = 0; k < 4000; k++) {
        const [x, z] = [(k % 61) * 37, Math.floor(k / 61) * 53]
        const step = waveHeight(waves, x + dx, z + dz, 0.3, 0) - waveHeight(waves, x, z, 0.3, 0)
        sum += step * step
      }
      return sum
    }
    const isotropic = wavesOf(noise, 8)
    expect(rough(isotropic, 30, 0) / rough(isotropic, 0, 30)).toBeGreaterThan(0.5)
    expect(rough(isotropic, 30, 0) / rough(isotropic, 0, 30)).toBeLessThan(2)
    const windy = wavesOf({ ...settings, wind: 0, waves: 40, tile: 0 }, 8)
    expect(rough(windy, 30, 0) / rough(windy, 0, 30)).toBeGreaterThan(2)
    for (const w of isotropic) expect(Number.isInteger(w.swings) && w.swings >= 0).toBe(true)
    expect(isotropic.reduce((s, w) => s + w.share, 0)).toBeCloseTo(1, 12)
    // Wind and depth have no part in it; another seed is another landscape.
    expect(wavesOf({ ...noise, wind: 77, depth: 3 }, 8)).toEqual(isotropic)
    expect(wavesOf({ ...noise, seed: 9 }, 8)).not.toEqual(isotropic)
  })
  it('of noise without pace stands still', () => {
    const still = wavesOf({ ...settings, noise: { pace: 0 } }, 8)
    for (const [x, z] of [
      [0, 0],
      [311, -90],
    ] as const)
      expect(waveHeight(still, x, z, 0.77, 0.3)).toBe(waveHeight(still, x, z, 0, 0.3))
  })
  it('is read where things float, with its driven swell, as a method and as a function', () => {
    const place = {
      property: 'y',
      with: { 'Basin.swell': '24px * lapProgress', 'Carousel.x': 'time * 10px/s' },
    } as const
    const f = fair('basin.height(own.x)', place)
    expect(f.slot.problems).toEqual([])
    expect(f.value(4)).toBe(fair('height(basin, x: own.x, z: 0px)', place).value(4))
    const waves = wavesOf({ longest: 240, depth: 120, wind: 20, waves: 9, tile: 0, seed: 5 }, 8)
    const basin = Object.keys(f.piece.parts).find(k => f.piece.parts[k]!.name === 'Basin')!
    const rest = f.program.handForms(basin, propertyNamed('height')!)[0]!.at(at(0)) / 2
    expect(rest).toBeGreaterThan(10)
    expect(f.value(4)).toBeCloseTo(rest + 12 * waveHeight(waves, 40, 0, 0.5, 0.3), 10)
    expect(f.value(0)).toBeCloseTo(rest, 12)
    expect(f.slot.slots.has(Object.keys(f.piece.drives).find(k => k.endsWith('.swell'))!)).toBe(true)
  })
  it('carries a buoy that has its pivot on its drawn top, whatever its height and place', () => {
    const b = new Builder('A buoy', 4)
    const shape = { type: 'waves', longest: 240, depth: 120, wind: 20, waves: 9, tile: 0, seed: 5 } as const
    const sea = b.part('Sea', shape, {}, { x: 70, y: -120, width: 600, height: 180, swell: 30 })
    const buoy = b.part('Buoy', { type: 'ellipse' }, {}, { x: 70, y: -120 })
    b.drive(buoy, 'x', 'base + sine(every: 5s, amp: 200px)')
    b.drive(buoy, 'y', 'base + sea.height(own.x - sea.x)')
    const program = new Program(b.piece)
    const scene = new Scene(program)
    for (const t of [0, 1.1, 2.7, 6.4]) {
      const now = at(t)
      scene.update(program.moment(now, new Float64Array(program.size)), now)
      const { points } = outlineAt(scene.bodies.get(sea)!, 0)!
      const [x, y] = ['x', 'y'].map(name => program.slots.get(`${buoy}.${name}`)!.readers[0]!.at(now)) as [
        number,
        number,
      ]
      // Its top is laid in short straight pieces from right to left, behind the two corners of its foot.
      const top = Array.from(
        { length: points.length / 2 - 2 },
        (_, k) => [points[2 * k + 4]!, points[2 * k + 5]!] as const,
      )
      const k = top.findIndex(([px]) => px <= x - 70)
      const [[x0, y0], [x1, y1]] = [top[k]!, top[k - 1]!]
      const there = y0 + ((y1 - y0) * (x - 70 - x0)) / (x1 - x0)
      expect(y).toBeCloseTo(there - 120, 0)
    }
  })
})
