import { sql } from 'drizzle-orm'
import { dayAfter, localDay, localInstant } from '#core/planning/week'
import { hashPassword, OPEN_COST } from '#server/access/password'
import { rowsOf, type Database, type Db } from '#server/database/client'
import * as t from '#server/database/schema'
import { numberAll } from '#server/services/contributing/numbering'
import { demoClosing } from './closing'
import { demoMessages } from './messages'
import { DemoReviews, handedIn } from './reviews'
import { DemoReturns } from './returns'
import { DemoReadings } from './readings'
import { DemoWikis } from './wikis'
import { marks } from './marks'
import { DEMO_PASSWORD } from './people'
import { breakwater } from './texts/breakwater'
import { arrive } from './texts/arrive'
import { dredge } from './texts/dredge'
import { exitNote } from './texts/exitNote'
import { notebook } from './texts/notebook'
import { quay } from './texts/quay'
import { Demo, TIME_ZONE, type Moment } from './demo'
import { seedActivities } from './seedActivities'
import { seedContributions, seedTerms, seedVisits } from './seedContributions'
import { seedMark } from './seedMarks'
import { seedGroups, seedPeople } from './seedPeople'
import { seedLibrary, seedRubric } from './seedRubrics'

const WEEK_NOW = 6

/** Monday of the term's first week, placed so that `now` lies in week 6. */
export function firstDayFor(now: Date): string {
  const today = localDay(now, TIME_ZONE)
  const weekday = (new Date(`${today}T12:00:00Z`).getUTCDay() + 6) % 7
  return dayAfter(today, -weekday - 7 * (WEEK_NOW - 1))
}

/** Fills an empty database with the Harbour Cities seminar; leaves one that has it alone. */
export async function seedDemo(db: Database, now: Date): Promise<void> {
  const [there] = await db.select({ id: t.seminars.id }).from(t.seminars).limit(1)
  if (there) return
  const passwordHash = await hashPassword(DEMO_PASSWORD, OPEN_COST)
  await db.transaction(tx => seedAll(new Demo(tx, firstDayFor(now), passwordHash)))
}

/** When the demo's clock starts: Wednesday of week 6, 10:20, or a minute after the last thing anyone did. */
export async function demoClock(db: Db): Promise<Date> {
  const [seminar] = await db.select().from(t.seminars).limit(1)
  const start = localInstant(dayAfter(seminar!.firstDay, 7 * (WEEK_NOW - 1) + 2), '10:20', seminar!.timeZone)
  const [last] = await rowsOf<{ at: Date | string | null }>(
    db,
    sql`select greatest((select max(saved_at) from contributions), (select max(saved_at) from marks),
      (select max(seen_until) from visits)) as at`,
  )
  return new Date(Math.max(start.getTime(), last?.at ? new Date(last.at).getTime() + 60_000 : 0))
}

/** In the order in which one part needs another. */
async function seedAll(demo: Demo): Promise<void> {
  await seedPeople(demo)
  await seedRubric(demo)
  await seedLibrary(demo)
  await seedGroups(demo)
  await seedActivities(demo)
  await seedContributions(demo, 'breakwater', breakwater)
  await seedContributions(demo, 'dredge', dredge)
  await seedContributions(demo, 'arrive', arrive)
  await seedContributions(demo, 'notebook', notebook)
  await seedContributions(demo, 'quay', quay)
  await seedContributions(demo, 'stair', exitNote)
  await seedContributions(demo, 'reports', handedIn)
  const db = demo.db as Database // the parts below take whole databases, and use what a transaction has, too
  const { seminarId, enrolment, activity, written } = demo
  const at = (moment: Moment) => demo.at(moment)
  const reviews = new DemoReviews(db, seminarId, enrolment, activity, written, at)
  await reviews.written()
  await seedTerms(demo)
  await numberAll(demo.db)
  await new DemoWikis(db, seminarId, enrolment, activity, at).all()
  await new DemoReadings(db, seminarId, enrolment, activity, at).all()
  await seedVisits(demo)
  for (const mark of marks) await seedMark(demo, mark)
  await reviews.moderated()
  await new DemoReturns(db, seminarId, enrolment, activity, at).all()
  for (const part of [demoClosing, demoMessages]) await part(db, seminarId, enrolment, activity, at)
}
