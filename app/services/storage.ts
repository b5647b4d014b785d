/**
 * What this browser keeps between visits. Where site data is blocked it is kept until the window is closed, and that is
 * said once; nothing else depends on it.
 */

/** The browser's own store; null where even asking for it is refused. */
function own(): Storage | null {
  try {
    const probe = 'open-tide-probe'
    localStorage.setItem(probe, '1')
    localStorage.removeItem(probe)
    return localStorage
  } catch {
    return null
  }
}

const memory = new Map<string, string>()
let found: Storage | null | undefined
const store = (): Storage | null => (found === undefined ? (found = own()) : found)

/** Whether nothing outlives this window. */
export const isBlocked = (): boolean => store() === null

export const storage = {
  getItem: (key: string): string | null => store()?.getItem(key) ?? memory.get(key) ?? null,
  /** Throws only where a store that works is full. */
  setItem(key: string, value: string): void {
    const at = store()
    if (at) at.setItem(key, value)
    else memory.set(key, value)
  },
  /** Stores an entry; false if the browser has no room for it. */
  tryItem(key: string, value: string): boolean {
    try {
      storage.setItem(key, value)
      return true
    } catch {
      return false
    }
  },
  removeItem(key: string): void {
    store()?.removeItem(key)
    memory.delete(key)
  },
}
