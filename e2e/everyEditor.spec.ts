import type { Locator, Page } from '@playwright/test'
import { eq, sql } from 'drizzle-orm'
import type { OwnReviews } from '#shared/kinds/review/review'
import { rowsOf } from '#server/database/client'
import * as t from '#server/database/schema'
import type { World } from '#server/testing/world'
import { expect, open, signIn, test } from './fixtures'

/**
 * Where words are typed, and what happens to each while they are: the tab is killed in the middle of a word, the answer
 * of a request is lost with the tab, the line is cut, the session ends. No word is lost, and none is there twice.
 */
interface Editor {
  readonly name: string
  readonly who: string
  readonly path: (world: World) => Promise<string>
  /** The field, made ready to be typed in. */
  readonly field: (page: Page) => Promise<Locator>
  /** Whether what is typed goes to the server at every pause. */
  readonly isSavedAsTyped?: true
  /** Sends what was typed, where it does not go by itself. */
  readonly send?: (page: Page) => Promise<void>
  /** Every text of this kind that the server has. */
  readonly stored: (world: World) => Promise<string[]>
}

const activityPath = (world: World, activity: { id: string }, rest = '') =>
  `/seminars/${world.seminar.id}/activities/${activity.id}${rest}`
const texts = async (world: World, query: ReturnType<typeof sql>) =>
  (await rowsOf<{ text: string }>(world.db, query)).map(r => r.text)
const shownTexts = (world: World) => texts(world, sql`select text from contributions where state = 'shown'`)
const byKey = (page: Page) => page.keyboard.press('Control+Enter')
const pageOfWiki = async (world: World, title: string) => {
  const page = await world.page(world.city.id, 'Port Amara', title)
  return activityPath(world, world.city, `?group=${page.groupId}&page=${page.id}`)
}
/** The field, after whatever button leads to it, where it is not open already. */
async function behind(page: Page, button: Locator, field: Locator): Promise<Locator> {
  await button.or(field).first().waitFor()
  if (!(await field.isVisible())) await button.click()
  return field
}

