import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import type { TermCard, TermsView } from '#shared/kinds/lexicon/lexicon'
import * as t from '#server/database/schema'
import type { Client } from '#server/testing/server'
import { doc, testWorld, type World } from '#server/testing/world'

type Refused = { readonly code: string; readonly detail: string; readonly fields?: Record<string, string> }
type Posted = { readonly id: string; readonly state: string } & Refused
type Imported = {
  readonly added: string[]
  readonly skipped: Array<{ line: number; term: string; why: string }>
} & Refused

describe('the lexicon of a seminar', () => {
  let world: World
  const clients = new Map<string, Promise<Client>>()
  const as = (key: string): Promise<Client> => {
    const client = clients.get(key) ?? world.as(key)
    clients.set(key, client)
    return client
  }
  let base: string
  beforeAll(async () => {
    world = await testWorld()
    base = `/api/activities/${world.terms.id}`
  })
  afterAll(() => world.close())

  const term = (word: string, more: object = {}) => ({
    term: word,
    forms: [] as string[],
    category: null,
    sources: '',
    whole: true,
    ...more,
  })
  const add = async (who: string, word: string, more: object = {}) =>
    (await as(who)).json<Posted>('POST', `${base}/contributions`, {
      key: v7(),
      parentId: null,
      slot: v7(),
      doc: doc('What it means, in a sentence of some length.'),
      term: term(word, more),
    })
  const known = async (who: string) =>
    (await (await as(who)).json<TermsView>('GET', `/api/seminars/${world.seminar.id}/terms`)).body
  const set = async (change: object) => {
    const ines = await as('ines')
    const view = (await ines.json<{ version: number; body: { lexicon: object } }>('GET', `${base}/plan`)).body
    const answer = await ines.send('PATCH', `${base}/plan`, {
      key: v7(),
      baseVersion: view.version,
      change,
      tell: false,
    })
    expect(answer.status, await answer.clone().text()).toBe(200)
  }
  const settings = async (more: object) =>
    set({ lexicon: { duplicates: 'refused', categories: ['Ships and measures'], linked: true, ...more } })

  it('keeps what waits for approval from everybody else, in the lexicon, in texts and beside them', async () => {
    const posted = await add('liv', 'groundswell', { forms: ['groundswells', 'Groundswell'] })
    expect(posted.body.state).toBe('awaitingApproval')
    const card = (who: string) =>
      as(who).then(c => c.json<TermCard>('GET', `/api/seminars/${world.seminar.id}/terms/${posted.body.id}`))
    for (const who of ['nico', 'liv', 'ines'])
      expect(
        (await known(who)).terms.some(x => x.id === posted.body.id),
        who,
      ).toBe(false)
    expect((await card('nico')).status).toBe(404)
    expect(JSON.stringify((await (await as('nico')).thread(`${base}/contributions`)).body)).not.toContain(
      'groundswell',
    )
    await (
      await as('henrik')
    ).send('PUT', `/api/contributions/${posted.body.id}/approval`, { approved: true })
    expect((await known('nico')).terms.find(x => x.id === posted.body.id)).toMatchObject({
      forms: ['groundswell', 'groundswells'],
      whole: true,
    })
    expect((await card('nico')).body).toMatchObject({
      term: { term: 'groundswell' },
      author: { givenName: 'Liv' },
    })
    expect((await known('observer')).terms.length).toBeGreaterThan(25)
  })

  it('takes a term once where each is defined once, also when two hand it in at the same instant', async () => {
    expect((await add('nico', '')).body.fields!.term).toContain('which term')
    expect((await add('nico', " Widow's  SHARE ")).body.fields!.term).toContain('already')
    const [whose] = (await known('liv')).terms.filter(x => x.forms.length > 1)
    expect((await add('nico', whose!.forms[1]!.toUpperCase())).body.fields!.term).toContain(
      `is a form of “${whose!.forms[0]}”`,
    )
    const both = await Promise.all(['nico', 'kadri', 'femke', 'oona'].map(who => add(who, 'undertow')))
    expect(both.map(b => b.status).sort()).toEqual([200, 422, 422, 422])
    expect((await add('nico', 'neap', { category: 'No such category' })).body.fields!.category).toContain(
      'not there any more',
    )
    await settings({ duplicates: 'allowed' })
    expect((await add('femke', 'undertow')).status).toBe(200)
    await settings({})
    // one's own may be changed under its own word, not to another's
    await set({ approval: false })
    const own = (await add('oona', 'ebb')).body
    const change = async (word: string, baseVersion: number) =>
      (await as('oona')).json<Refused>('PATCH', `/api/contributions/${own.id}`, {
        key: v7(),
        doc: doc('Water going out.'),
        term: term(word),
        baseVersion,
      })
    expect((await change('ebb tide', 1)).status).toBe(200)
    expect((await change('silt', 2)).body.fields!.term).toContain('already')
  })

  it('keeps terms dark where the seminar wants plain words, and withdrawn ones out', async () => {
    const { id } = (await add('kadri', 'slack water')).body
    expect((await known('liv')).terms.some(x => x.id === id)).toBe(true)
    await (await as('kadri')).send('PUT', `/api/contributions/${id}/withdrawn`, { withdrawn: true })
    expect((await known('liv')).terms.some(x => x.id === id)).toBe(false)
    await settings({ linked: false })
    expect(await known('liv')).toEqual({ terms: [], ofTheDay: null })
    await settings({})
    // before it opens, or as a draft, there is no lexicon to know of
    await world.db
      .update(t.activities)
      .set({ opensAt: new Date('2026-12-01T00:00:00Z') })
      .where(eq(t.activities.id, world.terms.id))
    expect((await known('liv')).terms).toEqual([])
    await world.db
      .update(t.activities)
      .set({ opensAt: new Date('2026-09-01T00:00:00Z') })
      .where(eq(t.activities.id, world.terms.id))
    expect((await known('liv')).ofTheDay).not.toBeNull()
  })

  it('counts as participation, and keeps a draft with the term it is for', async () => {
    const checks = async () => (await (await as('paz')).thread(`${base}/contributions`)).body
    expect((await checks()).checks[0]).toMatchObject({ have: 0, need: 2 })
    await (
      await as('paz')
    ).send('PUT', `${base}/draft`, {
      parentId: null,
      slot: 's',
      doc: doc('Half a thought.'),
      term: term('wrack', { sources: 'the strand' }),
      baseVersion: null,
    })
    expect((await checks()).drafts[0]).toMatchObject({ term: { term: 'wrack', sources: 'the strand' } })
    const long = {
      key: v7(),
      parentId: null,
      slot: 's',
      doc: doc(
        'What the sea has given back after it has thought about it for some time: weed, rope, wood, a shoe, and now and then a name on a board that somebody would rather not read.',
      ),
      term: term('wrack'),
    }
    expect((await (await as('paz')).json<Posted>('POST', `${base}/contributions`, long)).body.state).toBe(
      'shown',
    )
    expect((await checks()).checks[0]).toMatchObject({ have: 1 })
    expect((await checks()).drafts).toEqual([])
  })

  it('goes out as a table that a spreadsheet does not reckon with, and comes in again after it was seen what would happen', async () => {
    expect((await add('emrys', '=SUM(A1)', { sources: '+31 6' })).status).toBe(200)
    const out = async (form: string) =>
      (await (await as('liv')).send('GET', `${base}/lexicon/export?as=${form}`)).text()
    const csv = await out('csv')
    expect(csv).toContain("'=SUM(A1)")
    expect(csv).toMatch(
      /^term,definition,other forms,category,sources,found in longer words,author,shown on\n/,
    )
    expect(csv).toMatch(/=SUM\(A1\).*,Emrys Tal,2026-10-14\n/s)
    const json = JSON.parse(await out('json')) as { terms: Array<{ term: string; definition: string }> }
    expect(json.terms.map(x => x.term)).toContain('=SUM(A1)')
    expect(json.terms.map(x => x.term)).not.toContain('harbour') // it still waits for approval
    expect(await out('html')).toContain('<dl>')
    const ines = await as('ines')
    const take = async (text: string, trial: boolean, key = v7()) =>
      (await ines.json<Imported>('POST', `${base}/lexicon/import`, { key, text, trial })).body
    expect((await take(csv, true)).added).toEqual([]) // all of it is there
    const table =
      'term;definition;other forms;category\nkedge;An anchor to move by;kedges | kedging;Ships and measures\nsilt;again;;\n;no term;;\nfathom;Two arms;;A new category'
    const seen = await take(table, true)
    expect(seen).toMatchObject({
      added: ['kedge', 'fathom'],
      skipped: [
        { line: 3, term: 'silt' },
        { line: 4, term: '' },
      ],
    })
    expect((await known('liv')).terms.some(x => x.forms[0] === 'kedge')).toBe(false) // only looked at
    const key = v7()
    await take(table, false, key)
    expect((await take(table, false, key)).added).toEqual([]) // sent again
    expect((await known('liv')).terms.find(x => x.forms[0] === 'kedge')!.forms).toEqual([
      'kedge',
      'kedges',
      'kedging',
    ])
    expect((await take('a,b\nc,d', false)).fields!.text).toContain('first line names the columns')
  })
})
