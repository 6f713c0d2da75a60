import type { Kept, LocalDraft } from './autosave'
import { ownedKey } from './ownedKey'

/** How a text is written down in the browser, and read again; null for what cannot be read any more. */
export interface DraftForm<T> {
  readonly write: (kept: Kept<T>) => unknown
  readonly read: (written: unknown, now: Kept<T>) => Kept<T> | null
}

/** A text in the local storage, of who is signed in. A browser that keeps nothing does no harm. */
export function localDraft<T>(key: string, form: DraftForm<T>): LocalDraft<T> {
  let own: string | null = null // what this tab has put or taken
  function put(kept: Kept<T>): boolean {
    own = JSON.stringify(form.write(kept))
    try {
      localStorage.setItem(ownedKey(key), own)
      return true
    } catch {
      return false // full, or not allowed
    }
  }
  return {
    put,
    update: kept => {
      try {
        if (own !== null && localStorage.getItem(ownedKey(key)) === own) put(kept)
      } catch {
        /* not allowed: nothing is kept */
      }
    },
    take: async now => {
      try {
        own = localStorage.getItem(ownedKey(key))
        return own === null ? null : form.read(JSON.parse(own), now)
      } catch {
        return null // not allowed, or written by an older Jovrel in a form that cannot be read
      }
    },
    drop: () => {
      try {
        if (localStorage.getItem(ownedKey(key)) === own) localStorage.removeItem(ownedKey(key))
      } catch {
        /* not allowed: nothing is there */
      }
    },
  }
}

/** Keys beginning so under which this browser keeps a text of who is signed in. */
export function keptKeys(prefix: string): string[] {
  try {
    return Object.keys(localStorage).flatMap(stored => {
      const key = stored.split('@')[0]!
      return key.startsWith(prefix) && ownedKey(key) === stored ? [key] : []
    })
  } catch {
    return [] // not allowed, or there is no browser
  }
}
