import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeEach, describe, expect, it, vi } from 'vitest'

const folder = mkdtempSync(join(tmpdir(), 'open-tide-door-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

describe('the door', () => {
  beforeEach(() => vi.resetModules())
  it('is open on this machine alone, under its own names', async () => {
    const door = await import('./door')
    expect(door.takeKey(folder, {} as NodeJS.ProcessEnv)).toBeNull()
    expect(door.isOpen('')).toBe(true)
    expect(door.serverNames({} as NodeJS.ProcessEnv)).toEqual(['127.0.0.1', 'localhost', '::1'])
  })
  it('beyond it asks for a key that is made once and is the owner’s alone', async () => {
    const door = await import('./door')
    const env = { HOST: '0.0.0.0', OPEN_TIDE_NAMES: 'Pier.example, 10.0.0.7' } as unknown as NodeJS.ProcessEnv
    const key = door.takeKey(folder, env)!
    expect(key).toMatch(/^[a-z2-9]{20}$/)
    expect(door.takeKey(folder, env)).toBe(key)
    expect(readFileSync(join(folder, 'key'), 'utf8').trim()).toBe(key)
    expect(statSync(join(folder, 'key')).mode & 0o077).toBe(0)
    expect(door.serverNames(env)).toEqual(['127.0.0.1', 'localhost', '::1', 'pier.example', '10.0.0.7'])
    expect(door.isOpen('')).toBe(false)
    expect(door.isOpen(key)).toBe(false)
    const found = door.tryKey(` ${key} `, 'a')
    expect(found.let && door.isOpen(found.cookie)).toBe(true)
  })
  it('lets nobody try for ever', async () => {
    const door = await import('./door')
    const key = door.takeKey(folder, { HOST: '10.0.0.7' } as unknown as NodeJS.ProcessEnv)!
    for (let n = 0; n < 10; n++) expect(door.tryKey('wrong', 'b', 1000 + n)).toMatchObject({ let: false, wait: false })
    expect(door.tryKey(key, 'b', 2000)).toMatchObject({ let: false, wait: true })
    // Who guesses makes nobody else wait.
    expect(door.tryKey(key, 'c', 2000)).toMatchObject({ let: true })
    expect(door.tryKey(key, 'b', 70_000)).toMatchObject({ let: true })
  })

  it('asks no key for what was handed over, and for nothing else of anybody', async () => {
    const door = await import('./door')
    for (const free of [
      '/api/health',
      '/handover/abc',
      '/api/handover/abc',
      '/api/handover/abc/assets/0f',
      '/_nuxt/x.js',
      '/_nuxt/builds/meta/a-1.json',
    ])
      expect(door.needsNoKey(free), free).toBe(true)
    for (const closed of [
      '/',
      '/piece/x',
      '/api/pieces',
      '/api/pieces/x/handovers',
      '/api/handover',
      '/handover/',
      '/api/handover/a/b',
      '/api/assets/0f',
      '/api/handover/a/assets/b/c',
      '/api/patterns',
      '/board',
      '/api/board/events',
    ])
      expect(door.needsNoKey(closed), closed).toBe(false)
  })
})
