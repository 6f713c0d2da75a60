import { and, eq, inArray, isNotNull, isNull, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/pg-core'
import type { Act } from '#core/voices/presence'
import type { Db } from '#server/database/client'
import { contributions, marks, pageComments, wikiPages } from '#server/database/schema'

/**
 * What one who teaches has said to single students: answers to what they wrote, comments on their pages, letters returned.
 * What is said to all is said to nobody in particular.
 */
export async function loadActs(db: Db, teacherId: string, students: readonly string[], activityIds: readonly string[]): Promise<Act[]> {
  if (students.length === 0 || activityIds.length === 0) return []
  const [parent, page] = [alias(contributions, 'parent'), alias(wikiPages, 'page')]
  const [said, commented, returned] = await Promise.all([
    db.select({ studentId: parent.authorId, type: contributions.type, at: contributions.shownAt, words: contributions.words, asks: sql<boolean>`coalesce(${parent.detail} -> 'note' ->> 'kind' = 'question' or ${parent.type} = 'question', false)` })
      .from(contributions).innerJoin(parent, eq(parent.id, contributions.parentId))
      .where(and(eq(contributions.authorId, teacherId), eq(contributions.state, 'shown'), inArray(contributions.activityId, [...activityIds]), inArray(parent.authorId, [...students]))),
    db.select({ studentId: page.claimedBy, at: contributions.shownAt, words: contributions.words }).from(contributions)
      .innerJoin(pageComments, eq(pageComments.id, contributions.id)).innerJoin(page, eq(page.id, pageComments.pageId))
      .where(and(eq(contributions.authorId, teacherId), eq(contributions.state, 'shown'), isNull(contributions.parentId), inArray(contributions.activityId, [...activityIds]), inArray(page.claimedBy, [...students]))),
    db.select({ studentId: marks.enrolmentId, at: marks.returnedAt }).from(marks)
      .where(and(eq(marks.state, 'returned'), isNotNull(marks.returnedAt), sql`coalesce(${marks.returnBy}, ${marks.markedBy}) = ${teacherId}`, inArray(marks.activityId, [...activityIds]), inArray(marks.enrolmentId, [...students]))),
  ])
  return [
    ...said.map((s): Act => ({ studentId: s.studentId, kind: s.asks ? 'answer' : s.type === 'comment' ? 'comment' : 'reply', at: s.at!.getTime(), words: s.words })),
    ...commented.map((c): Act => ({ studentId: c.studentId!, kind: 'comment', at: c.at!.getTime(), words: c.words })),
    ...returned.map((r): Act => ({ studentId: r.studentId, kind: 'letter', at: r.at!.getTime(), words: null })),
  ]
}
