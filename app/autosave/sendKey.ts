import { v7 } from 'uuid'
import { ownedKey } from './ownedKey'

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
  const place = () => ownedKey(SEND_KEYS + name())
  function kept(): KeptKey | null {
    try {
      return JSON.parse(localStorage.getItem(place()) ?? 'null') as KeptKey | null // as it is put below
    } catch {
      return last
    }
  }
  return {
    for(content: unknown): string {
      const text = JSON.stringify(content)
      const known = kept() ?? last
      last = known?.text === text ? known : { key: v7(), text }
      try {
        localStorage.setItem(place(), JSON.stringify(last))
      } catch {
        /* full, or not allowed: it is known as long as this page is open */
      }
      return last.key
    },
    /** It was done: what is sent next is something else, even if it says the same. */
    done() {
      last = null
      this.forget()
    },
    /** Takes it off the browser's storage; as long as this page is open the same words are still the same. */
    forget() {
      try {
        localStorage.removeItem(place())
      } catch {
        /* not allowed: nothing is there */
      }
    },
  }
}
