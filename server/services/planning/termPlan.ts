import { asc, eq } from 'drizzle-orm'
import { KINDS } from '#core/contributing/kinds'
import { expectedLoad } from '#core/planning/load'
import { weekOf } from '#core/planning/week'
import { isStaff, type Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, units } from '#server/database/schema'
import { countedStudents, judgeRecord, loadRecords } from '#server/services/contributing/records'
import type { TermPlan } from '#shared/planning/plan'
import { closesFor, loadPlans, type ActivityPlan } from './activityPlan'
import { countStandings } from './standingCounts'

/** The term plan: everything for staff; for others what is published, with their own standing and nobody's figures. */
export async function termPlan(db: Db, actor: Actor, now: Date): Promise<TermPlan> {
  const { seminar, enrolment } = actor
  const staff = isStaff(enrolment)
  const [unitRows, rows, students] = await Promise.all([
    db.select({ id: units.id, title: units.title, fromWeek: units.fromWeek, toWeek: units.toWeek }).from(units).where(eq(units.seminarId, seminar.id)).orderBy(asc(units.position)),
    db.select().from(activities).where(eq(activities.seminarId, seminar.id)).orderBy(asc(activities.position)),
    countedStudents(db, seminar.id),
  ])
  const visible = rows.filter(a => staff || a.state !== 'draft')
  const counted = staff ? students : students.filter(s => s.enrolmentId === enrolment.id)
  const [plans, records] = await Promise.all([loadPlans(db, visible), loadRecords(db, visible.map(a => a.id), counted)])
  const open = plans.filter(p => p.activity.state === 'published' && p.activity.opensAt <= now && p.closesAt >= now)
  return {
    units: unitRows,
    activities: plans.map(plan => viewOf(plan)),
    students: students.length,
    load: staff ? loadByWeek(plans, students.length, seminar) : [],
    silent: staff ? open.map(p => ({ activityId: p.activity.id, names: students.filter(s => records.get(p.activity.id)!.get(s.enrolmentId)!.shown.length === 0).map(s => s.name) })) : [],
  }

  function viewOf(plan: ActivityPlan): TermPlan['activities'][number] {
    const { activity } = plan
    const judged = [...records.get(activity.id)!.values()].map(r => judgeRecord(plan, !staff && r.mark === 'held' ? { ...r, mark: 'none' } : r, seminar.timeZone, now).standing)
    return {
      id: activity.id, unitId: activity.unitId, kind: activity.kind, title: activity.title, summary: activity.summary, state: activity.state,
      opensAt: activity.opensAt.toISOString(), closesAt: closesFor(plan, enrolment.id).toISOString(),
      phases: plan.phases.map(p => ({ name: p.name, startsAt: p.startsAt.toISOString(), endsAt: p.endsAt.toISOString() })),
      counts: staff ? countStandings(judged) : null,
      standing: enrolment.role === 'student' ? judged[0] ?? null : null,
    }
  }
}

/** Minutes asked of each student in the week their work is due, and of the marker spread over the weeks of marking. */
function loadByWeek(plans: readonly ActivityPlan[], people: number, term: { firstDay: string, weeks: number, timeZone: string }): TermPlan['load'] {
  const load = Array.from({ length: term.weeks }, (_, i) => ({ week: i + 1, studentMinutes: 0, markingMinutes: 0 }))
  const add = (at: Date, field: 'studentMinutes' | 'markingMinutes', minutes: number) => {
    const week = load[weekOf(at, term) - 1]
    if (week) week[field] += minutes
  }
  for (const plan of plans) {
    const classReads = KINDS[plan.activity.kind].readBy === 'class'
    for (const { rule } of plan.expectations) {
      const { writing, reading } = expectedLoad([rule], people, classReads)
      add(plan.phases.find(p => p.name === rule.due)?.endsAt ?? plan.closesAt, 'studentMinutes', writing + reading)
    }
    const marking = plan.phases.find(p => p.name === 'mark')
    if (!marking || !plan.activity.rubricVersionId) continue
    const { marking: minutes } = expectedLoad(plan.expectations.map(e => e.rule), people, classReads)
    const weeks = weeksBetween(marking.startsAt, new Date(marking.endsAt.getTime() - 1), term)
    for (const week of weeks) add(week, 'markingMinutes', minutes / weeks.length)
  }
  return load
}

/** One instant in each week from `from` to `to`. */
function weeksBetween(from: Date, to: Date, term: Parameters<typeof weekOf>[1]): Date[] {
  const instants = [from]
  for (let at = from.getTime() + 7 * 86_400_000; weekOf(new Date(at), term) <= weekOf(to, term); at += 7 * 86_400_000) instants.push(new Date(at))
  return instants
}
