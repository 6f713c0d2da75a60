import type { Store } from 'pinia'

/**
 * The same store, with its state read-only to whoever uses it: it changes by the store's own acts alone. The compiler
 * sees to that. At run time the state stays writable, because the page that came from the server is filled into it.
 */
export const readOnlyState = <S extends Store>(useStore: () => S): (() => Readonly<S>) => useStore
