import { and, asc, count, desc, eq, isNull } from 'drizzle-orm'
import { pointsOf } from '#core/marking/rubric/rubricDraft'
import type { Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import {
  activities,
  criterionOutcomes,
  marks,
  outcomes,
  rubrics,
  rubricVersions,
} from '#server/database/schema'
import { loadRubrics } from '#server/services/rubrics/loadRubrics'
import type { LibraryView } from '#shared/marking/rubric'
import { draftOf } from './rubrics'
import { viewOf } from './writeOutcomes'

/** The seminar's rubrics in their newest versions, its learning outcomes and its templates. */
export async function libraryView(db: Db, actor: Actor): Promise<LibraryView> {
  const seminarId = actor.seminar.id
  const [heads, versions, outcomeRows, linked, rows] = await Promise.all([
    db
      .select()
      .from(rubrics)
      .where(and(eq(rubrics.seminarId, seminarId), isNull(rubrics.archivedAt)))
      .orderBy(asc(rubrics.title)),
    db
      .select({ version: rubricVersions, marks: count(marks.id) })
      .from(rubricVersions)
      .leftJoin(marks, eq(marks.rubricVersionId, rubricVersions.id))
      .where(eq(rubricVersions.seminarId, seminarId))
      .groupBy(rubricVersions.id)
      .orderBy(desc(rubricVersions.version)),
    db.select().from(outcomes).where(eq(outcomes.seminarId, seminarId)).orderBy(asc(outcomes.position)),
    db
      .select({ outcomeId: criterionOutcomes.outcomeId, n: count() })
      .from(criterionOutcomes)
      .where(eq(criterionOutcomes.seminarId, seminarId))
      .groupBy(criterionOutcomes.outcomeId),
    db
      .select({
        id: activities.id,
        kind: activities.kind,
        title: activities.title,
        summary: activities.summary,
        versionId: activities.rubricVersionId,
        isTemplate: activities.isTemplate,
      })
      .from(activities)
      .where(eq(activities.seminarId, seminarId))
      .orderBy(asc(activities.position)),
  ])
  const versionsOf = (head: { readonly id: string }) => versions.filter(v => v.version.rubricId === head.id)
  const newestById = await loadRubrics(
    db,
    heads.map(head => versionsOf(head)[0]!.version.id),
  )
  const rubricList = heads.map(head => {
    const own = versionsOf(head)
    const newest = own[0]!
    const rubric = newestById.get(newest.version.id)!
    return {
      rubric,
      revision: head.revision,
      points: pointsOf(draftOf(rubric, [])),
      marksGiven: newest.marks,
      earlier: own
        .slice(1)
        .filter(v => v.marks > 0)
        .map(v => ({ version: v.version.version, marks: v.marks })),
      usedBy: rows.flatMap(a => {
        const v = own.find(o => o.version.id === a.versionId)
        return v ? [{ id: a.id, title: a.title, version: v.version.version }] : []
      }),
    }
  })
  return {
    rubrics: rubricList,
    mayManage: actor.enrolment.role === 'instructor',
    outcomes: outcomeRows.map(o => ({
      ...viewOf(o),
      criteria: linked.find(l => l.outcomeId === o.id)?.n ?? 0,
    })),
    templates: rows
      .filter(a => a.isTemplate)
      .map(({ id, kind, title, summary }) => ({ id, kind, title, summary })),
  }
}
