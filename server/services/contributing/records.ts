import { and, eq, inArray, isNotNull, isNull, ne, or, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/pg-core'
import type { ActivityRow } from '#server/access/seminar'
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
import { KINDS } from '#core/contributing/kinds'
import { isSet, readingOf } from '#core/contributing/reading/reading'
import { standingOf, type Standing } from '#core/contributing/standing'
import { checkExpectation } from '#core/planning/expectations/checkExpectation'
import type { CountedContribution } from '#core/planning/expectations/rule'
import type { CheckView } from '#shared/contributing/activity'
import { closesFor, dueAtOf, type ActivityPlan } from '#server/services/planning/activityPlan'
import { seminarsOf } from '#server/services/planning/jointActivities'
import { isWrittenHere } from './written'

export interface Student {
  readonly enrolmentId: string
  readonly seminarId: string
  readonly sectionId: string | null
  readonly name: string
  readonly givenName: string
  readonly familyName: string
}

/** What one student has in one activity, as figures: what expectations, standing, plan and desk are calculated from. */
export interface StudentRecord {
  readonly student: Student
  readonly shown: readonly CountedContribution[]
  readonly drafts: number
  readonly mark: 'none' | 'held' | 'returned'
  readonly hasLetter: boolean // something was returned, whatever has become of the mark since
}

/** Students who count: active ones. Practice and withdrawn people take no part. */
export const countedStudents = (db: Db, seminarId: string | readonly string[]): Promise<Student[]> =>
  studentsIn(db, seminarId, 'active')

/** Students of all seminars that take part in an activity; whom it is meant for, its plan says. */
export const participants = async (
  db: Db,
  activity: Pick<ActivityRow, 'id' | 'seminarId'>,
): Promise<Student[]> => countedStudents(db, await seminarsOf(db, activity))

/** Practice students: an instructor's own trials, marked like anyone's and counted nowhere. */
export const practiceStudents = (db: Db, seminarId: string): Promise<Student[]> =>
  studentsIn(db, seminarId, 'practice')

async function studentsIn(
  db: Db,
  seminarId: string | readonly string[],
  state: 'active' | 'practice',
): Promise<Student[]> {
  const rows = await db
    .select({
      enrolmentId: enrolments.id,
      seminarId: enrolments.seminarId,
      sectionId: enrolments.sectionId,
      name: enrolments.name,
      givenName: enrolments.givenName,
      familyName: enrolments.familyName,
    })
    .from(enrolments)
    .where(
      and(
        inArray(enrolments.seminarId, typeof seminarId === 'string' ? [seminarId] : [...seminarId]),
        eq(enrolments.role, 'student'),
        eq(enrolments.state, state),
      ),
    )
  const order = new Intl.Collator('en')
  return rows.sort(
    (a, b) => order.compare(a.familyName, b.familyName) || order.compare(a.givenName, b.givenName),
  )
}

/** Records of the given students in the given activities, by activity and then enrolment; two queries in all. */
export async function loadRecords(
  db: Db,
  activityIds: readonly string[],
  students: readonly Student[],
): Promise<Map<string, Map<string, StudentRecord>>> {
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
  const commentedBefore = sql<boolean>`exists (select 1 from page_comments pc join contributions cc on cc.id = pc.id where pc.page_id = ${pageVersions.pageId} and pc.answers is null and cc.state = 'shown' and cc.author_id <> ${contributions.authorId} and cc.shown_at < ${contributions.shownAt})`
  const authors = students.map(s => s.enrolmentId)
  const [written, given] = await Promise.all([
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
        subjectId: allocations.subjectId,
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
      .leftJoin(allocations, and(eq(allocations.reviewId, contributions.id), isNull(allocations.entryId)))
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
  ])
  for (const row of written) {
    const record = byActivity.get(row.activityId)?.get(row.authorId)
    if (!record) continue
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

export interface Judged {
  readonly standing: Standing
  readonly checks: CheckView[]
}

/** Records of those who take part in an activity. */
export function recordsOf(
  plan: Pick<ActivityPlan, 'activity' | 'isMeant'>,
  records: ReadonlyMap<string, ReadonlyMap<string, StudentRecord>>,
): StudentRecord[] {
  return [...records.get(plan.activity.id)!.values()].filter(r => plan.isMeant(r.student))
}

/** A record as its student knows it: a held mark is not theirs to know, and what was returned stays returned while it is changed. */
export const asStudentSees = (record: StudentRecord): StudentRecord => ({
  ...record,
  mark: record.hasLetter ? 'returned' : 'none',
})

/** Checks a record against its activity's expectations and says where the student stands. */
export function judgeRecord(plan: ActivityPlan, record: StudentRecord, timeZone: string, now: Date): Judged {
  const id = record.student.enrolmentId
  const { entryType, answerType } = KINDS[plan.activity.kind]
  const asked = [...plan.prompts.filter(p => p.releaseAt <= now).map(p => p.id), ...plan.questions]
  const results = plan.expectations.map((expectation, i) => {
    const weeks = plan.weeks[i] ?? []
    // a rule about prompts of which none is out yet, or a weekly rule whose phase holds no week of teaching asks for nothing yet
    const { kind } = expectation.rule
    const result =
      (kind === 'weeklyEntries' && weeks.length === 0) || (kind === 'prompts' && asked.length === 0)
        ? { have: 0, need: expectation.rule.need, met: false, metAt: null }
        : checkExpectation(expectation.rule, record.shown, {
            personId: id,
            timeZone,
            entryType,
            weeks,
            prompts: asked,
          })
    const begun = weeks.filter(w => w.startsAt <= now)
    const byNow =
      kind === 'weeklyEntries' && begun.length > 0
        ? checkExpectation(expectation.rule, record.shown, {
            personId: id,
            timeZone,
            entryType,
            weeks: begun,
          })
        : null
    const wanted = expectation.rule.kind === 'replies' ? answerType : entryType
    return {
      needed: expectation.needed,
      view: {
        expectationId: expectation.id,
        have: result.have,
        need: result.need,
        met: result.met,
        metAt: result.metAt?.toISOString() ?? null,
        late: result.metAt !== null && result.metAt > dueAtOf(plan, expectation.rule, id),
        toGoNow: kind === 'weeklyEntries' ? (byNow?.missing ?? 0) : result.need - result.have,
        bestWords: Math.max(0, ...record.shown.filter(c => c.type === wanted).map(c => c.words)),
      },
    }
  })
  const needed = results.filter(r => r.needed)
  return {
    checks: results.map(r => r.view),
    standing: standingOf({
      mark: record.mark,
      shown: record.shown.length,
      drafts: record.drafts,
      closed: now > closesFor(plan, id),
      neededMet: needed.length > 0 && needed.every(r => r.view.met),
    }),
  }
}
