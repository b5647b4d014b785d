import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it, vi } from 'vitest'
import { run } from './run.ts'
import { lanternPier } from '../demo/lantern-pier.ts'
import { Program } from '../core/engine/program.ts'
import { momentOfFrame } from '../core/time/moment.ts'

const folder = mkdtempSync(join(tmpdir(), 'open-tide-prompt-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))
const file = (name: string) => join(folder, name)
const root = new URL('..', import.meta.url).pathname

/** A call in this process: what it prints and its exit code are those of the command. */
async function call(...args: string[]) {
  const [out, err]: [string[], string[]] = [[], []]
  vi.spyOn(console, 'log').mockImplementation((...words) => void out.push(words.join(' ')))
  vi.spyOn(console, 'error').mockImplementation((...words) => void err.push(words.join(' ')))
  vi.spyOn(process.stdout, 'write').mockImplementation(text => out.push(String(text).replace(/\n$/, '')) > 0)
  try {
    const status = await run(args)
    return { status, out: out.join('\n').trim(), err: err.join('\n').trim() }
  } finally {
    vi.restoreAllMocks()
  }
}

/** The same as people call it, in a process of its own. */
function started(...args: string[]) {
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    ['node_modules/jiti/lib/jiti-cli.mjs', 'cli/main.ts', ...args],
    { cwd: root, encoding: 'utf8' },
  )
  return { status, out: stdout.trim(), err: stderr.replace(/npm warn.*\n/g, '').trim() }
}
const piece = lanternPier()
writeFileSync(file('pier.json'), JSON.stringify({ id: 'x', revision: 3, document: piece }))
const carousel = Object.keys(piece.drives).find(k => piece.drives[k]!.text.startsWith('time * 45'))!
const broken = {
  ...piece,
  drives: { ...piece.drives, [carousel]: { ...piece.drives[carousel]!, text: 'time * 40', good: 'time * 40' } },
}
writeFileSync(file('broken.json'), JSON.stringify(broken))

describe('eval', () => {
  it('prints a value a line, in full precision and the unit of its kind', async () => {
    expect(await call('eval', 'sine(every: 2s, amp: 24px)', '--at', '0s,0.5s,1lap')).toEqual({
      status: 0,
      out: '0\n24\n0',
      err: '',
    })
    expect((await call('eval', 'time / 3', '--at', '1s')).out).toBe('0.3333333333333333')
    expect((await call('eval', 'index * 30deg', '--copies', '4')).out).toBe('0\n30\n60\n90')
    expect((await call('eval', '1 / 8s', '--for', 'frequency')).out).toBe('0.125')
    expect((await call('eval', 'index * 30', '--for', 'angle', '--copies', '3')).status).toBe(1)
    expect((await call('eval', 'time * 45deg/s * fairPace', '--dial', 'fairPace=65%', '--at', '1lap')).out).toBe('234')
  })
  it('says what is wrong, where, and what to do', async () => {
    const r = await call('eval', 'time * 40', '--for', 'angle')
    expect(r.status).toBe(1)
    expect(r.err.split('\n')).toEqual([
      'time * 40',
      '^^^^^^^^^',
      'This is a time, but rotation needs an angle.',
      'try: time * 40deg/s',
    ])
    for (const [args, says] of [
      [['eval'], /Name a formula/],
      [['eval', '1', '--at', 'soon'], /--at soon: Type a time/],
      [['eval', '1', '--for', 'mood'], /--for mood: it can be angle/],
      [['eval', '1', '--dial', 'x'], /name=value/],
      [['eval', '1', '--fsp', '3'], /Unknown option '--fsp'/],
      [['eval', '1', '--fps', '0'], /above 0/],
    ] as const) {
      const wrong = await call(...args)
      expect([wrong.status, wrong.err]).toEqual([2, expect.stringMatching(says)])
    }
  }, 60000)
})

describe('check', () => {
  it('prints what is known of every drive, and exits 1 on an error', async () => {
    const r = await call('check', file('pier.json'), '--json')
    expect(r.status).toBe(0)
    const { drives, errors } = JSON.parse(r.out) as {
      drives: { drive: string; period: string; closes: string; reads: string[] }[]
      errors: number
    }
    expect(errors).toBe(0)
    expect(drives.find(d => d.drive === 'Canopy.rotation')).toMatchObject({
      period: 'every 26.7 s',
      closes: 'loops by symmetry',
      reads: ['Carousel.rotation'],
    })
    expect(drives.find(d => d.drive === 'Carousel.rotation')).toMatchObject({
      reads: ['fairPace'],
      readBy: expect.arrayContaining(['Canopy.rotation', '`Crown wheel`.rotation']) as unknown,
      cost: 1,
      finite: true,
      promises: [],
    })
    const promised = { of: 'speed', side: 'above', than: 40 }
    const drive = piece.drives[carousel]!
    const promising = { ...piece, drives: { ...piece.drives, [carousel]: { ...drive, promises: [promised] } } }
    writeFileSync(file('promising.json'), JSON.stringify(promising))
    const told = (await call('check', file('promising.json'), '--touching')).out
    expect(told).toContain('stays above 40deg/s: holds for all time: never below 45deg/s')
    expect(told).toMatch(/^Scallop: copies touch, copy 1 and copy 2 at 0 s/m)
    const bad = await call('check', file('broken.json'))
    expect(bad.status).toBe(1)
    expect(bad.out).toContain('This is a time, but rotation needs an angle.')
    expect(await call('check', file('nowhere.json'))).toMatchObject({
      status: 2,
      err: expect.stringContaining('couldn’t be read') as string,
    })
  }, 60000)
})

describe('bake', () => {
  it('writes frames 0 … N−1 with the very values of the engine', async () => {
    expect((await call('bake', file('pier.json'), '--to', '1lap', '--out', file('lap.json'))).status).toBe(0)
    const baked = JSON.parse(readFileSync(file('lap.json'), 'utf8')) as { columns: string[]; rows: number[][] }
    expect(baked.rows).toHaveLength(240)
    expect(baked.rows[239]!.slice(0, 2)).toEqual([239 / 30, 239])
    const program = new Program(piece)
    const slot = program.slots.get(carousel)!
    const column = baked.columns.indexOf('Carousel.rotation')
    for (const k of [0, 7, 100, 239])
      expect(baked.rows[k]![column]).toBe(slot.readers[0]!.at(momentOfFrame(k, program.measures.frameRate)) * 360)
    await call('bake', file('pier.json'), '--from', '1s', '--to', '2s', '--fps', '60', '--out', file('second.csv'))
    const csv = readFileSync(file('second.csv'), 'utf8').trim().split('\r\n')
    expect(csv).toHaveLength(61)
    expect(csv[0]!.startsWith('time,frame,')).toBe(true)
    expect(csv[1]!.startsWith('1,60,')).toBe(true)
  }, 60000)
  it('says what is missing', async () => {
    expect(await call('bake', file('pier.json'), '--to', '1s')).toMatchObject({
      status: 2,
      err: expect.stringContaining('--out needs') as string,
    })
    expect((await call('bake', file('pier.json'), '--from', '3s', '--to', '1s', '--out', file('x.csv'))).err).toContain(
      'must be after',
    )
    expect(await call('bake', file('broken.json'), '--to', '1s', '--out', file('x.csv'))).toMatchObject({
      status: 1,
      err: expect.stringContaining('Fix it first') as string,
    })
  }, 60000)
})

describe('give', () => {
  const gave = async (as: string, ...more: string[]) => {
    const out = file(`given.${as}`)
    const { status, err } = await call('give', file('pier.json'), '--as', as, '--out', out, ...more)
    expect([status, err]).toEqual([0, err])
    return readFileSync(out)
  }
  it('makes what needs no browser by the core alone', async () => {
    expect((await gave('csv', '--from', '0s', '--to', '0.5s')).toString().split('\r\n')).toHaveLength(17)
    expect((await gave('wav', '--drive', 'Carousel.rotation', '--rate', '44100')).subarray(0, 4).toString()).toBe(
      'RIFF',
    )
    expect((await gave('gltf', '--from', '0s', '--to', '0.5s')).subarray(0, 4).toString()).toBe('glTF')
    expect((await gave('moving', '--from', '0s', '--to', '0.2s')).toString()).toContain('repeatCount="indefinite"')
    expect((await gave('page', '--dials', 'fairPace,wind')).toString()).toContain('Content-Security-Policy')
    expect((await gave('svg', '--at', '2s')).toString()).toMatch(/^<svg /)
    // A piece file is read by the same commands, and gives the same.
    const piece = await gave('piece')
    writeFileSync(file('pier.tide'), piece)
    expect((await call('give', file('pier.tide'), '--as', 'piece', '--out', file('again.tide'))).status).toBe(0)
    expect(readFileSync(file('again.tide')).equals(piece)).toBe(true)
  }, 60000)
  it('draws pictures and films where there is Chromium', async () => {
    const png = await gave('png', '--at', '1s', '--width', '320')
    expect([png.readUInt32BE(16), png.readUInt32BE(20)]).toEqual([320, 180])
    const film = await gave('webm', '--from', '0s', '--to', '0.2s', '--width', '320')
    expect(film.subarray(0, 4).toString('hex')).toBe('1a45dfa3')
  }, 60000)
  it('says what is wrong with a call, and leaves no file', async () => {
    const wrong = async (...args: string[]) => {
      const { status, err } = await call('give', file('pier.json'), '--out', file('none'), ...args)
      expect(status).toBe(2)
      return err
    }
    expect(await wrong('--as', 'exe')).toContain('--as needs one of webm, mp4')
    expect(await wrong('--as', 'csv', '--from', '2s', '--to', '1s')).toContain('must be after the first')
    expect(await wrong('--as', 'csv', '--stretch')).toContain('No stretch is marked')
    expect(await wrong('--as', 'csv', '--laps', '1.5')).toContain('--laps 1.5')
    expect(await wrong('--as', 'wav', '--drive', 'Nothing.at.all')).toContain('nothing with that name')
    expect(await wrong('--as', 'page', '--dials', 'nothing')).toContain('no such dial')
    expect(() => readFileSync(file('none'))).toThrow()
    const { status, err } = await call(
      'give',
      file('pier.json'),
      '--as',
      'csv',
      '--out',
      join(folder, 'no', 'such', 'x.csv'),
    )
    expect([status, err.includes('can’t be written')]).toEqual([2, true])
  }, 60000)
})

describe('the command itself', () => {
  it('starts, prints and ends with its exit code', () => {
    expect(started('eval', 'sine(every: 2s, amp: 24px)', '--at', '0.5s')).toEqual({ status: 0, out: '24', err: '' })
    const wrong = started('bake', file('pier.json'), '--to', '1s')
    expect([wrong.status, wrong.err.split('\n')[0]]).toEqual([2, expect.stringContaining('--out needs')])
  }, 60000)
})
