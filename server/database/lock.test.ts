import { execFileSync, spawn } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { FolderInUse, takeLock } from './lock'

const folder = mkdtempSync(join(tmpdir(), 'open-tide-test-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

describe('the lock on a data folder', () => {
  const lock = join(folder, 'locked')
  it('is held by one and given back', () => {
    const release = takeLock(lock)
    expect(() => takeLock(lock)).toThrow(FolderInUse)
    expect(() => takeLock(lock)).toThrow(`in use by another Open Tide (process ${process.pid})`)
    release()
    takeLock(lock)()
  })
  it('of a process that is gone is taken over', () => {
    const gone = Number(execFileSync(process.execPath, ['-e', 'console.log(process.pid)']).toString())
    writeFileSync(join(lock, 'lock'), `${gone} 12345\n`)
    takeLock(lock)()
    // What no lock looks like, and what was left half done.
    for (const left of ['', 'garbage', '12 ab', '\0\0']) {
      writeFileSync(join(lock, 'lock'), left)
      takeLock(lock)()
    }
    writeFileSync(join(lock, `lock.${gone}`), 'x')
    takeLock(lock)()
    expect(existsSync(join(lock, `lock.${gone}`))).toBe(false)
    // The same number, but another process by now.
    writeFileSync(join(lock, 'lock'), `${process.pid} 1\n`)
    takeLock(lock)()
  })
  it('of a process that was killed and whose parent has not noticed is taken over', async () => {
    // The shell becomes something that never asks after its child.
    const parent = spawn('sh', ['-c', "sh -c 'echo $$' & exec sleep 30"], { stdio: ['ignore', 'pipe', 'ignore'] })
    try {
      const pid = await new Promise<number>(done => parent.stdout.on('data', d => done(Number(String(d)))))
      const stat = () => readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]!.split(' ')
      while (stat()[0] !== 'Z') await new Promise(done => setTimeout(done, 20))
      writeFileSync(join(lock, 'lock'), `${pid} ${stat()[19]}\n`)
      takeLock(lock)()
    } finally {
      parent.kill('SIGKILL')
    }
  })
  it('is given to one of many that start at once', async () => {
    const race = join(folder, 'race')
    mkdirSync(race)
    writeFileSync(join(race, 'lock'), '999999999 1\n')
    const script = [
      `import { takeLock } from ${JSON.stringify(new URL('./lock.ts', import.meta.url).pathname)}`,
      `try { takeLock(${JSON.stringify(race)}); process.stdout.write('got'); setTimeout(() => {}, 2500) }`,
      `catch { process.stdout.write('no') }`,
    ].join('\n')
    const jiti = new URL('../../node_modules/jiti/lib/jiti-cli.mjs', import.meta.url).pathname
    const file = join(folder, 'race.ts')
    writeFileSync(file, script)
    const answers = await Promise.all(
      Array.from(
        { length: 4 },
        () =>
          new Promise<string>(resolve => {
            let said = ''
            const child = spawn(process.execPath, [jiti, file], { stdio: ['ignore', 'pipe', 'ignore'] })
            child.stdout.on('data', d => (said += d))
            child.on('exit', () => resolve(said))
          }),
      ),
    )
    expect(answers.filter(a => a === 'got')).toHaveLength(1)
  })
})