const EDITORS: readonly Editor[] = [
  {
    name: 'a post',
    isSavedAsTyped: true,
    who: 'paz',
    path: async world => activityPath(world, world.dredge),
    field: async page => page.getByRole('textbox', { name: 'Your opening post' }),
    send: byKey,
    stored: shownTexts,
  },
  {
    name: 'a post that is changed',
    who: 'liv',
    path: async world => {
      const [stair] = await world.db
        .select()
        .from(t.activities)
        .where(eq(t.activities.title, 'The stair at noon'))
      return activityPath(world, stair!)
    },
    field: page =>
      behind(
        page,
        page.getByRole('button', { name: 'change', exact: true }),
        page.getByRole('textbox', { name: 'Your text' }),
      ),
    send: byKey,
    stored: shownTexts,
  },
  {
    name: 'a wiki page',
    isSavedAsTyped: true,
    who: 'malin',
    path: world => pageOfWiki(world, 'The two moles'),
    field: page =>
      behind(
        page,
        page.getByRole('button', { name: /Go on with your draft|Write on it/ }),
        page.getByRole('textbox', { name: 'The page', exact: true }),
      ),
    send: page => page.getByRole('button', { name: /^Save version/ }).click(),
    stored: world =>
      texts(
        world,
        sql`select c.text from page_versions v join contributions c on c.id = v.id 
          where v.number = (select max(number) from page_versions x where x.page_id = v.page_id)`,
      ),
  },
  {
    name: 'a comment in a wiki',
    who: 'nico',
    path: world => pageOfWiki(world, 'What to pay'),
    field: page =>
      behind(
        page,
        page.getByRole('button', { name: 'comment on the page' }),
        page.getByRole('textbox', { name: 'Your comment' }),
      ),
    send: byKey,
    stored: shownTexts,
  },
  {
    name: 'a review',
    isSavedAsTyped: true,
    who: 'petra',
    path: async world => {
      const petra = await world.as('petra')
      const own = await petra.json<OwnReviews>('GET', `/api/activities/${world.reports.id}/reviews`)
      return activityPath(world, world.reports, `/reviews/${own.body.given.find(g => g.state !== 'in')!.id}`)
    },
    field: async page => page.getByLabel('Remark on Structure'),
    stored: world => texts(world, sql`select detail::text as text from contributions where type = 'review'`),
  },
  {
    name: 'a letter about a mark',
    isSavedAsTyped: true,
    who: 'ines',
    path: async world =>
      activityPath(world, world.breakwater, `/desk?student=${(await world.enrolment('malin')).id}`),
    field: async page => page.getByRole('textbox', { name: 'Letter to Malin' }),
    stored: world => texts(world, sql`select letter_text as text from marks`),
  },
  {
    name: 'an answer to a letter',
    who: 'liv',
    path: async world => activityPath(world, world.breakwater, '/letter'),
    field: page =>
      behind(
        page,
        page.getByRole('button', { name: /^(Write back|Write again|Go on writing)/ }),
        page.getByRole('textbox', { name: /^Your answer to/ }),
      ),
    send: byKey,
    stored: world => texts(world, sql`select html as text from letter_replies`),
  },
  {
    name: 'an answer to a message',
    who: 'anselm',
    path: async world => {
      const anselm = await world.enrolment('anselm')
      const [thread] = await world.db
        .select()
        .from(t.messageThreads)
        .where(eq(t.messageThreads.studentId, anselm.id))
      return `/seminars/${world.seminar.id}/messages?thread=${thread!.id}`
    },
    field: async page => page.getByRole('textbox', { name: 'Your answer' }),
    send: byKey,
    stored: world => texts(world, sql`select text from messages`),
  },
  {
    name: 'a message that begins a talk',
    who: 'ines',
    path: async world =>
      `/seminars/${world.seminar.id}/messages/write?to=${(await world.enrolment('paz')).id}`,
    field: async page => page.getByRole('textbox', { name: 'Your words' }),
    send: byKey,
    stored: world => texts(world, sql`select text from messages`),
  },
  {
    name: 'an activity that is planned',
    isSavedAsTyped: true,
    who: 'ines',
    path: async world => {
      const [planned] = await world.db.select().from(t.activities).where(eq(t.activities.state, 'draft'))
      return activityPath(world, planned!, '/plan')
    },
    field: async page => page.getByRole('textbox', { name: 'Title', exact: true }),
    stored: world => texts(world, sql`select title as text from activities`),
  },
  {
    name: 'a rubric',
    isSavedAsTyped: true,
    who: 'ines',
    path: async world => {
      const [free] = await rowsOf<{ id: string }>(
        world.db,
        sql`select r.id from rubrics r where r.archived_at is null and not exists (
            select 1 from rubric_versions v join marks m on m.rubric_version_id = v.id where v.rubric_id = r.id)`,
      )
      return `/seminars/${world.seminar.id}/rubrics/${free!.id}`
    },
    field: async page => page.getByRole('textbox', { name: 'What the rubric is called' }),
    stored: world => texts(world, sql`select title as text from rubrics`),
  },
  {
    name: 'the settings of a seminar',
    isSavedAsTyped: true,
    who: 'ines',
    path: async world => `/seminars/${world.seminar.id}/settings`,
    field: async page => page.getByRole('textbox', { name: 'Title', exact: true }),
    stored: world => texts(world, sql`select title as text from seminars`),
  },
  {
    name: 'answers to closing questions',
    who: 'liv',
    path: async world => {
      const open = { opensAt: new Date('2026-10-13T08:00:00Z'), closesAt: new Date('2026-10-20T08:00:00Z') }
      const question = { id: crypto.randomUUID(), kind: 'open', text: 'What would you keep?' } as const
      await world.db
        .insert(t.closingSurveys)
        .values({
          ...open,
          activityId: world.dredge.id,
          seminarId: world.seminar.id,
          named: true,
          questions: [question],
        })
        .onConflictDoNothing()
      return activityPath(world, world.dredge, '/closing')
    },
    field: async page => page.getByLabel('What would you keep?'),
    send: page => page.getByRole('button', { name: /^Hand in/ }).click(),
    stored: world => texts(world, sql`select answers::text as text from closing_answers`),
  },
]

