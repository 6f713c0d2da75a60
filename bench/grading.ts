import type { Browser } from '@playwright/test'
import { eq } from 'drizzle-orm'
import { gradeOf, type GradeEntry, type GradeItem } from '#core/marking/gradebook/gradebook'
import * as t from '#server/database/schema'
import { email, type World } from '#server/testing/world'
import { namesOf } from '#server/services/people/nameView'
import { fillTalk } from './largeSeminar'

const CONTRIBUTIONS = 40 // of each student
const PRESSES = 40
export const STUDENTS = 500
export const ITEMS = 60

/** Runs in the page, as text: presses the key and waits for the frame after the next record stands. */
const NEXT_STUDENT = `new Promise((resolve) => {
  const student = () => document.querySelector('[data-student]')?.dataset.student
  const before = student()
  const start = performance.now()
  document.body.dispatchEvent(new KeyboardEvent('keydown', { key: ']', bubbles: true }))
  const look = () => student() === before ? requestAnimationFrame(look) : requestAnimationFrame(() => resolve(performance.now() - start))
  look()
})`
export const READY =
  'new Promise((done) => { const look = () => document.querySelector("#__nuxt").__vue_app__?.$nuxt?.isHydrating === false ? done() : requestAnimationFrame(look); look() })'

async function pageOf(browser: Browser, world: World, path: string) {
  const context = await browser.newContext({ baseURL: world.address, viewport: { width: 1280, height: 800 } })
  await context.request.post('/api/session', {
    data: { email: email('ines'), password: 'harbour' },
    headers: { origin: world.address },
  })
  const page = await context.newPage()
  const start = performance.now()
  await page.goto(path, { waitUntil: 'commit' })
  return { context, page, start }
}

/** The desk of a talk with 300 people, 40 contributions each: what a key press takes, and fetching one record alone. */
export async function measureDesk(browser: Browser, world: World) {
  const students = await world.db.$count(t.enrolments, eq(t.enrolments.seminarId, world.seminar.id))
  await fillTalk(world.db, world.breakwater.id, students * CONTRIBUTIONS, 1)
  const ines = await world.as('ines')
  const { body: desk } = await ines.json<{ students: Array<{ id: string }> }>(
    'GET',
    `/api/activities/${world.breakwater.id}/desk`,
  )
  const fetched: number[] = []
  for (const s of desk.students.slice(0, 21)) {
    const start = performance.now()
    await (await ines.send('GET', `/api/activities/${world.breakwater.id}/records/${s.id}`)).arrayBuffer()
    fetched.push(performance.now() - start)
  }
  const { context, page } = await pageOf(
    browser,
    world,
    `/seminars/${world.seminar.id}/activities/${world.breakwater.id}/desk?student=${desk.students[30]!.id}`,
  )
  await page.evaluate(READY)
  const pressed: number[] = []
  for (let i = 0; i < PRESSES; i++) {
    // a marker reads before going on: the neighbours have come by then
    await page.waitForLoadState('networkidle')
    pressed.push(await page.evaluate<number>(NEXT_STUDENT))
  }
  await context.close()
  return { fetched, pressed }
}

