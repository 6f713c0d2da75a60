import type { Kept, LocalDraft } from './autosave'
import { unlessLeft } from './leaving'
import { ownedStorage } from './ownedStorage'

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
    return ownedStorage.put(key, own)
  }
  function drop() {
    if (isOwn()) ownedStorage.drop(key)
  }
  const isOwn = () => own !== null && ownedStorage.read(key) === own
  return {
    put,
    update: kept => {
      if (isOwn()) put(kept)
    },
    take: async now => {
      own = ownedStorage.read(key)
      const written = ownedStorage.readJson(key)
      return written === null ? null : form.read(written, now)
    },
    drop,
    stored: () => {
      const mine = own
      unlessLeft(() => {
        if (own === mine) drop()
      })
    },
  }
}
