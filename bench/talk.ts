// A discussion of 5,000 posts by 300 people: first screen, scrolling, and how soon 200 open readers see a post.
import { readFileSync } from 'node:fs'
import { sql } from 'drizzle-orm'
import type { Browser } from '@playwright/test'
import { v7 } from 'uuid'
import * as t from '#server/database/schema'
import { testServer, Client } from '#server/testing/server'
import { email, type World } from '#server/testing/world'
import { namesOf } from '#server/services/people/nameView'
import { fillTalk } from './largeSeminar'
import { median } from './timed'

const PEOPLE = 300
const POSTS = 5000
const READERS = 200
const ROUNDS = 25
const TURNS = 40
const WARM_UP = 10 // turns that are not counted

export async function fillLargeTalk(world: World): Promise<void> {
  const [{ passwordHash }] = (await world.db
    .select({ passwordHash: t.persons.passwordHash })
    .from(t.persons)
    .limit(1)) as [{ passwordHash: string | null }]
  for (let from = 24; from < PEOPLE; from += 100) {
    const people = await world.db
      .insert(t.persons)
      .values(
        Array.from({ length: Math.min(100, PEOPLE - from) }, (_, i) => ({
          email: `many${from + i}@northmere.example`,
          name: `Given${from + i} Family${from + i}`,
          givenName: `Given${from + i}`,
          familyName: `Family${from + i}`,
          passwordHash,
          confirmedAt: new Date(),
        })),
      )
      .returning()
    await world.db.insert(t.enrolments).values(
      people.map(p => ({
        seminarId: world.seminar.id,
        personId: p.id,
        ...namesOf(p),
        role: 'student' as const,
      })),
    )
  }
  await world.db
    .update(t.activities)
    .set({ settings: { ...world.dredge.settings, writeFirst: false } })
    .where(sql`${t.activities.id} = ${world.dredge.id}`)
  await fillTalk(world.db, world.dredge.id, POSTS)
}

/** The rows of the first screen, as plain SQL would fetch them. */
const bareRows = (world: World) =>
  world.db.execute(sql`
  select c.id, c.parent_id, c.thread_id, c.type, c.state, c.author_id, e.name, e.given_name, e.family_name, e.role,
    c.words, c.detail, c.seq, c.shown_at, c.edited_at, c.on_top, c.version, coalesce(n.count, 0) as nods
  from contributions c join enrolments e on e.id = c.author_id
  left join (
    select n.contribution_id, count(*)::int as count from nods n join contributions x on x.id = n.contribution_id
    where x.activity_id = ${world.dredge.id} group by 1
  ) n on n.contribution_id = c.id
  where c.activity_id = ${world.dredge.id} and c.state in ('shown', 'withdrawn', 'awaitingApproval') order by c.seq, c.id`)

/**
 * How long the data route takes to answer with the first screen, and the bare SQL for the same rows: medians in
 * milliseconds. Asked in turn, so that whatever else the machine does falls on both.
 */
export async function measureFirstScreen(world: World) {
  const liv = await world.as('liv')
  const asked = {
    route: async () =>
      (await liv.send('GET', `/api/activities/${world.dredge.id}/contributions`)).arrayBuffer(),
    bare: () => bareRows(world),
  }
  const took: Record<keyof typeof asked, number[]> = { route: [], bare: [] }
  for (let i = 0; i < TURNS; i++)
    for (const what of ['route', 'bare'] as const) {
      const start = performance.now()
      await asked[what]()
      if (i >= WARM_UP) took[what].push(performance.now() - start)
    }
  return { route: median(took.route), bare: median(took.bare) }
}

/** Runs in the page, as text: scrolls through the talk and says how many frames showed a post without its words. */
const SCROLL = `new Promise((resolve) => {
  const box = document.querySelector('main')
  const frames = []
  let blank = 0, seen = 0, last = performance.now(), n = 0
  const step = () => {
    const now = performance.now()
    frames.push(now - last); last = now
    const view = box.getBoundingClientRect()
    const rows = [...document.querySelectorAll('.row')].filter(r => {
      const b = r.getBoundingClientRect()
      return b.bottom > view.top + 60 && b.top < view.bottom
    })
    seen++
    if (rows.length === 0 || rows.some(r => r.querySelector('.coming'))) blank++
    if (++n >= 300) return resolve({ frames, blank, seen, rows: document.querySelectorAll('.row').length })
    box.scrollTop += 90
    requestAnimationFrame(step)
  }
  requestAnimationFrame(step)
})`

