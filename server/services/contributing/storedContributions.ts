import { and, asc, eq, inArray, ne, or, sql, type SQL } from 'drizzle-orm'
import type { ContributionState, ContributionType } from '#core/contributing/contribution'
import type { Db } from '#server/database/client'
import {
  contributionFiles,
  contributionMarks,
  contributions,
  enrolments,
  files,
  nods,
  type ContributionDetail,
} from '#server/database/schema'
import type { AttachedFile } from '#shared/contributing/thread'

export interface StoredContribution {
  readonly id: string
  readonly parentId: string | null
  readonly threadId: string
  readonly openerId: string | null
  readonly type: ContributionType
  readonly state: ContributionState
  readonly authorId: string
  readonly name: string
  readonly givenName: string
  readonly familyName: string
  readonly role: string
  readonly html: string | null // null where the words were not asked for
  readonly words: number
  readonly detail: ContributionDetail
  readonly promptId: string | null
  readonly seq: number | null
  readonly shownAt: Date | null
  readonly showAt: Date | null
  readonly savedAt: Date
  readonly editedAt: Date | null
  readonly withdrawnBy: string | null
  readonly onTop: boolean
  readonly openToClass: boolean
  readonly sentBack: string | null
  readonly version: number
  readonly points: number | null // as it was marked alone
  readonly done: boolean | null // as a short answer was marked
  readonly nods: number
  readonly nodded: boolean
}

/**
 * All that could reach anyone in this activity, in the order in which it was shown, and what waits after it; drafts stay
 * behind, and timed texts reach their author alone. For `shapeForReader` only: nothing here is fit to be sent.
 *
 * @param pick.ids only these; pick.bodies whether their words are fetched
 */
export async function storedContributions(
  db: Db,
  activityId: string,
  readerId: string,
  pick: { readonly ids?: readonly string[]; readonly bodies: boolean },
): Promise<StoredContribution[]> {
  if (pick.ids?.length === 0) return []
  const given = db
    .select({
      contributionId: nods.contributionId,
      count: sql<number>`count(*)::int`.as('count'),
      mine: sql<boolean>`bool_or(${nods.enrolmentId} = ${readerId})`.as('mine'),
    })
    .from(nods)
    .innerJoin(contributions, eq(contributions.id, nods.contributionId))
    .where(eq(contributions.activityId, activityId))
    .groupBy(nods.contributionId)
    .as('given')
  const rows = await db
    .select({
      id: contributions.id,
      parentId: contributions.parentId,
      threadId: contributions.threadId,
      openerId: contributions.openerId,
      type: contributions.type,
      state: contributions.state,
      authorId: contributions.authorId,
      name: enrolments.name,
      givenName: enrolments.givenName,
      familyName: enrolments.familyName,
      role: enrolments.role,
      html: (pick.bodies ? sql`${contributions.html}` : sql`null`) as SQL<string | null>,
      words: contributions.words,
      detail: contributions.detail,
      promptId: contributions.promptId,
      seq: contributions.seq,
      shownAt: contributions.shownAt,
      showAt: contributions.showAt,
      savedAt: contributions.savedAt,
      editedAt: contributions.editedAt,
      withdrawnBy: contributions.withdrawnBy,
      onTop: contributions.onTop,
      openToClass: contributions.openToClass,
      sentBack: contributions.sentBack,
      version: contributions.version,
      points: contributionMarks.points,
      done: contributionMarks.done,
      nods: sql<number>`coalesce(${given.count}, 0)`,
      nodded: sql<boolean>`coalesce(${given.mine}, false)`,
    })
    .from(contributions)
    .innerJoin(enrolments, eq(enrolments.id, contributions.authorId))
    .leftJoin(contributionMarks, eq(contributionMarks.contributionId, contributions.id))
    .leftJoin(given, eq(given.contributionId, contributions.id))
    .where(
      and(
        eq(contributions.activityId, activityId),
        or(
          inArray(contributions.state, ['shown', 'withdrawn', 'awaitingApproval']),
          and(eq(contributions.state, 'scheduled'), eq(contributions.authorId, readerId)),
        ),
        or(ne(enrolments.state, 'practice'), eq(enrolments.id, readerId)),
        pick.ids ? inArray(contributions.id, [...pick.ids]) : undefined,
      ),
    )
    .orderBy(asc(contributions.seq), asc(contributions.savedAt), asc(contributions.id))
  return rows.map(r => ({ ...r, threadId: r.threadId ?? r.id }))
}

/** Files by the contribution they came with, in their order. */
export async function attachedFiles(
  db: Db,
  where: { readonly activityId: string } | { readonly ids: readonly string[] },
): Promise<Map<string, AttachedFile[]>> {
  if ('ids' in where && where.ids.length === 0) return new Map()
  const rows = await db
    .select({
      contributionId: contributionFiles.contributionId,
      id: files.id,
      name: files.name,
      type: files.type,
      size: files.size,
      hasText: sql<boolean>`${files.textHtml} is not null`,
    })
    .from(contributionFiles)
    .innerJoin(files, eq(files.id, contributionFiles.fileId))
    .innerJoin(contributions, eq(contributions.id, contributionFiles.contributionId))
    .where(
      'ids' in where
        ? inArray(contributionFiles.contributionId, [...where.ids])
        : eq(contributions.activityId, where.activityId),
    )
    .orderBy(asc(contributionFiles.position))
  const byContribution = new Map<string, AttachedFile[]>()
  for (const { contributionId, ...file } of rows)
    byContribution.set(contributionId, [
      ...(byContribution.get(contributionId) ?? []),
      { ...file, url: `/api/files/${file.id}` },
    ])
  return byContribution
}
