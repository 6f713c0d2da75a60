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
  return {
    put: kept => {
      own = JSON.stringify(form.write(kept))
      try {
        localStorage.setItem(ownedKey(key), own)
      } catch {
        /* full, or not allowed */
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
