import { and, eq } from 'drizzle-orm'
import type { Enrolment } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions } from '#server/database/schema'
import { Problem } from '#server/http/problem'

/** Unfinished texts one person may have in one seminar: a body's limit times this is what they take at most. */
const MOST_DRAFTS = 200

/** Asked before one more is begun. @throws {Problem} 409 with a sentence for the person */
export async function requireDraftRoom(
  tx: Db,
  { enrolment }: { readonly enrolment: Enrolment },
): Promise<void> {
  const own = and(eq(contributions.authorId, enrolment.id), eq(contributions.state, 'draft'))
  if ((await tx.$count(contributions, own)) >= MOST_DRAFTS)
    throw new Problem(
      409,
      'tooManyDrafts',
      `You have ${MOST_DRAFTS} unfinished texts in this seminar. Post or discard one of them first; this one is kept in this browser.`,
    )
}
