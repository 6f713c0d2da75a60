import { and, eq, sql } from 'drizzle-orm'
import { v7 } from 'uuid'
import { rowsOf, type Db } from '#server/database/client'
import * as t from '#server/database/schema'

const DAY = 86_400_000 // milliseconds
const EMPTY_DOC = { type: 'doc', content: [] }
/** When the demo is. */
export const NOW = new Date('2026-10-14T08:20:00Z')

type Written = Pick<typeof t.contributions.$inferInsert, 'activityId' | 'authorId' | 'type' | 'words'> &
  Partial<typeof t.contributions.$inferInsert>

export async function write(tx: Db, values: Written): Promise<string> {
  const [activity] = await tx.select().from(t.activities).where(eq(t.activities.id, values.activityId))
  const id = v7()
  await tx.insert(t.contributions).values({
    ...{ id, seminarId: activity!.seminarId, state: 'shown', doc: EMPTY_DOC, html: '', text: '' },
    shownAt: NOW,
    ...values,
  })
  return id
}

export async function hold(tx: Db, activityId: string, enrolmentId: string): Promise<void> {
  const [activity] = await tx.select().from(t.activities).where(eq(t.activities.id, activityId))
  const [marker] = await tx.select().from(t.enrolments).where(eq(t.enrolments.role, 'instructor'))
  await tx
    .insert(t.marks)
    .values({
      ...{ seminarId: activity!.seminarId, activityId, enrolmentId, state: 'held', letter: EMPTY_DOC },
      ...{ letterText: '', markedBy: marker!.id, savedAt: NOW },
    })
    .onConflictDoUpdate({ target: [t.marks.activityId, t.marks.enrolmentId], set: { state: 'held' } })
}

