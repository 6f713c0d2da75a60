import type { Page } from '@playwright/test'
import type { ActivityKind } from '#core/kinds/kind'
import { pace } from '#server/testing/pace'
import type { World } from '#server/testing/world'
import { barriersOf } from './barriers'
import { expect, open, test } from './fixtures'

const WIDTHS = [320, 360, 390, 720, 820, 912, 1280, 1920] as const
const HEIGHT = 800
/** What is looked at in one test: short enough to end in half a minute. */
const VIEWS_OF_A_TEST = 8

type Path = (world: World) => string | Promise<string>
const ofSeminar =
  (view: string): Path =>
  w =>
    `/seminars/${w.seminar.id}/${view}`
const ofKind =
  (kind: ActivityKind): Path =>
  async w => {
    const all = await w.db.query.activities.findMany()
    const shown = all.find(a => a.kind === kind && a.seminarId === w.seminar.id && a.state === 'published')!
    return `/seminars/${w.seminar.id}/activities/${shown.id}`
  }
const ofBreakwater =
  (page: string): Path =>
  w =>
    `/seminars/${w.seminar.id}/activities/${w.breakwater.id}/${page}`

const KINDS_SEEN = (
  ['discussion', 'journal', 'blog', 'wiki', 'reading', 'review', 'lexicon', 'exitNote'] as const
).map(ofKind)
const OF_STAFF: readonly Path[] = [
  ...['plan', 'marking', 'voices', 'presence', 'messages', 'messages/rules', 'messages/write'].map(ofSeminar),
  ...['gradebook', 'outcomes', 'people', 'groups', 'library', 'settings'].map(ofSeminar),
  ...['plan', 'desk', 'criteria', 'distribution', 'closing'].map(ofBreakwater),
  async w => `/seminars/${w.seminar.id}/voices/${(await w.enrolment('liv')).id}`,
  async w => `/seminars/${w.seminar.id}/rubrics/${(await w.rubric('Source report')).id}`,
  w => `/seminars/${w.seminar.id}/activities/${w.reports.id}/peers`,
  w => `/seminars/${w.seminar.id}/activities/${w.teammates.id}/peers`,
  w => `/seminars/${w.seminar.id}/activities/${w.city.id}/history`,
  ...KINDS_SEEN,
]
const OF_A_STUDENT: readonly Path[] = [
  ...['week', 'progress', 'grades', 'plan', 'groups', 'feedback', 'messages'].map(ofSeminar),
  async w =>
    `/seminars/${w.seminar.id}/activities/${w.reports.id}/reviews/${(await w.allocation(w.reports.id, { by: 'liv' })).id}`,
  ...KINDS_SEEN,
]
const OF_ANYBODY: readonly Path[] = [() => '/?all=1', () => '/account']
/** Who looks at what. How views fit their window, and their colours, are looked at once for staff and once for students. */
const LOOKS = [
  { who: 'ines', role: 'an instructor', paths: [...OF_STAFF, ...OF_ANYBODY], fits: true },
  { who: 'henrik', role: 'an assistant', paths: OF_STAFF, fits: false },
  { who: 'observer', role: 'an observer', paths: OF_STAFF, fits: false },
  { who: 'liv', role: 'a student', paths: [...OF_A_STUDENT, ...OF_ANYBODY], fits: true },
] as const

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

/** The same of a page that has come to rest: a chart that arrives late, or is drawn anew for another width, takes its moment. */
async function overflowForGood(page: Page): Promise<string | null> {
  const look = () => page.evaluate(overflow)
  const first = await look()
  if (first === null) return null
  const rests = expect.poll(look, { timeout: 10_000 * pace() }).toBeNull()
  return rests.then(
    () => null,
    () => look(),
  )
}

/** At which widths a page is wider than its window. */
async function overflowOf(page: Page): Promise<string[]> {
  const found: string[] = []
  for (const width of WIDTHS) {
    await page.setViewportSize({ width, height: HEIGHT })
    const over = await overflowForGood(page)
    if (over) found.push(`${width}: ${over}`)
  }
  await page.setViewportSize({ width: 1280, height: HEIGHT })
  return found
}

/** Goes to a page as by a link, and waits until it is shown. */
const goTo = (page: Page, path: string) =>
  page.evaluate(
    to =>
      new Promise<void>(shown => {
        const root = document.querySelector<HTMLElement & { __vue_app__: { $nuxt: Navigable } }>('#__nuxt')!
        const { $nuxt } = root.__vue_app__
        $nuxt.hooks.hookOnce('page:finish', () => requestAnimationFrame(() => shown()))
        void $nuxt.$router.push(to)
      }),
    path,
  )
interface Navigable {
  readonly hooks: { readonly hookOnce: (name: 'page:finish', then: () => void) => void }
  readonly $router: { readonly push: (to: string) => Promise<unknown> }
}

for (const { who, role, paths, fits } of LOOKS)
  for (let from = 0; from < paths.length; from += VIEWS_OF_A_TEST)
    test(`no view of ${role} has a barrier${fits ? ' or is wider than its window' : ''} (${from / VIEWS_OF_A_TEST + 1})`, async ({
      as,
      world,
      expectedErrors,
    }) => {
      expectedErrors.push(/40[34]/) // some views are not open to some roles: what these are shown instead is looked at
      const page = await as(who)
      const wrong: string[] = []
      for (const path of paths.slice(from, from + VIEWS_OF_A_TEST)) {
        const view = await path(world)
        if (page.url() === 'about:blank') await open(page, view)
        else await goTo(page, view)
        const name = view.replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, '…')
        if (fits) wrong.push(...(await overflowOf(page)).map(how => `${name} at ${how}`))
        wrong.push(...(await barriersOf(page, { colours: fits })).map(how => `${name}, ${how}`))
      }
      expect(wrong).toEqual([])
    })

test('no view of somebody who has not signed in has a barrier or is wider than its window', async ({
  page,
  world,
}) => {
  const wrong: string[] = []
  for (const view of ['/sign-in', '/join', '/password', '/password/none', '/nowhere'].map(
    v => world.address + v,
  )) {
    await open(page, view)
    wrong.push(...(await overflowOf(page)).map(how => `${view} at ${how}`))
    wrong.push(...(await barriersOf(page)).map(how => `${view}, ${how}`))
  }
  expect(wrong).toEqual([])
})
