import { and, eq, inArray, ne, sql } from 'drizzle-orm'
import type { ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions, visits } from '#server/database/schema'
import type { ContributionView, ThreadView } from '#shared/contributing/thread'
import { loadPlan } from '#server/services/planning/activityPlan'
import { talkOf } from '#core/contributing/talkSettings'
import { aliasesOf } from './aliases'
import { discussionGroupOf, discussionGroupsOf } from './discussionGroups'
import { draftView } from './writing/draft'
import { handInDue } from './review/handIn'
import { participants } from '#server/services/planning/participants'
import { firstNotes } from './reading/firstNotes'
import { shapeForReader, writesByPage } from './shapeForReader'
import { attachedFiles, storedContributions } from './storedContributions'
import { readableOf } from './readable'
import { readOwn } from '#server/services/standing/readStandings'

/** From so many contributions on, words are sent when they are about to be read, and with the answer only the first. */
const LONG = 400
const FIRST = 60

/**
 * The thread of an activity for one reader: what `shapeForReader` lets through, the reader's own drafts and checks.
 * While the reader's own is not in, the answer is built from the reader's rows alone.
 *
 * @param pick.first of a long reading only what is read first; the answer says whether there is more
 */
export async function readThread(
  db: Db,
  actor: ActivityActor,
  now: Date,
  pick: { readonly first: boolean } = { first: false },
): Promise<ThreadView> {
  const { activity, enrolment } = actor
  if (activity.kind === 'wiki')
    return {
      waiting: false,
      waitingAt: [],
      circles: [],
      lastSeq: 0,
      contributions: [],
      more: false,
      drafts: [],
      checks: await ownChecks(),
      notHeard: [],
    } // its pages are read in their own room
  const isLong =
    (await db.$count(
      contributions,
      and(eq(contributions.activityId, activity.id), ne(contributions.state, 'draft')),
    )) > LONG
  const [shaped, drafts, checks] = await Promise.all([
    shapedThread(db, actor, now, !isLong),
    db
      .select()
      .from(contributions)
      .where(
        and(
          eq(contributions.activityId, activity.id),
          eq(contributions.authorId, enrolment.id),
          eq(contributions.state, 'draft'),
          ne(contributions.type, 'review'),
        ),
      ),
    ownChecks(),
  ])
  const sent =
    isLong && pick.first && activity.kind === 'reading'
      ? firstNotes(activity, shaped.contributions)
      : shaped.contributions
  const draftFiles = await attachedFiles(db, { ids: drafts.map(d => d.id) })
  return {
    waiting: shaped.waiting,
    waitingAt: shaped.waitingAt,
    circles: shaped.discussionGroups
      ? [...shaped.discussionGroups.titles]
          .filter(([id]) => shaped.isStaff || id === discussionGroupOf(shaped.discussionGroups, enrolment.id))
          .map(([id, title]) => ({ id, title }))
      : [],
    lastSeq: Math.max(0, ...shaped.contributions.map(c => (c.view === 'whole' ? (c.seq ?? 0) : 0))),
    contributions: isLong ? await withFirstTexts(db, sent) : sent,
    more: sent.length < shaped.contributions.length,
    drafts: drafts.map(d => draftView(d, draftFiles.get(d.id) ?? [])),
    checks,
    // where names are hidden, who has not been heard would tell who has
    notHeard:
      shaped.waiting ||
      shaped.waitingAt.length > 0 ||
      (talkOf(activity.settings).namesHidden && !shaped.isStaff) ||
      ((activity.kind === 'journal' || activity.kind === 'review' || writesByPage(activity)) &&
        !shaped.isStaff)
        ? []
        : await silentNames(shaped.heard),
  }

  async function ownChecks() {
    if (enrolment.role !== 'student') return []
    const student = {
      enrolmentId: enrolment.id,
      seminarId: enrolment.seminarId,
      sectionId: enrolment.sectionId,
    }
    return (await readOwn(db, await loadPlan(db, activity), student, now)).checks
  }

  async function silentNames(heard: ReadonlySet<string>) {
    const [plan, everyone] = await Promise.all([loadPlan(db, activity), participants(db, activity)])
    const mine = discussionGroupOf(shaped.discussionGroups, enrolment.id)
    return everyone
      .filter(plan.isMeant)
      .filter(s => shaped.isStaff || discussionGroupOf(shaped.discussionGroups, s.enrolmentId) === mine)
      .filter(s => !heard.has(s.enrolmentId) && s.enrolmentId !== enrolment.id)
      .map(s => s.givenName)
  }
}

