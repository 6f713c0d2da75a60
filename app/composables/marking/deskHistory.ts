import type { MarkView } from '#shared/marking/desk'
import type { MarkChange } from './markSaving'

const MOST = 100 // deeds that can be taken back
const STRETCH = 4000 // milliseconds: typing that rests no longer than this is one change
const TYPED: ReadonlySet<string> = new Set(['letter', 'markerNote'])

export type MarkAct = 'hold' | 'reopen' | 'return' | 'take-back'
/** Something a marker has done, as they see it: what is taken back and done again as one. */
export type Deed =
  | { readonly kind: 'change'; readonly id: string; readonly before: MarkChange; readonly after: MarkChange }
  | {
      readonly kind: 'act'
      readonly id: string
      readonly act: 'hold' | 'reopen' | 'return'
      readonly from: MarkView['state']
    }
  | { readonly kind: 'returnMany'; readonly ids: readonly string[]; readonly at: string | null }

/** Undo and redo of a marking desk, over all its records: the last deed first. A new deed ends what could be done again. */
export function deskHistory() {
  let past: Deed[] = []
  let undone: Deed[] = []
  let typedAt = 0 // when the last change was added to, where it is a stretch of typing

  function record(deed: Deed) {
    past = [...past, deed].slice(-MOST)
    undone = []
  }
  /** Takes down a change of one mark. Typing at one text is one change until it rests. */
  function changed(id: string, before: MarkChange, after: MarkChange, now: number) {
    const last = past.at(-1)
    const what = Object.keys(after).join()
    const isStretch =
      TYPED.has(what) &&
      last?.kind === 'change' &&
      last.id === id &&
      Object.keys(last.after).join() === what &&
      undone.length === 0 &&
      now - typedAt < STRETCH
    typedAt = now
    if (isStretch) past = [...past.slice(0, -1), { ...last, after }]
    else record({ kind: 'change', id, before, after })
  }
  return {
    changed,
    record,
    /** What is to be taken back next. The caller does it, and says how it went. */
    last: (): Deed | null => past.at(-1) ?? null,
    next: (): Deed | null => undone.at(-1) ?? null,
    wasTakenBack: (deed: Deed) => {
      past = past.filter(d => d !== deed)
      undone = [...undone, deed]
      typedAt = 0
    },
    wasDoneAgain: (deed: Deed) => {
      undone = undone.filter(d => d !== deed)
      past = [...past, deed]
      typedAt = 0
    },
    /** What cannot be taken back, or done again, any more stands in nobody's way. */
    drop: (deed: Deed) => {
      past = past.filter(d => d !== deed)
      undone = undone.filter(d => d !== deed)
    },
    clear: () => {
      past = []
      undone = []
    },
  }
}
