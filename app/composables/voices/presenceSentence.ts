import { inWords, plural } from '#core/language'
import type { PresenceView } from '#shared/voices/presence'

export interface PresenceFigures {
  readonly all: number // students
  readonly reached: number // who have had a word of their own
  readonly overdue: number // who have had nothing for `limit` days or longer
  readonly limit: number // days
  readonly from: string // "you", or a name
}

/** Who has had a word of their own this term, as a sentence whose end stands apart: it is what there is to do. */
export function presenceSentence({
  all,
  reached,
  overdue,
  limit,
  from,
}: PresenceFigures): readonly [string, string] {
  if (all === 0) return ['Nobody takes part yet.', '']
  if (reached === 0) return [`None of ${all} students has had a word of their own from ${from} yet.`, '']
  const begin = `${reached} of ${all} ${plural(reached, 'student has', 'students have')} had a word of their own from ${from} this term`
  if (overdue === 0) return [begin, `; nobody has been without one for ${inWords(limit)} days now.`]
  return [
    begin,
    `; ${inWords(overdue)} ${plural(overdue, 'has', 'have')} had nothing for ${inWords(limit)} days or longer.`,
  ]
}

/** Whose presence a page shows: "you", a name, or "those who teach". */
export function whosePresence({ by, teachers }: Pick<PresenceView, 'by' | 'teachers'>): string {
  if (by === 'all') return 'those who teach'
  const teacher = teachers.find(t => t.id === by)
  return teacher?.isMe ? 'you' : (teacher?.name ?? '')
}
