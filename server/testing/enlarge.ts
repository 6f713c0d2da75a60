import { sql } from 'drizzle-orm'
import { rowsOf, type Database } from '#server/database/client'
import { numberAll } from '#server/services/contributing/numbering'

/**
 * Tables whose rows belong to students, each after those it points into; wikis are left out, because versions of a page are
 * one line.
 */
const TABLES: ReadonlyArray<readonly [table: string, isOfStudents: string]> = [
  ['persons', `id in (select person_id from enrolments where ${students('id')})`],
  ['enrolments', students('id')],
  ['contributions', `${students('author_id')} and activity_id not in (select activity_id from wiki_pages)`],
  ['aliases', students('enrolment_id')],
  ['group_members', students('enrolment_id')],
  ['marks', students('enrolment_id')],
  ['criterion_marks', 'mark_id in (select id from copied)'],
  ['citations', 'mark_id in (select id from copied) and contribution_id in (select id from copied)'],
  ['contribution_marks', 'contribution_id in (select id from copied)'],
  ['extensions', students('enrolment_id')],
  ['excuses', students('enrolment_id')],
  ['marker_shares', students('enrolment_id')],
  ['visits', students('enrolment_id')],
  ['nods', 'contribution_id in (select id from copied)'],
  ['notices', students('enrolment_id')],
  ['message_threads', students('student_id')],
  ['messages', 'thread_id in (select id from copied)'],
  ['letter_replies', students('enrolment_id')],
  ['allocations', `${students('reviewer_id')} and ${students('subject_id')}`],
]
/** Values that must differ in each copy; `n` numbers it. */
const CHANGED: Readonly<Record<string, string>> = {
  'persons.email': "n || '-' || email",
  'persons.calendar_secret': 'null',
  'aliases.name': "name || ' ' || n",
  'allocations.received_id': newId('received_id'),
}

/** In other seminars texts are cut short, too: to index their words would take most of the time. */
const CUT_SHORT = { ...CHANGED, 'contributions.text': 'left(text, 40)' }

/** The id of a copy, as an id of the fourth version is written. */
function newId(id: string): string {
  return `overlay(overlay(md5(${id}::text || n) placing '4' from 13) placing '8' from 17)::uuid`
}

function students(column: string): string {
  return `${column} in (select id from first)`
}

/** Makes a seminar so many times as large: every student with all their work again, answering and reviewing among themselves. */
export const enlarge = (db: Database, times: number): Promise<void> => copyRows(db, TABLES, times)

/** The same students with so many times as much that is shown, outside of wikis. */
export const writeMore = (db: Database, times: number): Promise<void> =>
  copyRows(
    db,
    [['contributions', `state = 'shown' and activity_id not in (select activity_id from wiki_pages)`]],
    times,
  )

/** Of these tables nothing is copied: secrets, what waits to be sent, and numbers the database gives out. */
const LEFT_OUT = [
  'annotation_tokens',
  'due_failures',
  'feeds',
  'idempotency_keys',
  'joining_codes',
  'mails',
  'standing_changes',
]

/** Adds so many seminars like the one there is, with other people in them. */
export async function addSeminars(db: Database, times: number): Promise<void> {
  const withSeminar = await rowsOf<{ table: string }>(
    db,
    sql`select c.table_name as table from information_schema.columns c
      join information_schema.tables t on t.table_name = c.table_name and t.table_schema = c.table_schema
      where c.table_schema = 'public' and c.column_name = 'seminar_id' and t.table_type = 'BASE TABLE'`,
  )
  const tables = withSeminar.map(r => r.table).filter(table => !LEFT_OUT.includes(table))
  const there = await rowsOf<{ id: string }>(db, sql`select id from seminars`)
  const ids = there.map(s => `'${s.id}'`).join(', ')
  await copyRows(
    db,
    [
      ['persons', 'true'],
      ['seminars', 'true'],
      ...tables.map(table => [table, `seminar_id in (${ids})`] as const),
    ],
    times + 1,
    { isAnyOrder: true, changed: CUT_SHORT },
  )
}

/** @param isAnyOrder whether rows may come before those they point to; then nothing that a trigger does is done */
async function copyRows(
  db: Database,
  tables: typeof TABLES,
  times: number,
  { isAnyOrder = false, changed = CHANGED } = {},
): Promise<void> {
  await db.transaction(async tx => {
    if (isAnyOrder) await tx.execute(sql`set local session_replication_role = replica`)
    await tx.execute(sql`create temp table copied (id uuid primary key) on commit drop`)
    await tx.execute(
      sql`create temp table first on commit drop as select id from enrolments where role = 'student' and state = 'active'`,
    )
    const withId = await rowsOf<{ table: string }>(
      tx,
      sql`select table_name as table from information_schema.columns
        where table_schema = 'public' and column_name = 'id' and udt_name = 'uuid'`,
    )
    const hasId = new Set(withId.map(r => r.table))
    for (const [table, where] of tables)
      if (hasId.has(table))
        await tx.execute(
          sql.raw(`insert into copied select id from ${table} where ${where} on conflict do nothing`),
        )
    await tx.execute(sql`analyze copied`)
    for (const [table, where] of tables)
      await tx.execute(
        await copyOf(
          tx,
          table,
          hasId.has(table) ? 'id in (select id from copied)' : where,
          times - 1,
          changed,
        ),
      )
  })
  if (!isAnyOrder) await numberAll(db)
  // by itself PostgreSQL would tidy up some time later, and plan otherwise before than after
  await db.execute(sql`vacuum analyze`)
}

async function copyOf(
  tx: Parameters<typeof rowsOf>[0],
  table: string,
  where: string,
  times: number,
  changed: typeof CHANGED,
) {
  const columns = await rowsOf<{ name: string; type: string }>(
    tx,
    sql`select column_name as name, udt_name as type from information_schema.columns
      where table_schema = 'public' and table_name = ${table} and is_generated = 'NEVER' order by ordinal_position`,
  )
  const isCopied = (name: string) => `"${name} is copied"`
  const ids = columns.filter(c => c.type === 'uuid').map(c => c.name)
  const known = ids.map(
    name => `, exists (select 1 from copied c where c.id = r."${name}") as ${isCopied(name)}`,
  )
  const values = columns.map(({ name, type }) => {
    const value = changed[`${table}.${name}`]
    if (value) return value
    if (type !== 'uuid') return `r."${name}"`
    return `case when r.${isCopied(name)} then ${newId(`r."${name}"`)} else r."${name}" end`
  })
  return sql.raw(`with rows as materialized (select r.*${known.join('')} from ${table} r where ${where})
    insert into ${table} (${columns.map(c => `"${c.name}"`).join(', ')})
    select ${values.join(', ')} from generate_series(1, ${times}) n, rows r`)
}
