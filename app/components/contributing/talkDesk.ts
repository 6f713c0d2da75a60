import type { Ref } from 'vue'
import type { CombineRule } from '#core/marking/combineMarks'
import type { AttachLimits } from '#core/contributing/talkSettings'
import type { DraftView, TakesUp, WholeContribution } from '#shared/contributing/thread'

/** What contributions of a talk may know and do, wherever they stand; the page holds it. */
export interface TalkDesk {
  readonly activityId: string
  readonly mayWrite: boolean
  readonly isStaff: boolean
  readonly attach: AttachLimits
  readonly combine: CombineRule | null // staff mark contributions one by one
  readonly unfolded: ReadonlySet<string> // long posts that stand whole
  readonly foldedThreads: ReadonlySet<string> // folded by hand
  readonly openThreads: ReadonlySet<string> // long threads unfolded by hand
  readonly replyTo: Readonly<Ref<string | null>>
  readonly editing: Readonly<Ref<string | null>> // one's own that is being changed
  readonly caretIn: Readonly<Ref<boolean>> // whether the caret goes into the reply box at once
  readonly chosen: Readonly<Ref<TakesUp | null>> // words chosen with the pointer
  readonly takesUp: Readonly<Ref<TakesUp | null>> // the passage the reply being written takes up
  /** Words asked of what is written below a contribution. */
  minWordsBelow: (id: string) => number
  /** Whether answers to it are still hidden from the reader: then nothing is said of how many there are. */
  isVeiled: (id: string) => boolean
  mayAnswer: (c: WholeContribution) => boolean
  passagesOf: (
    id: string,
  ) => ReadonlyArray<{ readonly exact: string; readonly letter: string; readonly byId: string }>
  letterOf: (replyId: string) => string | null
  authorOf: (id: string) => string | null
  draftAt: (parentId: string) => DraftView | null
  goTo: (id: string) => void
  toggleFold: (id: string) => void
  foldThread: (id: string, folded: boolean) => void
  reply: (id: string, caret?: boolean) => void
  edit: (id: string | null) => void
  edited: () => void
  choose: (passage: TakesUp | null) => void
  dropPassage: () => void
  takeUp: (passage: TakesUp) => void
  closeWriting: () => void
  posted: (id: string, state: 'shown' | 'awaitingApproval' | 'scheduled') => void
  nod: (id: string) => void
  mark: (id: string, mark: { readonly points: number | null; readonly done: boolean | null }) => void
  withdraw: (id: string) => void
  putBack: (id: string) => void
  /** Whether no new words are taken in the thread of a contribution; of none, in the whole talk. */
  isClosedToWords: (threadId: string | null) => boolean
  closeToWords: (threadId: string | null, closed: boolean) => void
  keepOnTop: (id: string, onTop: boolean) => void
  approve: (id: string) => void
  sendBack: (id: string, remark: string) => void
}
