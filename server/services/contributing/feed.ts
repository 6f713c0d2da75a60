import { escapeHTML } from '@tiptap/static-renderer/json/html-string'
import { and, eq, inArray } from 'drizzle-orm'
import { Feed } from 'feed'
import { talkOf } from '#core/contributing/talkSettings'
import { mayKnowOf, type Actor, type ActivityActor } from '#server/access/seminar'
import { newSecret } from '#server/access/session'
import type { Database, Db } from '#server/database/client'
import { activities, enrolments, feeds, seminars } from '#server/database/schema'
import { type StoredFile, storedFile } from '#server/services/files'
import { ownAddress } from '#server/mail/mailServer'
import type { FeedView } from '#shared/contributing/talkExport'
import { shapedThread } from './shapedThread'
import { readable } from './readable'

const MOST = 60 // contributions in a feed

const addressOf = (secret: string) => `${ownAddress()}/feeds/${secret}.atom`

/** The reader's private address for this activity, if they have made one. */
export async function ownFeed(db: Db, { activity, enrolment }: ActivityActor): Promise<FeedView> {
  const [feed] = await db
    .select()
    .from(feeds)
    .where(and(eq(feeds.activityId, activity.id), eq(feeds.enrolmentId, enrolment.id)))
  return { address: feed ? addressOf(feed.secret) : null, named: enrolment.namedInFeeds }
}

/** Makes an address; an older one opens nothing any more. */
export async function makeFeed(db: Database, actor: ActivityActor): Promise<FeedView> {
  const secret = newSecret()
  const { activity, enrolment } = actor
  await db
    .insert(feeds)
    .values({ secret, seminarId: activity.seminarId, activityId: activity.id, enrolmentId: enrolment.id })
    .onConflictDoUpdate({ target: [feeds.activityId, feeds.enrolmentId], set: { secret } })
  return { address: addressOf(secret), named: enrolment.namedInFeeds }
}

export async function dropFeed(db: Database, { activity, enrolment }: ActivityActor): Promise<FeedView> {
  await db.delete(feeds).where(and(eq(feeds.activityId, activity.id), eq(feeds.enrolmentId, enrolment.id)))
  return { address: null, named: enrolment.namedInFeeds }
}

/** Whether one's own name may stand in feeds that others follow. */
export async function setNamedInFeeds(
  db: Database,
  actor: Actor,
  named: boolean,
): Promise<{ done: boolean }> {
  await db.update(enrolments).set({ namedInFeeds: named }).where(eq(enrolments.id, actor.enrolment.id))
  return { done: true }
}

async function ownerOf(db: Db, secret: string, now: Date) {
  const [row] = await db
    .select({ activity: activities, enrolment: enrolments, seminar: seminars })
    .from(feeds)
    .innerJoin(activities, eq(activities.id, feeds.activityId))
    .innerJoin(enrolments, eq(enrolments.id, feeds.enrolmentId))
    .innerJoin(seminars, eq(seminars.id, activities.seminarId))
    .where(eq(feeds.secret, secret))
  return row && row.enrolment.state !== 'withdrawn' && (await mayKnowOf(db, row.activity, row.enrolment, now))
    ? row
    : null
}

/**
 * The newest contributions as Atom (RFC 4287), recordings enclosed: what the address's owner gets on the page, and no name
 * of anyone who has not agreed to stand in feeds. Null when the address opens nothing (any more).
 */
export async function atomFeed(db: Db, secret: string, now: Date): Promise<string | null> {
  const owner = await ownerOf(db, secret, now)
  if (!owner) return null
  const { activity, enrolment, seminar } = owner
  const { contributions } = await shapedThread(db, owner, now)
  const shown = contributions
    .flatMap(c => (c.view === 'whole' && c.state === 'shown' ? [c] : []))
    .reverse()
    .slice(0, MOST)
  const hidden = talkOf(activity.settings).namesHidden // then names are aliases already
  const agreed =
    shown.length === 0 || hidden
      ? new Set<string>()
      : new Set(
          (
            await db
              .select({ id: enrolments.id })
              .from(enrolments)
              .where(
                and(
                  inArray(enrolments.id, [...new Set(shown.map(c => c.author.id))]),
                  eq(enrolments.namedInFeeds, true),
                ),
              )
          ).map(e => e.id),
        )
  const link = `${ownAddress()}/seminars/${enrolment.seminarId}/activities/${activity.id}`
  // titles are read as HTML by feed readers: their words are words
  const feed = new Feed({
    id: link,
    title: escapeHTML(`${activity.title} · ${seminar.title}`),
    link,
    generator: 'Jovrel',
    copyright: '',
    updated: shown[0] ? new Date(shown[0].editedAt ?? shown[0].shownAt) : now,
    feedLinks: { atom: addressOf(secret) },
  })
  for (const c of shown) {
    const recording = c.files.find(f => /^(audio|video)\//.test(f.type))
    const findName = () => {
      if (agreed.has(c.author.id) || (!c.author.isStaff && (hidden || c.author.isMe))) return c.author.name
      if (c.author.isStaff) return 'Staff'
      return 'Somebody of the seminar'
    }
    const name = findName()
    feed.addItem({
      id: `urn:uuid:${c.id}`,
      title: escapeHTML(c.title ?? firstWords(c.html ?? '')),
      link: `${link}#c-${c.id}`,
      date: new Date(c.editedAt ?? c.shownAt),
      published: new Date(c.shownAt),
      content: withFeedPictures(c.html ?? '', secret),
      author: [{ name }],
      ...(recording && {
        enclosure: {
          url: `${ownAddress()}/feeds/${secret}/${recording.id}`,
          type: recording.type,
          length: recording.size,
        },
      }),
    })
  }
  return feed.atom1()
}

/** Pictures in a text by the feed's own address: whoever reads it is not signed in. */
const withFeedPictures = (html: string, secret: string): string =>
  html.replaceAll(' src="/api/files/', ` src="${ownAddress()}/feeds/${secret}/`)

/** A file enclosed in a feed, or in a text of it, to whoever has its address. */
export async function feedFile(
  db: Db,
  secret: string,
  fileId: string,
  now: Date,
): Promise<StoredFile | null> {
  const owner = await ownerOf(db, secret, now)
  if (!owner) return null
  const { contributions } = await shapedThread(db, owner, now, false)
  const carrier = contributions.find(
    c => c.view === 'whole' && c.state === 'shown' && c.files.some(f => f.id === fileId),
  )
  if (!carrier || !(await readable(db, owner, carrier.id, now))) return null
  return storedFile(db, fileId)
}

function firstWords(html: string): string {
  const text = html
    .replace(/<[^>]+>/g, ' ')
    .replace(
      /&(amp|lt|gt|quot|#39);/g,
      (_, e: string) => ({ amp: '&', lt: '<', gt: '>', quot: '"', '#39': "'" })[e]!,
    )
    .replace(/\s+/g, ' ')
    .trim()
  return text.length <= 70 ? text : `${text.slice(0, text.lastIndexOf(' ', 70))} …`
}
