import { eq, is, sql } from 'drizzle-orm'
import { PgTable } from 'drizzle-orm/pg-core'
import { strToU8, unzipSync, strFromU8 } from 'fflate'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { rowsOf, type Database } from '#server/database/client'
import { KEPT_TABLES, LEFT_BEHIND } from '#server/services/keeping/keptTables'
import { nameOf } from '#server/services/keeping/keptColumns'
import { changed, linesOf, setRows, sha, unlist, type Parts } from '#server/testing/archiveParts'
import { testDatabase } from '#server/testing/database'
import { notifyOfClosing } from '#server/services/closing/closingSurveys'
import { notifyOfReturn, returnDue } from '#server/services/marking/returnMark'
import { mailDailyNotices } from '#server/services/messaging/notices'
import { notifyOfMessages } from '#server/services/messaging/writeTo'
import { publishDue } from '#server/services/composing/publish'
import type { SeminarShell } from '#shared/people/seminar'
import { Client, SETUP_CODE, TEST_NOW, testServer } from '#server/testing/server'
import { doc, email, testWorld, type World } from '#server/testing/world'

const bytesOf = async (answer: Response) => new Uint8Array(await answer.arrayBuffer())
/** JSON with every list in the order of its parts. */
function inAnyOrder(json: string): string {
  const sorted = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(v => JSON.stringify(sorted(v))).sort()
    if (typeof value === 'object' && value !== null)
      return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, sorted(v)]))
    return value
  }
  return JSON.stringify(sorted(JSON.parse(json)))
}
const upload = (client: Client, bytes: Uint8Array) =>
  fetch(`${client.address}/api/archives`, {
    method: 'POST',
    headers: { cookie: client.cookies, origin: client.address, 'content-type': 'application/zip' },
    body: bytes as BodyInit,
  })
/** Everything in a database as text, table by table. */
async function dump(db: Database): Promise<string> {
  const tables = await rowsOf<{ name: string }>(
    db,
    sql`select table_name as name from information_schema.tables
      where table_schema = 'public' and table_type = 'BASE TABLE' and table_name <> 'access_log'`,
  )
  const parts: string[] = []
  for (const { name } of tables)
    for (const { line } of await rowsOf<{ line: string }>(
      db,
      sql`select to_jsonb(r)::text as line from ${sql.identifier(name)} r`,
    ))
      parts.push(`${name} ${line}`)
  return parts.join('\n')
}

