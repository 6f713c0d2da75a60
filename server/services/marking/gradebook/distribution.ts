import { eq, inArray } from 'drizzle-orm'
import { driftOf, type JudgedRecord } from '#core/marking/drift'
import { worthOf } from '#core/marking/showMark'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { citations, criterionMarks, enrolments, marks } from '#server/database/schema'
import { loadRecords } from '#server/services/standing'
import { loadPlan, participants } from '#server/services/planning'
import { loadRubric } from '#server/services/rubrics'
import type { Distribution } from '#shared/marking/gradebook'

const BINS = 10

/** How an activity's marks are spread, by points and by criterion, and hints of drift; marks a second marker is not to see are left out. */
export async function distribution(
  db: Db,
  actor: Actor & { readonly activity: ActivityRow },
  hiddenFrom: ReadonlySet<string>,
): Promise<Distribution> {
  const { activity } = actor
  const [plan, everyone, rubric, stored] = await Promise.all([
    loadPlan(db, activity),
    participants(db, activity),
    loadRubric(db, activity.rubricVersionId),
    db
      .select({
        id: marks.id,
        enrolmentId: marks.enrolmentId,
        points: marks.points,
        state: marks.state,
        returned: marks.returned,
        markedBy: marks.markedBy,
        at: marks.savedAt,
        marker: enrolments.name,
      })
      .from(marks)
      .innerJoin(enrolments, eq(enrolments.id, marks.markedBy))
      .where(eq(marks.activityId, activity.id)),
  ])
  const students = everyone.filter(plan.isMeant)
  const names = new Map(students.map(s => [s.enrolmentId, s.name]))
  const given = stored.filter(m => names.has(m.enrolmentId) && !hiddenFrom.has(m.enrolmentId))
  const max = worthOf(activity)
  const points = given.flatMap(m => (m.points === null ? [] : [m.points])).sort((a, b) => a - b)
  const steps =
    given.length > 0
      ? await db
          .select()
          .from(criterionMarks)
          .where(
            inArray(
              criterionMarks.markId,
              given.map(m => m.id),
            ),
          )
      : []
  const cited =
    given.length > 0
      ? await db
          .select({ markId: citations.markId, criterionId: citations.criterionId })
          .from(citations)
          .where(
            inArray(
              citations.markId,
              given.map(m => m.id),
            ),
          )
      : []
  const records = (await loadRecords(db, [activity.id], students)).get(activity.id)!
  const mean = (list: readonly number[]) =>
    list.length > 0 ? list.reduce((a, b) => a + b, 0) / list.length : null
  const width = max / BINS
  return {
    title: activity.title,
    kind: activity.kind,
    max,
    marked: points.length,
    mean: mean(points),
    median: points.length > 0 ? (points[(points.length - 1) >> 1]! + points[points.length >> 1]!) / 2 : null,
    // the last bin holds full marks, too
    bins:
      max > 0
        ? Array.from({ length: BINS }, (_, i) => ({
            from: Math.round(i * width),
            to: Math.round((i + 1) * width),
            n: points.filter(p => Math.min(BINS - 1, Math.floor(p / width)) === i).length,
          }))
        : [],
    criteria: (rubric?.criteria ?? []).map(c => {
      const own = steps.filter(s => s.criterionId === c.id)
      return {
        id: c.id,
        title: c.title,
        max: c.max,
        mean: mean(own.map(s => s.points)),
        steps: c.levels.map(l => ({
          title: l.title,
          points: l.points,
          n: own.filter(s => s.levelId === l.id).length,
        })),
      }
    }),
    drift: (rubric?.criteria ?? []).flatMap(c => {
      const judged = given.flatMap((m): JudgedRecord[] => {
        const step = steps.find(s => s.markId === m.id && s.criterionId === c.id)
        const record = records.get(m.enrolmentId)!
        return step
          ? [
              {
                studentId: m.enrolmentId,
                markerId: m.markedBy,
                at: m.at,
                step: c.levels.findIndex(l => l.id === step.levelId),
                evidence: [
                  record.shown.reduce((n, x) => n + x.words, 0),
                  record.shown.length,
                  new Set(record.shown.flatMap(x => (x.answers?.isClassmate ? [x.answers.personId] : [])))
                    .size,
                  cited.filter(x => x.markId === m.id && x.criterionId === c.id).length,
                ],
              },
            ]
          : []
      })
      const drift = driftOf(judged)
      const markers = drift.markers
        .filter(m => Math.abs(m.first - m.last) >= 0.5)
        .map(m => ({
          name: given.find(g => g.markedBy === m.markerId)!.marker,
          marks: m.marks,
          first: m.first,
          last: m.last,
        }))
      const who = (id: string) => ({ id, name: names.get(id)! })
      return markers.length + drift.pairs.length > 0
        ? [
            {
              criterion: c.title,
              markers,
              pairs: drift.pairs.map(p => ({ a: who(p.a), b: who(p.b), steps: p.steps })),
            },
          ]
        : []
    }),
  }
}
