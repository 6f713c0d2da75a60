import { and, eq, inArray } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { seededRandom } from '#core/chance/seededRandom'
import { measureText } from '#core/contributing/measureText'
import * as t from '#server/database/schema'
import type { Client } from '#server/testing/server'
import {
  recountAll,
  recountChecks,
  recountEchoes,
  recountNetwork,
  recountPeople,
  recountRhythm,
} from '#server/testing/recountVoices'
import { doc, testWorld, type World } from '#server/testing/world'
import type { VoicesView } from '#shared/voices/voices'

describe('voices', () => {
  let world: World
  let ines: Client
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
  })
  afterAll(async () => {
    await world.close()
  })
  const voices = async (query = '', as = ines) =>
    (await as.json<VoicesView>('GET', `/api/seminars/${world.seminar.id}/voices${query}`)).body

  /** Every figure of a look at Voices against the database's own count of the rows as they stand. */
  async function expectSame(view: VoicesView, activityIds: readonly string[], from: string, to: string) {
    const span = { seminarId: world.seminar.id, timeZone: world.seminar.timeZone, activityIds, from, to }
    const [people, all, network, rhythm, echoes] = await Promise.all([
      recountPeople(world.db, span),
      recountAll(world.db, span),
      recountNetwork(world.db, span),
      recountRhythm(world.db, span),
      recountEchoes(world.db, span),
    ])
    const rows = new Map(people.map(r => [r.id, r]))
    const share = (part: number, of: number) => (of === 0 ? null : part / of)
    const near = (value: number | null, expected: number | null, digits: number) =>
      expected === null ? expect(value).toBeNull() : expect(value).toBeCloseTo(expected, digits)
    expect(view.people.length).toBeGreaterThan(10)
    for (const p of view.people) {
      const r = rows.get(p.id)!
      expect(r.ownWords, `words of ${p.name}, by their texts`).toBe(r.words)
      expect([
        p.name,
        p.contributions,
        p.words,
        p.wordsEach,
        p.daysActive,
        p.depth,
        p.answered,
        p.answeredBy,
        p.answersGot,
        p.shareAnswered,
        p.reciprocity,
        p.sentenceLength,
      ]).toEqual([
        p.name,
        r.contributions,
        r.words,
        share(r.words, r.contributions),
        r.days,
        r.depth,
        r.answered,
        r.answeredBy,
        r.got,
        share(r.heard, r.contributions),
        share(r.mutual, r.answered),
        share(r.words, r.sentences),
      ])
      near(
        p.ease,
        r.sentences === 0 ? null : 206.835 - 1.015 * (r.words / r.sentences) - 84.6 * (r.syllables / r.words),
        9,
      )
      near(p.medianToAnswer, r.wait, 0)
      near(p.firstAgainstDue, r.lead, 0)
      expect(p.between).toBeCloseTo(network.between.get(p.id)!, 9)
    }
    expect(view.all).toMatchObject({
      contributions: all.contributions,
      words: all.words,
      haveHalf: all.half,
      shareAnswered: share(all.heard, all.contributions),
      reciprocity: share(all.mutual, all.linked),
      staffShare: share(all.staffWords, all.staffWords + all.words),
      spoke: people.filter(r => r.contributions > 0).length,
    })
    const words = view.people.map(p => p.words)
    const [mean, pairs] = [
      words.reduce((a, b) => a + b, 0) / words.length,
      words.flatMap(a => words.map(b => Math.abs(a - b))).reduce((a, b) => a + b, 0),
    ]
    if (mean > 0) expect(view.all.gini).toBeCloseTo(pairs / (2 * words.length ** 2 * mean), 9)
    const written = (edges: ReadonlyArray<{ from: string; to: string; times: number }>) =>
      edges.map(e => `${e.from} ${e.to} ${e.times}`).sort()
    expect(written(view.edges)).toEqual(written(network.edges))
    const hours = new Map(rhythm.map(r => [`${r.day} ${r.hour}`, r.n]))
    expect(view.days.map(d => [d.day, d.count, d.hours])).toEqual(
      view.days.map(d => {
        const own = Array.from({ length: 24 }, (_, h) => hours.get(`${d.day} ${h}`) ?? 0)
        return [d.day, own.reduce((a, b) => a + b, 0), own]
      }),
    )
    const first = echoes
      .filter(e => e.answers > 0)
      .sort((a, b) => b.answers - a.answers || b.people - a.people || (a.id < b.id ? -1 : 1))
      .slice(0, 5)
    expect(view.mostAnswered.map(e => [e.id, e.answers, e.people])).toEqual(
      first.map(e => [e.id, e.answers, e.people]),
    )
    expect(view.unanswered.map(e => e.id)).toEqual(
      echoes
        .filter(e => !e.heard)
        .slice(0, 5)
        .map(e => e.id),
    )
  }
  async function expectChecks(view: VoicesView, activityId: string) {
    const rows = new Map(
      (
        await recountChecks(
          world.db,
          { seminarId: world.seminar.id, timeZone: world.seminar.timeZone },
          activityId,
        )
      ).map(r => [r.id, r]),
    )
    expect(view.people.map(p => [p.name, p.met, p.asked, true])).toEqual(
      view.people.map(p => {
        const r = rows.get(p.id)!
        return [p.name, r.met, r.asked, r.known]
      }),
    )
    expect(new Set(view.people.map(p => p.met)).size).toBeGreaterThan(1)
  }
  const published = async () =>
    (
      await world.db
        .select({ id: t.activities.id })
        .from(t.activities)
        .where(
          and(
            eq(t.activities.seminarId, world.seminar.id),
            eq(t.activities.isTemplate, false),
            eq(t.activities.state, 'published'),
          ),
        )
    ).map(a => a.id)

  it('are of one activity what the database counts by itself, and say what the silent did do', async () => {
    const view = await voices(`?activity=${world.breakwater.id}`)
    await expectSame(view, [world.breakwater.id], '2000-01-01', '2100-01-01')
    await expectChecks(view, world.breakwater.id)
    expect(view.activity).toMatchObject({ id: world.breakwater.id, kind: 'discussion' })
    for (const figure of ['ease', 'firstAgainstDue', 'medianToAnswer', 'reciprocity'] as const)
      expect(view.people.filter(p => p[figure] !== null).length, figure).toBeGreaterThan(10)
    expect(view.people.filter(p => p.between > 0).length).toBeGreaterThan(5)
    const silent = view.people.filter(p => p.contributions === 0)
    expect(silent.map(p => p.givenName).sort()).toContain('Paz')
    expect(silent.every(p => p.quiet !== null)).toBe(true)
    expect(view.mostAnswered[0]!.answers).toBeGreaterThanOrEqual(view.mostAnswered[1]!.answers)
  })

  it('are of the seminar and of some weeks what the database counts, and add up from week to week', async () => {
    const ids = await published()
    const all = await voices()
    await expectSame(all, ids, '2026-09-06T22:00:00Z', '2026-10-18T22:00:00Z')
    expect([all.from, all.to]).toEqual([1, 6])
    const weeks = await Promise.all([1, 2, 3, 4, 5, 6].map(w => voices(`?from=${w}&to=${w}`)))
    expect(weeks.reduce((n, v) => n + v.all.words, 0)).toBe(all.all.words)
    expect(weeks[3]!.people.map(p => p.before.words)).toEqual(weeks[2]!.people.map(p => p.words))
    const talks = await world.db
      .select({ id: t.activities.id })
      .from(t.activities)
      .where(
        and(
          eq(t.activities.seminarId, world.seminar.id),
          eq(t.activities.kind, 'discussion'),
          eq(t.activities.state, 'published'),
          eq(t.activities.isTemplate, false),
        ),
      )
    expect(talks.length).toBeGreaterThan(1)
    await expectSame(
      await voices('?kind=discussion'),
      talks.map(a => a.id),
      '2026-09-06T22:00:00Z',
      '2026-10-18T22:00:00Z',
    )
    const some = [world.breakwater.id, world.terms.id, world.walls.id]
    const several = await voices(`?among=${some.join(',')}`)
    await expectSame(several, some, '2026-09-06T22:00:00Z', '2026-10-18T22:00:00Z')
    expect(several.all.contributions).toBeGreaterThan(
      (await voices(`?activity=${world.breakwater.id}`)).all.contributions,
    )
    const [one, two] = await Promise.all(all.sections.map(s => voices(`?section=${s.id}`)))
    if (one && two) expect(one.all.words + two.all.words).toBe(all.all.words)
  })

  it('hold on a seminar of chance, with answers to oneself, deep threads and texts changed and withdrawn', async () => {
    const random = seededRandom(11)
    const from = <T>(list: readonly T[]) => list[Math.floor(random() * list.length)]!
    const people = await world.db
      .select()
      .from(t.enrolments)
      .where(
        and(
          eq(t.enrolments.seminarId, world.seminar.id),
          inArray(t.enrolments.role, ['student', 'instructor']),
        ),
      )
    const sentences = () =>
      Array.from(
        { length: 1 + Math.floor(random() * 4) },
        () =>
          `${Array.from({ length: 1 + Math.floor(random() * 14) }, () =>
            from([
              'tide',
              'harbour',
              'the',
              'ruled',
              'toll’s',
              '1,342',
              'Sundvik',
              'little',
              'dues',
              'quay-side',
              'boxes',
              'é',
            ]),
          ).join(' ')}${from(['.', '?', '!', '.”', ' (p. 12).'])}`,
      ).join(' ')
    const paragraph = (text: string) => ({ type: 'paragraph', content: [{ type: 'text', text }] })
    const anyDoc = () => ({
      type: 'doc',
      content: [
        paragraph(sentences()),
        ...(random() < 0.3
          ? [{ type: 'blockquote', content: [paragraph(sentences())] }, paragraph(sentences())]
          : []),
        ...(random() < 0.2
          ? [
              {
                type: 'bulletList',
                content: [1, 2].map(() => ({ type: 'listItem', content: [paragraph(sentences())] })),
              },
            ]
          : []),
      ],
    })
    const made: Array<{ id: string; threadId: string }> = []
    for (let i = 0; i < 160; i++) {
      const parent = made.length > 0 && random() < 0.7 ? from(made) : null
      const [id, author, whole] = [v7(), from(people), anyDoc()]
      const at = new Date(Date.parse('2026-09-20T08:00:00Z') + i * 3_000_000)
      const { text, words } = measureText(whole)
      await world.db.insert(t.contributions).values({
        id,
        seminarId: world.seminar.id,
        activityId: world.dredge.id,
        authorId: author.id,
        type: parent ? 'reply' : 'post',
        parentId: parent?.id ?? null,
        threadId: parent?.threadId ?? id,
        slot: id,
        state: random() < 0.9 ? 'shown' : 'withdrawn',
        doc: whole,
        html: '<p>…</p>',
        text,
        words,
        madeAt: at,
        savedAt: at,
        shownAt: at,
      })
      made.push({ id, threadId: parent?.threadId ?? id })
    }
    await world.db.delete(t.extensions).where(eq(t.extensions.activityId, world.dredge.id))
    await world.db.insert(t.extensions).values(
      people
        .filter(p => p.role === 'student')
        .slice(0, 8)
        .map((p, i) => ({
          seminarId: world.seminar.id,
          activityId: world.dredge.id,
          enrolmentId: p.id,
          dueAt: new Date(Date.parse('2026-10-01T08:00:00Z') + i * 400_000_000),
          reason: 'chance',
        })),
    )
    const all = [world.dredge.id]
    await expectSame(await voices(`?activity=${world.dredge.id}`), all, '2000-01-01', '2100-01-01')
    await expectChecks(await voices(`?activity=${world.dredge.id}`), world.dredge.id)
    await expectSame(await voices(), await published(), '2026-09-06T22:00:00Z', '2026-10-18T22:00:00Z')
    // of some weeks only; what was answered after them is answered all the same
    await expectSame(
      await voices('?from=3&to=3'),
      await published(),
      '2026-09-20T22:00:00Z',
      '2026-09-27T22:00:00Z',
    )
    // words that were changed are counted anew
    const [row] = await world.db
      .select()
      .from(t.contributions)
      .where(
        and(
          inArray(
            t.contributions.id,
            made.map(m => m.id),
          ),
          eq(t.contributions.state, 'shown'),
        ),
      )
      .orderBy(t.contributions.id)
    await world.db
      .update(t.contributions)
      .set({ doc: doc('One. Two. Three. Four. Five. Six. Seven.'), words: 7, version: row!.version + 1 })
      .where(eq(t.contributions.id, row!.id))
    await expectSame(await voices(`?activity=${world.dredge.id}`), all, '2000-01-01', '2100-01-01')
  })
})
