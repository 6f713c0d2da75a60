import { readingOf } from '#core/kinds/reading/reading'
import { contributions } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import type { KindHooks } from '#server/services/contributing'
import { eq } from 'drizzle-orm'
import { firstNotes } from './firstNotes'
import { requireNote } from './requireNote'

/** A reading: an entry is a note on a passage of its text. */
export const reading: KindHooks = {
  entryDetail: async (db, { activity }, write, posting) => {
    const note = await requireNote(db, activity, write.note ?? null, posting)
    return note ? { note } : {}
  },
  firstRead: firstNotes,
  // once there are notes, the reading keeps its text; a new version of it is another thing
  requireKept: async (db, before, body) => {
    const { textId } = readingOf(before.settings)
    if (textId === null || textId === body.reading.textId) return
    if ((await db.$count(contributions, eq(contributions.activityId, before.id))) > 0)
      throw refusedField(
        'reading',
        'written',
        'Notes have been written in the margin of this text, so it stays. Add a new version of it in the library, or plan another reading.',
      )
  },
}
