import { areOwnKeys, namedBy, pressedFor, type OwnKeys } from './ownKeys'
import { useKeptChoice } from './useKeptChoice'

export interface Key {
  readonly keys: string
  readonly does: string
  /** Told which of `keys` it is. null: the part that has the keyboard acts on it; it is only listed. */
  readonly run: ((key: string) => void) | null
}

/** The keys of the page that is shown; null where it has none. Only in the browser: a server shows many pages at once. */
export const pageKeys = shallowRef<(() => readonly Key[]) | null>(null)

const isFlag = (kept: unknown): kept is boolean => typeof kept === 'boolean'
/** Whether keys of a single letter act. */
export const useLetterKeys = () => useKeptChoice('letter_keys', true, isFlag)
/** Keys that somebody has changed. */
export const useOwnKeys = () => useKeptChoice<OwnKeys>('own_keys', {}, areOwnKeys)

/** What is pressed for a key of a single sign, and what a sign that was pressed means; '' and null where none does. */
export function useSigns() {
  const letters = useLetterKeys()
  const own = useOwnKeys()
  return {
    pressedFor: (key: string) => (letters.value ? pressedFor(own.value, key) : ''),
    namedBy: (sign: string) => (letters.value ? namedBy(own.value, sign) : null),
  }
}

/** Whether something lies above the page that has the keyboard: a dialog or a menu. */
export const isBehindDialog = (): boolean =>
  document.querySelector('.v-dialog.v-overlay--active, .v-menu.v-overlay--active') !== null

/** Whether a key goes to a field or a text that is being written. */
export const isWriting = ({ target }: KeyboardEvent): boolean =>
  target instanceof Element &&
  target.closest('input:not([type="checkbox"]), textarea, select, [contenteditable="true"]') !== null
