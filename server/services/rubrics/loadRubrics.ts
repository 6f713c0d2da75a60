import { asc, eq, getTableColumns, inArray, sql } from 'drizzle-orm'
import type { Db } from '#server/database/client'
import { rubricCriteria, rubricLevels, rubrics, rubricVersions } from '#server/database/schema'
import type { RubricView } from '#shared/contributing/activity'

/** Ids of the outcomes a criterion is evidence of, in the seminar's order. */
const outcomesOfCriterion = sql<string[]>`array(select o.id from criterion_outcomes c
  join outcomes o on o.id = c.outcome_id where c.criterion_id = rubric_criteria.id order by o.position)`

/** Versions of rubrics by their ids, in three queries however many there are. One that is not there has no entry. */
export async function loadRubrics(db: Db, ids: readonly string[]): Promise<Map<string, RubricView>> {
  const wanted = [...new Set(ids)]
  if (wanted.length === 0) return new Map()
  const [heads, criteria, levels] = await Promise.all([
    db
      .select({
        id: rubrics.id,
        versionId: rubricVersions.id,
        title: rubrics.title,
        version: rubricVersions.version,
      })
      .from(rubricVersions)
      .innerJoin(rubrics, eq(rubrics.id, rubricVersions.rubricId))
      .where(inArray(rubricVersions.id, wanted)),
    db
      .select({ ...getTableColumns(rubricCriteria), outcomeIds: outcomesOfCriterion })
      .from(rubricCriteria)
      .where(inArray(rubricCriteria.rubricVersionId, wanted))
      .orderBy(asc(rubricCriteria.position)),
    db
      .select({ level: rubricLevels })
      .from(rubricLevels)
      .innerJoin(rubricCriteria, eq(rubricCriteria.id, rubricLevels.criterionId))
      .where(inArray(rubricCriteria.rubricVersionId, wanted))
      .orderBy(asc(rubricLevels.position)),
  ])
  return new Map(
    heads.map(head => [
      head.versionId,
      {
        ...head,
        criteria: criteria
          .filter(c => c.rubricVersionId === head.versionId)
          .map(c => ({
            id: c.id,
            title: c.title,
            max: c.max,
            weight: c.weight,
            scope: c.scope,
            outcomeIds: c.outcomeIds,
            suggestFrom: c.suggestFrom,
            levels: levels
              .filter(({ level }) => level.criterionId === c.id)
              .map(({ level }) => ({
                id: level.id,
                title: level.title,
                points: level.points,
                pointsFrom: level.pointsFrom,
                descriptor: level.descriptor,
              })),
          })),
      },
    ]),
  )
}

/** One version of a rubric. @returns null where there is none */
export async function loadRubric(db: Db, rubricVersionId: string | null): Promise<RubricView | null> {
  if (!rubricVersionId) return null
  return (await loadRubrics(db, [rubricVersionId])).get(rubricVersionId) ?? null
}
