import { and, asc, eq, ne, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/pg-core'
import { minutesToGo } from '#core/planning/load'
import { dayAfter, weeksOf } from '#core/planning/week'
import { nothingHere, type Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, categories, contributions, enrolments } from '#server/database/schema'
import { openClosing } from '#server/services/closing'
import { ownLetters } from '#server/services/marking'
import type { MyWeek } from '#shared/planning/myWeek'
import { type ActivityPlan, loadPlans, takesPartIn } from '#server/services/planning'
import { closesFor, dueAtOf } from '#core/planning/dueTimes'
import { type CheckedStanding, readChecked } from '#server/services/standing'

type Item = MyWeek['due'][number]

/** What a student has before them: due, late and coming work, letters come back, and what the term looks like so far. */
export async function myWeek(db: Db, actor: Actor, now: Date): Promise<MyWeek> {
  const { seminar, enrolment } = actor
  if (enrolment.role !== 'student') throw nothingHere()
  const rows = await db
    .select()
    .from(activities)
    .where(and(takesPartIn(db, seminar.id), ne(activities.state, 'draft'), eq(activities.isTemplate, false)))
    .orderBy(asc(activities.position))
  const student = {
    enrolmentId: enrolment.id,
    seminarId: enrolment.seminarId,
    sectionId: enrolment.sectionId,
    joinedAt: enrolment.joinedAt,
    ...actor.person,
  }
  const [allPlans, drafts, letters, categoryRows, days] = await Promise.all([
    loadPlans(db, rows),
    ownDrafts(db, enrolment.id),
    ownLetters(db, actor),
    db
      .select()
      .from(categories)
      .where(eq(categories.seminarId, seminar.id))
      .orderBy(asc(categories.position)),
    writtenDays(db, actor, now),
  ])
  const plans = enrolment.state === 'practice' ? allPlans : allPlans.filter(p => p.isMeant(student))
  const standings = await readChecked(db, plans, [student], now)
  const items = plans.map(plan => ({
    plan,
    item: itemOf(plan, standings.get(plan.activity.id)!.get(enrolment.id)!),
  }))
  const isOpen = (plan: ActivityPlan) => plan.activity.opensAt <= now && plan.activity.state === 'published'
  const back = new Set(letters.map(l => l.activityId))
  const missing = (item: Item) => item.checks.some(c => !c.met)
  return {
    due: items
      .filter(({ plan }) => isOpen(plan) && closesFor(plan, enrolment.id) >= now)
      .map(i => i.item)
      .sort((a, b) => a.dueAt.localeCompare(b.dueAt)),
    late: items
      .filter(
        ({ plan, item }) =>
          isOpen(plan) &&
          closesFor(plan, enrolment.id) < now &&
          closesFor(plan, enrolment.id) >= enrolment.joinedAt &&
          missing(item) &&
          !back.has(item.activityId),
      )
      .map(i => i.item),
    done: items
      .filter(
        ({ plan, item }) =>
          isOpen(plan) &&
          closesFor(plan, enrolment.id) < now &&
          !(missing(item) && !back.has(item.activityId)),
      )
      .map(i => i.item),
    coming: items
      .filter(({ plan }) => !isOpen(plan))
      .map(i => i.item)
      .sort((a, b) => a.opensAt.localeCompare(b.opensAt)),
    closing: (
      await openClosing(
        db,
        plans.map(p => p.activity.id),
        enrolment.id,
        now,
      )
    ).map(c => ({ ...c, title: rows.find(a => a.id === c.activityId)!.title })),
    letters,
    days,
    categories: categoryRows.map(category => {
      const within = rows.filter(a => a.categoryId === category.id)
      const returned = letters.filter(l => within.some(a => a.id === l.activityId && !a.practice))
      return {
        title: category.title,
        weightPercent: category.weightPercent,
        kind: within[0]?.kind ?? null,
        points: returned.length > 0 ? returned.reduce((n, l) => n + l.points, 0) : null,
        max: returned.length > 0 ? returned.reduce((n, l) => n + l.max, 0) : null,
      }
    }),
  }

  function itemOf(plan: ActivityPlan, { ownStanding, checks }: CheckedStanding): Item {
    const { activity } = plan
    const open = plan.expectations.flatMap((e, i) =>
      checks[i]!.met ? [] : [dueNext(plan, i, enrolment.id, now)],
    )
    const dueTimes = open.sort((a, b) => a.getTime() - b.getTime())
    const due = dueTimes.find(d => d >= now) ?? dueTimes.at(-1) ?? closesFor(plan, enrolment.id)
    const draft = drafts.find(d => d.activityId === activity.id)
    return {
      activityId: activity.id,
      kind: activity.kind,
      title: activity.title,
      summary: activity.summary,
      opensAt: activity.opensAt.toISOString(),
      dueAt: due.toISOString(),
      standing: ownStanding,
      checks,
      expectations: plan.expectations.map(e => ({
        id: e.id,
        rule: e.rule,
        dueAt: dueAtOf(plan, e.rule, enrolment.id).toISOString(),
      })),
      minutes: plan.expectations.reduce((sum, e, i) => sum + minutesToGo(e.rule, checks[i]!.toGoNow), 0),
      draft: draft ? { words: draft.words, to: draft.to } : null,
    }
  }
}

/** When an expectation is due next: a weekly one when this week's is, others at the end of their phase. */
function dueNext(plan: ActivityPlan, index: number, enrolmentId: string, now: Date): Date {
  const due = dueAtOf(plan, plan.expectations[index]!.rule, enrolmentId)
  const week = plan.weeks[index]?.find(w => w.endsAt > now)
  return week && week.endsAt < due ? new Date(week.endsAt.getTime() - 1) : due
}

function ownDrafts(db: Db, enrolmentId: string) {
  const parent = alias(contributions, 'parent')
  const parentAuthor = alias(enrolments, 'parent_author')
  return db
    .select({ activityId: contributions.activityId, words: contributions.words, to: parentAuthor.givenName })
    .from(contributions)
    .leftJoin(parent, eq(parent.id, contributions.parentId))
    .leftJoin(parentAuthor, eq(parentAuthor.id, parent.authorId))
    .where(and(eq(contributions.authorId, enrolmentId), eq(contributions.state, 'draft')))
}

/** Words and days written in each week of the term up to now. */
async function writtenDays(db: Db, { seminar, enrolment }: Actor, now: Date): Promise<MyWeek['days']> {
  const day = sql<string>`to_char(${contributions.shownAt} at time zone ${seminar.timeZone}, 'YYYY-MM-DD')`
  const rows = await db
    .select({ day, words: sql<number>`sum(${contributions.words})::int` })
    .from(contributions)
    .where(and(eq(contributions.authorId, enrolment.id), eq(contributions.state, 'shown')))
    .groupBy(sql`1`)
  const words = new Map(rows.map(r => [r.day, r.words]))
  return weeksOf(seminar)
    .filter(week => week.startsAt <= now)
    .map(week => {
      const days = Array.from({ length: 7 }, (_, i) => dayAfter(week.firstDay, i))
      return {
        week: week.number,
        words: days.reduce((n, d) => n + (words.get(d) ?? 0), 0),
        written: days.map(d => words.has(d)),
      }
    })
}
