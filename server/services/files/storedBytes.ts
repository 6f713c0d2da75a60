import { eq, getTableColumns, sql } from 'drizzle-orm'
import { v7 } from 'uuid'
import { rowsOf, type Db } from '#server/database/client'
import { files } from '#server/database/schema'

/** A file without its bytes: those are asked for when it is known who may have them, and which part. */
export type StoredFile = Omit<typeof files.$inferSelect, 'bytes'>

const { bytes: _bytes, ...columns } = getTableColumns(files)

// PostgreSQL sends bytes as text, twice as long: those of a large file at once would hold everybody up while they are read
export const PIECE = 500_000 // bytes

export async function storedFile(db: Db, id: string): Promise<StoredFile | null> {
  const [file] = await db.select(columns).from(files).where(eq(files.id, id))
  return file ?? null
}

/** Bytes of a stored file from one place to before another, in pieces of at most half a megabyte. */
export async function* storedBytes(db: Db, id: string, from = 0, end = Infinity): AsyncGenerator<Buffer> {
  for (let at = from; at < end; at += PIECE) {
    const most = Math.min(PIECE, end - at)
    // counted from 1 there
    const [row] = await rowsOf<{ piece: Buffer }>(
      db,
      sql`select substring(bytes from ${at + 1}::int for ${most}::int) as piece from files where id = ${id}`,
    )
    if (!row || row.piece.length === 0) return
    yield row.piece
    if (row.piece.length < most) return
  }
}

/** A part of a stored file, or all of it, for whoever needs it in one piece. */
export async function wholeBytes(db: Db, id: string, from?: number, end?: number): Promise<Buffer> {
  const pieces: Buffer[] = []
  for await (const piece of storedBytes(db, id, from, end)) pieces.push(piece)
  return Buffer.concat(pieces)
}

/** Copies a file for another seminar, within the database. @returns the copy's id, or null if there is no such file */
export async function copyStoredFile(
  db: Db,
  id: string,
  { seminarId, madeBy }: { readonly seminarId: string; readonly madeBy: string },
): Promise<string | null> {
  const copied = db
    .select({
      ...getTableColumns(files),
      id: sql`${v7()}::uuid`.as('id'),
      seminarId: sql`${seminarId}::uuid`.as('seminar_id'),
      madeBy: sql`${madeBy}::uuid`.as('made_by'),
      madeAt: sql`now()`.as('made_at'),
    })
    .from(files)
    .where(eq(files.id, id))
  const [made] = await db.insert(files).select(copied).returning({ id: files.id })
  return made?.id ?? null
}
