import { and, eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { type Client } from '#server/testing/server'
import { email, testWorld, type World } from '#server/testing/world'
import type { ActivityBody, ComposerView, EffectView } from '#shared/planning/composer'

const key = () => v7()

describe('planning an activity', () => {
  let world: World
  let ines: Client
  const path = (id: string) => `/api/activities/${id}/plan`
  const view = async (id: string) => (await ines.json<ComposerView>('GET', path(id))).body
  const patch = async (id: string, change: Partial<ActivityBody>, tell = false) =>
    ines.json<ComposerView>('PATCH', path(id), {
      key: key(),
      baseVersion: (await view(id)).version,
      change,
      tell,
    })
  const rulesOf = (v: ComposerView) => (v.body as ActivityBody).rules
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
  })
  afterAll(() => world.close())

  it('tells the second of two instructors what the first has stored, and changes nothing', async () => {
    const before = await view(world.essays.id)
    const write = (title: string) =>
      ines.json<ComposerView & { theirs: ComposerView }>('PATCH', path(world.essays.id), {
        key: key(),
        baseVersion: before.version,
        change: { title },
        tell: false,
      })
    expect((await write('First')).status).toBe(200)
    const second = await write('Second')
    expect(second.status).toBe(409)
    expect(second.body.theirs).toMatchObject({
      version: before.version + 1,
      body: { title: 'First' },
      savedBy: 'Ines Okafor-Lind',
    })
    expect((await view(world.essays.id)).body.title).toBe('First')
  })

  it('says what a change would do, and then does exactly that', async () => {
    const before = await view(world.breakwater.id)
    const rules = rulesOf(before).map(r =>
      r.rule.kind === 'entries' ? { ...r, rule: { ...r.rule, minWords: 235 } } : r,
    )
    const effect = (
      await ines.json<EffectView>('POST', `${path(world.breakwater.id)}/effect`, { change: { rules } })
    ).body
    expect((await view(world.breakwater.id)).counts).toEqual(before.counts) // nothing was done
    expect(effect.kept).toBe(
      await world.db.$count(t.contributions, eq(t.contributions.activityId, world.breakwater.id)),
    )
    const expected = { ...before.counts }
    for (const m of effect.moves) {
      expected[m.from as keyof typeof expected] -= m.people
      expected[m.to as keyof typeof expected] += m.people
    }
    expect((await patch(world.breakwater.id, { rules })).body.counts).toEqual(expected)
    const shut = (
      await ines.json<EffectView>('POST', `${path(world.dredge.id)}/effect`, {
        change: {
          opensAt: '2026-10-15T06:00:00Z',
          phases: ((await view(world.dredge.id)).body as ActivityBody).phases.map(p =>
            p.name === 'write' ? { ...p, startsAt: '2026-10-15T06:00:00Z' } : p,
          ),
        },
      })
    ).body
    expect(shut.shuts).toBe(true)
    // a close that comes later makes who is not done yet "under way" again
    const later = (before.body as ActivityBody).phases.map(p => {
      if (p.name === 'respond') return { ...p, endsAt: '2026-10-18T21:59:00.000Z' }
      if (p.name === 'mark')
        return { ...p, startsAt: '2026-10-18T22:00:00.000Z', endsAt: '2026-10-25T21:59:00.000Z' }
      if (p.name === 'return')
        return { ...p, startsAt: '2026-10-25T22:00:00.000Z', endsAt: '2026-10-30T17:00:00.000Z' }
      return p
    })
    const strict = rulesOf(before).map(r => ({ ...r, rule: { ...r.rule, need: 9 } }))
    const asked = (
      await ines.json<EffectView>('POST', `${path(world.breakwater.id)}/effect`, {
        change: { rules: strict, phases: later },
      })
    ).body
    expect(asked.moves).toContainEqual({ from: 'ready', to: 'underWay', people: 11 })
    await patch(world.breakwater.id, { rules: rulesOf(before) })
  })

  it('loses no word when the kind changes, and comes back as it was', async () => {
    const rows = () =>
      world.db
        .select({
          id: t.contributions.id,
          type: t.contributions.type,
          text: t.contributions.text,
          state: t.contributions.state,
        })
        .from(t.contributions)
        .where(eq(t.contributions.activityId, world.dredge.id))
        .orderBy(t.contributions.id)
    const [before, was] = [await rows(), await view(world.dredge.id)]
    expect((await patch(world.dredge.id, { kind: 'blog' })).status).toBe(200)
    const blog = await rows()
    expect(blog.map(r => [r.id, r.text, r.state])).toEqual(before.map(r => [r.id, r.text, r.state]))
    expect(new Set(blog.map(r => r.type))).toEqual(new Set(['entry', 'comment']))
    expect((await patch(world.dredge.id, { kind: 'discussion' })).body.counts).toEqual(was.counts)
    expect(await rows()).toEqual(before)
  })

  it('refuses sentences that do not apply to the kind, dates that contradict each other, and reviewing before hand-in ends', async () => {
    expect((await patch(world.dredge.id, { kind: 'journal' })).status).toBe(422)
    const { body } = await view(world.essays.id)
    const phases = (body as ActivityBody).phases
    const review = phases.find(p => p.name === 'review')!
    for (const wrong of [
      phases.map(p =>
        p.name === 'write'
          ? { ...p, endsAt: new Date(Date.parse(review.startsAt) + 3_600_000).toISOString() }
          : p,
      ),
      phases.map(p => (p.name === 'write' ? { ...p, endsAt: p.startsAt } : p)),
      phases.filter(p => p.name === 'mark'),
    ])
      expect((await patch(world.essays.id, { phases: wrong })).status).toBe(422)
    expect((await view(world.essays.id)).body.phases).toEqual(phases)
  })

  it('takes nothing of another seminar', async () => {
    const [foreign] = await world.db.select().from(t.seminars).where(eq(t.seminars.code, 'XX 1'))
    const [unit] = await world.db
      .insert(t.units)
      .values({ seminarId: foreign!.id, title: 'Theirs', fromWeek: 1, toWeek: 2, position: 0 })
      .returning()
    expect((await patch(world.essays.id, { unitId: unit!.id })).status).toBe(422)
    const outsider = await world.as('outsider')
    const [own] = await world.db
      .select()
      .from(t.persons)
      .where(eq(t.persons.email, email('outsider')))
    expect(own).toBeDefined()
    expect(
      (
        await outsider.send('POST', `/api/activities/${world.essays.id}/copy`, {
          id: key(),
          seminarId: foreign!.id,
          week: null,
          asTemplate: false,
        })
      ).status,
    ).toBe(404)
    expect(
      (
        await ines.send('POST', `/api/activities/${world.essays.id}/copy`, {
          id: key(),
          seminarId: foreign!.id,
          week: null,
          asTemplate: false,
        })
      ).status,
    ).toBe(404)
  })

  it('reckons held marks anew when the points change, and leaves returned letters as they were', async () => {
    const marks = () =>
      world.db.select().from(t.marks).where(eq(t.marks.activityId, world.breakwater.id)).orderBy(t.marks.id)
    const before = await marks()
    await patch(world.breakwater.id, { points: 5000 })
    for (const after of await marks()) {
      const was = before.find(b => b.id === after.id)!
      expect(after.returned).toEqual(was.returned)
      expect(after.points).toBe(was.state === 'held' ? was.points! * 2 : was.points)
    }
    await patch(world.breakwater.id, { points: 2500 })
    expect((await marks()).map(m => m.points)).toEqual(before.map(b => b.points))
  })

  it('keeps marks under the version of the rubric they were given under', async () => {
    const rubric = await world.rubric('Seminar contribution')
    const library = (
      await ines.json<{
        rubrics: Array<{
          revision: number
          rubric: {
            id: string
            version: number
            criteria: Array<{
              title: string
              levels: Array<{ title: string; points: number; descriptor: string }>
            }>
          }
        }>
      }>('GET', `/api/seminars/${world.seminar.id}/library`)
    ).body
    const { revision, rubric: newest } = library.rubrics.find(r => r.rubric.id === rubric.id)!
    const { version, criteria } = newest
    const draft = {
      title: 'Seminar contribution',
      criteria: criteria.slice(0, 3).map(c => ({
        title: `${c.title}, newly`,
        scope: 'own',
        weight: 1,
        suggestFrom: null,
        outcomes: [],
        levels: c.levels.map(l => ({
          title: l.title,
          points: l.points,
          pointsFrom: null,
          descriptor: l.descriptor,
        })),
      })),
    }
    expect(
      (
        await ines.json<{ version: number }>('PUT', `/api/rubrics/${rubric.id}`, {
          key: key(),
          baseRevision: revision,
          rubric: draft,
        })
      ).body.version,
    ).toBe(version + 1)
    const record = async (who: string) =>
      (
        await ines.json<{
          rubric: { version: number }
          mark: { points: number; criteriaLeft: number; state: string }
        }>('GET', `/api/activities/${world.breakwater.id}/records/${(await world.enrolment(who)).id}`)
      ).body
    const held = await world.db
      .select({ who: t.marks.enrolmentId, points: t.marks.points })
      .from(t.marks)
      .where(and(eq(t.marks.activityId, world.breakwater.id), eq(t.marks.state, 'held')))
    expect(held.length).toBeGreaterThan(3)
    for (const mark of held) {
      const { body } = await ines.json<Awaited<ReturnType<typeof record>>>(
        'GET',
        `/api/activities/${world.breakwater.id}/records/${mark.who}`,
      )
      expect(body).toMatchObject({ rubric: { version }, mark: { points: mark.points, criteriaLeft: 0 } })
    }
    expect((await record('kadri')).rubric.version).toBe(version + 1) // nothing given yet
    expect(
      (
        await ines.send('PUT', `/api/rubrics/${rubric.id}`, {
          key: key(),
          baseRevision: revision,
          rubric: draft,
        })
      ).status,
    ).toBe(409)
  })

  it('takes a late rule at once: what is held costs what the rule says, and waiving gives it back', async () => {
    type Record = {
      late: { minutes: number; pointsWithout: number } | null
      mark: {
        version: number
        points: number
        steps: unknown[]
        citations: unknown[]
        letter: unknown
        markerNote: string
      }
    }
    const petra = `/api/activities/${world.breakwater.id}/records/${(await world.enrolment('petra')).id}`
    const record = async () => (await ines.json<Record>('GET', petra)).body
    const before = await record()
    await patch(world.breakwater.id, {
      lateRule: { kind: 'perDay', graceMinutes: 0, percentPerDay: 10, floorPercent: 20 },
    })
    const { late, mark } = await record()
    expect(late!.minutes).toBe(539) // due 23:59, in at 8:58: one day begun
    expect(late!.pointsWithout).toBe(before.mark.points)
    expect(mark.points).toBe(before.mark.points - 250) // a tenth of 25 points
    expect(
      (
        await world.db
          .select({ points: t.marks.points })
          .from(t.marks)
          .where(
            and(
              eq(t.marks.activityId, world.breakwater.id),
              eq(t.marks.enrolmentId, (await world.enrolment('petra')).id),
            ),
          )
      )[0]!.points,
    ).toBe(mark.points)
    await patch(world.breakwater.id, {
      lateRule: { kind: 'perDay', graceMinutes: 720, percentPerDay: 10, floorPercent: 20 },
    })
    expect((await record()).mark.points).toBe(before.mark.points) // within the grace
    await patch(world.breakwater.id, { lateRule: { kind: 'cap', graceMinutes: 0, capPercent: 40 } })
    expect((await record()).mark.points).toBe(1000)
    const { mark: now } = await record()
    const waived = await ines.json<{ points: number }>('PUT', `${petra}/mark`, {
      key: key(),
      baseVersion: now.version,
      steps: now.steps,
      citations: now.citations,
      letter: now.letter,
      markerNote: now.markerNote,
      lateWaived: true,
    })
    expect(waived.body.points).toBe(before.mark.points)
    await patch(world.breakwater.id, { lateRule: { kind: 'none' } })
  })
})
