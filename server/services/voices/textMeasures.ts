import { sql } from 'drizzle-orm'
import type { TextCount } from '#core/voices/countText'
import type { Db } from '#server/database/client'
import { textMeasures } from '#server/database/schema'

/** Keeps what was counted, so that nobody's words are counted twice. */
export async function keepCounts(
  db: Db,
  seminarId: string,
  counts: ReadonlyArray<TextCount & { readonly contributionId: string; readonly version: number }>,
): Promise<void> {
  for (let i = 0; i < counts.length; i += 1000) {
    await db
      .insert(textMeasures)
      .values(counts.slice(i, i + 1000).map(c => ({ ...c, seminarId })))
      .onConflictDoUpdate({
        target: textMeasures.contributionId,
        set: {
          version: sql`excluded.version`,
          sentences: sql`excluded.sentences`,
          syllables: sql`excluded.syllables`,
        },
      })
  }
}
