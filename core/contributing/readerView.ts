import type { ContributionState } from './contribution'

export type ReaderRole = 'staff' | 'student' | 'observer'

export interface ReaderSnapshot {
  readonly role: ReaderRole
  readonly isAuthor: boolean
  readonly state: ContributionState
  readonly authorIsStaff: boolean
  readonly readBy: 'class' | 'staff' // from the kind or the activity's setting
  readonly writeFirst: boolean
  readonly ownIsIn: boolean // the reader has an entry of their own that is shown
  readonly hasShownAnswers: boolean
  readonly beforeReveal: boolean // the activity keeps everything hidden until a day that has not come
}

export type ReaderView =
  | 'whole' // words, name, everything
  | 'place' // that something stood here: neither words nor name
  | 'lengthOnly' // staff: that a draft exists and how long it is, never its words
  | 'nothing'

/**
 * How much of one contribution a reader may get. Precedence:
 * 1. what is one's own is always whole;
 * 2. a draft or a scheduled text is nobody else's: staff learn its length, others nothing;
 * 3. staff see all the rest;
 * 4. what is private to staff, or waits for approval, is nothing to anyone else, except that staff's own words reach all;
 * 5. write before you read: nothing of classmates until one's own is in; the instructor's words included, for they answer them;
 * 6. nor before the day on which everything is revealed;
 * 7. a withdrawn text leaves its place while something shown hangs below it, otherwise nothing.
 */
export function readerView(s: ReaderSnapshot): ReaderView {
  if (s.isAuthor) return 'whole'
  if (s.state === 'draft' || s.state === 'scheduled') return s.role === 'staff' ? 'lengthOnly' : 'nothing'
  if (s.role === 'staff') return 'whole'
  if (s.state === 'awaitingApproval') return 'nothing'
  if (s.readBy === 'staff' && !s.authorIsStaff) return 'nothing'
  if (s.role === 'student' && s.writeFirst && !s.ownIsIn) return 'nothing'
  if (s.beforeReveal) return 'nothing'
  if (s.state === 'withdrawn') return s.hasShownAnswers ? 'place' : 'nothing'
  return 'whole'
}
