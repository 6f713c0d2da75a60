import { eq } from 'drizzle-orm'
import { reviewOf } from '#core/kinds/review/reviewSettings'
import { localTime } from '#core/planning/localTime'
import { nothingHere } from '#server/access/seminar'
import { allocations } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { readText } from '#server/kinds/reading/inThread'
import type { KindHooks } from '#server/services/contributing'
import type { ActivityView } from '#shared/contributing/activity'
import { prepareReview } from './prepareReview'
import { countsFrom, handInDetail, handInDue, requireInTime, submissionMethodOf } from './handIn'

/** A peer review: an entry is a work that is handed in, and its own rules say until when. */
export const review: KindHooks = {
  prepare: prepareReview,
  entryDetail: async (db, actor, write) => ({
    ...(await handInDetail(db, actor)),
    ...(write.title && { title: write.title }),
  }),
  handIn: async (db, actor, write, work, now) => {
    const at = await countsFrom(db, write.fileIds, now)
    await requireInTime(db, actor, at)
    return { at, way: submissionMethodOf(actor, work, write.fileIds) }
  },
  changeUntil: handInDue,
  // handed-in work is its author's to change until their hand-in ends, and not once somebody reviews it
  requireChangeable: async (db, actor, current, verb, now) => {
    if (current.type !== 'entry') throw nothingHere()
    const due = await handInDue(db, actor)
    if (due && now > due)
      throw refusedField(
        'doc',
        'tooLate',
        `Work can be ${verb} until hand-in ends, here until ${localTime(due, actor.seminar.timeZone)}. Write to your instructor if something is wrong with it.`,
      )
    if ((await db.$count(allocations, eq(allocations.entryId, current.id))) > 0)
      throw refusedField('doc', 'dealt', 'This has its readers already, so it stays as they have it.')
  },
  // its pages may be pictures, or too many: then there are no words to look for names in
  wordsOfPaper: async (bytes, name) => {
    try {
      return (await readText(bytes, name, null)).words
    } catch (error) {
      if (error instanceof Problem) return ''
      throw error
    }
  },
  // model answers are for staff and, while they review, for reviewers
  settingsFor: ({ settings }, staff) => {
    const own = structuredClone(reviewOf(settings)) as NonNullable<ActivityView['review']> // a copy of its own
    if (staff) return { review: own }
    return { review: { ...own, questions: own.questions.map(q => ({ ...q, model: null })) } }
  },
}
