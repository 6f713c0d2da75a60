import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { seededRandom } from '#core/chance/seededRandom'
import { KINDS } from '#core/kinds'
import { ACTIVITY_KINDS } from '#core/kinds/kind'
import type { ExpectationRule } from '#core/planning/expectations/rule'
import { dayAfter, localDay, localInstant, weekOf } from '#core/planning/week'
import type { Actor, Seminar } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import * as t from '#server/database/schema'
import { gradebook } from '#server/services/marking/gradebook/gradebook'
import { deskView } from '#server/services/marking/desk'
import { namesOf } from '#server/services/people'
import { activityView } from '#server/services/screens/activityView'
import { myWeek } from '#server/services/screens/myWeek'
import { termPlan } from '#server/services/screens/termPlan'
import { startServices } from '#server/services/startServices'
import { testDatabase } from '#server/testing/database'
import type { TermPlan } from '#shared/planning/plan'
import { changeActivity } from './changeActivity'
import { copySeminar } from './copySeminar'
import { makeActivity } from './makeActivity'
import { publishActivity } from './publish'

const TERMS = 40
const ZONES = [
  'Europe/Amsterdam',
  'America/New_York',
  'Asia/Kolkata',
  'Pacific/Auckland',
  'America/Sao_Paulo',
]
const DAY = 86_400_000
const STUDENTS = 4
const IN_FIRST_GROUP = 3
/** What a proposal must never be told of. */
const REFUSED = ['past', 'inBreak', 'latePrompts']

startServices()

