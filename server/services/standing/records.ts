import { and, eq, inArray, isNotNull, ne, or, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/pg-core'
import type { Db } from '#server/database/client'
import {
  activities,
  allocations,
  contributions,
  enrolments,
  marks,
  pageComments,
  pageVersions,
  wikiPages,
} from '#server/database/schema'
import { isSet, readingOf } from '#core/kinds/reading/reading'
import type { CountedContribution } from '#core/planning/expectations/rule'
import type { ActivityPlan } from '#server/services/planning'
import type { Participant } from '#server/services/people'
import { isWrittenHere } from '#server/services/contributing'

/** What one student has in one activity, as figures: what expectations, standing, plan and desk are calculated from. */
export interface StudentRecord<S extends Participant = Participant> {
  readonly student: S
  readonly shown: readonly CountedContribution[]
  readonly drafts: number
  readonly mark: 'none' | 'held' | 'returned'
  readonly reviewsAssigned: number // of others' work or of teammates
  readonly hasLetter: boolean // something was returned, whatever has become of the mark since
}

/** Records of the given students in the given activities, by activity and then enrolment; three queries in all. */
export async function loadRecords<S extends Participant>(
  db: Db,
  activityIds: readonly string[],
  students: readonly S[],
): Promise<Map<string, Map<string, StudentRecord<S>>>> {
  const byActivity = new Map(
    activityIds.map(id => [
      id,
      new Map(
        students.map(student => [
          student.enrolmentId,
          {
            student,
            shown: [] as CountedContribution[],
            drafts: 0,
            mark: 'none' as StudentRecord['mark'],
            reviewsAssigned: 0,
            hasLetter: false,
          },
        ]),
      ),
    ]),
  )
  if (activityIds.length === 0 || students.length === 0) return byActivity
  const parent = alias(contributions, 'parent')
  const parentAuthor = alias(enrolments, 'parent_author')
  const page = alias(wikiPages, 'page')
  const commentedPage = alias(wikiPages, 'commented_page')
  const commentedBefore = sql<boolean>`exists (select 1 from page_comments pc
    join contributions cc on cc.id = pc.id where pc.page_id = ${pageVersions.pageId} and pc.answers is null
      and cc.state = 'shown' and cc.author_id <> ${contributions.authorId} and cc.shown_at < ${contributions.shownAt})`
  const authors = students.map(s => s.enrolmentId)
  const [written, given, assigned] = await Promise.all([
    db
      .select({
        id: contributions.id,
        activityId: contributions.activityId,
        authorId: contributions.authorId,
        type: contributions.type,
        state: contributions.state,
        shownAt: contributions.shownAt,
        words: contributions.words,
        promptId: contributions.promptId,
        sources: contributions.sources,
        figures: contributions.figures,
        answeredId: parent.authorId,
        answeredRole: parentAuthor.role,
        subjectId: sql<
          string | null
        >`case when ${allocations.entryId} is null then ${allocations.subjectId} end`,
        notDone: allocations.notDone,
        way: sql<string | null>`${contributions.detail} -> 'handIn' ->> 'way'`,
        note: sql<{ kind: string; part: number } | null>`${contributions.detail} -> 'note'`,
        settings: activities.settings,
        pageId: pageVersions.pageId,
        claimedBy: page.claimedBy,
        afterComment: commentedBefore,
        commentedPageOf: commentedPage.claimedBy,
      })
      .from(contributions)
      .innerJoin(activities, eq(activities.id, contributions.activityId))
      .leftJoin(pageVersions, eq(pageVersions.id, contributions.id))
      .leftJoin(page, eq(page.id, pageVersions.pageId))
      .leftJoin(pageComments, eq(pageComments.id, contributions.id))
      .leftJoin(commentedPage, eq(commentedPage.id, pageComments.pageId))
      .leftJoin(parent, eq(parent.id, contributions.parentId))
      .leftJoin(parentAuthor, eq(parentAuthor.id, parent.authorId))
      .leftJoin(allocations, eq(allocations.reviewId, contributions.id))
      .where(
        and(
          inArray(contributions.activityId, [...activityIds]),
          inArray(contributions.authorId, authors),
          inArray(contributions.state, ['shown', 'draft']),
          isWrittenHere,
        ),
      ),
    db
      .select({
        activityId: marks.activityId,
        enrolmentId: marks.enrolmentId,
        state: marks.state,
        hasLetter: sql<boolean>`${marks.returned} is not null`,
      })
      .from(marks)
      .where(
        and(
          inArray(marks.activityId, [...activityIds]),
          inArray(marks.enrolmentId, authors),
          or(ne(marks.state, 'open'), isNotNull(marks.returned)),
        ),
      ),
    db
      .select({
        activityId: allocations.activityId,
        reviewerId: allocations.reviewerId,
        reviews: sql<number>`count(*)::int`,
      })
      .from(allocations)
      .where(
        and(
          inArray(allocations.activityId, [...activityIds]),
          inArray(allocations.reviewerId, authors),
          inArray(allocations.source, ['dealt', 'byHand']),
          ne(allocations.reviewerId, allocations.subjectId),
        ),
      )
      .groupBy(allocations.activityId, allocations.reviewerId),
  ])
  for (const row of assigned) {
    const record = byActivity.get(row.activityId)?.get(row.reviewerId)
    if (record) record.reviewsAssigned = row.reviews
  }
  for (const row of written) {
    const record = byActivity.get(row.activityId)?.get(row.authorId)
    if (!record || row.notDone) continue
    if (row.state === 'draft') {
      if (row.words > 0) record.drafts++
      continue
    }
    const answeredPerson = () => {
      if (row.commentedPageOf) return { personId: row.commentedPageOf, isClassmate: true }
      if (row.subjectId) return { personId: row.subjectId, isClassmate: true }
      if (row.answeredId) return { personId: row.answeredId, isClassmate: row.answeredRole === 'student' }
      return null
    }
    record.shown.push({
      id: row.id,
      type: row.type,
      shownAt: row.shownAt!,
      words: row.words,
      prompt: row.promptId,
      sources: row.sources,
      figures: row.figures,
      ...(row.way !== null && row.way !== 'text' && { notInWords: true }),
      ...(row.note && {
        note: {
          asks: row.note.kind === 'question',
          part: row.note.part,
          isSet: isSet(readingOf(row.settings), row.note.part),
        },
      }),
      // a teammate's review answers no text, but a classmate
      ...(row.pageId && {
        page: { id: row.pageId, claimed: row.claimedBy === row.authorId, afterComment: row.afterComment },
      }),
      // a comment in a wiki is to whoever looks after the page, else to whoever wrote what it stands on
      answers: answeredPerson(),
    })
  }
  for (const row of given) {
    const record = byActivity.get(row.activityId)?.get(row.enrolmentId)
    if (!record) continue
    record.hasLetter = row.hasLetter
    if (row.state !== 'open') record.mark = row.state
  }
  return byActivity
}

/** Records of those who take part in an activity. */
export function recordsOf<S extends Participant>(
  plan: Pick<ActivityPlan, 'activity' | 'isMeant'>,
  records: ReadonlyMap<string, ReadonlyMap<string, StudentRecord<S>>>,
): StudentRecord<S>[] {
  return [...records.get(plan.activity.id)!.values()].filter(r => plan.isMeant(r.student))
}