/** What a reader gets of an activity's contributions: what feeds, exports and finding are made of, too. */
export async function shapedThread(
  db: Db,
  { activity, enrolment }: Pick<ActivityActor, 'activity' | 'enrolment'>,
  now: Date,
  bodies = true,
) {
  const [rows, [visit], files] = await Promise.all([
    storedContributions(db, activity.id, enrolment.id, { bodies }),
    db
      .select()
      .from(visits)
      .where(and(eq(visits.activityId, activity.id), eq(visits.enrolmentId, enrolment.id))),
    attachedFiles(db, { activityId: activity.id }),
  ])
  const [aliases, discussionGroups] = await Promise.all([
    aliasesOf(db, activity, rows),
    discussionGroupsOf(db, activity),
  ])
  const shaped = shapeForReader(
    rows,
    { activity, enrolment, seenSeq: visit?.seenSeq ?? null, now },
    {
      aliases,
      discussionGroups,
      files,
      handInUntil: activity.kind === 'review' ? await handInDue(db, { activity, enrolment }) : null,
    },
  )
  return {
    ...shaped,
    discussionGroups,
    heard: new Set(rows.filter(r => r.state === 'shown').map(r => r.authorId)),
    isStaff: enrolment.role === 'instructor' || enrolment.role === 'assistant',
  }
}

/** The words of some contributions, to somebody who may read them: the same decision as for the thread. */
export async function readTexts(
  db: Db,
  actor: ActivityActor,
  ids: readonly string[],
  now: Date,
): Promise<{ texts: Array<{ id: string; html: string }> }> {
  const { views } = await readableOf(db, actor, ids, now)
  return {
    texts: await textsOf(
      db,
      views.flatMap(v => (v.view === 'whole' ? [v.id] : [])),
    ),
  }
}

/** Contributions that hold the words, among those the reader gets anyway. */
export async function findInTalk(
  db: Db,
  actor: ActivityActor,
  words: string,
  now: Date,
): Promise<{ ids: string[] }> {
  const { contributions: views } = await shapedThread(db, actor, now, false)
  const readable = new Set(views.flatMap(v => (v.view === 'whole' && !v.withdrawn ? [v.id] : [])))
  const query = sql`websearch_to_tsquery('english', ${words})`
  const hits = await db
    .select({ id: contributions.id })
    .from(contributions)
    .where(
      and(
        eq(contributions.activityId, actor.activity.id),
        ne(contributions.state, 'draft'),
        sql`(to_tsvector('english', ${contributions.text}) @@ ${query} or ${contributions.text} ilike ${`%${words.replace(/[\\%_]/g, '\\$&')}%`})`,
      ),
    )
    .orderBy(contributions.seq)
  return { ids: hits.map(h => h.id).filter(id => readable.has(id)) }
}

async function textsOf(db: Db, ids: readonly string[]): Promise<Array<{ id: string; html: string }>> {
  return ids.length === 0
    ? []
    : db
        .select({ id: contributions.id, html: contributions.html })
        .from(contributions)
        .where(inArray(contributions.id, [...ids]))
}

async function withFirstTexts(db: Db, views: readonly ContributionView[]): Promise<ContributionView[]> {
  const texts = new Map((await textsOf(db, firstInTalk(views))).map(t => [t.id, t.html]))
  return views.map(v => (v.view === 'whole' && texts.has(v.id) ? { ...v, html: texts.get(v.id)! } : v))
}

/** Ids of what stands first when a talk is read from its top: threads kept on top, then in order, each with what hangs below it. */
function firstInTalk(views: readonly ContributionView[]): string[] {
  const below = new Map<string | null, ContributionView[]>()
  for (const v of views) below.set(v.parentId, [...(below.get(v.parentId) ?? []), v])
  const roots = below.get(null) ?? []
  const onTop = (v: ContributionView) => v.view === 'whole' && v.onTop
  const first: string[] = []
  const walk = (v: ContributionView) => {
    if (first.length >= FIRST) return
    first.push(v.id)
    below.get(v.id)?.forEach(walk)
  }
  for (const root of [...roots.filter(onTop), ...roots.filter(r => !onTop(r))]) walk(root)
  return first
}
