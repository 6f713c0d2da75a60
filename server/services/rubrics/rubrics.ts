import { and, desc, eq, inArray, isNull, sql } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import { v7 } from 'uuid'
import { maxOf, rubricFaults, type RubricDraft, type RubricFault } from '#core/marking/rubric/rubricDraft'
import { nothingHere, type Actor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import {
  activities,
  criterionOutcomes,
  marks,
  outcomes,
  rubricCriteria,
  rubricLevels,
  rubrics,
  rubricVersions,
} from '#server/database/schema'
import { slicesOf } from '#server/database/slices'
import { Problem, refusedField } from '#server/http/problem'
import { loadRubric } from '#server/services/rubrics/loadRubrics'
import { withIdempotency } from '#server/services/idempotency'
import type { RubricBody } from '#shared/marking/rubric'
import type { RubricView } from '#shared/contributing/activity'

export function makeRubric(db: Database, actor: Actor, key: string, body: RubricBody, now: Date) {
  return withIdempotency(db, actor.enrolment, key, tx => insertRubric(tx, actor, body, now))
}

/** Adds a rubric to the library, in its first version. @throws {Problem} 422 where it cannot be used */
export async function insertRubric(tx: Db, actor: Actor, body: RubricDraft, now: Date) {
  requireSound(body)
  const [head] = await tx
    .insert(rubrics)
    .values({ seminarId: actor.seminar.id, title: body.title })
    .returning()
  const [version] = await tx
    .insert(rubricVersions)
    .values({ seminarId: actor.seminar.id, rubricId: head!.id, version: 1, madeAt: now })
    .returning()
  await writeCriteria(tx, actor.seminar.id, version!.id, body)
  return { id: head!.id, versionId: version!.id, version: 1, revision: head!.revision }
}

/**
 * Saves a rubric. While no mark was given under its newest version, that version is changed; once one was, a new version
 * is made. Activities without marks go over to it; where marks were given, they stay under the version they were given
 * under and only marks to come take the new one.
 */
export function writeRubric(
  db: Database,
  actor: Actor,
  rubricId: string,
  write: { readonly key: string; readonly baseRevision: number; readonly rubric: RubricBody },
  now: Date,
) {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    requireSound(write.rubric)
    const newest = await requireNewest(tx, actor, rubricId)
    const revision = write.baseRevision + 1
    const saved = await tx
      .update(rubrics)
      .set({ title: write.rubric.title, revision })
      .where(and(eq(rubrics.id, rubricId), eq(rubrics.revision, write.baseRevision)))
      .returning({ id: rubrics.id })
    if (saved.length === 0) throw await changedMeanwhile(tx, actor, rubricId, newest.id)
    const [given] = await tx
      .select({ id: marks.id })
      .from(marks)
      .where(eq(marks.rubricVersionId, newest.id))
      .limit(1)
    if (!given) {
      await removeCriteria(tx, newest.id)
      await writeCriteria(tx, actor.seminar.id, newest.id, write.rubric)
      return { id: rubricId, versionId: newest.id, version: newest.version, revision }
    }
    const [version] = await tx
      .insert(rubricVersions)
      .values({ seminarId: actor.seminar.id, rubricId, version: newest.version + 1, madeAt: now })
      .returning()
    await writeCriteria(tx, actor.seminar.id, version!.id, write.rubric)
    await tx
      .update(activities)
      .set({ rubricVersionId: version!.id, version: sql`${activities.version} + 1` })
      .where(and(eq(activities.seminarId, actor.seminar.id), eq(activities.rubricVersionId, newest.id)))
    await noteActs(tx, actor, now, {
      act: 'rubricVersionMade',
      subjectId: rubricId,
      detail: { version: version!.version },
    })
    return { id: rubricId, versionId: version!.id, version: version!.version, revision }
  })
}

/** Two have changed it: the other rubric comes along, so that both can be made one. */
async function changedMeanwhile(tx: Db, actor: Actor, rubricId: string, newestId: string): Promise<Problem> {
  const [rubric, known, [head]] = [
    await loadRubric(tx, newestId),
    await tx
      .select({ id: outcomes.id, identifier: outcomes.identifier })
      .from(outcomes)
      .where(eq(outcomes.seminarId, actor.seminar.id)),
    await tx.select().from(rubrics).where(eq(rubrics.id, rubricId)),
  ]
  return new Problem(409, 'changedMeanwhile', 'Somebody else has changed this rubric meanwhile.', {
    theirs: { revision: head!.revision, rubric: draftOf(rubric!, known) },
  })
}

