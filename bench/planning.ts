import { makeGroups } from '#core/people/makeGroups'
import type { Browser } from '@playwright/test'
import { v7 } from 'uuid'
import * as t from '#server/database/schema'
import type { World } from '#server/testing/world'
import { namesOf } from '#server/services/people/nameView'

/** 500 people of four sections with twelve rules, six to keep together and six to keep apart. */
export function groupPeople(): {
  readonly people: number
  readonly rules: number
  readonly once: () => void
} {
  const people = Array.from({ length: 500 }, (_, i) => ({ id: `p${i}`, sectionId: `s${i % 4}` }))
  const set = (n: number, step: number) =>
    Array.from({ length: 6 }, (_, i) => Array.from({ length: n }, (_, k) => `p${(i * 37 + k * step) % 500}`))
  const rules = {
    by: 'size' as const,
    count: 5,
    together: set(3, 101),
    apart: set(5, 17),
    mixSections: true,
    seed: 1,
  }
  return {
    people: 500,
    rules: 12,
    once: () => {
      if (makeGroups(people, rules).kind !== 'made')
        throw new Error("the bench's own rules contradict each other")
    },
  }
}

/** Sixteen weeks with sixty activities in a seminar of their own. */
export async function fillPlan(world: World, activities: number, weeks: number): Promise<string> {
  const { db } = world
  const [seminar] = await db
    .insert(t.seminars)
    .values({
      code: 'BENCH',
      title: 'Sixty activities',
      college: '',
      timeZone: 'Europe/Amsterdam',
      firstDay: '2026-09-07',
      weeks,
    })
    .returning()
  const ines = await world.enrolment('ines')
  await db
    .insert(t.enrolments)
    .values({ seminarId: seminar!.id, personId: ines.personId, ...namesOf(ines), role: 'instructor' })
  const at = (day: number) => new Date(Date.UTC(2026, 8, 7 + day, 21, 59))
  for (let i = 0; i < activities; i++) {
    const from = Math.floor((i * (weeks - 3) * 7) / activities)
    const id = v7()
    await db.insert(t.activities).values({
      id,
      seminarId: seminar!.id,
      kind: (['discussion', 'journal', 'blog', 'wiki', 'reading', 'lexicon'] as const)[i % 6]!,
      title: `Activity ${i + 1}`,
      summary: '',
      brief: { type: 'doc' },
      briefHtml: '',
      state: 'draft',
      settings: { writeFirst: false, editMinutes: 30 },
      opensAt: at(from),
      lateRule: { kind: 'none' },
      position: i,
    })
    await db.insert(t.phases).values(
      (['write', 'mark'] as const).map((name, k) => ({
        seminarId: seminar!.id,
        activityId: id,
        name,
        startsAt: at(from + 7 * k),
        endsAt: at(from + 7 * (k + 1)),
        position: k,
      })),
    )
    await db.insert(t.expectations).values({
      seminarId: seminar!.id,
      activityId: id,
      rule: { kind: 'entries', need: 1, minWords: 200, due: 'write' },
      position: 0,
    })
  }
  return seminar!.id
}

/** Runs in the page, as text: drags a bar a step every frame and gives the milliseconds between frames. */
const DRAG = `new Promise((resolve, reject) => {
  const bar = document.querySelectorAll('.bar.movable')[2]
  const box = bar.getBoundingClientRect()
  const x = box.left + box.width / 2, y = box.top + box.height / 2
  const fire = (type, dx) =>
    bar.dispatchEvent(
      new PointerEvent(type, { bubbles: true, pointerId: 1, button: 0, clientX: x + dx, clientY: y }),
    )
  bar.setPointerCapture = () => {}
  fire('pointerdown', 0)
  const took = [], places = new Set()
  let n = 0, last = performance.now()
  const step = (now) => {
    took.push(now - last)
    last = now
    places.add(bar.style.left)
    if (++n > 90) {
      fire('pointercancel', 0)
      if (places.size < 10) reject(new Error('the bar did not follow'))
      else resolve(took.slice(5))
      return
    }
    fire('pointermove', Math.sin(n / 14) * 240)
    requestAnimationFrame(step)
  }
  requestAnimationFrame(step)
})`
/** The same page doing nothing: what the machine's frames are worth without a drag. */
const REST = `new Promise((resolve) => {
  const took = []
  let n = 0, last = performance.now()
  const step = (now) => { took.push(now - last); last = now; if (++n > 90) resolve(took.slice(5)); else requestAnimationFrame(step) }
  requestAnimationFrame(step)
})`
/** Runs in the page: types into the title and waits until the preview shows it. */
const TYPE = `new Promise(async (resolve) => {
  const input = document.querySelector('input.title'), shown = document.querySelector('.preview h3')
  const took = []
  for (let i = 0; i < 30; i++) {
    const text = 'Typed ' + i
    const start = performance.now()
    input.value = text
    input.dispatchEvent(new Event('input', { bubbles: true }))
    while (shown.textContent !== text) await new Promise(r => setTimeout(r))
    took.push(performance.now() - start)
    await new Promise(r => requestAnimationFrame(r))
  }
  resolve(took)
})`

/** Frames of dragging on a plan of sixty activities, frames at rest, and how the composer's preview follows typing; milliseconds. */
export async function measurePlanning(browser: Browser, world: World) {
  const seminarId = await fillPlan(world, 60, 16)
  const context = await browser.newContext({
    baseURL: world.address,
    viewport: { width: 1280, height: 1600 },
  })
  await context.request.post('/api/session', {
    data: { email: 'ines@northmere.example', password: 'harbour' },
    headers: { origin: world.address },
  })
  const page = await context.newPage()
  await page.goto(`/seminars/${seminarId}/plan`)
  await page.waitForLoadState('networkidle')
  const rest = await page.evaluate<number[]>(REST)
  const drag = await page.evaluate<number[]>(DRAG)
  await page.goto(`/seminars/${world.seminar.id}/activities/${world.essays.id}/plan`)
  await page.waitForLoadState('networkidle')
  const typing = await page.evaluate<number[]>(TYPE)
  await context.close()
  return { rest, drag, typing }
}