describe('a seminar’s archive', () => {
  let world: World
  let [ines, liv]: Client[] = []
  let parts: Parts = {}
  let bytes = new Uint8Array()
  beforeAll(async () => {
    world = await testWorld()
    ;[ines, liv] = [await world.as('ines'), await world.as('liv')]
    await ines.send('PUT', `/api/activities/${world.dredge.id}/draft`, {
      parentId: null,
      doc: doc('Unspeakably private words of a draft.'),
      baseVersion: null,
    })
    await liv.send('PUT', `/api/activities/${world.terms.id}/draft`, {
      parentId: null,
      doc: doc('Unspeakably private words, too.'),
      baseVersion: null,
    })
    bytes = await bytesOf(await ines.send('GET', `/api/seminars/${world.seminar.id}/archive`))
    parts = unzipSync(bytes)
  })
  afterAll(() => world.close())

  it('has a place for every table, or says why it stays behind', () => {
    const all = Object.values(t)
      .filter(x => is(x, PgTable))
      .map(table => nameOf({ table: table as PgTable }))
      .sort()
    expect([...KEPT_TABLES.map(nameOf), ...LEFT_BEHIND.map(([table]) => nameOf({ table }))].sort()).toEqual(
      all,
    )
  })

  it('checks out by its sums, describes itself, and holds no password, no secret address, no word of a draft, nobody from elsewhere', () => {
    const sums = strFromU8(parts.SHA256SUMS!)
      .trim()
      .split('\n')
      .map(l => [l.slice(66), l.slice(0, 64)] as const)
    expect(sums.map(([name]) => name).sort()).toEqual(
      Object.keys(parts)
        .filter(n => n !== 'SHA256SUMS')
        .sort(),
    )
    for (const [name, sum] of sums) expect(sha(parts[name]!), name).toBe(sum)
    expect(strFromU8(parts['README.txt']!)).toContain('contributions.jsonl')
    const everything = Object.entries(parts)
      .filter(([n]) => !n.startsWith('files/'))
      .map(([, b]) => strFromU8(b))
      .join('\n')
    expect(everything).not.toMatch(/Unspeakably|password_hash|calendar_secret|outsider@|scrypt/)
    const drafts = linesOf(parts, 'contributions').rows.filter(r => r.state === 'draft')
    expect(drafts.length).toBeGreaterThan(1)
    expect(drafts.every(d => d.text === '' && d.html === '' && Number(d.words) >= 0)).toBe(true)
    expect(drafts.some(d => Number(d.words) > 0)).toBe(true)
  })

  it('comes out the same when it is made again', async () => {
    const again = unzipSync(
      await bytesOf(await ines!.send('GET', `/api/seminars/${world.seminar.id}/archive`)),
    )
    for (const name of Object.keys(parts)) expect(sha(again[name]!), name).toBe(sha(parts[name]!))
  })

  it('brought back elsewhere gives byte for byte the same exports and figures', async () => {
    const empty = await testDatabase({ empty: true })
    const server = await testServer(empty.url)
    try {
      const there = new Client(server.address)
      // it is there that she has an account already, under another id
      expect(
        (
          await there.send('POST', '/api/account', {
            givenName: 'Ines',
            familyName: 'Okafor-Lind',
            email: email('ines'),
            password: 'harbour stone',
            code: SETUP_CODE,
          })
        ).status,
      ).toBe(200)
      await there.signIn(email('ines'), 'harbour stone')
      const answer = await upload(there, bytes)
      expect([answer.status, await answer.json()]).toMatchObject([
        200,
        { seminarId: world.seminar.id, title: 'Harbour Cities, 1500–1800' },
      ])
      const s = `/api/seminars/${world.seminar.id}`
      const plan = (
        await ines!.json<{ activities: Array<{ id: string; kind: string; state: string }> }>(
          'GET',
          `${s}/plan`,
        )
      ).body.activities
      const paths = [
        ...['csv', 'oneroster'].map(form => `${s}/results?form=${form}`),
        `${s}/gradebook`,
        `${s}/voices`,
        `${s}/voices/table`,
        ...[world.breakwater, world.dredge].map(a => `${s}/voices?activity=${a.id}`),
        `${s}/presence?by=all`,
        `${s}/presence/log?as=csv&by=all`,
        `${s}/outcomes`,
        ...['criterion', 'student'].map(by => `${s}/outcomes/table?by=${by}`),
        `${s}/plan`,
        `${s}/marking`,
        `${s}/messages`,
        `${s}/library`,
        `${s}/groups`,
        `${s}/texts`,
        `${s}/terms`,
        ...plan
          .filter(a => a.state === 'published')
          .flatMap(a => [
            `/api/activities/${a.id}/export?as=html`,
            `/api/activities/${a.id}/export?as=md`,
            `/api/activities/${a.id}/desk`,
            `/api/activities/${a.id}/closing`,
          ]),
        `/api/activities/${world.calm.id}/reading/annotations`,
        `/api/activities/${world.terms.id}/lexicon/export?as=csv`,
        `/api/activities/${world.breakwater.id}/closing/export`,
        `/api/activities/${world.reports.id}/peers`,
        `/api/activities/${world.breakwater.id}/distribution`,
      ]
      let same = 0
      // a file to take away is the same byte for byte; in what a page is drawn from, a list that has no order may stand in any
      const isFile = (path: string) => /results|table|log\?|export|annotations/.test(path)
      for (const path of paths) {
        const [here, elsewhere] = await Promise.all([ines!, there].map(c => c.send('GET', path)))
        expect([path, elsewhere!.status]).toEqual([path, here!.status])
        // what names the installation itself names each its own
        const texts = await Promise.all(
          [
            [here!, ines!],
            [elsewhere!, there],
          ].map(async ([a, c]) => {
            const text = (await (a as Response).text()).replaceAll((c as Client).address, '')
            return isFile(path) ? text : inAnyOrder(text)
          }),
        )
        const at = [...texts[0]!].findIndex((c, i) => c !== texts[1]![i]) // a short piece where they part says more than both in full
        expect([path, texts[1] === texts[0] ? '' : texts[1]!.slice(Math.max(0, at - 120), at + 120)]).toEqual(
          [path, texts[1] === texts[0] ? '' : texts[0]!.slice(Math.max(0, at - 120), at + 120)],
        )
        expect(texts[1]!.length, path).toBe(texts[0]!.length)
        if (here!.status === 200) same++
      }
      expect(same).toBeGreaterThan(40)
      // files are what they were
      const files = linesOf(parts, 'files').rows
      expect(files.length).toBeGreaterThan(0)
      for (const f of files.slice(0, 3))
        expect(sha(await bytesOf(await there.send('GET', `/api/files/${f.id as string}`)))).toBe(
          sha(parts[`files/${f.id as string}`]!),
        )
      // an archive of what was brought back is the same archive, but for who she is there
      const again = unzipSync(await bytesOf(await there.send('GET', `${s}/archive`)))
      // that it was brought back, and is silent, stands in three tables more
      const own = /persons|enrolments|audit_trail|message_rules|notices|manifest|SHA256SUMS/
      for (const name of Object.keys(parts).filter(n => !own.test(n)))
        expect(sha(again[name]!), name).toBe(sha(parts[name]!))
      expect((await upload(there, bytes)).status).toBe(409) // it is here already
      // everybody else chooses a password anew
      expect(await empty.db.$count(t.persons, sql`password_hash is not null`)).toBe(1)
    } finally {
      await server.stop()
      await empty.drop()
    }
  })

  it('comes back silent and rewritten, and lets in whoever brought it back', async () => {
    const empty = await testDatabase({ empty: true })
    const server = await testServer(empty.url)
    try {
      const there = new Client(server.address)
      const founder = { givenName: 'A', familyName: 'Founder', email: 'founder@northmere.example' }
      await there.send('POST', '/api/account', { ...founder, password: 'harbour stone', code: SETUP_CODE })
      await there.signIn(founder.email, 'harbour stone')
      const overlay = '<p style="position:fixed" class="page" id="x">A</p><section hidden>B</section>'
      const sent = changed(parts, p => {
        setRows(p, 'contributions', rows => {
          rows[0]!.html = overlay
        })
        setRows(p, 'files', rows => {
          for (const row of rows) row.type = 'text/html'
        })
        setRows(p, 'message_rules', rows => {
          for (const row of rows) row.on = true
        })
        // as it was when names belonged to people alone
        setRows(p, 'enrolments', rows => {
          for (const row of rows)
            for (const column of ['name', 'given_name', 'family_name', 'name_is_own'])
              Reflect.deleteProperty(row, column)
        })
        // as it was when a criterion was evidence of one outcome
        const links = linesOf(p, 'criterion_outcomes').rows
        setRows(p, 'rubric_criteria', rows => {
          for (const row of rows)
            row.outcome_id = links.find(l => l.criterion_id === row.id)?.outcome_id ?? null
        })
        unlist(p, 'criterion_outcomes')
      })
      expect((await upload(there, sent)).status).toBe(200)
      const s = `/api/seminars/${world.seminar.id}`
      const shell = (await there.json<SeminarShell>('GET', s)).body
      expect(shell).toMatchObject({ role: 'instructor', silentSince: expect.any(String) })
      const stored = await empty.db.select({ html: t.contributions.html }).from(t.contributions)
      expect(stored.some(c => c.html === '<p>A</p>B')).toBe(true)
      expect(JSON.stringify(stored)).not.toContain('position:fixed')
      const liv = await empty.db.select().from(t.enrolments).where(eq(t.enrolments.name, 'Liv Brandt'))
      expect(liv).toMatchObject([{ givenName: 'Liv', familyName: 'Brandt', nameIsOwn: false }])
      const linked = await empty.db.$count(t.criterionOutcomes)
      expect(linked).toBe(
        await world.db.$count(t.criterionOutcomes, eq(t.criterionOutcomes.seminarId, world.seminar.id)),
      )
      expect(linked).toBeGreaterThan(3)
      const types = await empty.db.select({ type: t.files.type }).from(t.files)
      expect(types.filter(f => f.type === 'text/html')).toEqual([])
      expect(await empty.db.$count(t.messageRules, eq(t.messageRules.on, true))).toBe(0)

      // whatever becomes due, nobody is told
      const later = new Date(Date.parse(TEST_NOW) + 40 * 86_400_000)
      const minute = async () => {
        await publishDue(empty.db, later)
        await returnDue(empty.db, later)
        await notifyOfReturn(empty.db, later)
        await notifyOfClosing(empty.db, later)
        await notifyOfMessages(empty.db, later)
        await mailDailyNotices(empty.db, later)
      }
      const told = async () => [await empty.db.$count(t.mails), await empty.db.$count(t.notices)]
      const before = await told()
      await empty.db.update(t.messageThreads).set({ toldAt: null })
      await minute()
      expect(await told()).toEqual(before)
      expect((await there.send('DELETE', `${s}/silence`)).status).toBe(200)
      expect((await there.json<SeminarShell>('GET', s)).body.silentSince).toBeNull()
      await minute()
      expect((await told())[1]).toBeGreaterThan(before[1]!)
    } finally {
      await server.stop()
      await empty.drop()
    }
  })

  it('is refused whole when a part is not what it was, would run, or reaches into another seminar', async () => {
    const empty = await testDatabase({ empty: true })
    const server = await testServer(empty.url)
    try {
      const there = new Client(server.address)
      await there.send('POST', '/api/account', {
        givenName: 'A',
        familyName: 'Founder',
        email: 'founder@northmere.example',
        password: 'harbour stone',
        code: SETUP_CODE,
      })
      await there.signIn('founder@northmere.example', 'harbour stone')
      const mine = v7()
      await there.send('POST', '/api/seminars', {
        id: mine,
        code: 'M 1',
        title: 'Mine',
        college: '',
        timeZone: 'Europe/Oslo',
        firstDay: '2027-02-01',
        weeks: 12,
        breaks: [],
      })
      const [me] = await empty.db.select().from(t.enrolments).where(eq(t.enrolments.seminarId, mine))
      const before = sha(strToU8(await dump(empty.db)))
      const attacks: Record<string, Uint8Array> = {
        'a changed row': changed(
          parts,
          p => {
            setRows(p, 'marks', rows => {
              rows[0]!.points = 9999
            })
          },
          false,
        ),
        'a part without a sum': changed(
          parts,
          p => {
            p['tables/99_more.jsonl'] = strToU8('{}')
          },
          false,
        ),
        'a missing table': changed(parts, p => {
          Reflect.deleteProperty(p, linesOf(p, 'marks').file)
        }),
        'a script': changed(parts, p => {
          setRows(p, 'contributions', rows => {
            rows[0]!.html = '<p onmouseover="x()">A</p>'
          })
        }),
        'a script in a letter': changed(parts, p => {
          setRows(p, 'marks', rows => {
            ;(rows.find(r => r.returned)!.returned as Record<string, unknown>).html =
              '<a href="java&#115;cript:x()">A</a>'
          })
        }),
        'a row of another seminar': changed(parts, p => {
          setRows(p, 'enrolments', rows => {
            rows[0]!.seminar_id = mine
          })
        }),
        'a place in another seminar': changed(parts, p => {
          setRows(p, 'contributions', rows => {
            rows[0]!.author_id = me!.id
          })
        }),
        'a seminar that is here, named as one shared with': changed(parts, p => {
          setRows(p, 'seminars', rows => {
            rows.push({ ...rows[0]!, id: mine, state: 'archived' })
          })
          setRows(p, 'enrolments', rows => {
            rows.push({ ...rows[0]!, id: v7(), seminar_id: mine })
          })
          p['manifest.json'] = strToU8(
            strFromU8(p['manifest.json']!).replace(
              /("name": "(?:seminars|enrolments)",\s+"file": "[^"]+",\s+"rows": )(\d+)/g,
              (_, head: string, n: string) => `${head}${Number(n) + 1}`,
            ),
          )
        }),
        'an unknown column': changed(parts, p => {
          setRows(p, 'persons', rows => {
            rows[0]!.password_hash = 'x'
          })
        }),
        'no archive': strToU8('Dear Jovrel'),
        'half an archive': bytes.subarray(0, bytes.length >> 1),
      }
      for (const [name, attack] of Object.entries(attacks)) {
        const answer = await upload(there, attack)
        expect([name, answer.status]).toEqual([name, 422])
        expect(((await answer.json()) as { detail: string }).detail, name).toMatch(/Nothing was imported\.$/)
      }
      expect(sha(strToU8(await dump(empty.db)))).toBe(before)
    } finally {
      await server.stop()
      await empty.drop()
    }
  })
})
