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
import { loadPlan, participants, type ActivityPlan } from '#server/services/planning'
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
      closedToWords: activity.closedToWords,
      closedThreads: [],
      lastSeq: 0,
      contributions: [],
      more: false,
      drafts: [],
      checks: await ownChecks(loadPlan(db, activity)),
      notHeard: [],
    } // its pages are read in their own room
  const planned = loadPlan(db, activity)
  const [plan, shaped, drafts, checks] = await Promise.all([
    planned,
    shapedThread(db, actor, now, false),
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
    ownChecks(planned),
  ])
  const isLong = shaped.contributions.length > LONG
  const sent =
    (isLong && pick.first && hooksOf(activity.kind).firstRead?.(activity, shaped.contributions)) ||
    shaped.contributions
  const [draftFiles, withWords, notHeard] = await Promise.all([
    attachedFiles(db, { ids: drafts.map(d => d.id) }),
    withTexts(db, sent, isLong ? firstInTalk(sent) : sent.map(v => v.id)),
    tellsSilent(shaped) ? silentNames(shaped.heard) : [],
  ])
  return {
    waiting: shaped.waiting,
    waitingAt: shaped.waitingAt,
    circles: shaped.discussionGroups
      ? [...shaped.discussionGroups.titles]
          .filter(([id]) => shaped.isStaff || id === discussionGroupOf(shaped.discussionGroups, enrolment.id))
          .map(([id, title]) => ({ id, title }))
      : [],
    closedToWords: activity.closedToWords,
    closedThreads: closedAmong(shaped),
    lastSeq: shaped.contributions.reduce(
      (last, c) => (c.view === 'whole' ? Math.max(last, c.seq ?? 0) : last),
      0,
    ),
    contributions: withWords,
    more: sent.length < shaped.contributions.length,
    drafts: drafts.map(d => draftView(d, draftFiles.get(d.id) ?? [])),
    checks,
    notHeard,
  }

  /** Of closed threads those that the reader gets. */
  function closedAmong({ closedThreads, contributions: views }: typeof shaped): string[] {
    const got = new Set(closedThreads.length > 0 ? views.map(v => v.id) : [])
    return closedThreads.filter(id => got.has(id))
  }

  // where names are hidden, who has not been heard would tell who has
  function tellsSilent({ waiting, waitingAt, isStaff }: typeof shaped): boolean {
    if (waiting || waitingAt.length > 0) return false
    return isStaff || (!talkOf(activity.settings).namesHidden && kind.namesSilent && !writesByPage(activity))
  }

  async function ownChecks(planned: Promise<ActivityPlan>) {
    if (enrolment.role !== 'student') return []
    const student = {
      enrolmentId: enrolment.id,
      seminarId: enrolment.seminarId,
      sectionId: enrolment.sectionId,
      joinedAt: enrolment.joinedAt,
    }
    return (await readOwn(db, await planned, student, now)).checks
  }

  async function silentNames(heard: ReadonlySet<string>) {
    const everyone = await participants(db, activity)
    const mine = discussionGroupOf(shaped.discussionGroups, enrolment.id)
    return everyone
      .filter(plan.isMeant)
      .filter(s => shaped.isStaff || discussionGroupOf(shaped.discussionGroups, s.enrolmentId) === mine)
      .filter(s => !heard.has(s.enrolmentId) && s.enrolmentId !== enrolment.id)
      .map(s => s.givenName)
  }
}

async function withTexts(
  db: Db,
  views: readonly ContributionView[],
  ids: readonly string[],
): Promise<ContributionView[]> {
  const texts = new Map((await textsOf(db, ids)).map(t => [t.id, t.html]))
  return views.map(v => {
    const html = v.view === 'whole' ? texts.get(v.id) : undefined
    return html === undefined ? v : { ...v, html }
  })
}

/** Ids of what stands first when a talk is read from its top: threads kept on top, then in order, each with what hangs below it. */
function firstInTalk(views: readonly ContributionView[]): string[] {
  const below = new Map<string | null, ContributionView[]>()
  for (const v of views) {
    const beside = below.get(v.parentId)
    if (beside) beside.push(v)
    else below.set(v.parentId, [v])
  }
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
