import { and, eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import type { ThreadView, WholeContribution } from '#shared/contributing/thread'
import type { ComposerView } from '#shared/planning/composer'
import { doc, testWorld, words, type World } from '#server/testing/world'

const key = () => v7()
const wholeOf = (t: ThreadView): WholeContribution[] =>
  t.contributions.filter((c): c is WholeContribution => c.view === 'whole')

describe('how a talk is set', () => {
  let world: World
  beforeAll(async () => {
    world = await testWorld()
  })
  afterAll(() => world.close())
  const find = async (title: string) =>
    (await world.db.select().from(t.activities).where(eq(t.activities.title, title)))[0]!
  const thread = async (who: string, id: string) =>
    (await (await world.as(who)).thread(`/api/activities/${id}/contributions`)).body
  const post = async (who: string, id: string, body: Record<string, unknown>) =>
    (await world.as(who)).json<{ id: string; state: string; fields?: Record<string, string> }>(
      'POST',
      `/api/activities/${id}/contributions`,
      { key: key(), parentId: null, ...body },
    )
  async function set(id: string, change: Record<string, unknown>) {
    const ines = await world.as('ines')
    const view = await ines.json<ComposerView>('GET', `/api/activities/${id}/plan`)
    const answer = await ines.json('PATCH', `/api/activities/${id}/plan`, {
      key: key(),
      baseVersion: view.body.version,
      change,
      tell: false,
    })
    expect(answer.status, JSON.stringify(answer.body)).toBe(200)
  }
  async function make(kind: string, change: Record<string, unknown>): Promise<string> {
    const ines = await world.as('ines')
    const id = key()
    await ines.send('POST', `/api/seminars/${world.seminar.id}/activities`, {
      id,
      kind,
      week: 6,
      unitId: null,
      templateId: null,
    })
    await set(id, {
      title: `A ${kind} of its own`,
      brief: doc('What do you see?'),
      writeFirst: false,
      ...change,
    })
    const view = await ines.json<ComposerView>('GET', `/api/activities/${id}/plan`)
    expect(
      (
        await ines.send('POST', `/api/activities/${id}/publish`, {
          key: key(),
          baseVersion: view.body.version,
          opens: 'now',
          tell: false,
        })
      ).status,
    ).toBe(200)
    return id
  }

  it('hides names from classmates by an alias in each thread that nothing ties to a person, and never from staff', async () => {
    await set(world.breakwater.id, { namesHidden: true })
    // given as names are hidden, before anybody looks
    const authors = await world.db
      .selectDistinct({ threadId: t.contributions.threadId, authorId: t.contributions.authorId })
      .from(t.contributions)
      .innerJoin(t.enrolments, eq(t.enrolments.id, t.contributions.authorId))
      .where(and(eq(t.contributions.activityId, world.breakwater.id), eq(t.enrolments.role, 'student')))
    expect(await world.db.$count(t.aliases, eq(t.aliases.activityId, world.breakwater.id))).toBe(
      authors.length,
    )
    const [liv, kadri, ines] = await Promise.all(
      ['liv', 'kadri', 'ines'].map(who => thread(who, world.breakwater.id)),
    )
    const people = await world.db
      .select({
        id: t.enrolments.id,
        name: t.persons.name,
        given: t.persons.givenName,
        role: t.enrolments.role,
      })
      .from(t.enrolments)
      .innerJoin(t.persons, eq(t.persons.id, t.enrolments.personId))
    const students = people.filter(p => p.role === 'student')
    const json = JSON.stringify(wholeOf(liv!).map(c => ({ ...c, html: '' }))) // in the words themselves people call each other by name
    for (const s of students) {
      expect(json).not.toContain(s.name)
      expect(json).not.toContain(s.id)
    }
    expect(liv!.notHeard).toEqual([])
    // the same thread has the same names for every reader, and the same person another name in another thread
    for (const c of wholeOf(liv!).filter(x => !x.author.isStaff))
      expect(c.author.initials).toBe(c.author.name.slice(0, 2)) // nor does what stands in the disc
    const names = (list: ThreadView) => new Map(wholeOf(list).map(c => [c.id, c.author.name]))
    const [ofLiv, ofKadri] = [names(liv!), names(kadri!)]
    for (const [id, name] of ofLiv) expect(ofKadri.get(id)).toBe(name)
    const real = new Map(wholeOf(ines!).map(c => [c.id, c.author.id]))
    const byPerson = new Map<string, Set<string>>()
    for (const c of wholeOf(liv!).filter(c => !c.author.isStaff))
      byPerson.set(real.get(c.id)!, (byPerson.get(real.get(c.id)!) ?? new Set()).add(c.author.id))
    const threadsOf = (person: string) =>
      new Set(
        wholeOf(liv!)
          .filter(c => real.get(c.id) === person)
          .map(c => c.threadId),
      ).size
    for (const [person, ids] of byPerson) expect(ids.size).toBe(threadsOf(person))
    // within a thread nobody shares a name, and names do not follow the order in which people came or are called
    for (const threadId of new Set(wholeOf(liv!).map(c => c.threadId))) {
      const inThread = new Map(
        wholeOf(liv!)
          .filter(c => c.threadId === threadId && !c.author.isStaff)
          .map(c => [c.author.id, c.author.name]),
      )
      expect(new Set(inThread.values()).size).toBe(inThread.size)
    }
    const stored = await world.db
      .select()
      .from(t.aliases)
      .where(eq(t.aliases.activityId, world.breakwater.id))
    expect(stored.every(a => a.id[14] === '4')).toBe(true) // random ids, no times in them
    // staff see who wrote, and as whom; the author knows their own
    expect(wholeOf(ines!).some(c => c.author.name === 'Rasmus Okonjo' && c.alias !== null)).toBe(true)
    expect(wholeOf(liv!).find(c => c.author.isMe)!.alias).toBe(
      wholeOf(liv!).find(c => c.author.isMe)!.author.name,
    )
    expect(
      wholeOf(liv!)
        .filter(c => !c.author.isMe)
        .every(c => c.alias === null),
    ).toBe(true)
    // neither exports nor finding nor feeds tell more
    const client = await world.as('liv')
    const feed = await client.json<{ address: string }>('POST', `/api/activities/${world.breakwater.id}/feed`)
    const texts = await Promise.all([
      ...['html', 'md', 'json'].map(async form =>
        (await client.send('GET', `/api/activities/${world.breakwater.id}/export?as=${form}`)).text(),
      ),
      JSON.stringify(
        (
          await client.json<{ contributions: Array<{ activityId: string }> }>(
            'GET',
            `/api/seminars/${world.seminar.id}/find?q=barges`,
          )
        ).body.contributions.filter(c => c.activityId === world.breakwater.id),
      ),
      (await fetch(new URL(new URL(feed.body.address).pathname, world.address))).text(),
    ])
    for (const text of texts) {
      expect(text.length).toBeGreaterThan(200)
      for (const s of students.filter(p => p.given !== 'Liv')) {
        expect(text).not.toContain(s.id)
        expect(text).not.toContain(s.name) // in full: in their words people call each other by first names
      }
    }
    await set(world.breakwater.id, { namesHidden: false })
    expect(
      wholeOf(await thread('liv', world.breakwater.id)).some(c => c.author.name === 'Rasmus Okonjo'),
    ).toBe(true)
  })

  it('holds what is posted until staff let it out, in time all the same; sent back, it is changed and waits again', async () => {
    const id = await make('discussion', { approval: true, editMinutes: 30 })
    const posted = await post('liv', id, { doc: doc(words(210)) })
    expect(posted.body.state).toBe('awaitingApproval')
    expect((await thread('kadri', id)).contributions).toEqual([])
    expect(wholeOf(await thread('liv', id))).toMatchObject([{ state: 'awaitingApproval', seq: null }])
    expect((await thread('liv', id)).checks[0]).toMatchObject({ met: false })
    const place = `/api/contributions/${posted.body.id}`
    expect((await (await world.as('kadri')).send('PUT', `${place}/nod`, { nodded: true })).status).toBe(404)
    const henrik = await world.as('henrik')
    expect((await henrik.send('PUT', `${place}/approval`, { approved: false, remark: '' })).status).toBe(422)
    expect(
      (await henrik.send('PUT', `${place}/approval`, { approved: false, remark: 'Which page?' })).status,
    ).toBe(200)
    const liv = await world.as('liv')
    const [own] = wholeOf(await thread('liv', id))
    expect(own!.sentBack).toBe('Which page?')
    expect(
      (await liv.send('PATCH', place, { key: key(), doc: doc(words(215)), baseVersion: own!.version }))
        .status,
    ).toBe(200)
    expect(wholeOf(await thread('ines', id))[0]).toMatchObject({ sentBack: null, state: 'awaitingApproval' })
    expect((await henrik.send('PUT', `${place}/approval`, { approved: true })).status).toBe(200)
    expect(wholeOf(await thread('kadri', id))).toMatchObject([{ state: 'shown', seq: 1, isNew: false }])
    expect((await thread('liv', id)).checks[0]).toMatchObject({ met: true, late: false })
    // what was approved stands as it was read
    expect(
      (
        await liv.json<{ fields: Record<string, string> }>('PATCH', place, {
          key: key(),
          doc: doc('Something else.'),
          baseVersion: 3,
        })
      ).status,
    ).toBe(422)
    const [notice] = await world.db
      .select()
      .from(t.notices)
      .where(and(eq(t.notices.enrolmentId, (await world.enrolment('liv')).id), eq(t.notices.activityId, id)))
      .orderBy(t.notices.madeAt)
    expect(notice!.text).toMatch(/wants a change/)
  })

  it('takes no new words of students in a thread, or in all of it, once staff close it; staff, nods and changes go on', async () => {
    const id = await make('discussion', {})
    const opened = (await post('liv', id, { doc: doc(words(40)) })).body.id
    const other = (await post('nico', id, { doc: doc(words(40)) })).body.id
    const answer = (await post('nico', id, { parentId: opened, doc: doc(words(9)) })).body.id
    const close = async (who: string, path: string, closed: boolean) =>
      (await (await world.as(who)).send('PUT', `/api/${path}/closed-to-words`, { closed })).status
    const say = async (who: string, parentId: string | null) =>
      (await post(who, id, { parentId, doc: doc(words(12)) })).status
    expect(await close('liv', `contributions/${opened}`, true)).toBe(403)
    expect(await close('ines', `contributions/${answer}`, true)).toBe(409) // not the first of a thread
    expect(await close('ines', `contributions/${opened}`, true)).toBe(200)
    expect(await thread('liv', id)).toMatchObject({ closedToWords: false, closedThreads: [opened] })
    const refused = await post('nico', id, { parentId: answer, doc: doc(words(12)) })
    expect(refused.status).toBe(422)
    expect(refused.body.fields!['doc']).toMatch(/^The instructor has closed this thread to new words\./)
    expect(await say('nico', other)).toBe(200)
    expect(await say('ines', answer)).toBe(200)
    const nico = await world.as('nico')
    expect((await nico.send('PUT', `/api/contributions/${opened}/nod`, { nodded: true })).status).toBe(200)
    const change = { key: key(), doc: doc(words(41)), baseVersion: 1 }
    expect((await nico.send('PATCH', `/api/contributions/${answer}`, change)).status).toBe(200)
    // all of it
    expect(await close('nico', `activities/${id}`, true)).toBe(403)
    expect(await close('ines', `activities/${id}`, true)).toBe(200)
    expect([await say('nico', other), await say('kadri', null), await say('ines', null)]).toEqual([
      422, 422, 200,
    ])
    expect(await close('ines', `activities/${id}`, false)).toBe(200)
    expect(await close('ines', `contributions/${opened}`, false)).toBe(200)
    expect(await thread('liv', id)).toMatchObject({ closedToWords: false, closedThreads: [] })
    expect([await say('nico', answer), await say('kadri', null)]).toEqual([200, 200])
    const acts = await world.db.select({ act: t.auditTrail.act }).from(t.auditTrail)
    expect(acts.filter(a => a.act === 'closedToWords')).toHaveLength(2)
  })

  it("lets staff put questions that all answer: each opens with one's own answer to it", async () => {
    const id = await make('discussion', {
      threads: 'staff',
      writeFirst: true,
      replies: 'top',
      rules: [{ id: key(), rule: { kind: 'prompts', need: 1, minWords: 5, due: 'write' }, needed: true }],
    })
    const [q1, q2] = [
      (await post('ines', id, { doc: doc('Who pays?') })).body.id,
      (await post('ines', id, { doc: doc('Who decides?') })).body.id,
    ]
    expect((await post('liv', id, { doc: doc('A thread of mine.') })).body.fields!.doc).toMatch(
      /questions are put by the instructor/,
    )
    await post('kadri', id, { parentId: q1, doc: doc('The widows pay, with their rings.') })
    await post('kadri', id, { parentId: q2, doc: doc('The board decides, at the window.') })
    // the questions stand open; nobody's answers do
    const before = await thread('liv', id)
    expect(wholeOf(before).map(c => c.id)).toEqual([q1, q2])
    expect(before).toMatchObject({ waiting: false, waitingAt: [q1, q2], notHeard: [] })
    expect(before.checks[0]).toMatchObject({ have: 0, need: 2 })
    const answer = await post('liv', id, {
      parentId: q1,
      doc: doc('Four masters pay, and call it everybody.'),
    })
    const after = await thread('liv', id)
    expect(after.waitingAt).toEqual([q2])
    expect(wholeOf(after).map(c => c.parentId)).toEqual([null, null, q1, q1])
    expect(JSON.stringify(after)).not.toContain('at the window')
    expect(after.checks[0]).toMatchObject({ have: 1, need: 2 })
    expect(wholeOf(after).find(c => c.id === answer.body.id)).toMatchObject({ type: 'post', promptId: q1 })
    // an answer takes replies, a reply does not
    const kadris = wholeOf(after).find(c => c.parentId === q1 && !c.author.isMe)!
    const reply = await post('liv', id, { parentId: kadris.id, doc: doc('Whose rings?') })
    expect(reply.status).toBe(200)
    expect(
      (await post('kadri', id, { parentId: reply.body.id, doc: doc("Their husbands'.") })).body.fields!.doc,
    ).toMatch(/replies to the opening post only/)
  })

  it('keeps a journal between its author and staff, through every way to it, until the author opens an entry', async () => {
    const notebook = await find('Harbour notebook')
    const secret = 'deleting than while writing' // Teodora's, to staff alone
    const teodora = wholeOf(await thread('teodora', notebook.id))
    expect(teodora.map(c => c.author.isMe)).toEqual([true])
    expect(wholeOf(await thread('ines', notebook.id)).length).toBeGreaterThan(20)
    const feed = await (
      await world.as('liv')
    ).json<{ address: string }>('POST', `/api/activities/${notebook.id}/feed`)
    const others = async (who: string) => {
      const client = await world.as(who)
      return (
        await Promise.all(
          [
            `/api/activities/${notebook.id}/contributions`,
            `/api/activities/${notebook.id}/texts?ids=${teodora[0]!.id}`,
            `/api/activities/${notebook.id}/find?q=deleting`,
            `/api/seminars/${world.seminar.id}/find?q=deleting`,
            ...['html', 'md', 'json'].map(f => `/api/activities/${notebook.id}/export?as=${f}`),
            `/seminars/${world.seminar.id}/activities/${notebook.id}`,
            new URL(feed.body.address).pathname,
          ].map(async path => (await client.send('GET', path)).text()),
        )
      ).join('\n')
    }
    for (const who of ['liv', 'observer']) {
      const all = await others(who)
      expect(all).not.toContain(secret)
      expect(all).not.toContain(teodora[0]!.id.slice(0, 30))
      expect(all).not.toContain('this is as good as anything written this term') // staff's word under Anselm's
    }
    expect(await others('liv')).toContain('Of ships or of daylight') // her own, and what she was answered
    const place = `/api/contributions/${teodora[0]!.id}`
    const [livs, hers] = await Promise.all([world.as('liv'), world.as('teodora')])
    expect((await livs.send('PUT', `${place}/opened`, { opened: true })).status).toBe(404)
    expect(
      (
        await livs.json<{ fields: Record<string, string> }>(
          'POST',
          `/api/activities/${notebook.id}/contributions`,
          { key: key(), parentId: teodora[0]!.id, doc: doc('I read this.') },
        )
      ).status,
    ).toBe(422)
    expect((await hers.send('PUT', `${place}/opened`, { opened: true })).status).toBe(200)
    expect(await others('liv')).toContain(secret)
    expect(
      (
        await post('liv', notebook.id, {
          parentId: teodora[0]!.id,
          doc: doc('A history of struck-out lines!'),
        })
      ).status,
    ).toBe(200)
    await hers.send('PUT', `${place}/opened`, { opened: false })
    expect(await others('liv')).not.toContain(secret)
  })

  it('answers each prompt of a journal apart, and none that is not out', async () => {
    const notebook = await find('Harbour notebook')
    const list = await world.db
      .select()
      .from(t.prompts)
      .where(eq(t.prompts.activityId, notebook.id))
      .orderBy(t.prompts.releaseAt)
    const client = await world.as('malin')
    const draft = (promptId: string, text: string) =>
      client.json<{ version: number }>('PUT', `/api/activities/${notebook.id}/draft`, {
        parentId: null,
        slot: promptId,
        promptId,
        doc: doc(text),
        baseVersion: null,
      })
    expect((await draft(list[0]!.id, 'The wall one sees from the sea.')).status).toBe(200)
    expect((await draft(list[1]!.id, 'My hand noticed the margin.')).status).toBe(200)
    expect((await thread('malin', notebook.id)).drafts).toHaveLength(2)
    expect(
      (
        await post('malin', notebook.id, {
          slot: list[0]!.id,
          promptId: list[0]!.id,
          doc: doc('The wall one sees from the sea, finished.'),
        })
      ).status,
    ).toBe(200)
    const now = await thread('malin', notebook.id)
    expect(now.drafts.map(d => d.promptId)).toEqual([list[1]!.id])
    expect(wholeOf(now).map(c => c.promptId)).toEqual([list[0]!.id])
    expect(
      (
        await post('malin', notebook.id, {
          slot: list.at(-1)!.id,
          promptId: list.at(-1)!.id,
          doc: doc('Too early.'),
        })
      ).body.fields!.doc,
    ).toMatch(/not out yet/)
    // the page of a student holds only the prompts that are out
    expect(await (await client.send('GET', `/api/activities/${notebook.id}`)).text()).not.toContain(
      'yourself of week one',
    )
  })
})
