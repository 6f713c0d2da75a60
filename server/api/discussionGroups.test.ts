import { inArray } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { listenTo } from '#server/testing/listenTo'
import { until } from '#server/testing/until'
import { doc, testWorld, words, type World } from '#server/testing/world'
import type { ComposerView } from '#shared/planning/composer'

describe('a discussion in which each group talks by itself', () => {
  let world: World
  let question: string // put by the instructor, for all
  const inGroup = { liv: '', rasmus: '' } // a post of each
  const path = (rest = '') => `/api/activities/${world.dredge.id}${rest}`
  const thread = async (who: string) => (await (await world.as(who)).thread(path('/contributions'))).body
  const post = async (who: string, body: Record<string, unknown>) =>
    (await world.as(who)).json<{ id: string }>('POST', path('/contributions'), {
      key: v7(),
      parentId: null,
      ...body,
    })

  beforeAll(async () => {
    world = await testWorld()
    const { db, seminar } = world
    const [plan] = await db
      .insert(t.groupPlans)
      .values({
        seminarId: seminar.id,
        title: 'Two rooms',
        rules: { by: 'hand', count: 2, together: [], apart: [], mixSections: false, seed: 1 },
      })
      .returning()
    for (const [i, [title, members]] of (
      [
        ['Room of the Tide', ['liv', 'paz']],
        ['Room of the Mole', ['rasmus', 'anselm']],
      ] as const
    ).entries()) {
      const [group] = await db
        .insert(t.groups)
        .values({ seminarId: seminar.id, groupPlanId: plan!.id, title, position: i })
        .returning()
      for (const key of members)
        await db.insert(t.groupMembers).values({
          seminarId: seminar.id,
          groupPlanId: plan!.id,
          groupId: group!.id,
          enrolmentId: (await world.enrolment(key)).id,
        })
    }
    const ines = await world.as('ines')
    const view = await ines.json<ComposerView>('GET', path('/plan'))
    const changed = await ines.json<ComposerView>('PATCH', path('/plan'), {
      key: v7(),
      baseVersion: view.body.version,
      tell: false,
      change: {
        audience: { kind: 'groups', groupPlanId: plan!.id, groupIds: [] },
        apart: 'groups',
        writeFirst: false,
      },
    })
    expect(changed.status).toBe(200)
    question = (await post('ines', { doc: doc('A question for both rooms.') })).body.id
    for (const who of ['liv', 'rasmus'] as const)
      inGroup[who] = (
        await post(who, { doc: doc(`Said in confidence by ${who}: ${words(60, `${who}word`)}`) })
      ).body.id
  })
  afterAll(() => world.close())

  it("shows each their own group's talk and the instructor's words to all, staff everything by group", async () => {
    const ids = async (who: string) =>
      new Set(
        (await thread(who)).contributions
          .map(c => c.id)
          .filter(id => [question, inGroup.liv, inGroup.rasmus].includes(id)),
      )
    expect(await ids('paz')).toEqual(new Set([question, inGroup.liv]))
    expect(await ids('anselm')).toEqual(new Set([question, inGroup.rasmus]))
    expect((await thread('paz')).circles.map(c => c.title)).toEqual(['Room of the Tide'])
    const staff = await thread('ines')
    expect(staff.circles.map(c => c.title)).toEqual(['Room of the Tide', 'Room of the Mole'])
    const discussionGroupOf = (id: string) =>
      staff.contributions.flatMap(c => (c.view === 'whole' && c.id === id ? [c.circle] : []))[0]
    expect([question, inGroup.liv, inGroup.rasmus].map(discussionGroupOf)).toEqual([
      null,
      staff.circles[0]!.id,
      staff.circles[1]!.id,
    ])
    expect((await thread('paz')).contributions.every(c => c.view !== 'whole' || c.circle === null)).toBe(true)
  })

  it('keeps an answer in the group of whom it answers, also where the instructor answers or both answer one question', async () => {
    const staffReply = (
      await post('ines', { parentId: inGroup.rasmus, doc: doc('A word for this room alone.') })
    ).body.id
    const answers = await Promise.all(
      ['liv', 'rasmus'].map(who =>
        post(who, { parentId: question, doc: doc(`An answer by ${who} to what was asked.`) }),
      ),
    )
    const paz = (await thread('paz')).contributions.map(c => c.id)
    const anselm = (await thread('anselm')).contributions.map(c => c.id)
    expect(paz).not.toContain(staffReply)
    expect(anselm).toContain(staffReply)
    expect(paz).toContain(answers[0]!.body.id)
    expect(paz).not.toContain(answers[1]!.body.id)
    expect(anselm).toContain(answers[1]!.body.id)
  })

  it('lets nothing of another group out by any other way: texts, files, finding, feed, files to take away, answers, nods, the stream', async () => {
    const paz = await world.as('paz')
    const [file] = await world.db
      .insert(t.files)
      .values({
        seminarId: world.seminar.id,
        madeBy: (await world.enrolment('rasmus')).id,
        name: 'map.png',
        type: 'image/png',
        size: 1,
        bytes: Buffer.from('x'),
      })
      .returning()
    await world.db
      .insert(t.contributionFiles)
      .values({ seminarId: world.seminar.id, contributionId: inGroup.rasmus, fileId: file!.id, position: 0 })
    expect((await paz.send('GET', `/api/files/${file!.id}`)).status).toBe(404)
    const feed = await paz.json<{ address: string }>('POST', path('/feed'))
    const theirs = (
      await world.db
        .select({ id: t.contributions.id })
        .from(t.contributions)
        .where(inArray(t.contributions.openerId, [(await world.enrolment('rasmus')).id]))
    ).map(c => c.id)
    expect(theirs.length).toBeGreaterThan(2)
    const stream = await listenTo(paz, world.dredge.id)
    const spoken = await post('anselm', {
      parentId: inGroup.rasmus,
      doc: doc('Only in the Room of the Mole: a rasmusword of my own.'),
    })
    const heardByAll = await post('ines', { doc: doc('And a second question for both rooms.') })
    await until('the second question', async () => stream.raw().includes(heardByAll.body.id))
    const texts = await Promise.all(
      [
        path('/contributions'),
        path(`/texts?ids=${theirs.join(',')}`),
        path('/find?q=rasmusword1'),
        `/api/seminars/${world.seminar.id}/find?q=rasmusword1`,
        `/api/seminars/${world.seminar.id}/notices`,
        `/api/seminars/${world.seminar.id}/week`,
        path(),
        path('/export?as=json'),
        path('/export?as=md'),
        path('/export?as=html'),
        new URL(feed.body.address).pathname,
      ].map(async p => (await paz.send('GET', p)).text()),
    )
    const all = [...texts, stream.raw()].join('\n')
    await stream.close()
    expect(all).toContain('And a second question for both rooms.')
    expect(all).toContain('livword1')
    for (const secret of [
      ...theirs,
      spoken.body.id,
      'Said in confidence by rasmus',
      'a rasmusword of my own',
      'An answer by rasmus',
      'A word for this room alone',
    ])
      expect(all).not.toContain(secret)
    expect((await post('paz', { parentId: inGroup.rasmus, doc: doc('May I come in?') })).status).toBe(422)
    expect((await paz.send('PUT', `/api/contributions/${inGroup.rasmus}/nod`, { nodded: true })).status).toBe(
      404,
    )
    expect((await paz.send('GET', `/api/contributions/${inGroup.rasmus}`)).status).toBe(404)
  })

  it('reads as one talk again when that is switched, with nothing lost', async () => {
    const ines = await world.as('ines')
    const view = await ines.json<ComposerView>('GET', path('/plan'))
    await ines.json('PATCH', path('/plan'), {
      key: v7(),
      baseVersion: view.body.version,
      tell: false,
      change: { apart: 'together' },
    })
    const all = await thread('paz')
    expect(all.circles).toEqual([])
    expect(all.contributions.map(c => c.id)).toEqual(expect.arrayContaining([inGroup.liv, inGroup.rasmus]))
  })
})
