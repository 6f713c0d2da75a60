import { and, eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { returnDue, notifyOfReturn } from '#server/services/marking/returnMark'
import { atTheDesk, type Desk, type Refusal } from '#server/testing/marker'
import { TEST_NOW } from '#server/testing/server'
import { doc, testWorld, type World } from '#server/testing/world'
import type { ActivityView } from '#shared/contributing/activity'
import type { MarkHistory, MoveView } from '#shared/marking/desk'
import type { LetterView } from '#shared/marking/letter'

const now = new Date(TEST_NOW)
const later = (minutes: number) => new Date(now.getTime() + minutes * 60_000)

describe('the marking desk', () => {
  let world: World
  let { ines, at, record, steps, mark, act } = {} as Desk
  beforeAll(async () => {
    world = await testWorld()
    ;({ ines, at, record, steps, mark, act } = await atTheDesk(world))
  })
  afterAll(() => world.close())

  const letter = async (student: string) =>
    (await world.as(student)).json<LetterView>('GET', `/api/activities/${world.breakwater.id}/letter`)

  it('sets points in place of what was reckoned, with a reason that is kept, and says both to the student', async () => {
    const bad = await mark(ines, 'idris', {
      steps: steps(3, 3, 3, 2),
      override: { points: 1000, reason: ' ' },
    })
    expect(bad.status).toBe(422)
    expect(bad.body.fields.override).toContain('Say why')
    expect(
      (await mark(ines, 'idris', { override: { points: 2600, reason: 'more' } })).body.fields.override,
    ).toContain('25 points to get')
    const saved = await mark(ines, 'idris', {
      steps: steps(3, 3, 3, 2),
      override: { points: 1000, reason: 'Copied from the reader.' },
    })
    expect(saved.body).toMatchObject({ points: 1000, before: 2500, criteriaLeft: 0 })
    await act('hold', 'idris')
    await act('return', 'idris')
    const { body } = await letter('idris')
    expect(body).toMatchObject({
      points: 1000,
      shown: '10 of 25',
      override: { reason: 'Copied from the reader.', before: 2500 },
    })
    expect(body.html).toContain('Dear Idris,') // what stands for the name is filled in
    const { body: history } = await ines.json<MarkHistory>('GET', await at('idris', '/history'))
    expect(history.entries.map(e => e.text)).toEqual([
      'returned it at 10',
      'held it at 10',
      'set the points to 10: Copied from the reader.',
      expect.stringContaining('Use of evidence: no step →'),
    ])
    expect(history.entries.every(e => e.by === 'Ines Okafor-Lind')).toBe(true)
  })

  it('previews for the marker exactly what the student gets on return', async () => {
    await mark(ines, 'kadri', { steps: steps(1, 1, 1, 1), letter: doc('Dear {First name},', 'Which page?') })
    const { body: preview } = await ines.json<LetterView>('GET', await at('kadri', '/preview'))
    await act('return', 'kadri')
    const { body: got } = await letter('kadri')
    expect({ ...preview, returnedAt: '' }).toEqual({ ...got, returnedAt: '' })
  })

  it('takes a returned mark back for ten minutes, with what was there before; students are told once, and only then', async () => {
    const told = async () =>
      (
        await world.db
          .select()
          .from(t.notices)
          .where(
            and(
              eq(t.notices.activityId, world.breakwater.id),
              eq(t.notices.enrolmentId, (await world.enrolment('kadri')).id),
            ),
          )
      ).filter(n => n.text.includes('come back'))
    expect(await told()).toHaveLength(0)
    expect((await act('take-back', 'kadri')).body.state).toBe('held')
    expect((await letter('kadri')).status).toBe(404)
    await act('return', 'kadri')
    await notifyOfReturn(world.db, later(5))
    expect(await told()).toHaveLength(0)
    await Promise.all([notifyOfReturn(world.db, later(11)), notifyOfReturn(world.db, later(11))])
    await notifyOfReturn(world.db, later(12))
    expect(await told()).toHaveLength(1)
    expect((await act('take-back', 'kadri')).body.code).toBe('tooLate')
    // changed and returned anew, then taken back: the first letter is there again, and nobody is told twice
    const first = (await letter('kadri')).body
    await mark(ines, 'kadri', { steps: steps(3, 3, 3, 2), letter: doc('A new one') })
    await act('return', 'kadri')
    expect((await letter('kadri')).body.points).toBe(2500)
    await act('take-back', 'kadri')
    expect((await letter('kadri')).body).toEqual(first)
    await notifyOfReturn(world.db, later(30))
    expect(await told()).toHaveLength(1)
  })

  it('returns held marks at a time, not a minute before, and not twice', async () => {
    await mark(ines, 'solongo', { steps: steps(2, 2, 2, 2) })
    await act('hold', 'solongo')
    const ids = [(await world.enrolment('solongo')).id]
    const send = (when: Date | null) =>
      ines.json<Refusal & { returned: number }>('POST', `/api/activities/${world.breakwater.id}/return-at`, {
        key: v7(),
        enrolmentIds: ids,
        at: when?.toISOString() ?? null,
      })
    expect((await send(later(-5))).body.fields.at).toContain('over')
    expect((await send(later(60))).body.returned).toBe(1)
    expect(await returnDue(world.db, later(59))).toBe(0)
    expect((await letter('solongo')).status).toBe(404)
    expect(
      (await Promise.all([returnDue(world.db, later(60)), returnDue(world.db, later(60))])).reduce(
        (a, b) => a + b,
      ),
    ).toBe(1)
    expect((await letter('solongo')).body).toMatchObject({ by: 'Ines Okafor-Lind', points: 1900 })
  })

  it('gives a level that stands for a range the typed number, and refuses one outside it', async () => {
    const made = await ines.json<{ id: string; versionId: string }>(
      'POST',
      `/api/seminars/${world.seminar.id}/rubrics`,
      {
        key: v7(),
        rubric: {
          title: 'Ranges',
          criteria: [
            {
              title: 'All',
              scope: 'own',
              weight: 1,
              suggestFrom: null,
              outcomes: [],
              levels: [
                { title: 'low', points: 1000, pointsFrom: 0, descriptor: '' },
                { title: 'high', points: 2500, pointsFrom: 1100, descriptor: '' },
              ],
            },
          ],
        },
      },
    )
    await world.db
      .update(t.activities)
      .set({ rubricVersionId: made.body.versionId })
      .where(eq(t.activities.id, world.dredge.id))
    const { rubric: ranges } = await record('liv', ines, world.dredge.id)
    const [low, high] = ranges!.criteria[0]!.levels
    const give = (levelId: string, points?: number) =>
      mark(
        ines,
        'liv',
        {
          steps: [{ criterionId: ranges!.criteria[0]!.id, levelId, ...(points !== undefined && { points }) }],
        },
        world.dredge.id,
      )
    expect((await give(high!.id, 1050)).body.fields.steps).toContain('11 to 25')
    expect((await give(low!.id, 1001)).status).toBe(422)
    // rounded once, to the activity's half points
    expect((await give(high!.id, 1725)).body).toMatchObject({ points: 1750, steps: [{ points: 1725 }] })
    expect((await give(low!.id, 0)).body).toMatchObject({ points: 0, criteriaLeft: 0 })
  })

  it('keeps old marks under their version when the rubric changes; moving them is shown first and leaves open what has no counterpart', async () => {
    const library = (
      await ines.json<{ rubrics: Array<{ revision: number; rubric: NonNullable<ActivityView['rubric']> }> }>(
        'GET',
        `/api/seminars/${world.seminar.id}/library`,
      )
    ).body
    const { rubric: now, revision } = library.rubrics.find(r => r.rubric.title === 'Ranges')!
    const body = {
      title: 'Ranges',
      criteria: [
        {
          title: 'ALL',
          scope: 'own',
          weight: 1,
          suggestFrom: null,
          outcomes: [],
          levels: [
            { title: 'Low', points: 500, pointsFrom: null, descriptor: '' },
            { title: 'high', points: 2000, pointsFrom: null, descriptor: '' },
          ],
        },
        {
          title: 'Further',
          scope: 'own',
          weight: 1,
          suggestFrom: null,
          outcomes: [],
          levels: [{ title: 'x', points: 500, pointsFrom: null, descriptor: '' }],
        },
      ],
    }
    expect(
      (
        await ines.json('PUT', `/api/rubrics/${now.id}`, {
          key: v7(),
          baseRevision: revision,
          rubric: body,
        })
      ).status,
    ).toBe(200)
    const kept = await record('liv', ines, world.dredge.id)
    expect(kept).toMatchObject({
      newerRubric: 2,
      rubric: { version: 1 },
      mark: { points: 0, criteriaLeft: 0 },
    })
    const { body: view } = await ines.json<MoveView>('GET', `/api/activities/${world.dredge.id}/rubric-move`)
    expect(view).toMatchObject({
      to: 2,
      marks: [{ name: 'Liv Brandt', from: 1, pointsBefore: 0, pointsAfter: null, left: ['Further'] }],
    })
    expect((await record('liv', ines, world.dredge.id)).rubric!.version).toBe(1) // looking changes nothing
    await ines.json('POST', `/api/activities/${world.dredge.id}/rubric-move`, {
      key: v7(),
      enrolmentIds: [view.marks[0]!.enrolmentId],
    })
    expect(await record('liv', ines, world.dredge.id)).toMatchObject({
      newerRubric: null,
      rubric: { version: 2 },
      mark: { criteriaLeft: 1, steps: [{ points: 500 }], state: 'open' },
    })
  })

  it('judges a group once: all members get the steps, their own stay, one can be left out with a reason', async () => {
    const [walls] = await world.db
      .select()
      .from(t.activities)
      .where(eq(t.activities.title, 'Walls of Sundvik'))
    const wiki = await world.rubric('Wiki, group and own')
    const [version] = await world.db
      .select()
      .from(t.rubricVersions)
      .where(eq(t.rubricVersions.rubricId, wiki.id))
    await world.db
      .update(t.activities)
      .set({ rubricVersionId: version!.id, points: 2000, scale: 'points' })
      .where(eq(t.activities.id, walls!.id))
    const first = await record('liv', ines, walls!.id)
    const [shared, own] = [
      first.rubric!.criteria.find(c => c.scope === 'group')!,
      first.rubric!.criteria.find(c => c.scope === 'own')!,
    ]
    const keyOf = (name: string) => name.split(' ')[0]!.toLowerCase()
    const mates = first.group!.members.filter(m => m.name !== 'Liv Brandt')
    expect(mates.length).toBeGreaterThan(1)
    const step = (c: typeof shared, n: number) => ({ criterionId: c.id, levelId: c.levels[n]!.id })
    await mark(ines, keyOf(mates[0]!.name), { steps: [step(own, 0)] }, walls!.id)
    const other = shared.levels.findIndex(
      l => l.id !== first.mark.steps.find(s => s.criterionId === shared.id)?.levelId,
    )
    await mark(ines, 'liv', { steps: [step(shared, other), step(own, 1)] }, walls!.id)
    const mate = await record(keyOf(mates[0]!.name), ines, walls!.id)
    expect(mate.mark.steps).toHaveLength(2)
    expect(mate.mark.steps).toEqual(
      expect.arrayContaining([
        expect.objectContaining(step(shared, other)),
        expect.objectContaining(step(own, 0)),
      ]),
    )
    // it was returned and has lost a step in between: back on the desk
    expect((await record(keyOf(mates[1]!.name), ines, walls!.id)).mark.state).toBe('open')
    expect((await record(keyOf(mates[1]!.name), ines, walls!.id)).mark.steps).toEqual(
      expect.arrayContaining([expect.objectContaining(step(shared, other))]),
    )
    // one mark for the whole group: every criterion is the group's
    await world.db.update(t.activities).set({ groupMark: true }).where(eq(t.activities.id, walls!.id))
    await mark(ines, 'liv', { steps: first.rubric!.criteria.map(c => step(c, 0)) }, walls!.id)
    expect(
      (await record(keyOf(mates[0]!.name), ines, walls!.id)).mark.steps.map(s => s.levelId).sort(),
    ).toEqual(first.rubric!.criteria.map(c => c.levels[0]!.id).sort())
    await world.db.update(t.activities).set({ groupMark: false }).where(eq(t.activities.id, walls!.id))
    // left out of it, the member is marked by the rest alone
    const out = await mark(
      ines,
      'liv',
      {
        steps: [
          step(shared, other),
          ...first.rubric!.criteria.filter(c => c.scope === 'own').map(c => step(c, c.levels.length - 1)),
        ],
        excusedFrom: first
          .rubric!.criteria.filter(c => c.scope === 'group')
          .map(c => ({ criterionId: c.id, reason: 'Joined in week 4.' })),
      },
      walls!.id,
    )
    expect(out.body).toMatchObject({ points: 2000, criteriaLeft: 0 })
    expect(
      (
        await mark(
          ines,
          'liv',
          { steps: [], excusedFrom: [{ criterionId: own.id, reason: 'no' }] },
          walls!.id,
        )
      ).status,
    ).toBe(422)
  })
})