const WORDS = ['halyard-one', 'capstan-two', 'bollard-three', 'spritsail-four'] as const
const said = async (field: Locator) =>
  field.evaluate(e =>
    e instanceof HTMLTextAreaElement || e instanceof HTMLInputElement ? e.value : (e.textContent ?? ''),
  )
const timesIn = (text: string, word: string) => text.split(word).length - 1

for (const editor of EDITORS)
  test(`${editor.name}: no word is lost and none is there twice, whatever happens while it is written`, async ({
    as,
    world,
    expectedErrors,
  }) => {
    expectedErrors.push(/Failed to load|ERR_|401|409/)
    const path = await editor.path(world)
    const first = await as(editor.who)
    const context = first.context()
    /** A new tab, as one opens it after the last is gone. */
    async function reopen(page?: Page): Promise<readonly [Page, Locator]> {
      const tab = page ?? (await context.newPage())
      await open(tab, path)
      return [tab, await editor.field(tab)]
    }
    async function type(page: Page, field: Locator, word: string) {
      await field.click()
      await page.keyboard.press('Control+End')
      await page.keyboard.insertText(` ${word}`)
    }
    async function expectWords(field: Locator, words: readonly string[]) {
      for (const word of words)
        await expect.poll(async () => timesIn(await said(field), word), { message: word }).toBe(1)
    }

    // the tab is gone in the middle of a word
    let [page, field] = await reopen(first)
    await type(page, field, WORDS[0])
    await page.close()
    ;[page, field] = await reopen()
    await expectWords(field, WORDS.slice(0, 1))

    // a request reaches the server, and its answer is lost with the tab
    let isArrived = false
    await page.route('**/api/**', async route => {
      if (route.request().method() === 'GET') return route.fallback()
      const body = route.request().postData() ?? ''
      await route.fetch().catch(() => null)
      if (body.includes(WORDS[1])) isArrived = true
      await route.abort().catch(() => {})
    })
    await type(page, field, WORDS[1])
    if (editor.isSavedAsTyped) await expect.poll(() => isArrived).toBe(true)
    await page.close()
    ;[page, field] = await reopen()
    await expectWords(field, WORDS.slice(0, 2))

    // the line is cut, and the tab is gone before it is back
    await context.setOffline(true)
    await type(page, field, WORDS[2])
    await page.close()
    await context.setOffline(false)
    ;[page, field] = await reopen()
    await expectWords(field, WORDS.slice(0, 3))

    // the session has ended meanwhile
    await world.db
      .delete(t.sessions)
      .where(eq(t.sessions.personId, (await world.enrolment(editor.who)).personId))
    await type(page, field, WORDS[3])
    await page.close()
    await signIn(context, world.address, editor.who)
    ;[page, field] = await reopen()
    await expectWords(field, WORDS)

    // it is sent, the answer is lost, the tab is gone, and it is sent again
    if (editor.send) {
      let isPosted = false
      await page.route('**/api/**', async route => {
        const request = route.request()
        if (request.method() === 'GET' || request.url().endsWith('/draft')) return route.fallback()
        await route.fetch().catch(() => null)
        if ((request.postData() ?? '').includes(WORDS[3])) isPosted = true
        await route.abort().catch(() => {})
      })
      await field.focus()
      await editor.send(page)
      await expect.poll(() => isPosted).toBe(true)
      await page.close()
      page = await context.newPage()
      await open(page, path)
    }
    const times = async () => {
      const all = await editor.stored(world)
      return WORDS.map(word => all.reduce((sum, text) => sum + timesIn(text, word), 0))
    }
    await expect.poll(times).toEqual([1, 1, 1, 1])
  })
