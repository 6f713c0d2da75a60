import { sql } from 'drizzle-orm'
import type { Db } from '#server/database/client'

/** The channel on which every process hears that somebody may have lost access. */
export const ENDINGS = 'jovrel_endings'

type Ask = () => void
const open = new Map<string, Set<Ask>>() // by person

/** Says, with the transaction it is in, that some people's access may have ended: signed out, withdrawn, given another role. */
export async function notifyOfEnding(db: Db, personIds: Iterable<string>): Promise<void> {
  const people = [...new Set(personIds)]
  if (people.length === 0) return
  await db.execute(
    sql`select pg_notify(${ENDINGS}, id) from unnest(${sql.param(people)}::text[]) as said(id)`,
  )
}

/** Calls `ask` whenever a person's access may have ended, in whichever process. @returns how to stop */
export function whenAccessMayEnd(personId: string, ask: Ask): () => void {
  const asks = open.get(personId) ?? new Set()
  open.set(personId, asks.add(ask))
  return () => {
    asks.delete(ask)
    if (asks.size === 0) open.delete(personId)
  }
}

/** Asks anew for everything one person has open; for everybody's, where nobody knows what was missed. */
export function askAnew(personId: string | null): void {
  const asks = personId === null ? [...open.values()].flatMap(s => [...s]) : [...(open.get(personId) ?? [])]
  for (const ask of asks) ask()
}
