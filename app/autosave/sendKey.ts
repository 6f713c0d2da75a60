import { v7 } from 'uuid'
import { ownedStorage } from './ownedStorage'

export const SEND_KEYS = 'jovrel:key:' // what their names in the browser's storage begin with

interface KeptKey {
  readonly key: string
  readonly text: string // what it was made for, as JSON
}

/**
 * The key under which something is sent, kept in this browser with what it is for: sent again after a lost answer, from a
 * page that was opened anew, too, it is done once. Anything else gets a key of its own.
 *
 * @param name of what is written, as it is kept
 */
export function sendKey(name: () => string) {
  let last: KeptKey | null = null
  const place = () => SEND_KEYS + name()
  return {
    for(content: unknown): string {
      const text = JSON.stringify(content)
      const known = (ownedStorage.readJson(place()) as KeptKey | null) ?? last // as it is put below
      last = known?.text === text ? known : { key: v7(), text }
      ownedStorage.put(place(), JSON.stringify(last))
      return last.key
    },
    /** It was done: what is sent next is something else, even if it says the same. */
    done() {
      last = null
      this.forget()
    },
    /** Takes it off the browser's storage; as long as this page is open the same words are still the same. */
    forget() {
      ownedStorage.drop(place())
    },
  }
}
