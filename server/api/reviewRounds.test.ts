import { eq, sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { seededRandom } from '#core/chance/seededRandom'
import { calculateMark } from '#core/marking/calculateMark'
import { consensusOf, type PeerReview } from '#core/marking/peers/consensus'
import * as t from '#server/database/schema'
import { FIVE, peerReviewIn, type PeerReviewActs } from '#server/testing/peerReview'
import { testWorld, words, type World } from '#server/testing/world'
import type { ReviewDesk } from '#shared/kinds/review/review'
import type { RecordView } from '#shared/marking/desk'
import type { Gradebook, OwnGrades } from '#shared/marking/gradebook'
import type { PeersView, RepairView, TakeAnswer } from '#shared/marking/peers'

const PEOPLE = [...FIVE, 'emrys'] as const
type Who = (typeof PEOPLE)[number]
const ACTS = 28 // of each sequence
const SEEDS = [3, 17, 40]

/** What a round should be, kept beside it and never read from it. */
interface Model {
  readonly reviews: Map<string, Given> // by allocation
  readonly own: Map<string, Record<string, number>> // by author, criterion
  readonly marks: Map<string, Taken> // by author
  released: boolean
}
interface Given {
  readonly reviewer: Who
  readonly author: Who
  points: Record<string, number>
  state: 'owed' | 'begun' | 'in'
  aside: boolean
  isLetOut: boolean
}
interface Taken {
  readonly state: 'held' | 'returned'
  readonly points: number
}

describe('a round of reviews, whatever is done in whatever order', () => {
  let world: World
  let { base, as, times, handIn, own, peers, staff } = {} as PeerReviewActs
  const idOf = new Map<Who, string>()
  const whoOf = (id: string) => PEOPLE.find(who => idOf.get(who) === id)!
  beforeAll(async () => {
    world = await testWorld({ minutes: false })
    ;({ base, as, times, handIn, own, peers, staff } = await peerReviewIn(world))
    for (const who of PEOPLE) {
      idOf.set(who, (await world.enrolment(who)).id)
      expect((await handIn(who, `By somebody. ${words(280)}`)).status).toBe(200)
    }
    await times(30, 20, -48)
  })
  afterAll(() => world.close())

  /** The round from its start: nothing assigned, nothing marked. */
  async function begin(seed: number): Promise<Model> {
    const activity = world.essays.id
    const marked = world.db.select({ id: t.marks.id }).from(t.marks).where(eq(t.marks.activityId, activity))
    await world.db.execute(sql`delete from criterion_marks where mark_id in ${marked}`)
    await world.db.delete(t.marks).where(eq(t.marks.activityId, activity))
    await world.db.delete(t.allocations).where(eq(t.allocations.activityId, activity))
    await world.db.delete(t.peerReviews).where(eq(t.peerReviews.activityId, activity))
    expect((await staff('deal', { key: v7(), seed })).status).toBe(200)
    const reviews = new Map<string, Given>()
    for (const a of (await peers()).allocations)
      reviews.set(a.id, {
        ...{ reviewer: whoOf(a.reviewerId), author: whoOf(a.subjectId), points: {}, state: 'owed' },
        ...{ aside: false, isLetOut: false },
      })
    return { reviews, own: new Map(), marks: new Map(), released: false }
  }

  it.each(SEEDS)('leaves every figure as an independent calculation has it (%i)', async seed => {
    const random = seededRandom(seed)
    const model = await begin(seed)
    const did: string[] = []
    for (let i = 0; i < ACTS; i++) {
      did.push(await act(model, random))
      await compare(model, i % 4 === 3 || i === ACTS - 1, did)
    }
    // the sequence was worth comparing
    expect(new Set(did.map(d => d.split(' ')[0])).size).toBeGreaterThan(6)
  })

  /** Does one thing that can be done, and takes it down. @returns what, for whoever reads a failure */
  async function act(model: Model, random: () => number): Promise<string> {
    const pick = <T>(list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)]
    const all = [...model.reviews]
    const author = pick(PEOPLE)!
    const authorId = idOf.get(author)!
    switch (
      pick([
        'write',
        'write',
        'in',
        'in',
        'in',
        'back',
        'aside',
        'own',
        'take',
        'take',
        'release',
        'return',
        'reassign',
      ])
    ) {
      case 'write':
      case 'in': {
        const [id, review] = pick(all.filter(([, r]) => r.state !== 'in')) ?? []
        if (!id || !review) return 'nothing'
        const client = await as(review.reviewer)
        await client.send('PUT', `/api/reviews/${id}/opened`)
        const desk = (await client.json<ReviewDesk>('GET', `/api/reviews/${id}`)).body
        const points = Object.fromEntries(
          desk.criteria.map(c => [c.id, Math.floor((random() * c.max) / 50) * 50]),
        )
        const saved = await client.send('PUT', `/api/reviews/${id}`, {
          points,
          remarks: Object.fromEntries(desk.criteria.map(c => [c.id, 'three words here'])),
          answers: Object.fromEntries(desk.questions.map(q => [q.id, 'who measured'])),
          ...{ passages: [], private: '', baseVersion: desk.version },
        })
        expect(saved.status).toBe(200)
        const goesIn = random() < 0.75
        Object.assign(review, { points, state: 'begun' })
        if (!goesIn) return `begin ${id}`
        expect((await client.send('POST', `/api/reviews/${id}/in`, { key: v7() })).status).toBe(200)
        Object.assign(review, { state: 'in', isLetOut: false })
        return `in ${id}`
      }
      case 'back': {
        const [id, review] = pick(all.filter(([, r]) => r.state === 'in')) ?? []
        if (!id || !review) return 'nothing'
        const { status } = await (
          await as(review.reviewer)
        ).send('POST', `/api/reviews/${id}/back`, { key: v7() })
        const mayBack = !review.isLetOut && !review.aside && !kept.has(id)
        expect([id, status]).toEqual([id, mayBack ? 200 : 409])
        if (mayBack) review.state = 'begun'
        return `back ${id}`
      }
      case 'aside': {
        const [id, review] = pick(all.filter(([, r]) => r.state === 'in')) ?? []
        if (!id || !review) return 'nothing'
        const what = pick(['setAside', 'kept', 'open'] as const)!
        const body = what === 'setAside' ? { as: what, reason: 'It is of another text.' } : { as: what }
        expect((await staff(`allocations/${id}`, body, 'PUT')).status).toBe(200)
        review.aside = what === 'setAside'
        if (what === 'kept') kept.add(id)
        else kept.delete(id)
        return `${what} ${id}`
      }
      case 'own': {
        const client = await as('ines')
        const { mark, rubric } = (await client.json<RecordView>('GET', `${base}/records/${authorId}`)).body
        if (mark.state === 'returned') return 'nothing'
        const ownSteps = rubric!.criteria
          .filter(() => random() < 0.8)
          .map(c => ({
            criterionId: c.id,
            levelId: c.levels[0]!.id,
            points: Math.floor((random() * c.max) / 25) * 25,
          }))
        const saved = await client.send('PUT', `${base}/records/${authorId}/mark`, {
          ...{ key: v7(), baseVersion: mark.version, steps: mark.steps, ownSteps, citations: [] },
          ...{ letter: mark.letter, markerNote: '', lateWaived: false, excusedFrom: [], override: null },
        })
        expect(saved.status).toBe(200)
        model.own.set(author, Object.fromEntries(ownSteps.map(s => [s.criterionId, s.points])))
        return `own ${author}`
      }
      case 'take': {
        const what = random() < 0.6 ? 'consensus' : 'own'
        const answer = await staff<TakeAnswer>('take', { key: v7(), enrolmentIds: [authorId], what })
        const points = await pointsOf(model, author, what)
        const isReturned = model.marks.get(author)?.state === 'returned'
        expect([author, what, answer.body.taken.length]).toEqual([
          author,
          what,
          points === null || isReturned ? 0 : 1,
        ])
        if (answer.body.taken.length === 0) return `take nothing`
        if (random() < 0.35) {
          const undone = await staff<TakeAnswer>('take', { key: v7(), enrolmentIds: [authorId] }, 'DELETE')
          expect(undone.body.taken).toEqual([authorId])
          return `undo ${author} ${what}`
        }
        model.marks.set(author, { state: 'held', points: points! })
        return `take ${author} ${what}`
      }
      case 'release': {
        const late = model.released && random() < 0.6
        const released = late || !model.released
        expect((await staff('release', { released, late }, 'PUT')).status).toBe(200)
        model.released = late || released
        for (const r of model.reviews.values()) r.isLetOut = model.released && r.state === 'in'
        await letAnHourGoBy()
        return late ? 'releaseLate' : `release ${released}`
      }
      case 'return': {
        const taken = model.marks.get(author)
        if (!taken) return 'nothing'
        const client = await as('ines')
        if (taken.state === 'held') {
          await client.json('POST', `${base}/return`, { key: v7(), enrolmentIds: [authorId] })
          model.marks.set(author, { ...taken, state: 'returned' })
          return `return ${author}`
        }
        return 'nothing'
      }
      case 'reassign': {
        const idle = pick(all.filter(([, r]) => r.state === 'owed'))?.[1].reviewer
        if (!idle) return 'nothing'
        const plan = (await staff<RepairView>('repair', { idle: [idOf.get(idle)!], extra: 'everyone' })).body
        const { add, remove, baseVersion } = plan
        if (add.length + remove.length === 0) return 'nothing'
        expect((await staff('pairs', { key: v7(), baseVersion, add, remove }, 'PUT')).status).toBe(200)
        const now = new Map((await peers()).allocations.map(a => [a.id, a]))
        for (const id of model.reviews.keys()) if (!now.has(id)) model.reviews.delete(id)
        for (const a of now.values())
          if (!model.reviews.has(a.id))
            model.reviews.set(a.id, {
              ...{ reviewer: whoOf(a.reviewerId), author: whoOf(a.subjectId), points: {}, state: 'owed' },
              ...{ aside: false, isLetOut: false },
            })
        return `reassign ${idle}`
      }
    }
    return 'nothing'
  }
  const kept = new Set<string>()

  /** The clock stands still here, so the past moves: what comes in from now on comes after the release. */
  async function letAnHourGoBy() {
    await world.db.execute(
      sql`update allocations set handed_in_at = handed_in_at - interval '1 hour' where activity_id = ${world.essays.id}`,
    )
    await world.db.execute(
      sql`update review_rounds set released_at = released_at - interval '1 hour', released_up_to = released_up_to - interval '1 hour' where activity_id = ${world.essays.id}`,
    )
  }

  /** What a mark comes to, from what was written down here. */
  async function pointsOf(model: Model, author: Who, what: 'consensus' | 'own'): Promise<number | null> {
    const { rubric, worth, pointStep } = await peers()
    const criteria = rubric!.criteria
    const counted = [...model.reviews].flatMap(([id, r]): PeerReview[] =>
      r.state === 'in' && !r.aside
        ? [{ id, reviewerId: r.reviewer, authorId: r.author, points: new Map(Object.entries(r.points)) }]
        : [],
    )
    const anchors = new Map(
      [...model.own]
        .filter(([, p]) => Object.keys(p).length > 0)
        .map(([a, p]) => [a as string, new Map(Object.entries(p))]),
    )
    const found = consensusOf(
      counted,
      criteria.map(c => ({ id: c.id, max: c.max, weight: c.weight, level: 100 })),
      anchors,
    ).authors.get(author)
    const given = criteria.map(c =>
      what === 'own'
        ? (model.own.get(author)?.[c.id] ?? null)
        : (found?.criteria.get(c.id)?.corrected ?? null),
    )
    if (given.some(p => p === null)) return null
    return calculateMark(
      {
        criteria: criteria.map((c, i) => ({
          ...{ criterionId: c.id, weight: c.weight, max: c.max },
          points: Math.round(given[i]!),
        })),
        ...{ combine: null, override: null, reviewing: null },
        late: { lateness: null, rule: { kind: 'none' }, waived: true },
      },
      { max: worth, step: pointStep },
    ).points
  }

  async function compare(model: Model, everywhere: boolean, did: readonly string[]) {
    const view = await peers()
    const what = did.join(', ')
    compareDesk(model, view, what)
    if (!everywhere) return
    await compareMarks(model, view, what)
    for (const who of PEOPLE) await compareStudent(model, who, what)
  }

  function compareDesk(model: Model, view: PeersView, what: string) {
    // nobody is without a reader silently
    for (const work of view.works) {
      const readers = view.allocations.filter(a => a.entryId === work.id).length
      expect([what, readers >= view.settings.each]).toEqual([what, true])
    }
    expect([what, new Map(view.allocations.map(a => [a.id, [a.state, a.setAside !== null]]))]).toEqual([
      what,
      new Map([...model.reviews].map(([id, r]) => [id, [r.state, r.aside]])),
    ])
    for (const a of view.allocations)
      if (a.state === 'in') expect([what, a.points]).toEqual([what, model.reviews.get(a.id)!.points])
    // own points are never lost
    for (const [author, points] of model.own)
      expect([what, view.marks.find(m => m.enrolmentId === idOf.get(author as Who))?.own]).toEqual([
        what,
        points,
      ])
    const waiting = [...model.reviews.values()].filter(
      r => model.released && r.state === 'in' && !r.aside && !r.isLetOut,
    ).length
    expect([what, view.waiting]).toEqual([what, waiting])
  }

  async function compareMarks(model: Model, view: PeersView, what: string) {
    const ines = await as('ines')
    const book = (await ines.json<Gradebook>('GET', `/api/seminars/${world.seminar.id}/gradebook`)).body
    const column = book.columns.findIndex(c => c.id === world.essays.id)
    for (const who of PEOPLE) {
      const id = idOf.get(who)!
      const taken = model.marks.get(who)
      const mark = view.marks.find(m => m.enrolmentId === id)
      expect([what, who, mark?.state ?? 'open']).toEqual([what, who, taken?.state ?? 'open'])
      if (!taken) continue
      expect([what, who, mark!.points]).toEqual([what, who, taken.points])
      const row = book.rows.find(r => r.enrolmentId === id)!
      expect([what, who, row.points[column]]).toEqual([what, who, taken.points])
    }
  }

  async function compareStudent(model: Model, who: Who, what: string) {
    const mine = await own(who)
    const received = [...model.reviews.values()].filter(
      r => r.author === who && r.isLetOut && r.state === 'in' && !r.aside,
    )
    const sums = (list: ReadonlyArray<{ readonly points: Readonly<Record<string, number>> }>) =>
      list.map(r => Object.values(r.points).reduce((a, b) => a + b, 0)).sort((a, b) => a - b)
    expect([what, who, sums(mine.received)]).toEqual([what, who, sums(received)])
    const grades = (await (await as(who)).json<OwnGrades>('GET', `/api/seminars/${world.seminar.id}/grades`))
      .body
    const column = grades.columns.findIndex(c => c.id === world.essays.id)
    const taken = model.marks.get(who)
    expect([what, who, grades.row.points[column]]).toEqual([
      what,
      who,
      taken?.state === 'returned' ? taken.points : null,
    ])
  }
})
