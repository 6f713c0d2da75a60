import { and, eq, inArray, isNull, ne, sql } from 'drizzle-orm'
import { keptNames } from '#core/people/names'
import type { RosterComparison } from '#core/people/roster/compareRoster'
import { notifyOfEnding } from '#server/access/endings'
import type { Db } from '#server/database/client'
import { enrolments, passwordLinks, persons } from '#server/database/schema'
import { Problem } from '#server/http/problem'

type Changed = RosterComparison['changed'][number]

const hasField = ({ changes }: Changed, ...fields: readonly string[]): boolean =>
  changes.some(c => fields.includes(c.field))

/** Writes what a roster says otherwise of people who are in the seminar, and lets those in who were withdrawn. */
export async function changeEnrolled(
  tx: Db,
  changed: readonly Changed[],
  sectionId: ReadonlyMap<string, string>,
  isElsewhere: (enrolmentId: string) => boolean,
): Promise<void> {
  if (changed.length === 0) return
  const values = changed.map(change => {
    const { row, enrolmentId } = change
    const names = hasField(change, 'givenName', 'familyName') ? keptNames(row) : null
    return {
      id: enrolmentId,
      name: names?.name ?? null,
      given: names?.givenName ?? null,
      family: names?.familyName ?? null,
      role: hasField(change, 'role') ? row.role : null,
      section: hasField(change, 'section') && row.section ? sectionId.get(row.section)! : null,
      number: hasField(change, 'studentNumber') ? row.studentNumber : null,
    }
  })
  await tx.execute(sql`
    update enrolments e set
      state = 'active',
      name = coalesce(v.name, e.name),
      given_name = coalesce(v.given, e.given_name),
      family_name = coalesce(v.family, e.family_name),
      role = coalesce(v.role, e.role),
      given_to_address = e.given_to_address or v.role is not null,
      section_id = coalesce(v.section, e.section_id),
      student_number = coalesce(v.number, e.student_number)
    from jsonb_to_recordset(${JSON.stringify(values)}::jsonb)
      as v(id uuid, name text, given text, family text, role text, section uuid, number text)
    where e.id = v.id`)
  await renamePersons(
    tx,
    changed.filter(c => hasField(c, 'givenName', 'familyName', 'email') && !isElsewhere(c.enrolmentId)),
  )
}

/**
 * Corrects names and addresses of accounts that nobody has opened, of people who are nobody elsewhere. A link that was
 * sent to the address before opens nothing any more.
 * @throws {Problem} addressTaken, where an address belongs to somebody else
 */
async function renamePersons(tx: Db, changed: readonly Changed[]): Promise<void> {
  if (changed.length === 0) return
  const rowOf = new Map(changed.map(c => [c.enrolmentId, c.row]))
  // an account that was opened since it was compared stays as it is
  const unopened = await tx
    .select({ id: persons.id, email: persons.email, enrolmentId: enrolments.id })
    .from(persons)
    .innerJoin(enrolments, eq(enrolments.personId, persons.id))
    .where(and(inArray(enrolments.id, [...rowOf.keys()]), isNull(persons.passwordHash)))
    .for('update', { of: persons })
  if (unopened.length === 0) return
  const renamed = unopened.map(({ id, email, enrolmentId }) => {
    const row = rowOf.get(enrolmentId)!
    return { id, before: email, line: row.line, email: row.email, ...keptNames(row) }
  })
  const moved = renamed.filter(r => r.email !== r.before)
  await requireFree(tx, moved)
  await tx.execute(sql`
    update persons p set email = v.email, name = v.name, given_name = v."givenName", family_name = v."familyName"
    from jsonb_to_recordset(${JSON.stringify(renamed)}::jsonb)
      as v(id uuid, email text, name text, "givenName" text, "familyName" text)
    where p.id = v.id`)
  await tx.delete(passwordLinks).where(
    inArray(
      passwordLinks.personId,
      moved.map(r => r.id),
    ),
  )
}

async function requireFree(
  tx: Db,
  moved: ReadonlyArray<{ readonly line: number; readonly email: string }>,
): Promise<void> {
  const [taken] = await tx
    .select({ email: persons.email })
    .from(persons)
    .where(
      inArray(
        persons.email,
        moved.map(r => r.email),
      ),
    )
  const row = moved.find(r => r.email === taken?.email)
  if (row)
    throw new Problem(
      409,
      'addressTaken',
      `Line ${row.line}: the address ${row.email} belongs to another account. Nothing was changed.`,
    )
}

/** Withdraws people, whose open pages hear of it. */
export async function withdrawEnrolled(tx: Db, enrolmentIds: readonly string[]): Promise<void> {
  if (enrolmentIds.length === 0) return
  const gone = await tx
    .update(enrolments)
    .set({ state: 'withdrawn' })
    .where(and(inArray(enrolments.id, [...enrolmentIds]), ne(enrolments.state, 'withdrawn')))
    .returning({ personId: enrolments.personId })
  await notifyOfEnding(
    tx,
    gone.map(g => g.personId),
  )
}
