import { ownedKey } from './ownedKey'

/**
 * The browser's storage of who is signed in: nobody else who signs in there reads it. In a browser that keeps nothing
 * everything is as if nothing were there.
 */
export const ownedStorage = {
  read(key: string): string | null {
    try {
      return localStorage.getItem(ownedKey(key))
    } catch {
      return null // not allowed, or there is no browser
    }
  },
  /** The same as JSON; null also for what cannot be read any more. */
  readJson(key: string): unknown {
    try {
      return JSON.parse(this.read(key) ?? 'null')
    } catch {
      return null // written by an older Jovrel in another form
    }
  },
  /** @returns whether it is kept */
  put(key: string, text: string): boolean {
    try {
      localStorage.setItem(ownedKey(key), text)
      return true
    } catch {
      return false // full, or not allowed
    }
  },
  drop(key: string): void {
    try {
      localStorage.removeItem(ownedKey(key))
    } catch {
      /* not allowed: nothing is there */
    }
  },
  /** Keys beginning so under which something is kept. */
  keys(prefix = ''): string[] {
    try {
      return Object.keys(localStorage).flatMap(stored => {
        const key = stored.replace(/@[^@]*$/, '')
        return key.startsWith(prefix) && ownedKey(key) === stored ? [key] : []
      })
    } catch {
      return [] // not allowed, or there is no browser
    }
  },
}
