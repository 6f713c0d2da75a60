import type { ContributionDetail } from '#core/kinds/contributionDetail'
import { asc, eq, inArray, sql } from 'drizzle-orm'
import type { ContributionState, ContributionType } from '#core/contributing/contribution'
import { rowsOf, type Db } from '#server/database/client'
import { contributionFiles, contributions, files } from '#server/database/schema'
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
  readonly at: Date // when it was shown, is to be shown or, where neither is known, was saved
  readonly shownAt: Date | null
  readonly showAt: Date | null
  readonly editedAt: Date | null
  readonly withdrawnBy: string | null
  readonly onTop: boolean
  readonly closedToWords: boolean
  readonly openToClass: boolean
  readonly sentBack: string | null
  readonly version: number
  readonly points: number | null // as it was marked alone
  readonly done: boolean | null // as a short answer was marked
  readonly nods: number
  readonly nodded: boolean
}

/**
 * All that could reach anyone in an activity, or in one of several, in the order in which it was shown, and what waits
 * after it; drafts stay behind, and timed texts reach their author alone. For `shapeForReader` only: nothing here is fit
 * to be sent.
 *
 * @param pick.ids only these; pick.bodies whether their words are fetched
 */
export async function storedContributions(
  db: Db,
  activityIds: string | readonly string[],
  readerId: string,
  pick: { readonly ids?: readonly string[]; readonly bodies: boolean },
): Promise<StoredContribution[]> {
  if (pick.ids?.length === 0) return []
  const among = (column: string) =>
    pick.ids ? sql`and ${sql.raw(column)} = any(${sql.param([...pick.ids])}::uuid[])` : sql``
  const isHere = (column: string) =>
    typeof activityIds === 'string'
      ? sql`${sql.raw(column)} = ${activityIds}`
      : sql`${sql.raw(column)} = any(${sql.param([...activityIds])}::uuid[])`
  const [rows, authors] = await Promise.all([
    rowsOf<Row>(
      db,
      sql`
        select c.id, c.parent_id, nullif(c.thread_id, c.id) as thread_id, c.opener_id,
          c.type, c.state, c.author_id, ${pick.bodies ? sql`c.html` : sql`null`} as html, c.words,
          nullif(c.detail, '{}') as detail, c.prompt_id, c.seq::float8 as seq,
          ${millisecondsOf('c.shown_at')} as shown_at, ${millisecondsOf('c.show_at')} as show_at,
          case when c.shown_at is null then ${millisecondsOf('c.saved_at')} end as saved_at,
          ${millisecondsOf('c.edited_at')} as edited_at,
          c.withdrawn_by, c.on_top, c.closed_to_words, c.open_to_class, c.sent_back, c.version,
          m.points, m.done, n.given as nods, n.mine as nodded
        from contributions c
        left join contribution_marks m on m.contribution_id = c.id
        left join (
          select n.contribution_id, count(*)::int as given, bool_or(n.enrolment_id = ${readerId}) as mine
          from nods n join contributions of on of.id = n.contribution_id
          where ${isHere('of.activity_id')} ${among('n.contribution_id')}
          group by n.contribution_id
        ) n on n.contribution_id = c.id
        where ${isHere('c.activity_id')} ${among('c.id')}
          and (c.state in ('shown', 'withdrawn', 'awaitingApproval') or (c.state = 'scheduled' and c.author_id = ${readerId}))
        order by c.seq, c.saved_at, c.id`,
    ),
    rowsOf<Author>(
      db,
      sql`
        select e.id, e.name, e.given_name, e.family_name, e.role from enrolments e
        where e.id = any(array(
          select distinct c.author_id from contributions c where ${isHere('c.activity_id')} ${among('c.id')}
        ))
          and (e.state <> 'practice' or e.id = ${readerId})`,
    ),
  ])
  const authorOf = new Map(authors.map(a => [a.id, a]))
  return rows.flatMap(row => {
    const author = authorOf.get(row.author_id)
    return author ? storedOf(row, author) : []
  })
}

/** An instant in milliseconds, which are read faster than a date that is written out. */
const millisecondsOf = (column: string) => sql.raw(`(extract(epoch from ${column}) * 1000)::float8`)

/**
 * A row as PostgreSQL sends it: short, so that what follows from another column is left out. Written as SQL and put
 * together by hand, because a long talk has thousands of them.
 */
interface Row extends Record<string, unknown> {
  readonly id: string
  readonly parent_id: string | null
  readonly thread_id: string | null
  readonly opener_id: string | null
  readonly type: ContributionType
  readonly state: ContributionState
  readonly author_id: string
  readonly html: string | null
  readonly words: number
  readonly detail: ContributionDetail | null
  readonly prompt_id: string | null
  readonly seq: number | null
  readonly shown_at: number | null
  readonly show_at: number | null
  readonly saved_at: number | null // where it was never shown
  readonly edited_at: number | null
  readonly withdrawn_by: string | null
  readonly on_top: boolean
  readonly closed_to_words: boolean
  readonly open_to_class: boolean
  readonly sent_back: string | null
  readonly version: number
  readonly points: number | null
  readonly done: boolean | null
  readonly nods: number | null
  readonly nodded: boolean | null
}

interface Author extends Record<string, unknown> {
  readonly id: string
  readonly name: string
  readonly given_name: string
  readonly family_name: string
  readonly role: string
}

const NO_DETAIL: ContributionDetail = {}

function storedOf(row: Row, author: Author): StoredContribution {
  return {
    id: row.id,
    parentId: row.parent_id,
    threadId: row.thread_id ?? row.id,
    openerId: row.opener_id,
    type: row.type,
    state: row.state,
    authorId: row.author_id,
    name: author.name,
    givenName: author.given_name,
    familyName: author.family_name,
    role: author.role,
    html: row.html,
    words: row.words,
    detail: row.detail ?? NO_DETAIL,
    promptId: row.prompt_id,
    seq: row.seq,
    at: new Date(row.shown_at ?? row.show_at ?? row.saved_at!),
    shownAt: instantOf(row.shown_at),
    showAt: instantOf(row.show_at),
    editedAt: instantOf(row.edited_at),
    withdrawnBy: row.withdrawn_by,
    onTop: row.on_top,
    closedToWords: row.closed_to_words,
    openToClass: row.open_to_class,
    sentBack: row.sent_back,
    version: row.version,
    points: row.points,
    done: row.done,
    nods: row.nods ?? 0,
    nodded: row.nodded ?? false,
  }
}

const instantOf = (milliseconds: number | null): Date | null =>
  milliseconds === null ? null : new Date(milliseconds)

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
