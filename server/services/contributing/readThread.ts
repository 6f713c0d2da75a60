import { and, asc, eq, inArray, ne, or, sql } from 'drizzle-orm'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions, enrolments, nods, persons, visits } from '#server/database/schema'
import type { ThreadView } from '#shared/contributing/thread'
import { loadPlan } from '#server/services/planning/activityPlan'
import { draftView } from './draft'
import { judgeRecord, loadRecords, participants } from './records'
import { shapeForReader, type StoredContribution } from './shapeForReader'

/**
 * The thread of an activity for one reader: what `shapeForReader` lets through, the reader's own drafts and checks.
 * While the reader's own is not in, the answer is built from the reader's rows alone.
 */
export async function readThread(db: Db, actor: Actor & { readonly activity: ActivityRow }, now: Date): Promise<ThreadView> {
  const { activity, enrolment, seminar } = actor
  const [rows, [visit], drafts] = await Promise.all([
    storedContributions(db, activity.id, enrolment.id),
    db.select().from(visits).where(and(eq(visits.activityId, activity.id), eq(visits.enrolmentId, enrolment.id))),
    db.select().from(contributions).where(and(eq(contributions.activityId, activity.id), eq(contributions.authorId, enrolment.id), eq(contributions.state, 'draft'))),
  ])
  const shaped = shapeForReader(rows, { activity, enrolment, seenUntil: visit?.seenUntil ?? null, now })
  const [checks, notHeard] = await Promise.all([ownChecks(), shaped.waiting ? [] : silentNames()])
  return {
    waiting: shaped.waiting,
    contributions: shaped.contributions,
    drafts: drafts.map(draftView),
    checks,
    notHeard,
  }

  async function ownChecks() {
    if (enrolment.role !== 'student') return []
    const student = { enrolmentId: enrolment.id, seminarId: enrolment.seminarId, sectionId: enrolment.sectionId, name: '', givenName: '', familyName: '' }
    const [plan, records] = await Promise.all([loadPlan(db, activity), loadRecords(db, [activity.id], [student])])
    return judgeRecord(plan, records.get(activity.id)!.get(enrolment.id)!, seminar.timeZone, now).checks
  }

  async function silentNames() {
    const heard = new Set(rows.filter(r => r.state === 'shown').map(r => r.authorId))
    const [plan, everyone] = await Promise.all([loadPlan(db, activity), participants(db, activity)])
    return everyone.filter(plan.isMeant).filter(s => !heard.has(s.enrolmentId) && s.enrolmentId !== enrolment.id).map(s => s.givenName)
  }
}

/** All that could reach anyone in this activity, oldest first; drafts stay behind. */
async function storedContributions(db: Db, activityId: string, readerId: string): Promise<StoredContribution[]> {
  return db.select({
    id: contributions.id, parentId: contributions.parentId, type: contributions.type, state: contributions.state, authorId: contributions.authorId,
    name: persons.name, givenName: persons.givenName, familyName: persons.familyName, role: enrolments.role,
    html: contributions.html, text: contributions.text, words: contributions.words, detail: contributions.detail,
    shownAt: contributions.shownAt, editedAt: contributions.editedAt, version: contributions.version,
    nods: sql<number>`(select count(*)::int from ${nods} where ${nods.contributionId} = ${contributions.id})`,
    nodded: sql<boolean>`exists (select 1 from ${nods} where ${nods.contributionId} = ${contributions.id} and ${nods.enrolmentId} = ${readerId})`,
  }).from(contributions)
    .innerJoin(enrolments, eq(enrolments.id, contributions.authorId)).innerJoin(persons, eq(persons.id, enrolments.personId))
    .where(and(
      eq(contributions.activityId, activityId),
      inArray(contributions.state, ['shown', 'withdrawn', 'awaitingApproval']),
      or(ne(enrolments.state, 'practice'), eq(enrolments.id, readerId)),
    ))
    .orderBy(asc(contributions.shownAt), asc(contributions.id))
}

