import type { PresenceView } from '#shared/voices/presence'

export type PresenceOrder = 'gap' | 'name' | 'acts'
type Students = PresenceView['students']

/** Students by the longest time without a word of their own, by name (the order they come in), or by fewest words first. */
export function sortPresence(students: Students, by: PresenceOrder): Students {
  if (by === 'gap') return [...students].sort((a, b) => b.gapDays - a.gapDays || a.acts - b.acts)
  if (by === 'acts') return [...students].sort((a, b) => a.acts - b.acts || names.compare(a.name, b.name))
  return students
}
const names = new Intl.Collator('en')

/** What an act of contact is called. */
export const CONTACT_WORDS = {
  reply: 'reply',
  comment: 'comment',
  answer: 'answer',
  letter: 'letter',
  message: 'message',
} as const
