import { and, eq } from 'drizzle-orm'
import { strFromU8, unzipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import type { Overlaps, PageView, WikiImported, WikiShares, WikiView } from '#shared/kinds/wiki/wiki'
import type { RecordView } from '#shared/marking/desk'
import * as t from '#server/database/schema'
import type { Client } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'

const PIXEL =
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='
type Refused = {
  readonly code: string
  readonly detail: string
  readonly fields?: Record<string, string>
  readonly theirs?: Overlaps
}

describe('a wiki that travels and is marked', () => {
  let world: World
  const clients = new Map<string, Promise<Client>>()
  const as = (key: string): Promise<Client> => {
    const client = clients.get(key) ?? world.as(key)
    clients.set(key, client)
    return client
  }
  beforeAll(async () => {
    world = await testWorld()
  })
  afterAll(() => world.close())

  const GROUP = 'Port Amara' // malin, laleh, nico, mireille
  const at = async (title: string, group = GROUP) => world.page(world.city.id, group, title)
  const read = async (who: string, id: string) =>
    (await (await as(who)).json<PageView>('GET', `/api/pages/${id}`)).body
  const wiki = async (who: string, group?: string) =>
    (
      await (
        await as(who)
      ).json<WikiView>('GET', `/api/activities/${world.city.id}/wiki${group ? `?group=${group}` : ''}`)
    ).body

  it('goes out as Markdown and comes in again as it was, pictures and notes included, and as a site that needs nothing of ours', async () => {
    const groupId = (await at('Port Amara')).groupId!
    const malin = await as('malin')
    const out = async (form: string) =>
      unzipSync(
        new Uint8Array(
          await (
            await malin.send(
              'GET',
              `/api/activities/${world.city.id}/wiki/export?as=${form}&group=${groupId}`,
            )
          ).arrayBuffer(),
        ),
      )
    const site = await out('site')
    expect(Object.keys(site)).toEqual(
      expect.arrayContaining(['index.html', 'the-two-moles.html', 'what-to-pay.html']),
    )
    const html = strFromU8(site['port-amara.html']!)
    expect(html).toContain('<a href="the-two-moles.html">')
    for (const [name, bytes] of Object.entries(site))
      if (name.endsWith('.html')) expect(strFromU8(bytes), name).not.toMatch(/\/api\/|<script|\?to=/)
    const markdown = await out('markdown')
    const files = Object.entries(markdown)
      .filter(([name]) => name.endsWith('.md'))
      .map(([name, bytes]) => ({ name, text: strFromU8(bytes) }))
    // taken in where it came from, it says what is there already
    const same = (
      await malin.json<{ pages: Array<{ title: string; isNew: boolean }> }>(
        'POST',
        `/api/activities/${world.city.id}/wiki/import`,
        { key: v7(), groupId, files: files.filter(f => !f.text.includes('pictures/')) },
      )
    ).body
    const after = await wiki('malin')
    expect(same.pages.every(p => after.pages.some(x => x.title === p.title))).toBe(true)
    const numbers = async () =>
      Object.fromEntries((await wiki('malin')).pages.map(p => [p.title, p.versions]))
    expect(await numbers()).toEqual(Object.fromEntries(after.pages.map(p => [p.title, p.versions])))
    for (const title of ['What to pay', 'Pilots and their oath', 'Port Amara'])
      expect(
        (await read('malin', (await at(title)).id)).versions.some(v => v.summary.startsWith('taken in')),
        title,
      ).toBe(false)
    // and elsewhere the same documents
    const other = (await world.page(world.city.id, 'Qasr el-Mina', 'The chain')).groupId!
    const liv = await as('liv')
    const key = v7()
    const taken = files.filter(f =>
      ['What to pay.md', 'Pilots and their oath.md', 'Port Amara.md'].includes(f.name),
    )
    for (let twice = 0; twice < 2; twice++)
      expect(
        (
          await liv.send('POST', `/api/activities/${world.city.id}/wiki/import`, {
            key,
            groupId: other,
            files: taken,
          })
        ).status,
      ).toBe(200)
    for (const { name } of taken) {
      const title = name.replace('.md', '')
      const [from, to] = [
        await read('malin', (await at(title)).id),
        await read('liv', (await at(title, 'Qasr el-Mina')).id),
      ]
      expect(to.doc, title).toEqual(from.doc)
      expect(to.number).toBe(1)
    }
    // a picture comes along, and what a page has no place for is said
    const picture = { id: v7(), name: '1-moles.png', base64: PIXEL, transcript: null }
    expect((await liv.send('POST', `/api/activities/${world.city.id}/files`, picture)).status).toBe(200)
    const pictured = await liv.json<WikiImported>('POST', `/api/activities/${world.city.id}/wiki/import`, {
      key: v7(),
      groupId: other,
      files: [
        {
          name: 'site/Pictured.md',
          text: '# Pictured\n\n![two moles](../pictures/1-moles.png) ![gone](gone.png)\n\n- [x] done\n\n```\na\n  b\n```',
        },
      ],
      pictures: [{ path: 'pictures/1-moles.png', fileId: picture.id }],
    })
    expect(pictured.body.left).toEqual([
      '“site/Pictured.md”: One picture is not among the files; what it shows is kept in words.',
    ])
    const shown = await read('liv', pictured.body.pages[0]!.id)
    expect(shown.html).toContain(`<img src="/api/files/${picture.id}" alt="two moles"`)
    expect(shown.html).toContain('☑ done')
    expect(shown.html).toContain('<code>  b</code>')
    const others = await as('ines')
    expect((await others.send('GET', `/api/files/${picture.id}`)).status).toBe(200)
    const refused = await liv.json<Refused>('POST', `/api/activities/${world.city.id}/wiki/import`, {
      key: v7(),
      groupId: other,
      files: [
        { name: 'good.md', text: '# Good\n\nFine.' },
        { name: 'deep.md', text: `${'> '.repeat(40)}deep` },
      ],
    })
    expect(refused.body.detail).toContain('deep.md')
    expect((await wiki('liv')).pages.some(p => p.title === 'Good')).toBe(false) // all or none
    expect(
      (
        await liv.json<Refused>('POST', `/api/activities/${world.city.id}/wiki/import`, {
          key: v7(),
          groupId: other,
          files: [
            {
              name: 'x.md',
              text: '# <script>alert(1)</script>\n\n<img src=x onerror=alert(1)> [go](javascript:alert(1))',
            },
          ],
        })
      ).status,
    ).toBe(200)
    const bad = (await wiki('liv')).pages.find(p => p.title.includes('script'))!
    expect((await read('liv', bad.id)).html).not.toMatch(/<script|<img|javascript:/)
  })

  it('stands on the marking desk as what each member changed, in context, to be cited', async () => {
    const ines = await as('ines')
    const [walls] = [world.walls]
    const { id } = await world.enrolment('liv')
    const record = (await ines.json<RecordView>('GET', `/api/activities/${walls.id}/records/${id}`)).body
    const item = record.items.find(i => i.change?.page === 'Waves')!
    expect(item.change).toMatchObject({ number: 3, summary: 'what the masons say of them' })
    expect(item.text).toContain('the masons’ bill of 1610')
    expect(item.text).not.toContain('come from the north-east') // Malin's words are not hers
    expect(item.change!.blocks[0]!.parts.map(p => p.as)).toEqual(
      expect.arrayContaining(['kept', 'removed', 'added']),
    )
    const criterion = record.rubric!.criteria.find(c => c.scope === 'own')!
    const write = {
      key: v7(),
      baseVersion: record.mark.version,
      steps: record.mark.steps,
      letter: record.mark.letter,
      markerNote: '',
      lateWaived: false,
      citations: [
        {
          criterionId: criterion.id,
          contributionId: item.id,
          exact: 'the masons’ bill of 1610',
          start: item.text.indexOf('the masons’ bill'),
        },
      ],
    }
    expect((await ines.send('PUT', `/api/activities/${walls.id}/records/${id}/mark`, write)).status).toBe(200)
    const besnik = (
      await ines.json<RecordView>(
        'GET',
        `/api/activities/${walls.id}/records/${(await world.enrolment('besnik')).id}`,
      )
    ).body
    expect(besnik.items.find(i => i.about)).toMatchObject({
      about: { page: 'Waves', passage: 'nobody measured one', actedOn: 3 },
      answers: null,
    })
    // shares agree with a recount in SQL of what was written
    const groupId = (await world.page(walls.id, 'Enemies', 'Waves')).groupId!
    const counted = (
      await ines.json<WikiShares>('GET', `/api/activities/${walls.id}/wiki/shares?group=${groupId}`)
    ).body
    const rows = await world.db
      .select({ words: t.pageVersions.written })
      .from(t.pageVersions)
      .innerJoin(t.contributions, eq(t.contributions.id, t.pageVersions.id))
      .innerJoin(t.wikiPages, eq(t.wikiPages.id, t.pageVersions.pageId))
      .where(and(eq(t.contributions.authorId, id), eq(t.wikiPages.groupId, groupId)))
    expect(counted.members.find(m => m.member.givenName === 'Liv')).toMatchObject({
      written: rows.reduce((s, r) => s + r.words, 0),
      edits: rows.length,
    })
    expect(counted.members.reduce((s, m) => s + m.standing, 0) + counted.others).toBe(counted.words)
  })
})
