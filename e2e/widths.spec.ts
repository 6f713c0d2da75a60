import type { Page } from '@playwright/test'
import type { World } from '#server/testing/world'
import { expect, open, test } from './fixtures'

const WIDTHS = [320, 360, 390, 720, 820, 912, 1280, 1920] as const

/** Views of a seminar by who comes to them. */
async function viewsOf(world: World, who: 'ines' | 'liv'): Promise<string[]> {
  const activities = await world.db.query.activities.findMany()
  const shown = activities.filter(a => a.seminarId === world.seminar.id && a.state === 'published')
  const oneOfEach = [...new Map(shown.map(a => [a.kind, a])).values()].map(a => `activities/${a.id}`)
  const { breakwater } = world
  if (who === 'liv')
    return ['week', 'progress', 'grades', 'plan', 'groups', 'feedback', 'messages', ...oneOfEach]
  const rubric = await world.rubric('Source report')
  const person = await world.enrolment('liv')
  return [
    ...['plan', 'marking', 'voices', 'presence', 'messages', 'messages/rules', 'messages/write'],
    ...['gradebook', 'outcomes', 'people', 'groups', 'library', 'settings', `voices/${person.id}`],
    ...oneOfEach,
    ...['plan', 'desk', 'criteria', 'distribution', 'closing'].map(p => `activities/${breakwater.id}/${p}`),
    `rubrics/${rubric.id}`,
  ]
}

/** Runs in the page: how far it is wider than its window once it is drawn, and what reaches out. */
async function overflow(): Promise<string | null> {
  await new Promise(drawn => requestAnimationFrame(() => requestAnimationFrame(drawn)))
  const over = document.scrollingElement!.scrollWidth - innerWidth
  if (over <= 0) return null
  const isCut = (e: Element): boolean => {
    const parent = e.parentElement
    if (!parent || parent === document.body) return false
    return getComputedStyle(parent).overflowX !== 'visible' || isCut(parent)
  }
  const reaching = [...document.body.querySelectorAll('*')].filter(e => !isCut(e))
  const right = (e: Element) => e.getBoundingClientRect().right
  const widest = reaching.reduce((a, b) => (right(b) > right(a) ? b : a))
  return `${over} px too wide, by ${widest.tagName} ${widest.className}`
}

/** At which widths a page is wider than its window. */
async function overflowOf(page: Page): Promise<string[]> {
  const found: string[] = []
  for (const width of WIDTHS) {
    await page.setViewportSize({ width, height: 800 })
    const over = await page.evaluate(overflow)
    if (over) found.push(`${width}: ${over}`)
  }
  return found
}

for (const who of ['ines', 'liv'] as const)
  test(`no view of ${who === 'ines' ? 'an instructor' : 'a student'} is wider than its window`, async ({
    as,
    world,
  }) => {
    const page = await as(who)
    const wide: string[] = []
    for (const view of await viewsOf(world, who)) {
      await page.setViewportSize({ width: 1280, height: 800 })
      await open(page, `/seminars/${world.seminar.id}/${view}`)
      wide.push(...(await overflowOf(page)).map(how => `${view} at ${how}`))
    }
    expect(wide).toEqual([])
  })
