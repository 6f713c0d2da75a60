import { and, eq, isNull, notInArray, sql } from 'drizzle-orm'
import type { Db } from '#server/database/client'
import { contributions, textMeasures } from '#server/database/schema'
import { countTexts } from './inThread'

/** Versions of wiki pages are written together, and reviews are without names: neither is talk. */
export const NOT_TALK = ['pageVersion', 'review'] as const
const AT_ONCE = 1000 // texts

/** That a measure is of the text as it stands. */
export const isCountOf = and(
  eq(textMeasures.contributionId, contributions.id),
  eq(textMeasures.version, contributions.version),
)!

/** Counts the sentences and syllables of what was written since the last time, and keeps them: nobody's words are counted twice. */
export async function keepCounts(db: Db, seminarId?: string): Promise<number> {
  for (let counted = 0; ;) {
    const fresh = await db
      .select({
        contributionId: contributions.id,
        seminarId: contributions.seminarId,
        version: contributions.version,
        doc: contributions.doc,
      })
      .from(contributions)
      .leftJoin(textMeasures, isCountOf)
      .where(
        and(
          eq(contributions.state, 'shown'),
          notInArray(contributions.type, [...NOT_TALK]),
          isNull(textMeasures.contributionId),
          seminarId === undefined ? undefined : eq(contributions.seminarId, seminarId),
        ),
      )
      .limit(AT_ONCE)
    if (fresh.length === 0) return counted
    const counts = await countTexts(fresh.map(f => f.doc))
    await db
      .insert(textMeasures)
      .values(fresh.map(({ doc: _doc, ...row }, i) => ({ ...row, ...counts[i]! })))
      .onConflictDoUpdate({
        target: textMeasures.contributionId,
        set: {
          version: sql`excluded.version`,
          sentences: sql`excluded.sentences`,
          syllables: sql`excluded.syllables`,
        },
      })
    counted += fresh.length
  }
}
