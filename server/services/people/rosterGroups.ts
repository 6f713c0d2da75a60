import { and, asc, eq } from 'drizzle-orm'
import type { RosterComparison } from '#core/people/roster/compareRoster'
import type { Roster, RosterRow } from '#core/people/roster/rosterRow'
import type { Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { enrolments, groupMembers, groupPlans, groups, persons } from '#server/database/schema'
import type { RosterPreview } from '#shared/people/people'
import { setMembers } from './groups'

const LONGEST = 120 // letters of a plan's title

/** What a roster's column of groups is about: a plan of its heading's name, there or to be made. */
interface GroupColumn {
  readonly title: string
  readonly rows: readonly RosterRow[] // students who have a group in the file
  readonly plan: typeof groupPlans.$inferSelect | null
  readonly groups: ReadonlyArray<{ readonly id: string; readonly title: string }>
  readonly memberOf: ReadonlyMap<string, string> // enrolment → group
}

/** Reads what is there of the plan that a column names, `locked` for a change; null where no column holds groups. */
export async function groupColumn(
  db: Db,
  actor: Actor,
  roster: Roster,
  { locked = false } = {},
): Promise<GroupColumn | null> {
  const column = roster.columns?.find(c => c.field === 'group')
  const rows = roster.rows.filter(r => r.group !== null && r.role === 'student')
  if (!column || rows.length === 0) return null
  const title = column.heading.trim().slice(0, LONGEST) || 'Groups'
  const named = db
    .select()
    .from(groupPlans)
    .where(and(eq(groupPlans.seminarId, actor.seminar.id), eq(groupPlans.title, title)))
    .orderBy(asc(groupPlans.position))
    .limit(1)
  const [plan] = await (locked ? named.for('update') : named)
  if (!plan) return { title, rows, plan: null, groups: [], memberOf: new Map() }
  const [known, members] = await Promise.all([
    db
      .select({ id: groups.id, title: groups.title })
      .from(groups)
      .where(eq(groups.groupPlanId, plan.id))
      .orderBy(asc(groups.position)),
    db.select().from(groupMembers).where(eq(groupMembers.groupPlanId, plan.id)),
  ])
  return {
    title,
    rows,
    plan,
    groups: known,
    memberOf: new Map(members.map(m => [m.enrolmentId, m.groupId])),
  }
}

/** What a column of groups would change: nothing is written. */
export function previewGroups(
  column: GroupColumn | null,
  { enrolmentOf, added, changed, back }: RosterComparison,
): RosterPreview['groups'] {
  if (!column) return null
  const idOf = new Map(column.groups.map(g => [g.title, g.id]))
  const isPlaced = (row: RosterRow) => {
    const known = enrolmentOf.get(row.line)
    const group = idOf.get(row.group!)
    return !known || !group || column.memberOf.get(known) !== group
  }
  const placed = column.rows.filter(isPlaced)
  const otherwise = new Set([...added, ...changed.map(c => c.row), ...back.map(b => b.row)].map(r => r.line))
  return {
    plan: column.title,
    isNew: column.plan === null,
    newGroups: newTitles(column),
    placed: placed.length,
    onlyPlaced: placed.filter(row => !otherwise.has(row.line)).length,
  }
}

const newTitles = ({ rows, groups: known }: GroupColumn): string[] => {
  const titles = new Set(known.map(g => g.title))
  return [...new Set(rows.map(r => r.group!))].filter(title => !titles.has(title))
}

/**
 * Puts the people of a roster, who are all enrolled by now, into the groups it says. Whoever it says nothing of stays.
 * @returns how many came into a group, or into another one
 */
export async function placeInGroups(
  tx: Db,
  actor: Actor,
  column: GroupColumn | null,
  now: Date,
): Promise<number> {
  if (!column) return 0
  const plan = column.plan ?? (await makePlan(tx, actor, column, now))
  const titles = newTitles(column)
  const added =
    titles.length > 0
      ? await tx
          .insert(groups)
          .values(
            titles.map((title, i) => ({
              seminarId: actor.seminar.id,
              groupPlanId: plan.id,
              title,
              position: column.groups.length + i,
            })),
          )
          .returning({ id: groups.id, title: groups.title })
      : []
  const all = [...column.groups, ...added]
  const idOf = new Map(all.map(g => [g.title, g.id]))
  const enrolmentOf = await enrolmentsByAddress(tx, actor)
  const memberOf = new Map(column.memberOf)
  let placed = 0
  for (const { email, group } of column.rows) {
    const [enrolmentId, groupId] = [enrolmentOf.get(email), idOf.get(group!)!]
    if (!enrolmentId || memberOf.get(enrolmentId) === groupId) continue
    memberOf.set(enrolmentId, groupId)
    placed++
  }
  if (placed === 0) return 0
  const membersOf = new Map(all.map(g => [g.id, [] as string[]]))
  for (const [enrolmentId, groupId] of memberOf) membersOf.get(groupId)?.push(enrolmentId)
  await setMembers(
    tx,
    plan,
    [...membersOf].map(([id, memberIds]) => ({ id, memberIds })),
    now,
  )
  await tx
    .update(groupPlans)
    .set({ version: plan.version + 1 })
    .where(eq(groupPlans.id, plan.id))
  return placed
}

async function makePlan(tx: Db, actor: Actor, column: GroupColumn, now: Date) {
  const position = await tx.$count(groupPlans, eq(groupPlans.seminarId, actor.seminar.id))
  const count = newTitles(column).length
  const rules = { by: 'hand' as const, count, together: [], apart: [], mixSections: false, seed: 0 }
  const [plan] = await tx
    .insert(groupPlans)
    .values({
      seminarId: actor.seminar.id,
      title: column.title,
      rules,
      selfJoin: false,
      most: null,
      madeAt: now,
      position,
    })
    .returning()
  return plan!
}

async function enrolmentsByAddress(tx: Db, actor: Actor): Promise<Map<string, string>> {
  const rows = await tx
    .select({ email: persons.email, id: enrolments.id })
    .from(enrolments)
    .innerJoin(persons, eq(persons.id, enrolments.personId))
    .where(
      and(
        eq(enrolments.seminarId, actor.seminar.id),
        eq(enrolments.role, 'student'),
        eq(enrolments.state, 'active'),
      ),
    )
  return new Map(rows.map(r => [r.email, r.id]))
}
