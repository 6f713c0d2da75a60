import { and, desc, eq, inArray, or, sql } from 'drizzle-orm'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import {
  auditTrail,
  contributions,
  enrolments,
  marks,
  persons,
  rubricCriteria,
  rubricLevels,
  secondMarks,
} from '#server/database/schema'
import type { MarkHistory } from '#shared/marking/desk'
import { requireStudent } from './record'
import { requireSeesMark } from './secondMarks'

interface Detail {
  readonly steps?: ReadonlyArray<{
    readonly criterionId: string
    readonly from?: string | null
    readonly to?: string | null
    readonly points?: number
    readonly pointsFrom?: number | null
    readonly pointsTo?: number | null
  }>
  readonly points?: number | null
  readonly from?: unknown
  readonly to?: unknown
  readonly reason?: string
  readonly group?: string
  readonly at?: string | null
  readonly version?: number
}

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
      by: persons.name,
      id: auditTrail.id,
    })
    .from(auditTrail)
    .innerJoin(enrolments, eq(enrolments.id, auditTrail.actorId))
    .innerJoin(persons, eq(persons.id, enrolments.personId))
    .where(
      and(
        subjects.length > 0 ? or(inArray(auditTrail.subjectId, subjects), excusedHere) : excusedHere,
        inArray(auditTrail.act, Object.keys(WORDS)),
      ),
    )
    .orderBy(desc(auditTrail.at), desc(auditTrail.id))
    .limit(500)
  const names = await namesOf(
    db,
    rows.flatMap(r => (r.detail as Detail).steps ?? []).map(s => s.criterionId),
  )
  return {
    entries: rows.map(r => ({
      at: r.at.toISOString(),
      by: r.by,
      text: WORDS[r.act]!(r.detail as Detail, names),
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

const pts = (hundredths: number | null | undefined) =>
  hundredths === null || hundredths === undefined ? 'nothing' : String(hundredths / 100)
const because = (d: Detail) => (d.reason ? `: ${d.reason}` : '')
const marked = (value: unknown) => {
  const v = value as { points?: number | null; done?: boolean | null } | null
  if (!v || (v.points == null && v.done == null)) return 'no mark'
  if (v.points != null) return `${pts(v.points)}`
  if (v.done) return 'done'
  return 'not done'
}

const WORDS: Readonly<Record<string, (detail: Detail, names: ReadonlyMap<string, string>) => string>> = {
  'changed the steps of a mark': (d, names) =>
    (d.steps ?? [])
      .map(s => {
        const side = (level: string | null | undefined, points: number | null | undefined) =>
          level ? `${names.get(level) ?? 'a step'}${points != null ? ` (${pts(points)})` : ''}` : 'no step'
        return `${names.get(s.criterionId) ?? 'A criterion'}: ${side(s.from, s.pointsFrom)} → ${side(s.to, s.pointsTo)}`
      })
      .join('; '),
  'set the points of a mark': d =>
    d.to === null ? 'took the set points off' : `set the points to ${pts(d.to as number)}${because(d)}`,
  'waived lateness': () => 'waived what lateness takes',
  'counted lateness again': () => 'counted lateness again',
  'set the group’s steps': d => `set the steps of the group ${d.group ?? ''}`.trim(),
  'held a mark': d => `held it at ${pts(d.points)}`,
  'took a held mark back': () => 'took it back to the desk',
  'returned a mark': d => `returned it at ${pts(d.points)}`,
  'took a returned mark back': () => 'took the returned mark back',
  'set when a mark returns': () => 'set a time at which it returns',
  'let a mark wait': () => 'took the time of returning off',
  'marked a contribution': d => `marked a contribution: ${marked(d.from)} → ${marked(d.to)}`,
  'marked an answer': d => {
    const doneWords = () => {
      if (d.to === null) return 'no mark'
      if (d.to) return 'done'
      return 'not done'
    }
    return `marked an answer: ${doneWords()}`
  },
  'marked a second time': () => 'marked it a second time',
  'agreed on a second marking': () => 'agreed on the two markings',
  'moved a mark to another version': d => `moved it to version ${d.version} of the rubric`,
  'excused from the activity': d => `excused from the activity${because(d)}`,
  'no longer excused': () => 'no longer excused',
}
