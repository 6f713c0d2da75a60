import { and, eq, inArray } from 'drizzle-orm'
import { latenessOfRecord } from '#core/marking/latenessOfRecord'
import { mostTaken } from '#core/marking/lateness'
import { closesAt } from '#core/planning/schedule'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions, marks } from '#server/database/schema'
import { type ActivityPlan, loadPlan, loadPlans, seminarsOf, weeksAsked } from '#server/services/planning'
import { countedStudents } from '#server/services/people'
import { judge, loadRecords } from '#server/services/standing'
import { KINDS } from '#core/kinds'
import type { ActivityBody, EffectView } from '#shared/planning/composer'
import { changedBody } from './changeActivity'
import { columnsOf } from './activityColumns'
import { requireSound, toPhases } from './requireSound'

/** What a change would do to those who take part, calculated without doing it. */
export async function effectOf(
  db: Db,
  actor: Actor & { readonly activity: ActivityRow },
  change: Partial<ActivityBody>,
  now: Date,
): Promise<EffectView> {
  const { activity, seminar } = actor
  const body = await changedBody(db, activity, change)
  requireSound(body)
  const [before, students, notReturned, kept] = await Promise.all([
    loadPlan(db, activity),
    countedStudents(db, [
      ...new Set([seminar.id, ...(await seminarsOf(db, activity)), ...body.jointSeminarIds]),
    ]),
    db.$count(marks, and(eq(marks.activityId, activity.id), inArray(marks.state, ['open', 'held']))),
    db.$count(contributions, eq(contributions.activityId, activity.id)),
  ])
  const after = await planWith(db, before, body, seminar)
  const records = (await loadRecords(db, [activity.id], students)).get(activity.id)!
  const moves = new Map<string, { from: string; to: string; people: number }>()
  const leaving: string[] = []
  const late: EffectView['late'] = []
  const changesRule = JSON.stringify(body.lateRule) !== JSON.stringify(activity.lateRule)
  let joining = 0
  for (const student of students) {
    const [was, will] = [before.isMeant(student), after.isMeant(student)]
    const record = records.get(student.enrolmentId)!
    if (!was && will) joining++
    if (was && !will && record.shown.length + record.drafts > 0) leaving.push(student.name)
    if (!was || !will) continue
    // what was written is that kind's entries and answers after a change of kind
    const renamed = {
      ...record,
      shown: record.shown.map(c => ({ ...c, type: typeIn(before, after, c.type) })),
    }
    const judged = judge(after, renamed, now)
    const lateness = latenessOfRecord(after, body.lateRule, judged.checks, student.enrolmentId)
    if (changesRule && lateness && lateness.minutes > 0)
      late.push({
        name: student.name,
        minutes: lateness.minutes,
        percent: mostTaken(lateness, body.lateRule),
      })
    const [from, to] = [judge(before, record, now).standing, judged.standing]
    if (from === to) continue
    const move = moves.get(`${from}>${to}`) ?? { from, to, people: 0 }
    move.people++
    moves.set(`${from}>${to}`, move)
  }
  const recalculates =
    body.points !== activity.points ||
    changesRule ||
    JSON.stringify(body.combine) !== JSON.stringify(activity.combine)
  return {
    moves: [...moves.values()].sort((a, b) => b.people - a.people),
    leaving,
    joining,
    late: late.sort((a, b) => b.percent - a.percent || b.minutes - a.minutes),
    recalculated: recalculates ? notReturned : 0,
    kept,
    renamed: body.kind !== activity.kind,
    shuts: activity.state === 'published' && activity.opensAt <= now && new Date(body.opensAt) > now,
  }
}

/** The plan as it would be; nothing is stored. */
async function planWith(
  db: Db,
  before: ActivityPlan,
  body: ActivityBody,
  term: Parameters<typeof weeksAsked>[2],
): Promise<ActivityPlan> {
  const activity: ActivityRow = { ...before.activity, ...columnsOf(body, before.activity) }
  const own = toPhases(body.phases)
  // who is meant is asked of the same code that will answer it afterwards
  const [{ isMeant } = before] = await loadPlans(db, [activity])
  return {
    ...before,
    activity,
    phases: own,
    closesAt: closesAt({ opensAt: activity.opensAt, phases: own }),
    expectations: body.rules,
    weeks: body.rules.map(({ rule }) => weeksAsked(rule, own, term, body.rests)),
    isMeant,
  }
}

function typeIn(
  before: ActivityPlan,
  after: ActivityPlan,
  type: (typeof contributions.$inferSelect)['type'],
): typeof type {
  const [from, to] = [KINDS[before.activity.kind], KINDS[after.activity.kind]]
  if (type === from.entryType) return to.entryType
  return type === from.answerType ? (to.answerType ?? 'comment') : type
}
