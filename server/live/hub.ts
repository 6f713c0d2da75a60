import { takenUpBy } from '#core/kinds/contributionDetail'
import { logError } from '#server/log'
import { and, eq, inArray } from 'drizzle-orm'
import { KINDS } from '#core/kinds'
import { askAnew, ENDINGS } from '#server/access/endings'
import type { ActivityRow, Enrolment } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, contributions } from '#server/database/schema'
import { aliasesOf } from '#server/services/contributing/aliases'
import { discussionGroupsOf } from '#server/services/contributing/discussionGroups'
import {
  asksQuestions,
  openedByOwn,
  shapeForReader,
  writesByPage,
} from '#server/services/contributing/shapeForReader'
import { hooksOf } from '#server/services/contributing'
import {
  attachedFiles,
  storedContributions,
  type StoredContribution,
} from '#server/services/contributing/storedContributions'
import type { ContributionView, LiveEvent } from '#shared/contributing/thread'
import { CHANNEL, type Announcement } from '#server/services/contributing/announce'
import { listen } from './listener'

/** Somebody who has an activity open, and how to reach them. */
export interface OpenReader {
  readonly enrolment: Enrolment
  readonly seenSeq: number | null
  readonly send: (event: LiveEvent) => void
}

const NOBODY = '00000000-0000-0000-0000-000000000000'
const open = new Map<string, Set<OpenReader>>() // by activity
let listening: Promise<void> | null = null

/** Tells a reader what happens in an activity, from the moment this has answered. @returns how to stop */
export async function subscribe(
  db: Db,
  url: string,
  activityId: string,
  reader: OpenReader,
  now: () => Date,
): Promise<() => void> {
  const readers = open.get(activityId) ?? new Set()
  open.set(activityId, readers.add(reader))
  listening ??= listen(
    url,
    {
      [CHANNEL]: payload => {
        const announcement = JSON.parse(payload) as Announcement // as `announce` writes it
        broadcast(db, announcement, now()).catch(error => logError('live', error))
      },
      [ENDINGS]: askAnew,
    },
    () => {
      askAnew(null)
      for (const everyone of open.values()) for (const r of everyone) r.send({ kind: 'opened' })
    },
  )
  await listening
  return () => {
    readers.delete(reader)
    if (readers.size === 0) open.delete(activityId)
  }
}

/**
 * Sends one contribution to everyone who has its activity open here, each as they may get it: the queries are made once,
 * however many read, and what each gets is decided where it always is. Of what stands in pages they are told which page has
 * changed, and fetch it; to those who may not read it there is no such page.
 */
export async function broadcast(db: Db, { activityId, id }: Announcement, now: Date): Promise<void> {
  const readers = [...(open.get(activityId) ?? [])]
  if (readers.length === 0) return
  const [activity] = await db.select().from(activities).where(eq(activities.id, activityId))
  if (id === null) {
    for (const reader of readers) reader.send({ kind: 'opened' })
    return
  }
  const changedPage = activity && hooksOf(activity.kind).changedPage
  if (changedPage) {
    const pageFor = await changedPage(db, activity, id, now)
    for (const reader of readers) {
      const pageId = pageFor?.(reader.enrolment)
      if (pageId) reader.send({ kind: 'page', pageId })
    }
    return
  }
  const [head] = await storedContributions(db, activityId, NOBODY, { ids: [id], bodies: true })
  if (!activity || !head) return
  const context = [
    ...new Set(
      [head.threadId, head.parentId, takenUpBy(head)?.contributionId].filter(
        (x): x is string => !!x && x !== id,
      ),
    ),
  ]
  const [around, own, files, answers] = await Promise.all([
    storedContributions(db, activityId, NOBODY, { ids: context, bodies: false }),
    ownOf(db, activity, readers),
    attachedFiles(db, { ids: [id] }),
    db
      .select({ id: contributions.id })
      .from(contributions)
      .where(and(eq(contributions.parentId, id), eq(contributions.state, 'shown')))
      .limit(1),
  ])
  const [aliases, discussionGroups] = await Promise.all([
    aliasesOf(db, activity, [...around, head]),
    discussionGroupsOf(db, activity),
  ])
  const answered = new Set([...context, ...(answers.length > 0 ? [id] : [])])
  for (const reader of readers) {
    const who = { activity, enrolment: reader.enrolment, seenSeq: reader.seenSeq, now }
    const ownIn = openedByOwn(own.get(reader.enrolment.id) ?? [], who)
    const viewOf = (row: StoredContribution): ContributionView | undefined =>
      shapeForReader([...around, row], who, {
        aliases,
        discussionGroups,
        files,
        ownIn,
        answered,
      }).contributions.find(v => v.id === id)
    const view = viewOf(head)
    // one's own, shown in another window: where it opens the others', they are to be fetched
    if (head.authorId === reader.enrolment.id && (activity.settings.writeFirst || writesByPage(activity)))
      reader.send({ kind: 'opened' })
    else if (view) reader.send({ kind: 'contribution', contribution: view })
    else if (head.state === 'withdrawn' && viewOf({ ...head, state: 'shown' }))
      reader.send({ kind: 'gone', id })
  }
}

type Own = Parameters<typeof openedByOwn>[0][number]

/** What open readers have in themselves, by reader: only asked where it decides anything. */
async function ownOf(
  db: Db,
  activity: ActivityRow,
  readers: readonly OpenReader[],
): Promise<Map<string, Own[]>> {
  const byAuthor = new Map<string, Own[]>()
  if (!activity.settings.writeFirst && !asksQuestions(activity) && !writesByPage(activity)) return byAuthor
  const rows = await db
    .select({
      authorId: contributions.authorId,
      state: contributions.state,
      type: contributions.type,
      promptId: contributions.promptId,
      detail: contributions.detail,
    })
    .from(contributions)
    .where(
      and(
        eq(contributions.activityId, activity.id),
        eq(contributions.state, 'shown'),
        eq(contributions.type, KINDS[activity.kind].entryType),
        inArray(contributions.authorId, [...new Set(readers.map(r => r.enrolment.id))]),
      ),
    )
  for (const row of rows) byAuthor.set(row.authorId, [...(byAuthor.get(row.authorId) ?? []), row])
  return byAuthor
}
