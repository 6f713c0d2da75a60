import type { Browser } from '@playwright/test'
import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { seededRandom } from '#core/chance/seededRandom'
import { dealReviews } from '#core/kinds/review/dealReviews'
import { reviewOf } from '#core/kinds/review/reviewSettings'
import { consensusOf, type PeerReview } from '#core/marking/peers/consensus'
import { docOf } from '#server/kinds/review/saveReview'
import { loadRubric } from '#server/services/rubrics/loadRubrics'
import * as t from '#server/database/schema'
import { email, type World } from '#server/testing/world'
import { READY } from './grading'

const EACH = 3
const PRESSES = 40

/** So many works dealt out, groups of four kept apart. */
export function deal(n: number): () => void {
  const ids = Array.from({ length: n }, (_, i) => `p${i}`)
  const works = ids.map(id => ({ id: `w${id}`, ownerIds: [id] }))
  const groupOf = new Map(ids.map((id, i) => [id, `g${Math.floor(i / 4)}`]))
  return () => {
    if (dealReviews(ids, works, { each: EACH, seed: 7, groupOf }).kind !== 'dealt')
      throw new Error('not dealt')
  }
}

/** The consensus of four criteria over so many works with three readers each, as they are dealt. */
export function calculateConsensus(n: number): () => void {
  const random = seededRandom(n)
  const criteria = ['q', 's', 't', 'e'].map(id => ({ id, max: 500, weight: 1, level: 200 }))
  const ids = Array.from({ length: n }, (_, i) => `p${i}`)
  const dealt = dealReviews(
    ids,
    ids.map(id => ({ id, ownerIds: [id] })),
    { each: EACH, seed: 11 },
  )
  if (dealt.kind !== 'dealt') throw new Error('not dealt')
  const [worth, severity] = [
    new Map(ids.map(id => [id, 200 + random() * 200])),
    new Map(ids.map(id => [id, (random() - 0.5) * 100])),
  ]
  const reviews = dealt.pairs.map((p): PeerReview => ({
    id: `${p.reviewerId}-${p.workId}`,
    reviewerId: p.reviewerId,
    authorId: p.workId,
    points: new Map(
      criteria.map(c => [
        c.id,
        Math.min(
          500,
          Math.max(0, worth.get(p.workId)! + severity.get(p.reviewerId)! + (random() - 0.5) * 80),
        ),
      ]),
    ),
  }))
  return () => {
    if (consensusOf(reviews, criteria).works !== n) throw new Error('not reckoned')
  }
}

const NEXT_AUTHOR = `new Promise((resolve) => {
  const author = () => document.querySelector('[data-author]')?.dataset.author
  const before = author()
  const start = performance.now()
  document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'j', bubbles: true }))
  const look = () => author() === before ? requestAnimationFrame(look) : requestAnimationFrame(() => resolve(performance.now() - start))
  look()
})`

/** The review desk with everyone of the seminar, three readers each: what a key press takes, and fetching one record alone. */
export async function measureReviewDesk(browser: Browser, world: World) {
  const { db } = world
  const students = await db
    .select({ id: t.enrolments.id })
    .from(t.enrolments)
    .where(eq(t.enrolments.seminarId, world.seminar.id))
  const [activity] = await db.select().from(t.activities).where(eq(t.activities.id, world.reports.id))
  const there = new Set(
    (
      await db
        .select({ id: t.contributions.authorId })
        .from(t.contributions)
        .where(eq(t.contributions.activityId, world.reports.id))
    ).map(r => r.id),
  )
  const authors = (
    await db
      .select({ id: t.enrolments.id, role: t.enrolments.role })
      .from(t.enrolments)
      .where(eq(t.enrolments.seminarId, world.seminar.id))
  ).filter(e => e.role === 'student' && !there.has(e.id))
  const rubric = (await loadRubric(db, activity!.rubricVersionId))!
  const settings = reviewOf(activity!.settings)
  const ids = { seminarId: world.seminar.id, activityId: world.reports.id }
  const at = new Date('2026-10-05T10:00:00Z')
  const body = {
    doc: { type: 'doc' },
    html: '<p>A report of its own.</p>',
    text: 'A report of its own. '.repeat(60),
    words: 300,
    openerId: null,
    madeAt: at,
    savedAt: at,
    shownAt: at,
    state: 'shown' as const,
  }
  const entries = authors.map(a => ({ ...ids, ...body, id: v7(), authorId: a.id, type: 'entry' as const }))
  for (let i = 0; i < entries.length; i += 500)
    await db.insert(t.contributions).values(entries.slice(i, i + 500))
  for (const [k, entry] of entries.entries()) {
    const rows = Array.from({ length: EACH }, (_, d) => {
      const reviewer = authors[(k + 5 * d + 1) % authors.length]!
      const content = {
        points: Object.fromEntries(
          rubric.criteria.map((c, j) => [c.id, 200 + ((k * 37 + d * 90 + j * 50) % 300)]),
        ),
        remarks: Object.fromEntries(
          rubric.criteria.map((c, j) => [
            c.id,
            `Remark ${k} ${d} ${j} on what stands there and what would help. `.repeat(2),
          ]),
        ),
        answers: {},
        passages: [],
        private: '',
      }
      return { id: v7(), reviewer, content, doc: docOf(content, rubric, { settings }) }
    })
    await db.insert(t.contributions).values(
      rows.map(r => ({
        ...ids,
        ...body,
        id: r.id,
        authorId: r.reviewer.id,
        type: 'review' as const,
        parentId: entry.id,
        doc: r.doc,
        text: Object.values(r.content.remarks).join('\n'),
        words: 90,
        detail: { review: r.content },
      })),
    )
    await db.insert(t.allocations).values(
      rows.map(r => ({
        ...ids,
        reviewerId: r.reviewer.id,
        subjectId: entry.authorId,
        entryId: entry.id,
        reviewId: r.id,
        source: 'dealt' as const,
        state: 'in' as const,
        openedAt: at,
        handedInAt: at,
      })),
    )
  }
  const ines = await world.as('ines')
  const fetched: number[] = []
  for (const e of entries.slice(0, 21)) {
    const start = performance.now()
    await (await ines.send('GET', `/api/activities/${world.reports.id}/records/${e.authorId}`)).arrayBuffer()
    fetched.push(performance.now() - start)
  }
  const context = await browser.newContext({ baseURL: world.address, viewport: { width: 1280, height: 800 } })
  await context.request.post('/api/session', {
    data: { email: email('ines'), password: 'harbour' },
    headers: { origin: world.address },
  })
  const page = await context.newPage()
  await page.goto(
    `/seminars/${world.seminar.id}/activities/${world.reports.id}/peers?student=${entries[20]!.authorId}`,
  )
  await page.evaluate(READY)
  const pressed: number[] = []
  for (let i = 0; i < PRESSES; i++) {
    await page.waitForLoadState('networkidle')
    pressed.push(await page.evaluate<number>(NEXT_AUTHOR))
  }
  await context.close()
  return { works: entries.length + there.size, people: students.length, fetched, pressed }
}
