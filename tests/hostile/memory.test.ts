import { setFlagsFromString } from 'node:v8'
import { runInNewContext } from 'node:vm'
import { describe, expect, it } from 'vitest'
import { Builder } from '../../core/acts/build.ts'
import { Program } from '../../core/engine/program.ts'
import { rewrite } from '../../core/engine/rewrite.ts'
import { momentOfFrame } from '../../core/time/moment.ts'
import { lanternPier } from '../../demo/lantern-pier.ts'

const piece = lanternPier()
setFlagsFromString('--expose_gc')
const collect = runInNewContext('gc') as () => void

describe('a number that is dragged', () => {
  it.each([
    ['~s1', (n: number) => `hold(noise(freq: ${n}/lap, octaves: 2), 10Hz)`],
    ['p1.rotation', (n: number) => `time * ${n}deg/s * fairPace`],
  ])('leaves none of the programs before behind: %s', async (key, text) => {
    let program = new Program(piece)
    const at = momentOfFrame(372, program.measures.frameRate)
    const made: WeakRef<Program>[] = []
    for (let k = 0; k < 30; k++) {
      program = rewrite(program, key, text(10 + k), at, true).program
      made.push(new WeakRef(program))
    }
    // What was made in a task is held to the end of it.
    await new Promise(done => setTimeout(done, 5))
    collect()
    expect(made.filter(m => m.deref()).length).toBeLessThan(4)
    expect(program.slots.get(key)?.running).toBe('text')
  })
  it('neither on copies in columns, dragged in turn, with links, lanes of their own and copies that were asked for', async () => {
    const b = new Builder('Lamps', 1)
    const lamp = b.part('Lamp', { type: 'ellipse' }, { copies: { layout: 'row', count: 300, dx: 9, dy: 0 } })
    const texts: Record<string, (n: number) => string> = {
      x: n => `sine(every: 2s, amp: ${n}px, phase: index * 7deg)`,
      y: n => `own.x * ${n} + noise(1Hz, 2px)`,
      rotation: n => `if index == 0 then ${n}deg else ramp(start: index * 0.1s, length: 2s, to: ${n}deg)`,
      opacity: n => `delay(sine(every: ${n}s, low: 10%, high: 90%), index * 10ms)`,
    }
    for (const [property, text] of Object.entries(texts)) b.drive(lamp, property, text(2))
    let program = new Program(b.piece)
    const at = momentOfFrame(372, program.measures.frameRate)
    const made: WeakRef<Program>[] = []
    for (let k = 0; k < 40; k++) {
      const [property, text] = Object.entries(texts)[k % 4]!
      const key = `${lamp}.${property}`
      program = rewrite(program, key, text(3 + k), at, true).program
      expect(program.slots.get(key)).toMatchObject({ running: 'text', problems: [] })
      program.moment(at, new Float64Array(program.size))
      program.slots.get(key)!.readers[1]!.at(at)
      made.push(new WeakRef(program))
    }
    expect([...program.slots.values()].every(s => s.plan)).toBe(true)
    await new Promise(done => setTimeout(done, 5))
    collect()
    expect(made.filter(m => m.deref()).length).toBeLessThan(4)
  })
  it('of a signal makes anew what reads it, and nothing else', () => {
    const program = new Program(piece)
    const at = momentOfFrame(0, program.measures.frameRate)
    const next = rewrite(program, '~s1', 'hold(noise(freq: 12/lap, octaves: 2), 10Hz)', at, true).program
    const anew = [...next.slots].filter(([key, slot]) => program.slots.get(key) !== slot).map(([key]) => key)
    expect(anew.sort()).toEqual(['p22.rotation', '~s1'])
    // A signal of another kind is another thing to whoever reads it.
    const other = rewrite(program, '~s1', '20deg', at, true).program
    expect(other.slots.get('p22.rotation')?.problems.length).toBeGreaterThan(0)
  })
})
