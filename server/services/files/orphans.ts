import { sql } from 'drizzle-orm'
import { rowsOf, type Database } from '#server/database/client'

const DAYS = 30
const DAY = 86_400_000 // milliseconds

/**
 * Removes uploads of students that belong to nothing: with no contribution, letter or text of the library, nor named in
 * anything their maker has written or is writing. Staff's stay, because briefs, phrases and templates name theirs.
 *
 * @param now real time: an upload may wait in a browser without a connection for 30 days
 * @returns how many there were
 */
export async function clearOrphans(db: Database, now: Date): Promise<number> {
  const before = new Date(now.getTime() - DAYS * DAY).toISOString()
  const gone = await rowsOf(
    db,
    sql`delete from files f using enrolments e
      where e.id = f.made_by and e.role in ('student', 'observer') and f.made_at < ${before}
        and not exists (select 1 from contribution_files x where x.file_id = f.id)
        and not exists (select 1 from mark_files x where x.file_id = f.id)
        and not exists (select 1 from text_versions x where x.file_id = f.id)
        and not exists (
          select 1 from contributions c where c.author_id = f.made_by and strpos(c.doc::text, f.id::text) > 0)
      returning f.id`,
  )
  return gone.length
}