export async function measureScrolling(browser: Browser, world: World) {
  const context = await browser.newContext({ baseURL: world.address, viewport: { width: 1280, height: 800 } })
  await context.request.post('/api/session', {
    data: { email: email('liv'), password: 'harbour' },
    headers: { origin: world.address },
  })
  const page = await context.newPage()
  const start = performance.now()
  await page.goto(`/seminars/${world.seminar.id}/activities/${world.dredge.id}`, { waitUntil: 'commit' })
  await page.locator('article .prose').first().waitFor()
  const firstPost = performance.now() - start
  await page.evaluate(
    'new Promise((done) => { const look = () => document.querySelector("#__nuxt").__vue_app__?.$nuxt?.isHydrating === false ? done() : requestAnimationFrame(look); look() })',
  )
  const scrolled = await page.evaluate<{ frames: number[]; blank: number; seen: number; rows: number }>(
    SCROLL,
  )
  await context.close()
  return { firstPost, ...scrolled }
}

/** Opens readers on two processes and posts; @returns milliseconds from sending a post until each reader had it, and memory. */
export async function measureLive(world: World) {
  const second = await testServer(world.databaseUrl)
  try {
    // one person may have forty streams open in each process
    const people = ['liv', 'paz', 'nico', 'malin', 'laleh']
    const clients = await Promise.all(
      people.flatMap(who => [world.as(who), new Client(second.address).signIn(email(who))]),
    )
    const memory = () =>
      [world.pid!, second.child.pid!]
        .map(pid => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]))
        .reduce((a, b) => a + b, 0) // kB
    await Promise.all(
      clients.map(async c => (await c.send('GET', `/api/activities/${world.dredge.id}`)).text()),
    )
    const before = memory()
    const arrived = new Map<string, number[]>()
    const readers = await Promise.all(
      Array.from({ length: READERS }, async (_, i) => {
        const client = clients[i % clients.length]!
        const answer = await client.send('GET', `/api/activities/${world.dredge.id}/live`)
        const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader()
        void (async () => {
          let said = ''
          for (
            let part = await reader.read().catch(() => ({ done: true, value: '' }));
            !part.done;
            part = await reader.read().catch(() => ({ done: true, value: '' }))
          ) {
            said += part.value
            for (let end = said.indexOf('\n\n'); end >= 0; end = said.indexOf('\n\n')) {
              const id = /"contribution":\{"view":"whole","id":"([^"]+)"/.exec(said.slice(0, end))?.[1]
              if (id) arrived.set(id, [...(arrived.get(id) ?? []), performance.now()])
              said = said.slice(end + 2)
            }
          }
        })()
        return reader
      }),
    )
    const after = memory()
    const took: number[] = []
    const nico = await world.as('nico')
    for (let i = 0; i < ROUNDS; i++) {
      const sent = performance.now()
      const { body } = await nico.json<{ id: string }>(
        'POST',
        `/api/activities/${world.dredge.id}/contributions`,
        {
          key: v7(),
          parentId: (await world.contribution('rasmus', world.dredge.id)).id,
          doc: {
            type: 'doc',
            content: [
              { type: 'paragraph', content: [{ type: 'text', text: `A word in passing, number ${i}.` }] },
            ],
          },
        },
      )
      for (
        const end = performance.now() + 20_000;
        (arrived.get(body.id)?.length ?? 0) < READERS && performance.now() < end;
      )
        await new Promise(resolve => setTimeout(resolve, 2))
      const times = arrived.get(body.id) ?? []
      if (times.length < READERS) throw new Error(`only ${times.length} of ${READERS} readers saw post ${i}`)
      took.push(...times.map(at => at - sent))
    }
    await Promise.all(readers.map(r => r.cancel().catch(() => {})))
    return { took, perReader: (after - before) / READERS }
  } finally {
    await second.stop()
  }
}
