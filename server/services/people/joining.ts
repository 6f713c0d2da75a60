import { randomInt } from 'node:crypto'
import { and, eq, isNull } from 'drizzle-orm'
import { hashPassword } from '#server/access/password'
import { requireGoodPassword } from '#server/access/passwordQuality'
import { nothingHere, type Actor } from '#server/access/seminar'
import type { Person } from '#server/access/session'
import type { Database, Db } from '#server/database/client'
import { auditTrail, enrolments, joiningCodes, sections, seminars } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import { withIdempotency } from '#server/services/idempotency'
import type { AccountWrite, JoinView } from '#shared/people/account'
import type { CodeWrite } from '#shared/people/people'
import { insertPerson } from './account'
import { mailAddressLink } from './addresses'
import { namesOf } from './nameView'
import { requireSection } from './people'

// no letters or figures that are mistaken for one another when read from a board
const LETTERS = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789'
const newCode = (): string =>
  Array.from({ length: 8 }, (_, i) => (i === 4 ? '-' : '') + LETTERS[randomInt(LETTERS.length)]!).join('')

export function makeCode(db: Database, actor: Actor, write: CodeWrite, now: Date): Promise<{ id: string }> {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    await requireSection(tx, actor, write.sectionId)
    const [row] = await tx
      .insert(joiningCodes)
      .values({
        seminarId: actor.seminar.id,
        code: newCode(),
        role: write.role,
        sectionId: write.sectionId,
        most: write.most,
        expiresAt: new Date(now.getTime() + write.days * 86_400_000),
        madeAt: now,
      })
      .returning()
    return { id: row!.id }
  })
}

/** Takes a code back: nobody comes in with it any more. */
export async function revokeCode(db: Db, actor: Actor, codeId: string, now: Date): Promise<void> {
  const [row] = await db
    .update(joiningCodes)
    .set({ revokedAt: now })
    .where(and(eq(joiningCodes.id, codeId), eq(joiningCodes.seminarId, actor.seminar.id)))
    .returning()
  if (!row) throw nothingHere()
}

const closed = (sentence: string) => new Problem(404, 'codeClosed', sentence)

async function requireCode(db: Db, code: string, now: Date, lock = false) {
  const query = db
    .select({ code: joiningCodes, seminar: seminars, section: sections.title })
    .from(joiningCodes)
    .innerJoin(seminars, eq(seminars.id, joiningCodes.seminarId))
    .leftJoin(sections, eq(sections.id, joiningCodes.sectionId))
    .where(and(eq(joiningCodes.code, code.toUpperCase()), isNull(joiningCodes.revokedAt)))
  const [found] = lock ? await query.for('update', { of: joiningCodes }) : await query
  if (!found || found.seminar.state === 'archived')
    throw closed('This joining code opens nothing. Check its letters, or ask the instructor for a new one.')
  if (found.code.expiresAt <= now)
    throw closed('This joining code has expired. Ask the instructor for a new one.')
  if (found.code.used >= found.code.most)
    throw closed(
      `This joining code has let in ${found.code.most} people, as many as it may. Ask the instructor for a new one.`,
    )
  return found
}

/** What whoever holds a code learns before joining. */
export async function joinView(db: Db, person: Person | null, code: string, now: Date): Promise<JoinView> {
  const { seminar, section } = await requireCode(db, code, now)
  const [there] = person
    ? await db
        .select()
        .from(enrolments)
        .where(and(eq(enrolments.seminarId, seminar.id), eq(enrolments.personId, person.id)))
    : []
  return {
    title: seminar.title,
    code: seminar.code,
    college: seminar.college,
    section,
    seminarId: seminar.id,
    already: there !== undefined && there.state !== 'withdrawn',
  }
}

/** A new account; its address is to be confirmed. */
async function makeAccount(tx: Db, account: AccountWrite, passwordHash: string | null) {
  const made = await insertPerson(tx, account, { passwordHash })
  await mailAddressLink(tx, made, made.email)
  return made
}

/**
 * Joins by code, as who is signed in or with a new account. Of two who come for the last place one gets it. Somebody who
 * was withdrawn does not come back by a code: that is the instructor's to decide.
 */
export async function join(
  db: Database,
  person: Person | null,
  code: string,
  account: AccountWrite | null,
  now: Date,
): Promise<{ seminarId: string; personId: string }> {
  if (!person && !account) throw new Problem(401, 'notSignedIn', 'Sign in first, or make an account here.')
  if (!person && account) await requireGoodPassword(account.password, account)
  const passwordHash = !person && account ? await hashPassword(account.password) : null
  return db.transaction(async tx => {
    const { code: row, seminar } = await requireCode(tx, code, now, true)
    const who = person ?? (await makeAccount(tx, account!, passwordHash))
    const [there] = await tx
      .select()
      .from(enrolments)
      .where(and(eq(enrolments.seminarId, seminar.id), eq(enrolments.personId, who.id)))
    if (there?.state === 'withdrawn')
      throw new Problem(
        403,
        'withdrawn',
        'You were withdrawn from this seminar. Ask the instructor to bring you back.',
      )
    if (there) return { seminarId: seminar.id, personId: who.id }
    const [enrolment] = await tx
      .insert(enrolments)
      .values({
        seminarId: seminar.id,
        personId: who.id,
        ...namesOf(who),
        nameIsOwn: true, // said by who joins
        role: row.role,
        sectionId: row.sectionId,
        givenToAddress: false, // to whoever has the code
        joinedAt: now,
      })
      .returning()
    await tx
      .update(joiningCodes)
      .set({ used: row.used + 1 })
      .where(eq(joiningCodes.id, row.id))
    await tx.insert(auditTrail).values({
      seminarId: seminar.id,
      actorId: enrolment!.id,
      at: now,
      act: 'joinedByCode',
      subjectId: enrolment!.id,
      detail: { code: row.code },
    })
    return { seminarId: seminar.id, personId: who.id }
  })
}
