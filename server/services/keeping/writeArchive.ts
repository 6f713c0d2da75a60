import { createHash } from 'node:crypto'
import { Readable } from 'node:stream'
import { sql } from 'drizzle-orm'
import { ZipFile } from 'yazl'
import type { Seminar } from '#server/access/seminar'
import { rowsOf, type Database, type Db } from '#server/database/client'
import { storedBytes } from '#server/services/files'
import { KEPT_TABLES, LEFT_BEHIND, type KeptTable } from './keptTables'
import { belonging, leaving } from './rowsThatLeave'
import { columnsOf, keyOf, nameOf } from './keptColumns'

export const ARCHIVE_FORM = 'jovrel-seminar'
export const ARCHIVE_VERSION = 1
const ROWS = 250 // fetched at a time
export const tableFile = (index: number, name: string): string =>
  `tables/${String(index + 1).padStart(2, '0')}_${name}.jsonl`

/**
 * A whole seminar as one zip: each table as lines of JSON, each file as it is, with a description of both and the SHA-256
 * of every part. It is read from one moment of the database and goes out as it is read: memory does not grow with it.
 * The same seminar gives the same parts.
 */
export function writeArchive(db: Database, seminar: Seminar, now: Date): Readable {
  const zip = new ZipFile()
  const out = zip.outputStream as Readable
  const sums: Array<{
    readonly path: string
    readonly sha256: string
    readonly bytes: number
    readonly rows: number | null
  }> = []
  const part = (
    path: string,
    compress: boolean,
    from: () => AsyncIterable<Buffer>,
    counts: { rows: number } | null = null,
  ) => {
    zip.addReadStreamLazy(path, { mtime: now, compress, forceDosTimestamp: true }, give => {
      give(null, Readable.from(summed(path, from(), counts), { objectMode: false }))
    })
  }
  async function* summed(path: string, from: AsyncIterable<Buffer>, counts: { rows: number } | null) {
    const hash = createHash('sha256')
    let bytes = 0
    for await (const piece of from) {
      hash.update(piece)
      bytes += piece.length
      yield piece
    }
    sums.push({ path, sha256: hash.digest('hex'), bytes, rows: counts?.rows ?? null })
  }
  const work = db.transaction(
    async tx => {
      await tx.execute(sql`set local time zone 'UTC'`)
      part('README.txt', true, () => whole(readme(seminar)))
      KEPT_TABLES.forEach((kept, index) => {
        const counts = { rows: 0 }
        part(tableFile(index, nameOf(kept)), true, () => linesOfTable(tx, kept, seminar.id, counts), counts)
      })
      const files = await rowsOf<{ id: string }>(
        tx,
        sql`select id from files where seminar_id = ${seminar.id} order by id`,
      )
      for (const { id } of files) part(`files/${id}`, false, () => storedBytes(tx, id))
      part('manifest.json', true, () =>
        whole(
          () =>
            `${JSON.stringify(
              {
                form: ARCHIVE_FORM,
                version: ARCHIVE_VERSION,
                madeAt: now.toISOString(),
                seminar: { id: seminar.id, code: seminar.code, title: seminar.title },
                tables: KEPT_TABLES.map((kept, index) => {
                  const file = tableFile(index, nameOf(kept))
                  return { name: nameOf(kept), file, rows: sums.find(s => s.path === file)!.rows }
                }),
                files: files.length,
              },
              null,
              2,
            )}\n`,
        ),
      )
      part('SHA256SUMS', true, () => whole(() => sums.map(s => `${s.sha256}  ${s.path}\n`).join('')))
      zip.end()
      await new Promise<void>((resolve, reject) => {
        out.once('end', resolve)
        out.once('error', reject)
        out.once('close', () => {
          reject(new Error('nobody reads the archive any more'))
        })
      })
    },
    { isolationLevel: 'repeatable read', accessMode: 'read only' },
  )
  zip.on('error', (error: Error) => out.destroy(error))
  work.catch((error: Error) => {
    if (!out.destroyed) out.destroy(error)
  })
  return out
}

async function* linesOfTable(
  db: Db,
  kept: KeptTable,
  seminarId: string,
  counts: { rows: number },
): AsyncGenerator<Buffer> {
  const name = sql.identifier(`kept_${nameOf(kept)}`)
  const order = sql.join(
    keyOf(kept).map(k => sql`r.${sql.identifier(k)}`),
    sql`, `,
  )
  await db.execute(
    sql`declare ${name} no scroll cursor for select ${leaving(kept, seminarId)} as line
      from ${sql.identifier(nameOf(kept))} r where ${belonging(kept, seminarId)} order by ${order}`,
  )
  for (;;) {
    const rows = await rowsOf<{ line: string }>(db, sql`fetch ${sql.raw(String(ROWS))} from ${name}`)
    if (rows.length === 0) break
    counts.rows += rows.length
    yield Buffer.from(rows.map(r => `${r.line}\n`).join(''))
  }
  await db.execute(sql`close ${name}`)
}

async function* whole(text: string | (() => string)): AsyncGenerator<Buffer> {
  yield await Promise.resolve(Buffer.from(typeof text === 'string' ? text : text()))
}

const readme = (seminar: Seminar): string => `${seminar.title} (${seminar.code})
A whole seminar of Jovrel, to be kept and to be read back.

manifest.json  what this is, and how many rows each table has
tables/        each table as lines of JSON (RFC 8259, one object a line, UTF-8), in the order in which they can be read back
files/         each file as it was, under the id by which tables name it
SHA256SUMS     the SHA-256 of every other part; "sha256sum -c SHA256SUMS" checks them all

Times are ISO 8601 with their offset. Ids are UUIDs. Points are whole numbers in hundredths. Documents ("doc") are trees of
nodes: type, attrs, content, marks, text; "html" and "text" are the same words rendered.

What stays behind: ${LEFT_BEHIND.map(([table, why]) => `${nameOf({ table })} (${why})`).join('; ')}.
Activities whose home is another seminar are in that seminar's archive. Passwords do not leave: people choose one anew.
Of drafts there is that they exist and how long they are; their words are nobody's but their author's.

${KEPT_TABLES.map(
  (kept, index) =>
    `${tableFile(index, nameOf(kept))}\n  ${kept.about}\n${columnsOf(kept)
      .filter(c => !kept.without?.includes(c.name))
      .map(c => `  ${c.name.padEnd(24)}${c.type}`)
      .join('\n')}`,
).join('\n\n')}
`
