import { and, desc, eq, sql } from 'drizzle-orm'
import { nothingHere, type Actor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { phrases } from '#server/database/schema'
import type { PhraseView } from '#shared/marking/desk'

const view = (p: typeof phrases.$inferSelect): PhraseView => ({
  id: p.id,
  text: p.text,
  criterion: p.criterion,
  uses: p.uses,
  lastUsedAt: p.lastUsedAt?.toISOString() ?? null,
})

/** A marker's own phrases. */
export async function ownPhrases(db: Db, { enrolment }: Actor): Promise<{ phrases: PhraseView[] }> {
  const rows = await db
    .select()
    .from(phrases)
    .where(eq(phrases.ownerId, enrolment.id))
    .orderBy(desc(phrases.uses), desc(phrases.madeAt))
    .limit(2000)
  return { phrases: rows.map(view) }
}

/** Keeps a phrase, or changes it. Its id is made by the browser: sent again, it is kept once. */
export async function keepPhrase(
  db: Database,
  { enrolment, seminar }: Actor,
  write: { readonly id: string; readonly text: string; readonly criterion: string | null },
  now: Date,
): Promise<PhraseView> {
  const [row] = await db
    .insert(phrases)
    .values({ ...write, ownerId: enrolment.id, seminarId: seminar.id, madeAt: now })
    .onConflictDoUpdate({
      target: phrases.id,
      set: { text: write.text, criterion: write.criterion },
      setWhere: eq(phrases.ownerId, enrolment.id),
    })
    .returning()
  if (!row) throw nothingHere()
  return view(row)
}

/** Counts a use: what is used often, and lately, is offered first. */
export async function usePhrase(
  db: Database,
  { enrolment }: Actor,
  id: string,
  now: Date,
): Promise<PhraseView> {
  const [row] = await db
    .update(phrases)
    .set({ uses: sql`${phrases.uses} + 1`, lastUsedAt: now })
    .where(and(eq(phrases.id, id), eq(phrases.ownerId, enrolment.id)))
    .returning()
  if (!row) throw nothingHere()
  return view(row)
}

export async function dropPhrase(db: Database, { enrolment }: Actor, id: string): Promise<{ done: boolean }> {
  await db.delete(phrases).where(and(eq(phrases.id, id), eq(phrases.ownerId, enrolment.id)))
  return { done: true }
}
