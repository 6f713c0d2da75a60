import { and, eq, inArray, isNotNull, isNull, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/pg-core'
import type { Act } from '#core/voices/presence'
import type { Db } from '#server/database/client'
import {
  contributions,
  letterReplies,
  marks,
  messages,
  messageThreads,
  pageComments,
  wikiPages,
} from '#server/database/schema'

/** An act with who did it and where. */
export interface LoggedAct extends Act {
  readonly teacherId: string
  readonly activityId: string | null
}
const WORDS_OF_HTML = sql<number>`coalesce(array_length(regexp_split_to_array(btrim(regexp_replace(${letterReplies.html}, '<[^>]*>', ' ', 'g')), '\\s+'), 1), 0)`

/**
 * What those who teach have said to single students: answers to what they wrote, comments on their pages, letters
 * returned and what is written below them, messages to one alone. What is said to all is said to nobody in particular.
 */
export async function loadActs(
  db: Db,
  seminarId: string,
  teachers: readonly string[],
  students: readonly string[],
  activityIds: readonly string[],
): Promise<LoggedAct[]> {
  if (students.length === 0 || teachers.length === 0) return []
  const [parent, page] = [alias(contributions, 'parent'), alias(wikiPages, 'page')]
  const by = inArray(contributions.authorId, [...teachers])
  const within = activityIds.length === 0 ? sql`false` : inArray(contributions.activityId, [...activityIds])
  const returnedBy = sql<string>`coalesce(${marks.returnBy}, ${marks.markedBy})`
  const [said, commented, returned, below, written] = await Promise.all([
    db
      .select({
        studentId: parent.authorId,
        teacherId: contributions.authorId,
        activityId: contributions.activityId,
        type: contributions.type,
        at: contributions.shownAt,
        words: contributions.words,
        asks: sql<boolean>`coalesce(${parent.detail} -> 'note' ->> 'kind' = 'question' or ${parent.type} = 'question', false)`,
      })
      .from(contributions)
      .innerJoin(parent, eq(parent.id, contributions.parentId))
      .where(and(by, eq(contributions.state, 'shown'), within, inArray(parent.authorId, [...students]))),
    db
      .select({
        studentId: page.claimedBy,
        teacherId: contributions.authorId,
        activityId: contributions.activityId,
        at: contributions.shownAt,
        words: contributions.words,
      })
      .from(contributions)
      .innerJoin(pageComments, eq(pageComments.id, contributions.id))
      .innerJoin(page, eq(page.id, pageComments.pageId))
      .where(
        and(
          by,
          eq(contributions.state, 'shown'),
          isNull(contributions.parentId),
          within,
          inArray(page.claimedBy, [...students]),
        ),
      ),
    activityIds.length === 0
      ? []
      : db
          .select({
            studentId: marks.enrolmentId,
            teacherId: returnedBy,
            activityId: marks.activityId,
            at: marks.returnedAt,
          })
          .from(marks)
          .where(
            and(
              isNotNull(marks.returned),
              isNotNull(marks.returnedAt),
              inArray(returnedBy, [...teachers]),
              inArray(marks.activityId, [...activityIds]),
              inArray(marks.enrolmentId, [...students]),
            ),
          ),
    activityIds.length === 0
      ? []
      : db
          .select({
            studentId: letterReplies.enrolmentId,
            teacherId: letterReplies.authorId,
            activityId: letterReplies.activityId,
            at: letterReplies.at,
            words: WORDS_OF_HTML,
          })
          .from(letterReplies)
          .where(
            and(
              inArray(letterReplies.authorId, [...teachers]),
              inArray(letterReplies.activityId, [...activityIds]),
              inArray(letterReplies.enrolmentId, [...students]),
            ),
          ),
    db
      .select({
        studentId: messageThreads.studentId,
        teacherId: messages.authorId,
        activityId: messageThreads.activityId,
        at: messages.at,
        words: messages.words,
      })
      .from(messages)
      .innerJoin(messageThreads, eq(messageThreads.id, messages.threadId))
      .where(
        and(
          eq(messages.seminarId, seminarId),
          eq(messages.direct, true),
          isNotNull(messageThreads.toldAt),
          inArray(messages.authorId, [...teachers]),
          inArray(messageThreads.studentId, [...students]),
        ),
      ),
  ])
  return [
    ...said.map(({ asks, type, at, ...s }): LoggedAct => {
      const contactKind = () => {
        if (asks) return 'answer'
        if (type === 'comment') return 'comment'
        return 'reply'
      }
      return {
        ...s,
        kind: contactKind(),
        at: at!.getTime(),
      }
    }),
    ...commented.map(({ at, studentId, ...c }): LoggedAct => ({
      ...c,
      studentId: studentId!,
      kind: 'comment',
      at: at!.getTime(),
    })),
    ...returned.map(({ at, ...r }): LoggedAct => ({ ...r, kind: 'letter', at: at!.getTime(), words: null })),
    ...below.map(({ at, ...r }): LoggedAct => ({ ...r, kind: 'message', at: at.getTime() })),
    ...written.map(({ at, ...m }): LoggedAct => ({ ...m, kind: 'message', at: at.getTime() })),
  ]
}
