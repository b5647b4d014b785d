/**
 * The lock on a data folder. The embedded database has none of its own, and two processes on one folder would
 * silently lose what is saved; so a server takes this file first and refuses to start when another holds it.
 */
import { linkSync, mkdirSync, readFileSync, readdirSync, renameSync, rmSync, unlinkSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

export class FolderInUse extends Error {
  constructor(
    readonly folder: string,
    readonly holder: number,
  ) {
    super(
      `The data folder ${folder} is in use by another Open Tide (process ${holder}). ` +
        'Close that one first, or choose another folder with OPEN_TIDE_DATA.',
    )
  }
}

/** When a process began, in the system's own count; '' where that cannot be told. Tells a process from a later one with its number. */
function beganAt(pid: number): string {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8')
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19] ?? ''
  } catch {
    return ''
  }
}

/** Whether a process has ended and only waits for its parent to notice: it holds nothing any more. */
function isEnded(pid: number): boolean {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8')
    return /^[ZX]/.test(stat.slice(stat.lastIndexOf(')') + 2))
  } catch {
    return false
  }
}

function lives(pid: number, began: string): boolean {
  if (!(pid > 0) || isEnded(pid)) return false
  try {
    process.kill(pid, 0)
  } catch (e) {
    if ((e as NodeJS.ErrnoException).code === 'ESRCH') return false
  }
  const now = beganAt(pid)
  if (began !== '' && now !== '') return now === began
  return runsNode(pid)
}

/** Whether a process may be a server at all; true where that cannot be told. */
function runsNode(pid: number): boolean {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').split('\0')[0]!.includes('node')
  } catch {
    return true
  }
}

/** Files that a process which was ended hard left behind while it took the lock. */
function clearLeftovers(folder: string): void {
  for (const name of readdirSync(folder)) {
    const [, pid] = /^lock\.(?:stale\.)?(\d+)$/.exec(name) ?? []
    if (pid && Number(pid) !== process.pid && !lives(Number(pid), '')) rmSync(join(folder, name), { force: true })
  }
}

/** Takes the lock of a folder, made if it is not there. Gives what lets it go. Throws `FolderInUse`. */
export function takeLock(folder: string): () => void {
  mkdirSync(folder, { recursive: true })
  clearLeftovers(folder)
  const path = join(folder, 'lock')
  const mine = `${process.pid} ${beganAt(process.pid)}\n`
  const own = join(folder, `lock.${process.pid}`)
  writeFileSync(own, mine, { mode: 0o600 })
  try {
    for (let tries = 0; tries < 5; tries++) {
      try {
        // A link to a whole file is made at once or not at all: no one ever reads half a lock.
        linkSync(own, path)
        const release = () => {
          if (readIfThere(path) === mine) rmSync(path, { force: true })
          process.off('exit', release)
        }
        process.on('exit', release)
        return release
      } catch (e) {
        if ((e as NodeJS.ErrnoException).code !== 'EEXIST') throw e
      }
      const held = readIfThere(path)
      if (held === null) continue
      // What is no number of a process was left half written or by something else.
      const [, pid = '', began = ''] = /^(\d{1,10})(?: (\d*))?\s*$/.exec(held) ?? []
      if (lives(Number(pid), began)) throw new FolderInUse(folder, Number(pid))
      // Left by a process that is gone. Only one of several takers gets to rename it away.
      const stale = join(folder, `lock.stale.${process.pid}`)
      try {
        renameSync(path, stale)
      } catch {
        continue
      }
      if (readIfThere(stale) !== held) {
        linkSync(stale, path)
        unlinkSync(stale)
        throw new FolderInUse(folder, Number(pid))
      }
      unlinkSync(stale)
    }
    throw new Error(`The data folder ${folder} is being opened by another process. Try again in a moment.`)
  } finally {
    rmSync(own, { force: true })
  }
}

function readIfThere(path: string): string | null {
  try {
    return readFileSync(path, 'utf8')
  } catch {
    return null
  }
}
