import type { Ref } from 'vue'
import type { ThreadNode } from '#core/contributing/buildThread'
import type { ContributionView, DraftView, TakesUp } from '#shared/contributing/thread'

/** What a thread's posts may know and do, whatever their depth; the page holds it. */
export interface ThreadDesk {
  readonly activityId: string
  readonly mayWrite: boolean
  readonly minReply: number // words a reply is asked to have
  readonly unfolded: ReadonlySet<string> // long posts that stand whole
  readonly foldedThreads: ReadonlySet<string> // posts whose answers are folded away
  readonly replyTo: Readonly<Ref<string | null>>
  readonly caretIn: Readonly<Ref<boolean>> // whether the caret goes into the reply box at once
  readonly chosen: Readonly<Ref<TakesUp | null>> // words chosen with the pointer
  readonly takesUp: Readonly<Ref<TakesUp | null>> // the passage the reply being written takes up
  passagesOf: (id: string) => ReadonlyArray<{ readonly exact: string, readonly letter: string, readonly byId: string }>
  letterOf: (replyId: string) => string | null
  authorOf: (id: string) => string | null
  newBelow: (node: ThreadNode<ContributionView>) => number
  draftAt: (parentId: string) => DraftView | null
  toggleFold: (id: string) => void
  toggleThread: (id: string) => void
  reply: (id: string, caret?: boolean) => void
  choose: (passage: TakesUp | null) => void
  dropPassage: () => void
  takeUp: (passage: TakesUp) => void
  putAway: () => void
  posted: (id: string) => void
  nod: (id: string) => void
  withdraw: (id: string) => void
  putBack: (id: string) => void
}
