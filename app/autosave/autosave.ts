import isSame from 'fast-deep-equal'
import type { ProblemDetails } from '#shared/http/problem'

/** What somebody else, or oneself elsewhere, has stored meanwhile. */
export interface Theirs<T> {
  readonly value: T
  readonly version: number
  readonly savedBy?: string | null
}

/** Why something could not be stored. */
export type SaveFailure<T> =
  | { readonly kind: 'unreached'; readonly problem: ProblemDetails } // no connection, or the server is not itself: tried again by itself
  | { readonly kind: 'signedOut'; readonly problem: ProblemDetails } // tried again when somebody looks at the page again
  | { readonly kind: 'refused'; readonly problem: ProblemDetails } // the server says what is wrong: waits for a change
  | { readonly kind: 'conflict'; readonly theirs: Theirs<T> }

/**
 * Where what was typed is. `stored`: on the server, as it stands here. `changed`: it will be sent at the next pause.
 * `sending`: on its way. `kept`: not on the server, for want of a connection, a session, or because it came from a tab
 * closed earlier; in this browser, unless that keeps nothing. `refused`: in this browser only, and the server says why.
 * `conflict`: two texts, and somebody has to choose.
 */
export type SaveStatus<T> =
  | { readonly kind: 'stored' }
  | { readonly kind: 'changed' }
  | { readonly kind: 'sending' }
  | { readonly kind: 'kept'; readonly problem: ProblemDetails | null; readonly isInBrowser: boolean }
  | { readonly kind: 'refused'; readonly problem: ProblemDetails }
  | { readonly kind: 'conflict'; readonly theirs: Theirs<T> }

export interface Kept<T> {
  readonly value: T
  readonly version: number | null
  readonly unanswered?: readonly T[] | undefined // what was sent, and no answer was heard: it may be stored
}
/**
 * A place in the browser where one text survives a closed tab; all tabs share it. `put` has kept it when it returns true;
 * `drop` and `stored` take away only what this tab has put or taken, never what another has put since.
 */
export interface LocalDraft<T> {
  readonly put: (kept: Kept<T>) => boolean
  /** The same, unless what this tab has put is not there any more. */
  readonly update: (kept: Kept<T>) => void
  /** @param now what stands here, for the parts a shelf does not keep */
  readonly take: (now: Kept<T>) => Promise<Kept<T> | null>
  readonly drop: () => void
  /** The server has it, too: it goes, unless the page is being left. The next one may have been asked for before. */
  readonly stored: () => void
}

export interface Timers {
  readonly set: (act: () => void, milliseconds: number) => unknown
  readonly clear: (timer: unknown) => void
}

export interface AutosaveOptions<T> {
  /** What the server has, and its version; null while it has none. */
  readonly value: T
  readonly version: number | null
  /** Milliseconds without a change before it is sent. */
  readonly pause: number
  /** Stores it on top of `version`; null where nothing is sent, and the browser alone keeps it. */
  readonly send: ((value: T, version: number | null) => Promise<{ readonly version: number }>) | null
  readonly failureOf: (error: unknown) => SaveFailure<T>
  readonly localDraft?: LocalDraft<T>
  /** Whether changes are sent by themselves; otherwise only by `flush`. Always unless said. */
  readonly auto?: () => boolean
  /**
   * Makes one text of two, where it can: `isDecided` where nobody has to choose any more, and it is sent. Otherwise the text it
   * gives stands here while somebody chooses.
   */
  readonly join?: (theirs: Theirs<T>) => { readonly value: T; readonly isDecided: boolean }
  /** Whether there is anything to store: an empty draft that was never stored is nothing. Always unless said. */
  readonly isWorthSending?: (value: T, version: number | null) => boolean
  /** Told after every step; what is told is what stands. */
  readonly onStep: () => void
  readonly timers: Timers
}

const FIRST_RETRY = 5000 // milliseconds
const LONGEST_RETRY = 60_000 // milliseconds
const MOST_UNANSWERED = 10
const NONE = -1

export type Autosave<T> = ReturnType<typeof createAutosave<T>>

/**
 * Stores a text while it is typed: in the browser at every change, on the server at every pause, one request after the
 * other, each on top of the version the one before has answered. What was changed elsewhere meanwhile is never overwritten.
 * What could not be sent is tried again, later and later, and at once by `flush`.
 */
