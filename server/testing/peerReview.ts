import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { USUAL_REVIEW, type ReviewSettings } from '#core/kinds/review/reviewSettings'
import * as t from '#server/database/schema'
import type { Client } from '#server/testing/server'
import { doc, type World } from '#server/testing/world'
import type { OwnReviews, ReviewDesk } from '#shared/kinds/review/review'
import type { PeersView } from '#shared/marking/peers'

export type Refused = {
  readonly code: string
  readonly detail: string
  readonly fields: Record<string, string>
  readonly theirs: unknown
}
export const FIVE = ['liv', 'nico', 'kadri', 'solongo', 'femke'] as const
export const past = (hours: number) => new Date(Date.parse('2026-10-14T08:20:00Z') - hours * 3_600_000)

/** The draft essays as a peer review that takes work in, and what people do in it. */
export async function peerReviewIn(world: World) {
  const clients = new Map<string, Client>()
  const as = async (key: string) => {
    const client = clients.get(key) ?? (await world.as(key))
    clients.set(key, client)
    return client
  }
  const base = `/api/activities/${world.essays.id}`
  const set = (review: Partial<ReviewSettings>) =>
    world.db
      .update(t.activities)
      .set({ settings: { writeFirst: false, editMinutes: 30, review: { ...USUAL_REVIEW, ...review } } })
      .where(eq(t.activities.id, world.essays.id))
  /** When hand-in ends, reading begins and ends: hours ago, negative for hours ahead. */
  async function times(handInEnds: number, readingBegins: number, readingEnds: number) {
    await world.db.delete(t.phases).where(eq(t.phases.activityId, world.essays.id))
    const ids = { seminarId: world.seminar.id, activityId: world.essays.id }
    await world.db.insert(t.phases).values([
      { ...ids, name: 'write', startsAt: past(200), endsAt: past(handInEnds), position: 0 },
      { ...ids, name: 'review', startsAt: past(readingBegins), endsAt: past(readingEnds), position: 1 },
    ])
  }
  const handIn = async (who: string, text: string, fileIds: string[] = []) =>
    (await as(who)).json<{ id: string } & Refused>('POST', `${base}/contributions`, {
      key: v7(),
      parentId: null,
      doc: doc(text),
      fileIds,
    })
  const own = async (who: string) => (await (await as(who)).json<OwnReviews>('GET', `${base}/reviews`)).body
  const peers = async () => (await (await as('ines')).json<PeersView>('GET', `${base}/peers`)).body
  const staff = async <T = Refused>(what: string, body: object, method = 'POST', who = 'ines') =>
    (await as(who)).json<T>(method, `${base}/peers/${what}`, body)

  /** The same score and remark for everything that is asked. */
  const given = (desk: ReviewDesk, points: number, remark = 'three words here') => ({
    points: Object.fromEntries(desk.criteria.map(c => [c.id, points])),
    remarks: Object.fromEntries(desk.criteria.map(c => [c.id, remark])),
    answers: Object.fromEntries(desk.questions.map(q => [q.id, 'who measured'])),
    passages: [],
    private: 'between us only',
  })
  async function review(who: string, id: string, points: number, remark?: string) {
    const client = await as(who)
    const desk = (await client.json<ReviewDesk>('GET', `/api/reviews/${id}`)).body
    await client.send('PUT', `/api/reviews/${id}/opened`)
    const saved = await client.json<{ version: number }>('PUT', `/api/reviews/${id}`, {
      ...given(desk, points, remark),
      baseVersion: desk.version,
    })
    if (saved.status !== 200) throw new Error(`a review could not be saved: ${saved.status}`)
    return client.json<{ handedIn: number } & Refused>('POST', `/api/reviews/${id}/in`, { key: v7() })
  }
  /** The first part of the address somebody signs in with. */
  async function keyOf(enrolmentId: string): Promise<string> {
    const [row] = await world.db
      .select({ email: t.persons.email })
      .from(t.enrolments)
      .innerJoin(t.persons, eq(t.persons.id, t.enrolments.personId))
      .where(eq(t.enrolments.id, enrolmentId))
    return row!.email.split('@')[0]!
  }

  const rubric = await world.rubric('Source report')
  const [version] = await world.db
    .select()
    .from(t.rubricVersions)
    .where(eq(t.rubricVersions.rubricId, rubric.id))
  await world.db
    .update(t.activities)
    .set({
      state: 'published',
      opensAt: past(200),
      points: 2000,
      pointStep: 10,
      scale: 'points',
      rubricVersionId: version!.id,
    })
    .where(eq(t.activities.id, world.essays.id))
  await world.db.delete(t.expectations).where(eq(t.expectations.activityId, world.essays.id))
  await set({
    each: 2,
    remarkWords: 3,
    ways: ['text', 'file', 'paper'],
    questions: [{ id: v7(), text: 'What would you ask?', model: 'A model question.', minWords: 2 }],
  })
  await times(-24, -24, -72)
  return { base, as, set, times, handIn, own, peers, staff, given, review, keyOf }
}
export type PeerReviewActs = Awaited<ReturnType<typeof peerReviewIn>>
