import { and, desc, eq, inArray, or, sql } from 'drizzle-orm'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import {
  auditTrail,
  contributions,
  enrolments,
  marks,
  rubricCriteria,
  rubricLevels,
  secondMarks,
} from '#server/database/schema'
import type { MarkHistory } from '#shared/marking/desk'
import { historyWords, TOLD_ACTS, type AuditDetail } from './historyWords'
import { requireStudent } from './markedStudents'
import { requireSeesMark } from './secondMarks'

/** Everything that has happened to a student's mark, newest first, in words: who, when, what and why. */
export async function markHistory(
  db: Db,
  actor: Actor & { readonly activity: ActivityRow },
  enrolmentId: string,
): Promise<MarkHistory> {
  await requireStudent(db, actor, enrolmentId)
  await requireSeesMark(db, actor, enrolmentId)
  const { activity } = actor
  const [own, second, written] = await Promise.all([
    db
      .select({ id: marks.id })
      .from(marks)
      .where(and(eq(marks.activityId, activity.id), eq(marks.enrolmentId, enrolmentId))),
    db
      .select({ id: secondMarks.id })
      .from(secondMarks)
      .where(and(eq(secondMarks.activityId, activity.id), eq(secondMarks.enrolmentId, enrolmentId))),
    db
      .select({ id: contributions.id })
      .from(contributions)
      .where(and(eq(contributions.activityId, activity.id), eq(contributions.authorId, enrolmentId))),
  ])
  const excusedHere = and(
    eq(auditTrail.subjectId, enrolmentId),
    sql`${auditTrail.detail} ->> 'activityId' = ${activity.id}`,
  )
  const subjects = [...own, ...second, ...written].map(s => s.id)
  const rows = await db
    .select({
      at: auditTrail.at,
      act: auditTrail.act,
      detail: auditTrail.detail,
      by: enrolments.name,
      id: auditTrail.id,
    })
    .from(auditTrail)
    .innerJoin(enrolments, eq(enrolments.id, auditTrail.actorId))
    .where(
      and(
        subjects.length > 0 ? or(inArray(auditTrail.subjectId, subjects), excusedHere) : excusedHere,
        inArray(auditTrail.act, TOLD_ACTS),
      ),
    )
    .orderBy(desc(auditTrail.at), desc(auditTrail.id))
    .limit(500)
  const names = await namesOf(
    db,
    rows.flatMap(r => (r.detail as AuditDetail).steps ?? []).map(s => s.criterionId),
  )
  return {
    entries: rows.map(r => ({
      at: r.at.toISOString(),
      by: r.by,
      text: historyWords(r.act, r.detail as AuditDetail, names),
    })),
  }
}

async function namesOf(db: Db, criterionIds: readonly string[]) {
  const ids = [...new Set(criterionIds)]
  if (ids.length === 0) return new Map<string, string>()
  const [criteria, levels] = await Promise.all([
    db
      .select({ id: rubricCriteria.id, title: rubricCriteria.title })
      .from(rubricCriteria)
      .where(inArray(rubricCriteria.id, ids)),
    db
      .select({ id: rubricLevels.id, title: rubricLevels.title })
      .from(rubricLevels)
      .where(inArray(rubricLevels.criterionId, ids)),
  ])
  return new Map([...criteria, ...levels].map(x => [x.id, x.title]))
}
