import type { ContributionState } from './contribution'

export type ReaderRole = 'staff' | 'student' | 'observer'

export interface ReaderSnapshot {
  readonly role: ReaderRole
  readonly isAuthor: boolean
  readonly state: ContributionState
  readonly authorIsStaff: boolean
  readonly reach: 'class' | 'thread' | 'own' // 'thread': staff and whoever began the thread it is in, as in a journal; 'own': staff and its author, as in a peer review
  readonly ownsThread: boolean // the reader began the thread
  readonly threadByStaff: boolean // staff began the thread
  readonly elsewhere: boolean // it belongs to another section's or group's talk than the reader's
  readonly writeFirst: boolean
  readonly isQuestion: boolean // one that staff put for all to answer
  readonly ownIsIn: boolean // the reader has an entry of their own that is shown; where each question is answered apart, to this one
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
 * 4. what waits for approval is nothing to anyone else;
 * 5. in a peer review nothing reaches anyone else: what readers and authors get of each other goes through `reviewReach`;
 *    what reaches only its thread is nothing to those who did not begin it, unless staff began it for all; so staff's
 *    words under one journal never reach another;
 * 6. what is talked about in another section or group, where each talks by itself, is nothing;
 * 7. a question that staff put for all to answer stands open;
 * 8. write before you read: nothing of classmates until one's own is in; the instructor's words included, for they answer them;
 * 9. nor before the day on which everything is revealed;
 * 10. a withdrawn text leaves its place while something shown hangs below it, otherwise nothing.
 */
export function readerView(s: ReaderSnapshot): ReaderView {
  if (s.isAuthor) return 'whole'
  if (s.state === 'draft' || s.state === 'scheduled') return s.role === 'staff' ? 'lengthOnly' : 'nothing'
  if (s.role === 'staff') return 'whole'
  if (s.state === 'awaitingApproval') return 'nothing'
  if (s.reach === 'own') return 'nothing'
  if (s.reach === 'thread' && !s.ownsThread && !(s.threadByStaff && s.authorIsStaff)) return 'nothing'
  if (s.elsewhere) return 'nothing'
  if (!s.isQuestion) {
    if (s.role === 'student' && s.writeFirst && !s.ownIsIn) return 'nothing'
    if (s.beforeReveal) return 'nothing'
  }
  if (s.state === 'withdrawn') return s.hasShownAnswers ? 'place' : 'nothing'
  return 'whole'
}
