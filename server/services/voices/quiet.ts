import { and, desc, eq, inArray, max, sql } from 'drizzle-orm'
import type { Db } from '#server/database/client'
import { contributions, visits } from '#server/database/schema'

/** Of those who have said nothing: what they did do. Of a draft that there is one, and how long it is; never a word of it. */
export async function quietDeeds(
  db: Db,
  silent: readonly string[],
  activityIds: readonly string[],
  dayOf: (at: Date) => string,
): Promise<ReadonlyMap<string, string>> {
  if (silent.length === 0 || activityIds.length === 0) return new Map()
  const of = and(
    inArray(contributions.activityId, [...activityIds]),
    inArray(contributions.authorId, [...silent]),
  )
  const [drafts, seen, newest] = await Promise.all([
    db
      .select({ id: contributions.authorId, words: contributions.words, at: contributions.madeAt })
      .from(contributions)
      .where(and(of, eq(contributions.state, 'draft'), sql`${contributions.words} > 0`))
      .orderBy(desc(contributions.words)),
    db
      .select()
      .from(visits)
      .where(and(inArray(visits.activityId, [...activityIds]), inArray(visits.enrolmentId, [...silent]))),
    db
      .select({ id: contributions.activityId, seq: max(contributions.seq) })
      .from(contributions)
      .where(and(inArray(contributions.activityId, [...activityIds]), eq(contributions.state, 'shown')))
      .groupBy(contributions.activityId),
  ])
  const seqs = new Map(newest.map(n => [n.id, n.seq ?? 0]))
  return new Map(
    silent.map((id): [string, string] => {
      const draft = drafts.find(d => d.id === id)
      if (draft)
        return [
          id,
          `a draft of ${draft.words} ${draft.words === 1 ? 'word' : 'words'} begun ${dayOf(draft.at)}, never posted`,
        ]
      const own = seen.filter(v => v.enrolmentId === id)
      const last = own.sort((a, b) => b.seenUntil.getTime() - a.seenUntil.getTime())[0]
      if (!last) return [id, activityIds.length === 1 ? 'has not opened it' : 'has not opened any of it']
      const readAll = activityIds.every(
        a => (seqs.get(a) ?? 0) === 0 || own.some(v => v.activityId === a && v.seenSeq >= seqs.get(a)!),
      )
      return [
        id,
        readAll
          ? `has read everything, last on ${dayOf(last.seenUntil)}`
          : `last looked in on ${dayOf(last.seenUntil)}`,
      ]
    }),
  )
}
