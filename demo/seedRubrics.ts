import { sql } from 'drizzle-orm'
import { v7 } from 'uuid'
import { pointsOf } from '#core/marking/rubric/rubricDraft'
import * as t from '#server/database/schema'
import { writeCriteria } from '#server/services/rubrics/rubrics'
import { rubric } from './activities'
import { learningOutcomes, libraryRubrics } from './rubrics'
import type { Demo } from './demo'

export async function seedRubric(demo: Demo) {
  const [head] = await demo.db
    .insert(t.rubrics)
    .values({ seminarId: demo.seminarId, title: rubric.title })
    .returning()
  const [version] = await demo.db
    .insert(t.rubricVersions)
    .values({ seminarId: demo.seminarId, rubricId: head!.id, version: 1 })
    .returning()
  demo.rubricVersionId = version!.id
  for (const [position, c] of rubric.criteria.entries()) {
    const [criterion] = await demo.db
      .insert(t.rubricCriteria)
      .values({
        seminarId: demo.seminarId,
        rubricVersionId: version!.id,
        position,
        title: c.title,
        max: c.max * 100,
        suggestFrom: c.suggestFrom,
      })
      .returning()
    const levels = await demo.db
      .insert(t.rubricLevels)
      .values(
        c.levels.map(([points, title, descriptor], i) => ({
          seminarId: demo.seminarId,
          criterionId: criterion!.id,
          position: i,
          title,
          points: points * 100,
          descriptor,
        })),
      )
      .returning()
    demo.criteria.push({ id: criterion!.id, max: c.max * 100, levels })
  }
}

/** The rest of the library: rubrics, learning outcomes, a scale of letters, a joining code. */
export async function seedLibrary(demo: Demo) {
  const ids = { seminarId: demo.seminarId }
  await demo.db.insert(t.outcomes).values(learningOutcomes.map((o, position) => ({ ...ids, ...o, position })))
  // what the discussions' rubric is evidence of
  for (const [title, identifier] of [
    ['Use of evidence', 'hc-2'],
    ['Builds on others', 'hc-3'],
    ['Clarity of argument', 'hc-4'],
  ] as const)
    await demo.db.execute(
      sql`insert into criterion_outcomes (id, seminar_id, criterion_id, outcome_id)
        select ${v7()}, c.seminar_id, c.id, o.id from rubric_criteria c join outcomes o using (seminar_id)
        where c.rubric_version_id = ${demo.rubricVersionId} and c.title = ${title} and o.identifier = ${identifier}`,
    )
  for (const draft of libraryRubrics) {
    const [head] = await demo.db
      .insert(t.rubrics)
      .values({ ...ids, title: draft.title })
      .returning()
    const [version] = await demo.db
      .insert(t.rubricVersions)
      .values({ ...ids, rubricId: head!.id, version: 1 })
      .returning()
    await writeCriteria(demo.db, demo.seminarId, version!.id, draft)
    demo.otherRubrics.set(draft.title, { versionId: version!.id, points: pointsOf(draft) })
  }
  await demo.db.insert(t.gradingScales).values({
    ...ids,
    title: 'Letters',
    bands: [
      { letter: 'A', fromPercent: 90 },
      { letter: 'B', fromPercent: 80 },
      { letter: 'C', fromPercent: 70 },
      { letter: 'D', fromPercent: 60 },
      { letter: 'F', fromPercent: 0 },
    ],
  })
  await demo.db.insert(t.joiningCodes).values({
    ...ids,
    code: 'KELP-4QX',
    role: 'student',
    expiresAt: demo.at([7, 7, '23:59']),
    most: 30,
    used: 3,
    madeAt: demo.at([1, 1, '09:00']),
  })
}
