import { and, asc, eq, inArray, isNotNull, ne, or } from 'drizzle-orm'
import { type WeightedCategory, type GradeItem } from '#core/marking/gradebook/gradebook'
import { worthOf } from '#core/marking/showMark'
import { type Actor, type ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, categories, gradingScales } from '#server/database/schema'
import { type ActivityPlan, loadPlans, takesPartIn } from '#server/services/planning'
import { type Gradebook, type GradeColumn } from '#shared/marking/gradebook'

/** Everything the gradebook of a seminar is calculated from, in a few queries, however large it is. */
export interface GradebookFrame {
  readonly plans: readonly ActivityPlan[]
  readonly columns: readonly GradeColumn[]
  readonly items: readonly GradeItem[]
  readonly categories: ReadonlyArray<WeightedCategory & { readonly title: string }>
  readonly bands: Gradebook['bands']
}

export async function gradebookFrame(db: Db, { seminar }: Pick<Actor, 'seminar'>): Promise<GradebookFrame> {
  const [rows, own] = await Promise.all([
    db
      .select()
      .from(activities)
      .where(
        and(
          takesPartIn(db, seminar.id),
          eq(activities.state, 'published'),
          eq(activities.isTemplate, false),
          ne(activities.scale, 'none'),
          or(
            isNotNull(activities.points),
            isNotNull(activities.rubricVersionId),
            eq(activities.scale, 'complete'),
          ),
        ),
      )
      .orderBy(asc(activities.position)),
    db
      .select()
      .from(categories)
      .where(eq(categories.seminarId, seminar.id))
      .orderBy(asc(categories.position)),
  ])
  const scales = await scalesOf(db, [seminar.grading.gradingScaleId, ...rows.map(a => a.gradingScaleId)])
  const foreign = rows.filter(a => a.seminarId !== seminar.id && a.categoryId)
  const titles =
    foreign.length > 0
      ? new Map(
          (
            await db
              .select()
              .from(categories)
              .where(
                inArray(
                  categories.id,
                  foreign.map(a => a.categoryId!),
                ),
              )
          ).map(c => [c.id, c.title.toLocaleLowerCase()]),
        )
      : new Map<string, string>()
  const plans = await loadPlans(db, rows)
  const bandsOf = (id: string | null) => scales.find(s => s.id === id)?.bands.map(b => ({ ...b })) ?? null
  // an activity held with another seminar counts here in the category of the same name
  const categoryOf = (a: ActivityRow) =>
    a.seminarId === seminar.id
      ? a.categoryId
      : (own.find(c => c.title.toLocaleLowerCase() === titles.get(a.categoryId ?? ''))?.id ?? null)
  const columns = plans.map(({ activity: a, closesAt }): GradeColumn => ({
    id: a.id,
    title: a.title,
    kind: a.kind,
    categoryId: categoryOf(a),
    max: worthOf(a),
    step: a.pointStep,
    scale: a.scale,
    bands: bandsOf(a.gradingScaleId),
    practice: a.practice,
    passPercent: a.passPercent,
    closesAt: closesAt.toISOString(),
    byHand: a.rubricVersionId === null && a.combine === null,
  }))
  return {
    plans,
    columns,
    items: columns.map(c => ({ id: c.id, categoryId: c.categoryId, max: c.max, practice: c.practice })),
    categories: own.map(c => ({ id: c.id, title: c.title, weight: c.weightPercent, drop: c.dropLowest })),
    bands: bandsOf(seminar.grading.gradingScaleId),
  }
}

async function scalesOf(db: Db, ids: ReadonlyArray<string | null>) {
  const wanted = [...new Set(ids.flatMap(id => id ?? []))]
  return wanted.length > 0 ? db.select().from(gradingScales).where(inArray(gradingScales.id, wanted)) : []
}