export function createAutosave<T>(options: AutosaveOptions<T>) {
  let value = options.value
  let version = options.version
  let status: SaveStatus<T> = { kind: 'stored' }
  let changes = 0 // counted, to know whether an answer is about what stands here now
  let storedChanges = 0
  let failures = 0 // in a row
  let unanswered: readonly T[] = []
  let timer: unknown
  let sending: Promise<void> = Promise.resolve()
  let isHeld = false
  let isClosed = false
  const mayAuto = options.auto ?? (() => true)
  const isWorthSending = options.isWorthSending ?? (() => true)

  function step(next: SaveStatus<T>) {
    status = next
    if (!isClosed) options.onStep()
  }
  function schedule(milliseconds: number) {
    options.timers.clear(timer)
    if (options.send && mayAuto()) timer = options.timers.set(() => void flush(), milliseconds)
  }

  const kept = (): Kept<T> => ({ value, version, ...(unanswered.length > 0 && { unanswered }) })
  let isInBrowser = false
  function keepHere() {
    isInBrowser = options.localDraft?.put(kept()) ?? false
  }

  /** Takes a change; it is in the browser when this returns. */
  function change(next: T) {
    value = next
    changes++
    keepHere()
    if (status.kind === 'conflict') return step(status)
    step(options.send ? { kind: 'changed' } : { kind: 'kept', problem: null, isInBrowser })
    schedule(options.pause)
  }

  /** Sends what is changed now, after what is on its way. Resolves when it is stored, or has failed. */
  function flush(): Promise<void> {
    options.timers.clear(timer)
    sending = sending.then(sendOnce)
    return sending
  }
  async function sendOnce() {
    const { send } = options
    if (!send || isHeld || status.kind === 'conflict' || changes === storedChanges) return
    if (!isWorthSending(value, version)) return settleAsStored()
    const sent = { value, changes }
    if (!wasSent(value)) unanswered = [...unanswered, value].slice(-MOST_UNANSWERED)
    options.localDraft?.update(kept())
    step({ kind: 'sending' })
    try {
      const answer = await send(value, version)
      wasStored(sent.changes, answer.version)
    } catch (error) {
      await fail(error, sent)
    }
  }
  function wasStored(sentChanges: number, storedVersion: number) {
    version = storedVersion
    failures = 0
    unanswered = []
    if (changes === sentChanges) return settleAsStored()
    keepHere() // what was typed meanwhile stands on the new version
    step({ kind: 'changed' })
  }
  function settleAsStored() {
    storedChanges = changes
    options.localDraft?.stored()
    step({ kind: 'stored' })
  }
  async function fail(error: unknown, sent: { readonly value: T; readonly changes: number }) {
    const failure = failureOf(error)
    if (failure.kind === 'conflict') {
      // stored already, by a request whose answer was lost or by another tab: two texts that are the same are one
      const { theirs } = failure
      if (options.join || !wasSent(theirs.value)) return join(theirs) // whoever joins texts knows what is theirs
      wasStored(isSame(sent.value, theirs.value) ? sent.changes : NONE, theirs.version)
      if (changes !== storedChanges) schedule(options.pause)
    } else if (failure.kind === 'refused') {
      unanswered = unanswered.filter(u => !isSame(u, sent.value))
      step(failure)
    } else {
      step({ kind: 'kept', problem: failure.problem, isInBrowser })
      if (failure.kind === 'unreached' && !isClosed)
        schedule(Math.min(LONGEST_RETRY, FIRST_RETRY * 2 ** failures++))
    }
  }
  async function join(theirs: Theirs<T>) {
    const joined = options.join?.(theirs)
    if (joined) value = joined.value
    if (!joined?.isDecided) return step({ kind: 'conflict', theirs })
    version = theirs.version
    changes++
    keepHere()
    step({ kind: 'changed' })
    if (mayAuto()) await sendOnce()
  }
  /** A fault of our own is not a failure to be said: it is reported, and what was typed stays kept. */
  function failureOf(error: unknown): SaveFailure<T> {
    try {
      return options.failureOf(error)
    } catch (unexpected) {
      step({ kind: 'kept', problem: null, isInBrowser })
      throw unexpected
    }
  }

  /** Ends a conflict: mine goes on top of theirs and is sent, or theirs stands here as it is stored. */
  function settle(whose: 'mine' | 'theirs') {
    if (status.kind !== 'conflict') return
    const { theirs } = status
    if (whose === 'theirs') return reset(theirs.value, theirs.version)
    rebase(value, theirs.version)
  }
  /** An act on the text was refused because of another version: somebody has to choose. */
  function meet(theirs: Theirs<T>) {
    options.timers.clear(timer)
    changes++
    step({ kind: 'conflict', theirs })
  }
  /** Puts a text of two made one onto the version of theirs; it is sent at the next pause. */
  function rebase(joined: T, onto: number) {
    value = joined
    version = onto
    changes++
    keepHere()
    step({ kind: 'changed' })
    schedule(options.pause)
  }
  /** What the server has made of what was sent takes its place; for `send`, before it answers. */
  function adopt(stored: T) {
    value = stored
  }
  /** Takes over what is stored: nothing here is left to send. */
  function reset(stored: T, at: number | null) {
    options.timers.clear(timer)
    value = stored
    version = at
    changes++
    settleAsStored()
  }

  /** Brings back what an earlier tab has left in this browser, unless something was typed here already. */
  async function restore() {
    const left = await options.localDraft?.take({ value, version })
    if (!left || changes > 0 || isHeld) return
    value = left.value
    version = left.version
    unanswered = left.unanswered ?? []
    changes++
    isInBrowser = true
    step({ kind: 'kept', problem: null, isInBrowser })
    schedule(options.pause)
  }
  /** Sends nothing from now on, because the text is posted, saved or discarded as a whole; `resume` takes that back. */
  async function hold() {
    options.timers.clear(timer)
    isHeld = true
    await sending
  }
  function resume() {
    isHeld = false
    if (changes !== storedChanges) schedule(options.pause)
  }
  /** Puts what stands here into the browser once more. */
  function keep() {
    keepHere()
  }
  /** Whether this was sent from here, by a request that no answer was heard of. */
  function wasSent(stored: T): boolean {
    return unanswered.some(u => isSame(u, stored))
  }
  /** Lets go of what the browser keeps: the text lives elsewhere now. */
  function forget() {
    storedChanges = changes
    options.localDraft?.drop()
  }
  /** The page is left: what is not stored is sent once more; the browser keeps it in any case. */
  function close() {
    options.timers.clear(timer)
    isClosed = true
    if (mayAuto() && !isHeld) void flush()
  }

  return {
    value: () => value,
    version: () => version,
    status: () => status,
    /** Whether something stands here that the server does not have. */
    isUnstored: () => changes !== storedChanges,
    change,
    flush,
    settle,
    meet,
    rebase,
    adopt,
    reset,
    restore,
    hold,
    resume,
    keep,
    forget,
    wasSent,
    close,
  }
}
