import { and, eq, isNotNull } from 'drizzle-orm'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities } from '#server/database/schema'
import { countedStudents, judgeRecord, loadRecords, participants, practiceStudents } from '#server/services/contributing/records'
import { loadPlan, loadPlans } from '#server/services/planning/activityPlan'
import { takesPartIn } from '#server/services/planning/jointActivities'
import { countStandings } from '#server/services/planning/standingCounts'
import type { DeskView, MarkingQueue } from '#shared/marking/desk'

/** Everyone who is marked in an activity, by family name, with where each stands. */
export async function deskView(db: Db, actor: Actor & { readonly activity: ActivityRow }, now: Date): Promise<DeskView> {
  const [plan, everyone, practice] = await Promise.all([loadPlan(db, actor.activity), participants(db, actor.activity), practiceStudents(db, actor.seminar.id)])
  const students = everyone.filter(plan.isMeant)
  const records = (await loadRecords(db, [actor.activity.id], [...students, ...practice])).get(actor.activity.id)!
  const tried = practice.filter((s) => { const r = records.get(s.enrolmentId)!; return r.shown.length + r.drafts > 0 })
  const views = [...students, ...tried].map(s => ({
    id: s.enrolmentId, practice: tried.includes(s), name: s.name, givenName: s.givenName, familyName: s.familyName,
    standing: judgeRecord(plan, records.get(s.enrolmentId)!, actor.seminar.timeZone, now).standing,
  }))
  return { students: views, counts: countStandings(views.filter(v => !v.practice).map(v => v.standing)) }
}

/** All activities that are marked, those with work ready first, then by when they closed. */
export async function markingQueue(db: Db, actor: Actor, now: Date): Promise<MarkingQueue> {
  const rows = await db.select().from(activities).where(and(takesPartIn(db, actor.seminar.id), eq(activities.state, 'published'), isNotNull(activities.rubricVersionId), eq(activities.isTemplate, false)))
  const [plans, students] = await Promise.all([loadPlans(db, rows), countedStudents(db, actor.seminar.id)])
  const records = await loadRecords(db, rows.map(a => a.id), students)
  const queue = plans.map((plan) => {
    const judged = students.filter(plan.isMeant).map(s => ({ id: s.enrolmentId, standing: judgeRecord(plan, records.get(plan.activity.id)!.get(s.enrolmentId)!, actor.seminar.timeZone, now).standing }))
    return {
      id: plan.activity.id, kind: plan.activity.kind, title: plan.activity.title, closesAt: plan.closesAt.toISOString(),
      counts: countStandings(judged.map(j => j.standing)),
      firstReady: judged.find(j => j.standing === 'ready')?.id ?? null,
    }
  })
  queue.sort((a, b) => Number(b.counts.ready > 0) - Number(a.counts.ready > 0) || a.closesAt.localeCompare(b.closesAt))
  return { activities: queue }
}
