/** The data folder: whose it is, what state it is in, and room on its disk. */
import {
  accessSync,
  chmodSync,
  constants,
  existsSync,
  mkdirSync,
  readdirSync,
  rmSync,
  statfsSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'

/** A data folder that cannot be used, told in a sentence with a way out. */
export class FolderTrouble extends Error {}

/** Says that a folder holds the data of Open Tide. */
const MARK = 'open-tide-data'
/** What lies in a data folder. */
const OURS = new Set([MARK, 'database', 'database.new', 'copies', 'lock', 'key', 'address'])
const isOurs = (name: string): boolean => OURS.has(name) || /^lock\./.test(name)

export const databaseIn = (folder: string): string => join(folder, 'database')
/** Where a database is made before it takes its place. */
export const newDatabaseIn = (folder: string): string => join(folder, 'database.new')
export const copiesIn = (folder: string): string => join(folder, 'copies')

/** Where the server that holds a folder answers: said by it, for the commands at a prompt. */
export const addressIn = (folder: string): string => join(folder, 'address')

/** Makes a folder ready to hold data, or throws `FolderTrouble`. A folder that holds other things is not touched. */
export function prepareFolder(folder: string): void {
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 })
    accessSync(folder, constants.W_OK | constants.R_OK | constants.X_OK)
    const names = readdirSync(folder)
    const foreign = names.filter(n => !isOurs(n))
    if (!names.includes(MARK) && !names.includes('database') && foreign.length > 0)
      throw new FolderTrouble(
        `The folder ${folder} contains other files (${foreign.slice(0, 3).join(', ')}) and wasn’t touched. ` +
          'Choose an empty folder, or a new one, with OPEN_TIDE_DATA.',
      )
    chmodSync(folder, 0o700)
    if (!names.includes(MARK))
      writeFileSync(join(folder, MARK), 'This folder is managed by Open Tide.\n', { mode: 0o600 })
  } catch (e) {
    if (e instanceof FolderTrouble) throw e
    throw new FolderTrouble(`The data folder ${folder} can’t be used: ${reason(e)} Choose another with OPEN_TIDE_DATA.`)
  }
}

/** Whether a database stands there. Throws where one did and its heart is missing; clears one that was only begun. */
export function databaseStands(folder: string): boolean {
  rmSync(newDatabaseIn(folder), { recursive: true, force: true })
  const at = databaseIn(folder)
  if (!existsSync(at) || readdirSync(at).length === 0) return false
  for (const needed of ['PG_VERSION', 'global/pg_control', 'base', 'pg_wal'])
    if (!existsSync(join(at, needed))) throw damaged(folder, `${needed} is missing in ${at}.`)
  return true
}

/** What is said of a database that cannot be opened: it is left as it is. */
export function damaged(folder: string, why: string): FolderTrouble {
  const copies = copyNames(folder)
  const last = copies.at(-1)
  return new FolderTrouble(
    `The database in ${folder} couldn’t be opened. ${why} It wasn’t changed. ` +
      (last
        ? `The last good backup is ${join(copiesIn(folder), last)}: move ${databaseIn(folder)} aside, then ./open-tide restore that file.`
        : `There’s no backup of it yet. Move ${databaseIn(folder)} aside to start with an empty harbour.`),
  )
}

/** The daily copies, the oldest first. */
export function copyNames(folder: string): string[] {
  try {
    return readdirSync(copiesIn(folder))
      .filter(n => /^\d{4}-\d\d-\d\d\.tide-backup$/.test(n))
      .sort()
  } catch {
    return []
  }
}

/** The database's own log takes 16 MB at a time; below this nothing is written any more. */
const ROOM = 48 * 1024 * 1024

/** What a new database takes, with the demo in it. */
const NEW_DATABASE = 96 * 1024 * 1024

/** Throws `FolderTrouble` where there is no room for a new database. */
export function needRoom(folder: string): void {
  try {
    const { bavail, bsize } = statfsSync(folder)
    if (bavail * bsize > NEW_DATABASE) return
  } catch {
    return
  }
  throw new FolderTrouble(
    `The disk of ${folder} is full: a new database needs about ${NEW_DATABASE / 1024 / 1024} MB. ` +
      'Free some space, or choose another folder with OPEN_TIDE_DATA.',
  )
}

/** Whether the disk has room for something so large. */
export function hasRoom(folder: string, bytes: number): boolean {
  try {
    const { bavail, bsize } = statfsSync(folder)
    return bavail * bsize > ROOM + 3 * bytes
  } catch {
    return true
  }
}

/** Why something failed, in words. */
export function reason(e: unknown): string {
  const { code, errno, message, cause } = e as NodeJS.ErrnoException & { cause?: unknown }
  // The embedded database throws numbers of its own file system, with no words.
  if (!message && (errno === 51 || errno === 28)) return 'its disk is full.'
  if (!message && errno !== undefined) return `its files can’t be written (${errno}).`
  if (cause && /^Failed query/.test(message ?? '')) return reason(cause)
  const words: Record<string, string> = {
    EACCES: 'you have no permission to write to it.',
    EPERM: 'you have no permission to write to it.',
    EROFS: 'its disk is read-only.',
    ENOSPC: 'its disk is full.',
    ENOTDIR: 'part of its path isn’t a folder.',
    EEXIST: 'it isn’t a folder.',
  }
  return (
    words[code ?? ''] ??
    `${(message ?? String(e))
      .split('\n')[0]!
      .slice(0, 200)
      .replace(/[.\s]*$/, '')}.`
  )
}