/** The newest version of a rubric of the library. @throws {Problem} 404 where there is none */
export async function requireNewest(db: Db, actor: Actor, rubricId: string) {
  const [row] = await db
    .select({ version: rubricVersions })
    .from(rubricVersions)
    .innerJoin(rubrics, eq(rubrics.id, rubricVersions.rubricId))
    .where(
      and(
        eq(rubricVersions.rubricId, rubricId),
        eq(rubricVersions.seminarId, actor.seminar.id),
        isNull(rubrics.archivedAt),
      ),
    )
    .orderBy(desc(rubricVersions.version))
    .limit(1)
  if (!row) throw nothingHere()
  return row.version
}

/** Takes a rubric out of the library, or puts it back; activities and marks that use it keep it. */
export async function archiveRubric(
  db: Db,
  actor: Actor,
  rubricId: string,
  archived: boolean,
  now: Date,
): Promise<void> {
  const [row] = await db
    .update(rubrics)
    .set({ archivedAt: archived ? now : null })
    .where(and(eq(rubrics.id, rubricId), eq(rubrics.seminarId, actor.seminar.id)))
    .returning()
  if (!row) throw nothingHere()
}

async function removeCriteria(tx: Db, rubricVersionId: string): Promise<void> {
  const isOfVersion = eq(rubricCriteria.rubricVersionId, rubricVersionId)
  const removed = tx.select({ id: rubricCriteria.id }).from(rubricCriteria).where(isOfVersion)
  await tx.delete(rubricLevels).where(inArray(rubricLevels.criterionId, removed))
  await tx.delete(criterionOutcomes).where(inArray(criterionOutcomes.criterionId, removed))
  await tx.delete(rubricCriteria).where(isOfVersion)
}

export async function writeCriteria(
  tx: Db,
  seminarId: string,
  rubricVersionId: string,
  rubric: RubricDraft,
): Promise<void> {
  const known = await tx
    .select({ id: outcomes.id, identifier: outcomes.identifier })
    .from(outcomes)
    .where(eq(outcomes.seminarId, seminarId))
  const criteria = rubric.criteria.map((c, position) => ({
    id: v7(),
    seminarId,
    rubricVersionId,
    position,
    title: c.title,
    max: maxOf(c),
    weight: c.weight,
    scope: c.scope,
    suggestFrom: c.suggestFrom,
  }))
  const links = rubric.criteria.flatMap((c, i) =>
    known
      .filter(o => c.outcomes.includes(o.identifier))
      .map(o => ({ seminarId, criterionId: criteria[i]!.id, outcomeId: o.id })),
  )
  const levels = rubric.criteria.flatMap((c, i) =>
    c.levels.map((l, position) => ({
      seminarId,
      criterionId: criteria[i]!.id,
      position,
      title: l.title,
      points: l.points,
      pointsFrom: l.pointsFrom,
      descriptor: l.descriptor,
    })),
  )
  for (const some of slicesOf(criteria)) await tx.insert(rubricCriteria).values(some)
  for (const some of slicesOf(levels)) await tx.insert(rubricLevels).values(some)
  for (const some of slicesOf(links)) await tx.insert(criterionOutcomes).values(some)
}

export const draftOf = (
  rubric: RubricView,
  known: ReadonlyArray<{ readonly id: string; readonly identifier: string }>,
): RubricDraft => ({
  title: rubric.title,
  criteria: rubric.criteria.map(c => ({
    title: c.title,
    scope: c.scope,
    weight: c.weight,
    suggestFrom: c.suggestFrom,
    outcomes: c.outcomeIds.flatMap(id => known.filter(o => o.id === id)).map(o => o.identifier),
    levels: c.levels.map(({ title, points, pointsFrom, descriptor }) => ({
      title,
      points,
      pointsFrom,
      descriptor,
    })),
  })),
})

function requireSound(rubric: RubricDraft): void {
  const [fault] = rubricFaults(rubric)
  if (fault) throw refusedField('rubric', fault.code, rubricFaultSentence(fault, rubric))
}

export function rubricFaultSentence(fault: RubricFault, rubric: RubricDraft): string {
  const name =
    'criterion' in fault ? rubric.criteria[fault.criterion]?.title || `criterion ${fault.criterion + 1}` : ''
  switch (fault.code) {
    case 'noTitle':
      return 'Write what the rubric is called.'
    case 'noCriteria':
      return 'A rubric has one criterion at least.'
    case 'criterionNoTitle':
      return `Criterion ${fault.criterion + 1} has no name yet.`
    case 'noLevels':
      return `“${name}” has no levels yet.`
    case 'noPoints':
      return `No level of “${name}” gives a point.`
    case 'levelOrder':
      return `In “${name}”, level ${fault.level + 1} gives no more points than the one before it. Levels rise.`
    case 'rangeOrder':
      return `In “${name}”, the range of level ${fault.level + 1} ends before it begins.`
    case 'rangesMeet':
      return `In “${name}”, the range of level ${fault.level + 1} reaches into the level before it.`
  }
}
