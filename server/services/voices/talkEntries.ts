import { and, eq, gte, inArray, isNull, lt, notInArray, sql } from 'drizzle-orm'
import type { TalkEntry } from '#core/voices/talkEntry'
import type { Db } from '#server/database/client'
import { contributions, textMeasures } from '#server/database/schema'
import { isWrittenHere } from '#server/services/contributing'
import { countTexts } from './inThread'
import { isCountOf, NOT_TALK } from './textMeasures'

/** What was shown within a span in some activities, as voices count it; texts nobody counted yet are counted for it. */
export async function loadTalkEntries(
  db: Db,
  activityIds: readonly string[],
  span: { readonly from: Date; readonly to: Date },
): Promise<TalkEntry[]> {
  if (activityIds.length === 0) return []
  const here = and(
    inArray(contributions.activityId, [...activityIds]),
    eq(contributions.state, 'shown'),
    notInArray(contributions.type, [...NOT_TALK]),
    gte(contributions.shownAt, span.from),
    lt(contributions.shownAt, span.to),
    isWrittenHere,
  )
  const counted = await countFresh(db, here)
  const rows = await db
    .select({
      id: contributions.id,
      authorId: contributions.authorId,
      activityId: contributions.activityId,
      parentId: contributions.parentId,
      at: contributions.shownAt,
      words: contributions.words,
      sentences: textMeasures.sentences,
      syllables: textMeasures.syllables,
      answersId: sql<
        string | null
      >`(select p.author_id from contributions p where p.id = ${contributions.parentId})`,
      answersAt: sql<
        number | null
      >`(select (extract(epoch from p.shown_at) * 1000)::float8 from contributions p where p.id = ${contributions.parentId})`,
    })
    .from(contributions)
    .leftJoin(textMeasures, isCountOf)
    .where(here)
    .orderBy(contributions.shownAt, contributions.id)
  const depths = await depthsOf(db, activityIds)
  return rows.map(({ sentences, syllables, ...r }) => ({
    ...r,
    sentences: sentences ?? counted.get(r.id)!.sentences,
    syllables: syllables ?? counted.get(r.id)!.syllables,
    at: r.at!.getTime(),
    depth: depths(r.id, r.parentId),
  }))
}

/** Counts of what nobody has counted since it was written. They are not kept here: whoever reads writes nothing. */
async function countFresh(
  db: Db,
  here: ReturnType<typeof and>,
): Promise<ReadonlyMap<string, { readonly sentences: number; readonly syllables: number }>> {
  const fresh = await db
    .select({ id: contributions.id, doc: contributions.doc })
    .from(contributions)
    .leftJoin(textMeasures, isCountOf)
    .where(and(here, isNull(textMeasures.contributionId)))
  const counts = await countTexts(fresh.map(f => f.doc))
  return new Map(fresh.map(({ id }, i) => [id, counts[i]!]))
}

/** How deep in its thread a contribution stands. Parents are looked up once for all. */
async function depthsOf(
  db: Db,
  activityIds: readonly string[],
): Promise<(id: string, parentId: string | null) => number> {
  const answers = await db
    .select({ id: contributions.id, parentId: contributions.parentId })
    .from(contributions)
    .where(
      and(inArray(contributions.activityId, [...activityIds]), sql`${contributions.parentId} is not null`),
    )
  const parents = new Map(answers.map(a => [a.id, a.parentId!]))
  const known = new Map<string, number>()
  return (id, parentId) => {
    if (parentId === null) return 0
    const way: string[] = []
    let at: string | undefined = id
    while (at !== undefined && !known.has(at)) {
      way.push(at)
      at = parents.get(at)
    }
    let depth = at === undefined ? -1 : known.get(at)!
    for (const step of way.reverse()) known.set(step, ++depth)
    return known.get(id)!
  }
}
