/** What a notice is about. */
export const NOTICE_KINDS = [
  'published',
  'changed',
  'contribution', // one's own: shown, or sent back
  'letter',
  'review', // that one owes, or was written
  'marking', // for staff
  'group',
  'prompt',
  'message',
  'closing',
] as const
export type NoticeKind = (typeof NOTICE_KINDS)[number]
