/** What a save in a row of them needs of the page. */
export interface InTurn<T> {
  /** Shows an arrangement before it is stored. */
  readonly show: (next: T) => void
  /** Stores it. @returns whether that could be done; what was wrong has been said */
  readonly store: (next: T) => Promise<boolean>
  /** Shows what is stored, if nothing else is on its way once it is here. */
  readonly showStored: (isStill: () => boolean) => Promise<void>
}

/**
 * Saves that follow one another, each made on top of the one before. What is stored is shown once the last is done: the
 * answer to an earlier one would take a later act off the page, and with it out of the save after that. Where one is
 * refused, those made on top of it are not sent.
 */
export function savesInTurn<T>({ show, store, showStored }: InTurn<T>) {
  let last: Promise<unknown> = Promise.resolve()
  let waiting = 0
  let refused = 0
  return function save(next: T, done: () => void = () => {}): Promise<unknown> {
    const madeOn = refused
    show(next)
    waiting++
    last = last.then(async () => {
      const isStored = madeOn === refused && (await store(next))
      waiting--
      if (isStored) done()
      else if (madeOn === refused) refused++
      if (waiting === 0) await showStored(() => waiting === 0)
    })
    return last
  }
}
