import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { atTheDesk, type Desk, type Refusal } from '#server/testing/marker'
import type { Client } from '#server/testing/server'
import { doc, testWorld, type World } from '#server/testing/world'
import type { DeskView, MarkView } from '#shared/marking/desk'
import type { LetterView } from '#shared/marking/letter'

describe('marking', () => {
  let world: World
  let { ines, henrik, rubric, at, record, steps, act } = {} as Desk
  beforeAll(async () => {
    world = await testWorld()
    ;({ ines, henrik, rubric, at, record, steps, act } = await atTheDesk(world))
  })
  afterAll(() => world.close())

  /** As a browser saves that saw nothing there yet. */
  const mark = async (as: Client, student: string, body: object) =>
    as.json<MarkView & Refusal>('PUT', await at(student, '/mark'), {
      key: v7(),
      baseVersion: 0,
      steps: [],
      citations: [],
      letter: doc('Dear'),
      markerNote: '',
      lateWaived: false,
      ...body,
    })

  it('counts everyone where the demo says: 11 ready, 6 held, 4 returned, 3 under way', async () => {
    const desk = (await ines.json<DeskView>('GET', `/api/activities/${world.breakwater.id}/desk`)).body
    expect(desk.counts).toEqual({ ready: 11, held: 6, returned: 4, underWay: 3, nothing: 0 })
    expect(desk.students.map(s => s.familyName).slice(0, 5)).toEqual([
      'Adeyinka',
      'Brandt',
      'Corvo',
      'Duyvis',
      'Estrada-Holm',
    ])
  })

  it('goes from steps to a letter the student can read, and no earlier', async () => {
    const idris = await world.as('idris')
    const letter = async () => idris.json<LetterView>('GET', `/api/activities/${world.breakwater.id}/letter`)
    const post = await world.contribution('idris', world.breakwater.id)
    const exact = 'a toll is not a price and not a gift'
    const saved = await mark(ines, 'idris', {
      steps: steps(3, 2, 2, 2),
      letter: doc('Dear Idris,', 'Who swore for the barges?'),
      citations: [
        {
          criterionId: rubric.criteria[0]!.id,
          contributionId: post.id,
          exact,
          start: post.text.indexOf(exact),
        },
      ],
    })
    expect(saved.body).toMatchObject({ version: 1, points: 2100, criteriaLeft: 0, state: 'open' })
    expect((await letter()).status).toBe(404)
    const held = await act('hold', 'idris', 1)
    expect(held.body).toMatchObject({ state: 'held', version: 2 })
    expect((await letter()).status).toBe(404)
    const returned = await act('return', 'idris', 2)
    expect(returned.body.state).toBe('returned')
    const { body } = await letter()
    expect(body).toMatchObject({
      points: 2100,
      max: 2500,
      by: 'Ines Okafor-Lind',
      citations: [{ number: 1, exact }],
    })
    expect(body.criteria.map(c => c.points)).toEqual([800, 600, 400, 300])
    expect(body.html).toContain('Who swore for the barges?')

    // a change afterwards is held again, and the student keeps what was returned
    const changed = await mark(ines, 'idris', {
      baseVersion: 3,
      steps: steps(0, 0, 0, 0),
      letter: doc('A harsher letter'),
    })
    expect(changed.body.state).toBe('held')
    expect((await letter()).body).toEqual(body)
    const trail = await world.db
      .select()
      .from(t.auditTrail)
      .where(eq(t.auditTrail.seminarId, world.seminar.id))
      .orderBy(t.auditTrail.id)
    expect(trail.map(r => r.act)).toEqual(
      expect.arrayContaining(['markStepsChanged', 'markHeld', 'markReturned']),
    )
  })

  it('refuses a mark saved on an outdated version and gives both back; nothing is overwritten', async () => {
    const mine = await mark(ines, 'solongo', { steps: steps(2), letter: doc('From Ines') })
    expect(mine.status).toBe(200)
    const late = await mark(henrik, 'solongo', { steps: steps(1), letter: doc('From Henrik') })
    expect(late.status).toBe(409)
    expect(late.body.theirs).toMatchObject({ savedBy: 'Ines Okafor-Lind', version: 1, steps: steps(2) })
    expect(late.body.detail).toContain('Ines Okafor-Lind saved this mark meanwhile')
    const stored = (await record('solongo')).mark
    expect(stored.steps).toMatchObject(steps(2))
    expect(JSON.stringify(stored.letter)).toContain('From Ines')
    for (const what of ['hold', 'return']) expect((await act(what, 'solongo', 0)).status).toBe(409)
    // two first saves at the same instant: one wins, the other is told
    const both = await Promise.all([
      mark(ines, 'malin', { letter: doc('One') }),
      mark(henrik, 'malin', { letter: doc('Two') }),
    ])
    expect(both.map(b => b.status).sort()).toEqual([200, 409])
  })

  it('answers a mark sent twice once', async () => {
    const key = v7()
    const first = await mark(ines, 'oona', { key, steps: steps(1) })
    const again = await mark(ines, 'oona', { key, steps: steps(1) })
    expect(again.body).toEqual(first.body)
    expect((await record('oona')).mark.version).toBe(1)
  })

  it('refuses a step that is not on the rubric, two steps for one criterion, and words nobody wrote', async () => {
    const foreign = await mark(ines, 'abena', {
      steps: [{ criterionId: rubric.criteria[0]!.id, levelId: rubric.criteria[1]!.levels[0]!.id }],
    })
    expect(foreign.status).toBe(422)
    expect(foreign.body.fields.steps).toMatch(/not on this rubric/)
    expect((await mark(ines, 'abena', { steps: [...steps(1), ...steps(2)] })).status).toBe(422)
    const post = await world.contribution('abena', world.breakwater.id)
    const invented = await mark(ines, 'abena', {
      citations: [
        {
          criterionId: rubric.criteria[0]!.id,
          contributionId: post.id,
          exact: 'words that Abena never wrote',
          start: 0,
        },
      ],
    })
    expect(invented.body.fields.citations).toMatch(/is not in this student's record/)
    const others = await world.contribution('nico', world.breakwater.id)
    expect(
      (
        await mark(ines, 'abena', {
          citations: [
            {
              criterionId: rubric.criteria[0]!.id,
              contributionId: others.id,
              exact: others.text.slice(0, 20),
              start: 0,
            },
          ],
        })
      ).status,
    ).toBe(422)
    expect((await record('abena')).mark.version).toBe(0)
  })

  it('neither holds nor returns a mark with criteria left, and says how many', async () => {
    await mark(ines, 'besnik', { steps: steps(1, 1) })
    const held = await act('hold', 'besnik', 1)
    expect(held.status).toBe(422)
    expect(held.body.detail).toMatch(/^2 criteria are still without a step/)
  })

  it('returns chosen held marks at once, each as it stands', async () => {
    const enrolments = await Promise.all(['nico', 'femke'].map(s => world.enrolment(s)))
    const answer = await ines.json<{ returned: number }>(
      'POST',
      `/api/activities/${world.breakwater.id}/return`,
      { key: v7(), enrolmentIds: enrolments.map(e => e.id) },
    )
    expect(answer.body.returned).toBe(2)
    const nico = await world.as('nico')
    expect(
      (await nico.json<LetterView>('GET', `/api/activities/${world.breakwater.id}/letter`)).body,
    ).toMatchObject({ points: 1900, to: 'Nico' })
    expect(
      (await (await world.as('petra')).send('GET', `/api/activities/${world.breakwater.id}/letter`)).status,
    ).toBe(404)
  })

  it('shows the record in context, checked, with a step suggested from it', async () => {
    const petra = await record('petra')
    expect(petra.checks[0]).toMatchObject({ met: true, late: true })
    expect(petra.late).toMatchObject({ minutes: 539 })
    const mireille = await record('mireille')
    expect(mireille.summary).toMatchObject({ contributions: 4, classmates: 3 })
    expect(mireille.checks.map(c => c.have)).toEqual([1, 2])
    expect(mireille.items.find(i => i.answers)?.answers?.name).toBe('Rasmus Okonjo')
    expect(mireille.suggested).toMatchObject([{ because: 'opening post 2 days early' }])
    expect((await record('jonas')).extended).toMatch(/funeral/)
  })
  it('lets a student write back under a returned letter, to whom marked it, and nobody else read it', async () => {
    const [liv, rasmus, ines] = await Promise.all(['liv', 'rasmus', 'ines'].map(who => world.as(who)))
    const own = `/api/activities/${world.breakwater.id}/letter/replies`
    const ofLiv = `/api/activities/${world.breakwater.id}/records/${(await world.enrolment('liv')).id}/replies`
    const write = { key: v7(), doc: doc('Which classmate did you mean?') }
    for (let i = 0; i < 2; i++) expect((await liv!.send('POST', own, write)).status).toBe(200) // sent again after a lost answer
    expect((await ines!.send('POST', ofLiv, { key: v7(), doc: doc('Kadri, on page four.') })).status).toBe(
      200,
    )
    const talk = (await liv!.json<{ replies: Array<{ isMe: boolean; html: string }> }>('GET', own)).body
      .replies
    expect(talk.map(r => [r.isMe, r.html])).toEqual([
      [true, '<p>Which classmate did you mean?</p>'],
      [false, '<p>Kadri, on page four.</p>'],
    ])
    expect((await rasmus!.send('GET', ofLiv)).status).toBe(403)
    expect(await (await rasmus!.send('GET', own)).text()).not.toContain('Kadri, on page four')
    const told = await world.db.select().from(t.notices).where(eq(t.notices.activityId, world.breakwater.id))
    expect(told.some(n => n.text.startsWith('Liv Brandt wrote back'))).toBe(true)
  })
})
