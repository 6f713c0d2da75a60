import { asc, eq } from 'drizzle-orm'
import { nothingHere } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributionFiles } from '#server/database/schema'
import type { Served, ServedFromStore } from '#server/http/sendFile'
import { storedFile } from '#server/services/files'
import { blindFiles } from './ownReviews'
import type { Allocation } from './peerReview'

/** A file of a work to its reviewer: under a neutral name, by its place, so that not even its id is told. */
export async function blindFile(
  db: Db,
  allocation: Allocation,
  index: number,
  asText: boolean,
): Promise<Served | ServedFromStore> {
  const [named, attached] = allocation.entryId
    ? await Promise.all([
        blindFiles(db, allocation),
        db
          .select({ id: contributionFiles.fileId })
          .from(contributionFiles)
          .where(eq(contributionFiles.contributionId, allocation.entryId))
          .orderBy(asc(contributionFiles.position)),
      ])
    : [[], []]
  const [head, one] = [named[index], attached[index]]
  const file = one ? await storedFile(db, one.id) : null
  if (!head || !file || (asText && !file.textHtml)) throw nothingHere()
  return asText
    ? {
        bytes: Buffer.from(file.textHtml!),
        type: 'text/html; charset=utf-8',
        name: `${head.name}.html`,
        isOurText: true,
      }
    : { stored: file, type: file.type, name: head.name }
}