/** A seminar of its own with 500 students and 60 marked activities. */
export async function fillGradebook(world: World): Promise<string> {
  const { db } = world
  const [ines] = await db
    .select()
    .from(t.persons)
    .where(eq(t.persons.email, email('ines')))
  const [seminar] = await db
    .insert(t.seminars)
    .values({
      code: 'GB 1',
      title: 'Large gradebook',
      college: '',
      timeZone: 'Europe/Amsterdam',
      firstDay: world.seminar.firstDay,
      weeks: 16,
    })
    .returning()
  await db
    .insert(t.enrolments)
    .values({ seminarId: seminar!.id, personId: ines!.id, ...namesOf(ines!), role: 'instructor' })
  const [staff] = await db.select().from(t.enrolments).where(eq(t.enrolments.seminarId, seminar!.id))
  const categories = await db
    .insert(t.categories)
    .values(
      [40, 35, 25].map((weightPercent, position) => ({
        seminarId: seminar!.id,
        title: `Category ${position + 1}`,
        weightPercent,
        position,
        dropLowest: position,
      })),
    )
    .returning()
  const persons = await db
    .insert(t.persons)
    .values(
      Array.from({ length: STUDENTS }, (_, i) => ({
        email: `gb${i}@northmere.example`,
        name: `Given${i} Family${String(i).padStart(3, '0')}`,
        givenName: `Given${i}`,
        familyName: `Family${String(i).padStart(3, '0')}`,
      })),
    )
    .returning()
  const students = await db
    .insert(t.enrolments)
    .values(
      persons.map(p => ({ seminarId: seminar!.id, personId: p.id, ...namesOf(p), role: 'student' as const })),
    )
    .returning()
  const opensAt = new Date(`${world.seminar.firstDay}T08:00:00Z`)
  const activities = await db
    .insert(t.activities)
    .values(
      Array.from({ length: ITEMS }, (_, i) => ({
        seminarId: seminar!.id,
        kind: 'discussion' as const,
        title: `Discussion ${i + 1}`,
        summary: '',
        brief: { type: 'doc' },
        briefHtml: '',
        state: 'published' as const,
        settings: { writeFirst: false, editMinutes: 30 },
        opensAt,
        points: 1000 + 100 * (i % 7),
        lateRule: { kind: 'none' as const },
        position: i,
        categoryId: categories[i % 3]!.id,
      })),
    )
    .returning()
  await db.insert(t.phases).values(
    activities.map(a => ({
      seminarId: seminar!.id,
      activityId: a.id,
      name: 'write' as const,
      startsAt: opensAt,
      endsAt: new Date(opensAt.getTime() + 7 * 86_400_000),
      position: 0,
    })),
  )
  const empty = { type: 'doc', content: [] }
  for (const [k, activity] of activities.entries()) {
    await db.insert(t.marks).values(
      students
        .filter((_, i) => (i + k) % 10 > 0)
        .map((s, i) => {
          const points = (i * 37 + k * 101) % (activity.points! + 1)
          return {
            seminarId: seminar!.id,
            activityId: activity.id,
            enrolmentId: s.id,
            points,
            overridePoints: points,
            state: 'returned' as const,
            letter: empty,
            letterText: '',
            markedBy: staff!.id,
            savedAt: opensAt,
            returnedAt: opensAt,
            toldAt: opensAt,
            returned: {
              html: '',
              points,
              max: activity.points!,
              by: 'x',
              rubric: null,
              criteria: [],
              citations: [],
            },
          }
        }),
    )
  }
  return seminar!.id
}

const SCROLL = `new Promise((resolve) => {
  const box = document.querySelector('[role=grid]')
  const frames = []
  let last = performance.now(), n = 0, blank = 0
  const step = (now) => {
    frames.push(now - last); last = now
    const at = document.elementFromPoint(400, 600)
    if (n > 2 && !at?.closest('[role=row], [role=grid] .heads')) blank++
    if (++n >= 240) return resolve({ frames: frames.slice(2), blank, cells: document.querySelectorAll('[role=gridcell]').length })
    box.scrollTop += 60
    requestAnimationFrame(step)
  }
  requestAnimationFrame(step)
})`

/** The gradebook of 500 students and 60 items: address typed → first cell painted, and scrolling through it. */
export async function measureGradebook(browser: Browser, world: World, seminarId: string) {
  const { context, page, start } = await pageOf(browser, world, `/seminars/${seminarId}/gradebook`)
  await page.locator('[role=gridcell]').first().waitFor()
  const first = performance.now() - start
  await page.evaluate(READY)
  const scrolled = await page.evaluate<{ frames: number[]; blank: number; cells: number }>(SCROLL)
  await context.close()
  return { first, ...scrolled }
}

/** Everyone's figures calculated anew by the core alone. */
export function calculateAll(): () => void {
  const items: GradeItem[] = Array.from({ length: ITEMS }, (_, i) => ({
    id: String(i),
    categoryId: String(i % 3),
    max: 1000 + 100 * (i % 7),
    practice: false,
  }))
  const categories = [0, 1, 2].map(i => ({ id: String(i), weight: 40 - 5 * i, drop: i }))
  const people = Array.from(
    { length: STUDENTS },
    (_, s) =>
      new Map(
        items.map((item, k): [string, GradeEntry] => [
          item.id,
          { points: (s * 37 + k * 101) % (item.max + 1), excused: false, closed: true, any: true },
        ]),
      ),
  )
  return () => {
    for (const entries of people) gradeOf(items, entries, categories, { missingIsZero: true })
  }
}
