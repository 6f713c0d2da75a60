import { eq, inArray } from 'drizzle-orm'
import sanitizeHtml from 'sanitize-html'
import { countWords } from '#core/contributing/measureText'
import type { Db } from '#server/database/client'
import { contributionFiles, files } from '#server/database/schema'

/**
 * Words in the files of contributions, by contribution: of documents and papers whose text was read when they came. Files
 * without a text that is known (a picture, a recording) count nothing.
 */
export async function wordsOfFiles(db: Db, contributionIds: readonly string[]): Promise<Map<string, number>> {
  if (contributionIds.length === 0) return new Map()
  const rows = await db
    .select({
      contributionId: contributionFiles.contributionId,
      html: files.textHtml,
      paper: files.paperWords,
    })
    .from(contributionFiles)
    .innerJoin(files, eq(files.id, contributionFiles.fileId))
    .where(inArray(contributionFiles.contributionId, [...contributionIds]))
  const words = new Map<string, number>()
  for (const { contributionId, html, paper } of rows) {
    const text = html === null ? (paper ?? '') : textOf(html)
    words.set(contributionId, (words.get(contributionId) ?? 0) + countWords(text))
  }
  return words
}

/** Words of neighbouring blocks stay apart. */
const textOf = (html: string): string =>
  sanitizeHtml(html.replaceAll('<', ' <'), { allowedTags: [], allowedAttributes: {} })
