import { readingOf } from '#core/kinds/reading/reading'
import type { ActivityRow } from '#server/access/seminar'
import type { ContributionView } from '#shared/contributing/thread'

const PAGES = 3 // that are read first

/** Of a long reading what is read first: the notes of the first pages that are set, with their answers, and the reader's own. */
export function firstNotes(activity: ActivityRow, views: readonly ContributionView[]): ContributionView[] {
  const { from } = readingOf(activity.settings)
  const first = new Set(
    views.flatMap(v =>
      v.view === 'whole' &&
      v.note &&
      (v.author.isMe || (v.note.part >= from - 1 && v.note.part < from + PAGES))
        ? [v.id]
        : [],
    ),
  )
  return views.filter(
    v => first.has(v.id) || (v.view === 'whole' && (first.has(v.threadId) || v.author.isMe)),
  )
}
