import type { H3Event } from 'h3'
import { countReentry } from '#server/access/limits'
import { requireSession } from '#server/access/session'
import type { Database } from '#server/database/client'
import { requirePassword } from '#server/services/people/secondStep'

/** Whoever asks has to show their password again: a browser left open must not be enough. Tries are counted. */
export async function passwordAgain(event: H3Event, db: Database, password: string) {
  const session = await requireSession(event)
  const tries = await countReentry(db, session.person.id)
  await requirePassword(db, session.person.id, password)
  await tries.giveBack()
  return session
}
