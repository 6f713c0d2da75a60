import { and, eq, inArray, isNull } from 'drizzle-orm'
import { shares } from '#core/kinds/wiki/shares'
import { nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions, pageComments, pageVersions, wikiPages } from '#server/database/schema'
import { seminarsOf } from '#server/services/planning'
import type { WikiShares } from '#shared/kinds/wiki/wiki'
import { countStanding } from './inThread'
import { versionRows } from './readPage'
import { inSpace, peopleIn, wikiSpaceOf, wikiAccess } from './wikiAccess'

/** What each member put into one wiki, and whose every version is: from authorship followed through all versions. */
export async function memberShares(
  db: Db,
  actor: ActivityActor,
  groupId: string | null,
  now: Date,
): Promise<WikiShares> {
  const access = await wikiAccess(db, actor, now)
  if (!access.reach(groupId).read) throw nothingHere()
  const [people, all] = await Promise.all([
    peopleIn(db, await seminarsOf(db, actor.activity), actor.enrolment),
    db
      .select()
      .from(wikiPages)
      // pages taken out as well: words that came from there keep their author
      .where(and(eq(wikiPages.activityId, actor.activity.id), inSpace(wikiSpaceOf(access, groupId)))),
  ])
  const pages = all.filter(p => p.removedAt === null)
  const currents = pages.flatMap(p => p.currentId ?? [])
  const [versions, heads, comments] =
    all.length === 0
      ? [[], [], []]
      : await Promise.all([
          versionRows(
            db,
            all.map(p => p.id),
          ),
          currents.length > 0
            ? db
                .select({ id: contributions.id, doc: contributions.doc, origins: pageVersions.origins })
                .from(pageVersions)
                .innerJoin(contributions, eq(contributions.id, pageVersions.id))
                .where(inArray(pageVersions.id, currents))
            : [],
          db
            .select({
              authorId: contributions.authorId,
              pageId: pageComments.pageId,
              writers: pageComments.writers,
              resolvedIn: pageComments.resolvedIn,
            })
            .from(pageComments)
            .innerJoin(contributions, eq(contributions.id, pageComments.id))
            .where(
              and(
                inArray(
                  pageComments.pageId,
                  all.map(p => p.id),
                ),
                eq(contributions.state, 'shown'),
                isNull(pageComments.answers),
              ),
            ),
        ])
  const counts = await countStanding(heads)
  const words = counts.reduce((sum, c) => sum + c.words, 0)
  const standing = new Map(heads.map((head, i) => [head.id, counts[i]!.byOrigin]))
  const memberIds =
    access.groups.find(g => g.id === groupId)?.memberIds ??
    [...new Set(versions.map(v => v.authorId))].filter(id => !people.get(id)?.isStaff)
  const counted = shares(
    memberIds,
    pages.map(p => ({
      claimedBy: p.claimedBy,
      versions: versions.filter(v => v.pageId === p.id),
      standing: standing.get(p.currentId ?? '') ?? new Map<string, number>(),
    })),
    comments.map(c => ({
      authorId: c.authorId,
      claimedBy: all.find(p => p.id === c.pageId)?.claimedBy ?? null,
      writers: c.writers,
      actedOn: c.resolvedIn !== null,
    })),
    new Map(versions.map(v => [v.id, v.authorId])),
  )
  return {
    words,
    members: counted
      .map(({ memberId, ...share }) => ({ member: people.get(memberId)!, ...share }))
      .sort((a, b) => b.standing - a.standing || a.member.name.localeCompare(b.member.name)),
    others: words - counted.reduce((sum, m) => sum + m.standing, 0),
    authors: versions.map(v => ({
      origin: v.id,
      author: people.get(v.authorId)!,
      pageId: v.pageId,
      number: v.number,
    })),
  }
}
