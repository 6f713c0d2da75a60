import { eq, inArray, sum } from 'drizzle-orm'
import sanitizeHtml from 'sanitize-html'
import { countWords } from '#core/contributing/measureText'
import type { Db } from '#server/database/client'
import { contributionFiles, files } from '#server/database/schema'

/** Words in the text of a document or paper; null for a file without a text that is known (a picture, a recording). */
export function wordsOf(file: {
  readonly textHtml: string | null
  readonly paperWords?: string | null
}): number | null {
  const text = file.textHtml === null ? file.paperWords : textOf(file.textHtml)
  return text === null || text === undefined ? null : countWords(text)
}

/** Words in the files of contributions, by contribution, as they were counted when the files came. */
export async function wordsOfFiles(db: Db, contributionIds: readonly string[]): Promise<Map<string, number>> {
  if (contributionIds.length === 0) return new Map()
  const rows = await db
    .select({ contributionId: contributionFiles.contributionId, words: sum(files.words).mapWith(Number) })
    .from(contributionFiles)
    .innerJoin(files, eq(files.id, contributionFiles.fileId))
    .where(inArray(contributionFiles.contributionId, [...contributionIds]))
    .groupBy(contributionFiles.contributionId)
  return new Map(rows.map(r => [r.contributionId, r.words ?? 0]))
}

const INLINE = 'a|abbr|b|code|del|em|i|ins|mark|s|small|span|strong|sub|sup|u'
const BLOCK_EDGE = new RegExp(`<(?!/?(?:${INLINE})\\b)`, 'g')
/** Words of neighbouring blocks stay apart; a word of which a part is bold stays one. */
const textOf = (html: string): string =>
  sanitizeHtml(html.replace(BLOCK_EDGE, ' <'), { allowedTags: [], allowedAttributes: {} })