/** Does something to anything a standing is judged from. */
export async function actByChance(tx: Db, random: () => number): Promise<string> {
  const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const anyId = async (table: string, where = 'true') => {
    const rows = await rowsOf<{ id: string }>(
      tx,
      sql`select id from ${sql.identifier(table)} where ${sql.raw(where)} order by ctid`,
    )
    return one(rows).id
  }
  const at = () => new Date(NOW.getTime() + Math.round((random() - 0.6) * 30 * DAY))
  const student = () => anyId('enrolments', "role = 'student'")
  const activity = () => anyId('activities', 'not is_template')
  const acts = {
    async post() {
      const activityId = await activity()
      const answered =
        random() < 0.5 ? await anyId('contributions', `activity_id = '${activityId}' or true`) : null
      const type = one(['post', 'reply', 'entry', 'comment', 'note', 'question', 'review', 'term'] as const)
      await write(tx, {
        ...{ activityId, authorId: await student(), type, words: Math.floor(random() * 300) },
        ...{ parentId: answered, shownAt: at(), slot: v7(), sources: Math.floor(random() * 2) },
        state: one(['shown', 'shown', 'draft', 'awaitingApproval', 'scheduled'] as const),
      })
    },
    async change() {
      const id = await anyId('contributions')
      const state = one(['shown', 'withdrawn'] as const)
      await tx
        .update(t.contributions)
        .set(one([{ state, shownAt: at() }, { words: Math.floor(random() * 300) }, { figures: 2 }]))
        .where(eq(t.contributions.id, id))
    },
    async withdrawAll() {
      const activityId = await activity()
      await tx
        .update(t.contributions)
        .set({ state: 'withdrawn' })
        .where(and(eq(t.contributions.activityId, activityId), eq(t.contributions.state, 'shown')))
    },
    async handOver() {
      const id = await anyId('contributions', "state <> 'draft'")
      await tx
        .update(t.contributions)
        .set({ authorId: await student() })
        .where(eq(t.contributions.id, id))
    },
    async ask() {
      const id = await activity()
      const author = await anyId('enrolments', "role = 'instructor'")
      await tx
        .update(t.activities)
        .set({ settings: sql`settings || '{"threads": "staff"}'` })
        .where(eq(t.activities.id, id))
      await write(tx, { activityId: id, authorId: author, type: 'post', words: 20, shownAt: at() })
    },
    async extend() {
      const [activityId, enrolmentId] = [await activity(), await student()]
      const [row] = await tx.select().from(t.activities).where(eq(t.activities.id, activityId))
      const dueAt = at()
      await tx
        .insert(t.extensions)
        .values({ seminarId: row!.seminarId, activityId, enrolmentId, dueAt, reason: 'ill' })
        .onConflictDoUpdate({
          target: [t.extensions.activityId, t.extensions.enrolmentId],
          set: { dueAt },
        })
    },
    async movePhase() {
      const id = await anyId('phases')
      await tx.update(t.phases).set({ endsAt: at() }).where(eq(t.phases.id, id))
    },
    async askForMore() {
      const id = await anyId('expectations')
      await tx
        .update(t.expectations)
        .set(one([{ needed: false }, { rule: sql`rule || '{"need": 3}'` }]))
        .where(eq(t.expectations.id, id))
    },
    async dropRule() {
      await tx.delete(t.expectations).where(eq(t.expectations.id, await anyId('expectations')))
    },
    async release() {
      await tx
        .update(t.prompts)
        .set({ releaseAt: at() })
        .where(eq(t.prompts.id, await anyId('prompts')))
    },
    async mark() {
      await hold(tx, await activity(), await student())
    },
    async giveBack() {
      const id = await anyId('marks')
      await tx
        .update(t.marks)
        .set(one([{ state: 'returned' as const }, { state: 'open' as const }, { returned: null }]))
        .where(eq(t.marks.id, id))
    },
    async claim() {
      const id = await anyId('wiki_pages')
      await tx
        .update(t.wikiPages)
        .set({ claimedBy: await student() })
        .where(eq(t.wikiPages.id, id))
    },
    async savePage() {
      const id = await anyId('wiki_pages')
      const [page] = await tx.select().from(t.wikiPages).where(eq(t.wikiPages.id, id))
      const version = await write(tx, {
        ...{ activityId: page!.activityId, authorId: page!.claimedBy ?? (await student()) },
        ...{ type: 'pageVersion', words: 120, shownAt: at() },
      })
      await tx.insert(t.pageVersions).values({
        ...{ id: version, seminarId: page!.seminarId, pageId: id, number: 900 + Math.floor(random() * 1e6) },
        ...{ base: 1, summary: '', words: 400, written: 120, added: 120, removed: 0, moved: 0 },
        ...{ origins: [], gone: [] },
      })
    },
    async comment() {
      const id = await anyId('wiki_pages')
      const [page] = await tx.select().from(t.wikiPages).where(eq(t.wikiPages.id, id))
      const comment = await write(tx, {
        ...{ activityId: page!.activityId, authorId: await student(), type: 'comment', words: 30 },
        shownAt: at(),
      })
      await tx.insert(t.pageComments).values({ id: comment, seminarId: page!.seminarId, pageId: id })
    },
    async takeReview() {
      const id = await anyId('allocations', 'review_id is not null')
      const [row] = await tx.select().from(t.allocations).where(eq(t.allocations.id, id))
      const other = await anyId(
        'enrolments',
        `role = 'student' and not exists (select 1 from allocations a
          where a.reviewer_id = '${row!.reviewerId}' and a.subject_id = enrolments.id)`,
      )
      await tx
        .update(t.allocations)
        .set(one([{ reviewId: null }, { subjectId: other }]))
        .where(eq(t.allocations.id, id))
    },
    async makeStaff() {
      await tx
        .update(t.enrolments)
        .set({ role: one(['assistant', 'student'] as const) })
        .where(eq(t.enrolments.id, await student()))
    },
    async moveGroup() {
      await tx.delete(t.groupMembers).where(eq(t.groupMembers.enrolmentId, await student()))
    },
    async join() {
      const [someone] = await tx
        .select()
        .from(t.enrolments)
        .where(eq(t.enrolments.id, await student()))
      const [person] = await tx
        .insert(t.persons)
        .values({
          email: `${v7()}@northmere.example`,
          name: 'Vesna Lund',
          givenName: 'Vesna',
          familyName: 'Lund',
        })
        .returning({ id: t.persons.id })
      await tx.insert(t.enrolments).values({
        ...{ seminarId: someone!.seminarId, personId: person!.id, role: 'student', state: 'active' },
        ...{ name: 'Vesna Lund', givenName: 'Vesna', familyName: 'Lund' },
      })
    },
    async moveTerm() {
      await tx.update(t.seminars).set(one([{ timeZone: 'Pacific/Auckland' }, { breaks: [] }, { weeks: 11 }]))
    },
    async together() {
      const activityId = await activity()
      const [other] = await tx
        .insert(t.seminars)
        .values({
          ...{ code: 'HC 9', title: 'Ports elsewhere', college: 'Northmere', timeZone: 'Asia/Tokyo' },
          ...{ firstDay: '2026-09-07', weeks: 12 },
        })
        .returning({ id: t.seminars.id })
      await tx.insert(t.jointSeminars).values({ activityId, seminarId: other!.id })
    },
  }
  const name = one(Object.keys(acts) as Array<keyof typeof acts>) // its keys are its acts
  await acts[name]()
  return name
}
