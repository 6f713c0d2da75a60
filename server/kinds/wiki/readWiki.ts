import { and, eq, gt, inArray, isNull } from 'drizzle-orm'
import { keyWordsOf, titleKey } from '#core/kinds/wiki/wikiSettings'
import { isStaff, nothingHere, type Actor, type ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions, pageComments, pageVersions, pageWriters, wikiPages } from '#server/database/schema'
import { seminarsOf } from '#server/services/planning'
import type { PageLine, WikiView } from '#shared/kinds/wiki/wiki'
import { isWriting } from './pages'
import {
  pageAt,
  pagesOf,
  peopleIn,
  wikiSpaceOf,
  wikiAccess,
  type PageRow,
  type WikiAccess,
} from './wikiAccess'

type AtWiki = ActivityActor & Pick<Actor, 'seminar'>

/** One wiki of an activity as its reader gets it: its pages in their tree, what is suggested, wanted and going on. */
export async function readWiki(
  db: Db,
  actor: AtWiki,
  asked: string | undefined,
  now: Date,
): Promise<WikiView> {
  const access = await wikiAccess(db, actor, now)
  const groupId = whichWiki(access, actor, asked)
  const readable = access.groups.filter(g => access.reach(g.id).read)
  const people = await peopleIn(db, await seminarsOf(db, actor.activity), actor.enrolment)
  const counted =
    readable.length > 0
      ? await pageCounts(
          db,
          actor.activity.id,
          readable.map(g => g.id),
        )
      : new Map<string, number>()
  const frame = {
    wikis: [
      ...(access.trialBy && access.groups.length > 0
        ? [{ groupId: null, title: 'Your trial', isOwn: true, pages: 0 }]
        : []),
      ...readable.map(g => ({
        groupId: g.id,
        title: g.title,
        isOwn: g.id === access.ownGroup,
        pages: counted.get(g.id) ?? 0,
      })),
    ],
    phase: access.time.kind === 'working' ? access.time.phase.name : null,
    until: access.time.kind === 'working' ? access.time.phase.endsAt.toISOString() : null,
  }
  if (groupId === undefined || !access.reach(groupId).read) {
    return {
      ...frame,
      groupId: null,
      title: '',
      members: [],
      may: { write: false, comment: false },
      pages: [],
      suggested: [],
      wanted: [],
      missing: groupId === undefined ? 'group' : 'hidden',
    }
  }
  const { write, comment } = access.reach(groupId)
  const pages = await pagesOf(db, actor.activity.id, wikiSpaceOf(access, groupId))
  const group = access.groups.find(g => g.id === groupId)
  return {
    ...frame,
    groupId,
    title: group?.title ?? (access.trialBy ? 'Your trial' : actor.activity.title),
    members: (group?.memberIds ?? []).flatMap(id => people.get(id) ?? []),
    may: { write, comment },
    pages: await linesOf(db, pages, people, actor.enrolment.id, now),
    suggested: suggestionsFor(access, pages),
    wanted: wantedIn(pages),
    missing: null,
  }
}

/** The wiki asked for; else one's own; staff begin with the first. Undefined: there is none for this reader. */
function whichWiki(
  access: WikiAccess,
  { enrolment }: AtWiki,
  asked: string | undefined,
): string | null | undefined {
  if (asked !== undefined) {
    if (!access.groups.some(g => g.id === asked)) throw nothingHere()
    return asked
  }
  if (access.groups.length === 0 || access.trialBy)
    return access.plan.activity.audience.kind === 'groups' && !access.trialBy ? undefined : null
  return (
    access.ownGroup ??
    access.groups.find(g => access.reach(g.id).read)?.id ??
    (isStaff(enrolment) ? access.groups[0]?.id : undefined)
  )
}

async function pageCounts(
  db: Db,
  activityId: string,
  groupIds: readonly string[],
): Promise<Map<string, number>> {
  const rows = await db
    .select({ groupId: wikiPages.groupId })
    .from(wikiPages)
    .where(
      and(
        eq(wikiPages.activityId, activityId),
        inArray(wikiPages.groupId, [...groupIds]),
        isNull(wikiPages.removedAt),
        gt(wikiPages.versions, 0),
      ),
    )
  const counts = new Map<string, number>()
  for (const { groupId } of rows) counts.set(groupId!, (counts.get(groupId!) ?? 0) + 1)
  return counts
}

/** Key words set by hand, then those that stand out in the brief; those of which there is a page are left out. */
function suggestionsFor({ settings, plan }: WikiAccess, pages: readonly PageRow[]): string[] {
  const all = new Map<string, string>()
  for (const word of [...settings.keyWords, ...keyWordsOf(plan.activity.brief)])
    if (!all.has(titleKey(word))) all.set(titleKey(word), word)
  return [...all.values()].filter(word => !pageAt(pages, word))
}

/** What pages link to and is not there, the most wanted first. */
function wantedIn(pages: readonly PageRow[]): WikiView['wanted'] {
  const wanted = new Map<string, { title: string; from: string[] }>()
  for (const page of pages) {
    for (const title of page.links) {
      if (pageAt(pages, title)) continue
      const known = wanted.get(titleKey(title)) ?? { title, from: [] }
      if (!known.from.includes(page.id)) known.from.push(page.id)
      wanted.set(titleKey(title), known)
    }
  }
  return [...wanted.values()].sort((a, b) => b.from.length - a.from.length || a.title.localeCompare(b.title))
}

async function linesOf(
  db: Db,
  pages: readonly PageRow[],
  people: Awaited<ReturnType<typeof peopleIn>>,
  readerId: string,
  now: Date,
): Promise<PageLine[]> {
  if (pages.length === 0) return []
  const ids = pages.map(p => p.id)
  const currents = pages.flatMap(p => p.currentId ?? [])
  const [heads, open, writers] = await Promise.all([
    currents.length > 0
      ? db
          .select({
            id: contributions.id,
            words: pageVersions.words,
            authorId: contributions.authorId,
            shownAt: contributions.shownAt,
            pageId: pageVersions.pageId,
          })
          .from(contributions)
          .innerJoin(pageVersions, eq(pageVersions.id, contributions.id))
          .where(inArray(contributions.id, currents))
      : [],
    db
      .select({ pageId: pageComments.pageId })
      .from(pageComments)
      .innerJoin(contributions, eq(contributions.id, pageComments.id))
      .where(
        and(
          inArray(pageComments.pageId, ids),
          isNull(pageComments.resolvedIn),
          isNull(pageComments.answers),
          eq(contributions.state, 'shown'),
        ),
      ),
    db.select().from(pageWriters).where(inArray(pageWriters.pageId, ids)),
  ])
  return pages.map(page => {
    const head = heads.find(h => h.pageId === page.id)
    return {
      id: page.id,
      title: page.title,
      parentId: page.parentId,
      position: page.position,
      claimedBy: page.claimedBy ? (people.get(page.claimedBy) ?? null) : null,
      versions: page.versions,
      words: head?.words ?? 0,
      changedAt: head?.shownAt?.toISOString() ?? null,
      changedBy: head ? (people.get(head.authorId) ?? null) : null,
      linksTo: page.links,
      formerKeys: page.formerKeys,
      openComments: open.filter(c => c.pageId === page.id).length,
      writing: writers
        .filter(w => w.pageId === page.id && w.enrolmentId !== readerId && isWriting(w.seenAt, now))
        .flatMap(w => people.get(w.enrolmentId) ?? []),
    }
  })
}
