export interface Key {
  readonly keys: string
  readonly does: string
  /** null: the part that has the keyboard acts on it; it is only listed. */
  readonly run: ((event: KeyboardEvent) => void) | null
}

/** The keys of the page that is shown; null where it has none. Only in the browser: a server shows many pages at once. */
export const pageKeys = shallowRef<(() => readonly Key[]) | null>(null)

/** Whether keys of a single letter act, for whoever uses this browser: one value for all that ask. */
export function useLetterKeys() {
  const kept = useCookie<boolean>('jovrel_letter_keys', {
    default: () => true,
    maxAge: 31_536_000,
    sameSite: 'lax',
  })
  const letters = useState('letterKeys', () => kept.value)
  return computed({
    get: () => letters.value,
    set: on => {
      letters.value = on
      kept.value = on
    },
  })
}

/** Whether something lies above the page that has the keyboard: a dialog or a menu. */
export const isBehindDialog = (): boolean =>
  document.querySelector('.v-dialog.v-overlay--active, .v-menu.v-overlay--active') !== null

/** Whether a key goes to a field or a text that is being written. */
export const isWriting = ({ target }: KeyboardEvent): boolean =>
  target instanceof Element &&
  target.closest('input:not([type="checkbox"]), textarea, select, [contenteditable="true"]') !== null
