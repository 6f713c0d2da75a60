import { asc, eq } from 'drizzle-orm'
import { nothingHere } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributionFiles, files } from '#server/database/schema'
import { blindFiles } from './ownReviews'
import type { Allocation } from './peerReview'

/** A file of a work to its reviewer: under a neutral name, by its place, so that not even its id is told. */
export async function blindFile(db: Db, allocation: Allocation, index: number, asText: boolean) {
  const [named, rows] = allocation.entryId
    ? await Promise.all([
        blindFiles(db, allocation),
        db
          .select({ file: files })
          .from(contributionFiles)
          .innerJoin(files, eq(files.id, contributionFiles.fileId))
          .where(eq(contributionFiles.contributionId, allocation.entryId))
          .orderBy(asc(contributionFiles.position)),
      ])
    : [[], []]
  const [head, row] = [named[index], rows[index]]
  if (!head || !row || (asText && !row.file.textHtml)) throw nothingHere()
  return asText
    ? {
        bytes: Buffer.from(row.file.textHtml!),
        type: 'text/html; charset=utf-8',
        name: `${head.name}.html`,
        isOurText: true,
      }
    : { bytes: row.file.bytes, type: row.file.type, name: head.name }
}
