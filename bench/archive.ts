import { readFileSync } from 'node:fs'
import type { Browser } from '@playwright/test'
import { sql } from 'drizzle-orm'
import { testDatabase } from '#server/testing/database'
import { Client, SETUP_CODE, testServer } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'

/** Fills the demo seminar with made-up people and contributions, written by the database itself. */
async function fill({ db, seminar, dredge }: World, people: number, contributions: number): Promise<void> {
  await db.execute(
    sql`insert into persons (id, email, name, given_name, family_name)
      select gen_random_uuid(), 'p' || n || '@bench.example', 'Person ' || n, 'Person', 'No ' || n from generate_series(1, ${people}) n`,
  )
  await db.execute(
    sql`insert into enrolments (id, seminar_id, person_id, role, name, given_name, family_name)
      select gen_random_uuid(), ${seminar.id}, id, 'student', name, given_name, family_name from persons
        where email like '%@bench.example'`,
  )
  await db.execute(sql`
    with who as (select id, row_number() over () - 1 as n from enrolments
      where seminar_id = ${seminar.id} and role = 'student'), all_ as (select count(*) as n from who),
    said as (select n, gen_random_uuid() as id from generate_series(1, ${contributions}) n),
    words as (select repeat('silt stone tide toll quay barge council guild harbour ledger ', 8) as text)
    insert into contributions (id, seminar_id, activity_id, author_id, type, slot, state, doc, html, text, words, made_at, saved_at, shown_at, seq)
    select said.id, ${seminar.id}, ${dredge.id}, who.id, 'post', said.id::text, 'shown', jsonb_build_object('type', 'doc', 'content', jsonb_build_array(jsonb_build_object('type', 'paragraph', 'content', jsonb_build_array(jsonb_build_object('type', 'text', 'text', words.text))))), '<p>' || words.text || '</p>', words.text, 80, t.at, t.at, t.at, 100000 + said.n
    from said cross join words cross join all_ join who on who.n = said.n % all_.n
      cross join lateral (select '2026-10-12T08:00:00Z'::timestamptz + said.n * interval '1 second' as at) t`)
}

const resident = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024

/** An archive of so many people and contributions, as it goes out: its time, its size, and how much the server grew meanwhile. */
export async function measureArchive(people: number, contributions: number, restore: boolean) {
  const world = await testWorld()
  try {
    await fill(world, people, contributions)
    const ines = await world.as('ines')
    const before = resident(world.pid!)
    const start = performance.now()
    const answer = await ines.send('GET', `/api/seminars/${world.seminar.id}/archive`)
    let [bytes, most] = [0, before]
    const parts: Uint8Array[] = []
    // the types of fetch leave out that a body can be iterated over
    for await (const part of answer.body as unknown as AsyncIterable<Uint8Array>) {
      bytes += part.length
      most = Math.max(most, resident(world.pid!))
      if (restore) parts.push(part)
    }
    const out = {
      took: performance.now() - start,
      megabytes: bytes / 1e6,
      grew: most - before,
      back: null as number | null,
    }
    if (restore) {
      const empty = await testDatabase({ empty: true })
      const server = await testServer(empty.url)
      const there = new Client(server.address)
      await there.send('POST', '/api/account', {
        givenName: 'A',
        familyName: 'Founder',
        email: 'founder@bench.example',
        password: 'harbour stone',
        code: SETUP_CODE,
      })
      await there.signIn('founder@bench.example', 'harbour stone')
      const begun = performance.now()
      const back = await fetch(`${there.address}/api/archives`, {
        method: 'POST',
        headers: { cookie: there.cookies, origin: there.address },
        body: Buffer.concat(parts),
      })
      if (back.status !== 200) throw new Error(await back.text())
      out.back = performance.now() - begun
      await server.stop()
      await empty.drop()
    }
    return out
  } finally {
    await world.close()
  }
}

/** Voices of so many people as a page: when its sentence can be read, and when its charts are in. */
export async function measureVoicesPage(browser: Browser, people: number, contributions: number) {
  const world = await testWorld()
  try {
    await fill(world, people, contributions)
    const context = await browser.newContext({
      baseURL: world.address,
      viewport: { width: 1280, height: 800 },
    })
    await context.request.post('/api/session', {
      data: { email: 'ines@northmere.example', password: 'harbour' },
      headers: { origin: world.address },
    })
    const page = await context.newPage()
    // the first look counts what nobody has counted before
    await context.request.get(`/api/seminars/${world.seminar.id}/voices`, { timeout: 600_000 })
    const start = performance.now()
    await page.goto(`/seminars/${world.seminar.id}/voices`, { timeout: 600_000, waitUntil: 'commit' })
    await page.getByText(/have spoken/).waitFor({ timeout: 600_000 })
    const read = performance.now() - start
    await page.locator('.apexcharts-bar-area').first().waitFor({ timeout: 600_000 })
    const charts = performance.now() - start
    await context.close()
    return { read, charts }
  } finally {
    await world.close()
  }
}