describe('every kind, planned in any term and published as it is proposed', () => {
  let database: Awaited<ReturnType<typeof testDatabase>>
  let db: Database
  beforeAll(async () => {
    database = await testDatabase({ empty: true })
    ;({ db } = database)
  })
  afterAll(() => database.drop())

  it.each(Array.from({ length: TERMS }, (_, i) => i))('contradicts nothing (term %i)', async n => {
    const random = seededRandom(9000 + n)
    const { seminar, now } = await anySeminar(random)
    const ines = await join(seminar, 'instructor', now)
    const students: Actor[] = []
    for (let i = 0; i < STUDENTS; i++) {
      const joinedAt = new Date(now.getTime() - Math.floor(random() * 30) * DAY) // some after the term began
      students.push(await join(seminar, 'student', joinedAt))
    }
    const groups = await twoGroups(seminar, students, now)
    const published: string[] = []
    const asked = new Map<string, Asked>()
    for (const kind of ACTIVITY_KINDS) {
      const from = Math.min(seminar.weeks, Math.max(1, weekOf(now, seminar)))
      const week = from + Math.floor(random() * (seminar.weeks - from + 1))
      const { id } = await makeActivity(
        db,
        ines,
        { id: v7(), kind, week, unitId: null, templateId: null },
        now,
      )
      asked.set(id, await change(ines, id, random, groups, now))
      const activity = await rowOf(id)
      const opens = activity.opensAt > now ? activity.opensAt.toISOString() : 'now'
      const write = { key: v7(), baseVersion: activity.version, opens, tell: false }
      await publishActivity(db, { ...ines, activity }, write, now)
      published.push(id)
    }
    const plan = await termPlan(db, ines, now)
    expect(plan.activities.map(a => a.id)).toEqual(published)
    expectNoRefusedDate(plan, seminar, now)
    expectLoad(plan, seminar, students, asked)
    // the same expectations for the student's week, the activity and the desk, and the same standing everywhere
    const book = await gradebook(db, ines, now)
    // the gradebook has a column for what is marked as soon as it has opened
    const opened = new Set(plan.activities.filter(a => a.state === 'published').map(a => a.id))
    const marked = published.filter(id => asked.get(id)!.isMarked && opened.has(id))
    expect(new Set(book.columns.map(c => c.id))).toEqual(new Set(marked))
    const activities = new Map<string, typeof t.activities.$inferSelect>()
    const desks = new Map<string, Awaited<ReturnType<typeof deskView>>>()
    for (const id of published) {
      activities.set(id, await rowOf(id))
      desks.set(id, await deskView(db, { ...ines, activity: activities.get(id)! }, now))
    }
    for (const student of students) {
      const week = await myWeek(db, student, now)
      const items = [...week.due, ...week.late, ...week.done, ...week.coming]
      const own = published.filter(id => asked.get(id)!.people.includes(student.enrolment.id))
      expect(new Set(items.map(i => i.activityId))).toEqual(new Set(own))
      const row = book.rows.find(r => r.enrolmentId === student.enrolment.id)!
      for (const id of published) {
        const isOnDesk = desks.get(id)!.students.some(s => s.id === student.enrolment.id)
        expect([id, isOnDesk]).toEqual([id, own.includes(id)])
        const at = book.columns.findIndex(c => c.id === id)
        if (at >= 0) expect([id, row.states[at] === '.']).toEqual([id, !own.includes(id)])
      }
      for (const item of items) {
        const activity = activities.get(item.activityId)!
        const view = await activityView(db, { ...student, activity }, now)
        expect(item.expectations).toEqual(view.expectations)
        expect(item.checks.map(c => c.have)).toEqual(item.checks.map(() => 0))
        const onDesk = desks.get(item.activityId)!.students.find(s => s.id === student.enrolment.id)!
        expect([item.title, onDesk.standing]).toEqual([item.title, item.standing])
        expect(activity.settings.review?.each ?? null).toBe(
          item.expectations.find(e => e.rule.kind === 'reviews')?.rule.need ?? null,
        )
      }
    }
    await expectCopied(ines, seminar, random, now)
  })

  /** Who is asked, with whom each of them talks, and whether it is marked. */
  interface Asked {
    readonly people: readonly string[]
    readonly talksWith: (person: string) => number // others whose words one reads
    readonly isMarked: boolean
  }

  /** What an instructor decides who leaves the dates as they are proposed: for whom it is, and whether it is marked. */
  async function change(
    ines: Actor,
    id: string,
    random: () => number,
    { planId, groups }: Awaited<ReturnType<typeof twoGroups>>,
    now: Date,
  ): Promise<Asked> {
    const activity = await rowOf(id)
    const all = groups.flatMap(g => g.members)
    const scale = (['none', 'points', 'complete'] as const)[Math.floor(random() * 3)]!
    const forWhom = ['everyone', 'apart', 'one'][Math.floor(random() * 3)]!
    const meant = forWhom === 'one' ? groups[0]!.members : all
    const ofPlan = { kind: 'groups' as const, groupPlanId: planId }
    await changeActivity(
      db,
      { ...ines, activity },
      {
        key: v7(),
        baseVersion: activity.version,
        tell: false,
        change: {
          scale,
          points: scale === 'points' ? 1000 : null,
          ...(forWhom === 'one' && { audience: { ...ofPlan, groupIds: [groups[0]!.id] } }),
          ...(forWhom === 'apart' && { audience: { ...ofPlan, groupIds: [] }, apart: 'groups' as const }),
        },
      },
      now,
    )
    const talkersWith = (person: string) =>
      forWhom === 'apart' ? groups.find(g => g.members.includes(person))!.members : meant
    return { people: meant, talksWith: person => talkersWith(person).length - 1, isMarked: scale !== 'none' }
  }

  async function twoGroups(seminar: Seminar, students: readonly Actor[], now: Date) {
    const ids = students.map(s => s.enrolment.id)
    const [plan] = await db
      .insert(t.groupPlans)
      .values({
        seminarId: seminar.id,
        title: 'Crews',
        rules: { by: 'hand', count: 2, together: [], apart: [], mixSections: false, seed: 0 },
        selfJoin: false,
        most: null,
        madeAt: now,
        position: 0,
      })
      .returning()
    const groups = []
    for (const [position, members] of [ids.slice(0, IN_FIRST_GROUP), ids.slice(IN_FIRST_GROUP)].entries()) {
      const inPlan = { seminarId: seminar.id, groupPlanId: plan!.id }
      const [group] = await db
        .insert(t.groups)
        .values({ ...inPlan, title: `Crew ${position + 1}`, position })
        .returning()
      await db
        .insert(t.groupMembers)
        .values(members.map(enrolmentId => ({ ...inPlan, groupId: group!.id, enrolmentId, since: now })))
      groups.push({ id: group!.id, members })
    }
    return { planId: plan!.id, groups }
  }

  const rowOf = async (id: string) => {
    const [row] = await db.select().from(t.activities).where(eq(t.activities.id, id))
    return row!
  }

  /** A term with breaks somewhere, and today anywhere in it or around it. */
  async function anySeminar(random: () => number): Promise<{ seminar: Seminar; now: Date }> {
    const values = anyTerm(random)
    const [seminar] = await db
      .insert(t.seminars)
      .values({ code: 'HC 1', title: 'Harbour Cities', college: 'Northmere', ...values })
      .returning()
    const start = localInstant(values.firstDay, '00:00', values.timeZone).getTime()
    const part = random() * 1.3 - 0.15
    return { seminar: seminar!, now: new Date(start + Math.floor(part * values.weeks * 7 * 24) * 3_600_000) }
  }

  function anyTerm(random: () => number) {
    const weeks = 2 + Math.floor(random() * 18)
    const breaks = Array.from({ length: Math.floor(random() * 4) }, () => 1 + Math.floor(random() * weeks))
    return {
      firstDay: dayAfter('2026-01-05', 7 * Math.floor(random() * 60)),
      weeks,
      timeZone: ZONES[Math.floor(random() * ZONES.length)]!,
      breaks: [...new Set(breaks)]
        .filter(week => week < weeks)
        .sort((a, b) => a - b)
        .map(week => ({ week, title: 'Break' })),
      usualDueWeekday: 1 + Math.floor(random() * 7),
      usualDueTime: ['23:59', '17:00', '09:30'][Math.floor(random() * 3)]!,
    }
  }

  async function join(seminar: Seminar, role: 'instructor' | 'student', joinedAt: Date): Promise<Actor> {
    const names = { name: 'Runa Holt', givenName: 'Runa', familyName: 'Holt' }
    const [person] = await db
      .insert(t.persons)
      .values({ ...names, email: `${v7()}@northmere.example` })
      .returning()
    const [enrolment] = await db
      .insert(t.enrolments)
      .values({ seminarId: seminar.id, personId: person!.id, ...namesOf(person!), role, joinedAt })
      .returning()
    return { person: person!, enrolment: enrolment!, seminar, studentsEye: false }
  }

  function expectNoRefusedDate(plan: TermPlan, seminar: Seminar, now: Date) {
    const codes = plan.staff!.remarks.map(r => r.remark.code)
    expect(codes.filter(code => REFUSED.includes(code))).toEqual([])
    for (const a of plan.activities) {
      expect(new Date(a.opensAt).getTime()).toBeGreaterThanOrEqual(now.getTime())
      // only where the term leaves too few days is anything due after it
      const isAfter = plan.staff!.remarks.some(r => r.activityId === a.id && r.remark.code === 'afterTerm')
      if (!isAfter) continue
      const opens = localDay(new Date(a.opensAt), seminar.timeZone)
      const days = Array.from({ length: 7 * seminar.weeks }, (_, i) => dayAfter(seminar.firstDay, i)).filter(
        day =>
          day > opens &&
          !seminar.breaks.some(b => b.week === weekOf(localInstant(day, '12:00', seminar.timeZone), seminar)),
      )
      expect(days.length).toBeLessThan(KINDS[a.kind].workingPhases.length)
    }
  }

  /** The load once more, from the dates as they are planned, for each student by themselves. */
  function expectLoad(
    plan: TermPlan,
    seminar: Seminar,
    students: readonly Actor[],
    asked: ReadonlyMap<string, Asked>,
  ) {
    const own = new Map(students.map(s => [s.enrolment.id, new Map<number, number>()]))
    const marking = new Map<number, number>()
    const add = (minutes: Map<number, number>, week: number, more: number) =>
      minutes.set(Math.max(1, week), (minutes.get(Math.max(1, week)) ?? 0) + more)
    for (const { id, kind, phases } of plan.activities) {
      const { people, talksWith, isMarked } = asked.get(id)!
      const draft = KINDS[kind].usualRules.find(r => r.kind === 'entries')
      const draftWords = draft?.kind === 'entries' ? draft.need * draft.minWords : 0
      let written = 0
      for (const rule of KINDS[kind].usualRules) {
        const weeks = weeksOf(
          rule,
          phases.find(p => p.name === rule.due)!,
          seminar,
        )
        const words = 'minWords' in rule ? rule.need * rule.minWords : 0
        written += words * weeks.length
        for (const person of people) {
          const reads = KINDS[kind].readBy === 'class' && /ntries/.test(rule.kind) ? talksWith(person) : 0
          const read = rule.kind === 'reviews' ? rule.need * draftWords : reads * words
          for (const week of weeks) add(own.get(person)!, week, words / 12 + read / 220)
        }
      }
      const weeks = markingWeeks(phases, seminar)
      for (const week of isMarked ? weeks : [])
        add(marking, week, (people.length * (3 + written / 220)) / weeks.length)
    }
    for (const week of plan.load) {
      const each = [...own.values()].map(minutes => minutes.get(week.week) ?? 0)
      expect(week.studentMinutes).toBeCloseTo(Math.max(...each), 6)
      expect(week.leastMinutes).toBeCloseTo(Math.min(...each), 6)
      expect(week.markingMinutes).toBeCloseTo(marking.get(week.week) ?? 0, 6)
    }
    for (const minutes of [...own.values(), marking])
      for (const [week, more] of minutes)
        if (more > 0) expect(week, 'a week that is in the plan').toBeLessThanOrEqual(plan.load.length)
  }

  /** The week of the term that a day is in, also before and after it. */
  const weekAt = (day: string, { firstDay }: Seminar): number =>
    Math.floor((Date.parse(day) - Date.parse(firstDay)) / (7 * DAY)) + 1

  /** The weeks in which marking is planned, or the one after the work is in. */
  function markingWeeks(phases: TermPlan['activities'][number]['phases'], seminar: Seminar): number[] {
    const dayOf = (at: number) => localDay(new Date(at), seminar.timeZone)
    const planned = phases.find(p => p.name === 'mark')
    if (!planned) {
      const ends = phases.map(p => Date.parse(p.endsAt))
      return [weekAt(dayOf(Math.max(...ends)), seminar) + 1]
    }
    const from = weekAt(dayOf(Date.parse(planned.startsAt)), seminar)
    const to = weekAt(dayOf(Date.parse(planned.endsAt) - 1), seminar)
    return Array.from({ length: Math.max(0, to - from) + 1 }, (_, i) => from + i)
  }

  function weeksOf(
    rule: ExpectationRule,
    phase: { readonly startsAt: string; readonly endsAt: string },
    seminar: Seminar,
  ): number[] {
    const last = localDay(new Date(phase.endsAt), seminar.timeZone)
    if (rule.kind !== 'weeklyEntries') return [Math.max(1, weekAt(last, seminar))]
    const time = new Date(phase.endsAt)
      .toLocaleTimeString('en-GB', { timeZone: seminar.timeZone })
      .slice(0, 5)
    const weeks: number[] = []
    for (
      let day = last;
      localInstant(day, time, seminar.timeZone) > new Date(phase.startsAt);
      day = dayAfter(day, -7)
    )
      weeks.push(weekAt(day, seminar))
    return weeks.filter(w => w >= 1 && w <= seminar.weeks && !seminar.breaks.some(b => b.week === w))
  }

  /** The same seminar in another term: every activity is there, or one that has no place is named. */
  async function expectCopied(ines: Actor, seminar: Seminar, random: () => number, now: Date) {
    const { firstDay, weeks, breaks } = anyTerm(random)
    const id = v7()
    const copy = { id, code: 'HC 2', title: 'Harbour Cities again', firstDay, weeks, breaks }
    const made = await copySeminar(db, ines, copy, now).catch((error: unknown) => error)
    const there = await db.select().from(t.activities).where(eq(t.activities.seminarId, id))
    if (made instanceof Error) {
      expect(made.message).toMatch(/^“New .+” has no place in the new term\./)
      expect(there).toEqual([])
    } else expect(there).toHaveLength(ACTIVITY_KINDS.length)
    const [same] = await db.select().from(t.seminars).where(eq(t.seminars.id, seminar.id))
    expect(same!.weeks).toBe(seminar.weeks)
  }
})
