/** Files in the browser's private storage: there they grow while they are made, and stay until they have been taken. */
import type { Sink } from './sink.ts'

const FOLDER = 'given-out'
/** Milliseconds after which what nobody has taken is no longer kept. */
const KEPT = 24 * 3600 * 1000

const folder = async (): Promise<FileSystemDirectoryHandle> =>
  (await navigator.storage.getDirectory()).getDirectoryHandle(FOLDER, { create: true })

/** A name of its own, which says when it was begun. */
export const freshName = (): string => `${Date.now()}-${crypto.randomUUID()}`

/** A file that grows on disk. */
export class PrivateFile implements Sink {
  private constructor(
    private readonly handle: FileSystemFileHandle,
    private readonly access: FileSystemSyncAccessHandle,
  ) {}

  /** In a worker alone. @returns null where the browser keeps no files */
  static async begun(name: string): Promise<PrivateFile | null> {
    try {
      const all = await folder()
      await swept(all)
      const handle = await all.getFileHandle(name, { create: true })
      return new PrivateFile(handle, await handle.createSyncAccessHandle())
    } catch {
      return null
    }
  }

  write(bytes: Uint8Array<ArrayBuffer>, at: number): void {
    if (this.access.write(bytes, { at }) < bytes.length)
      throw new Error('There’s no room left in this browser. Make the picture smaller, or export fewer laps.')
  }

  async done(): Promise<File> {
    this.access.flush()
    this.access.close()
    return this.handle.getFile()
  }
}

/** Throws a file away; one that is still being written to is tried again. */
export async function thrownAway(name: string): Promise<void> {
  for (let tries = 0; tries < 20; tries++) {
    try {
      await (await folder()).removeEntry(name)
      return
    } catch (e) {
      if (!(e instanceof DOMException && e.name === 'NoModificationAllowedError')) return
      await new Promise(done => setTimeout(done, 100))
    }
  }
}

/** What was begun long ago, by a window that was closed. */
async function swept(all: FileSystemDirectoryHandle): Promise<void> {
  for await (const name of all.keys())
    if (Date.now() - Number(name.split('-')[0]) > KEPT) await all.removeEntry(name).catch(() => {})
}
