import { and, eq, ne } from 'drizzle-orm'
import { KINDS } from '#core/kinds'
import { talkOf } from '#core/contributing/talkSettings'
import type { ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions } from '#server/database/schema'
import {
  attachedFiles,
  discussionGroupOf,
  draftView,
  hooksOf,
  shapedThread,
  textsOf,
  writesByPage,
} from '#server/services/contributing'
import { loadPlan, participants } from '#server/services/planning'
import { readOwn } from '#server/services/standing'
import type { ContributionView, ThreadView } from '#shared/contributing/thread'

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
  const kind = KINDS[activity.kind]
  if (kind.standsIn === 'pages')
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
    (isLong && pick.first && hooksOf(activity.kind).firstRead?.(activity, shaped.contributions)) ||
    shaped.contributions
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
      ((!kind.namesSilent || writesByPage(activity)) && !shaped.isStaff)
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
