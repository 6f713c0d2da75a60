import { createHash } from 'node:crypto'
import { createInterface } from 'node:readline'
import { Readable } from 'node:stream'
import { promisify } from 'node:util'
import { eq, inArray, sql } from 'drizzle-orm'
import { v7 } from 'uuid'
import yauzl, { type Entry, type ZipFile } from 'yauzl'
import { z } from 'zod'
import type { Database, Db } from '#server/database/client'
import { persons, seminars } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import { keepCounts } from '#server/services/voices'
import { silenceRestored } from '#server/services/people'
import { KEPT_TABLES, type KeptTable } from './keptTables'
import { columnsOf, nameOf, pointersOf } from './keptColumns'
import { isHtml, rewritten, storedType } from './rewriteRow'
import { runsNothing } from './safeHtml'
import { ARCHIVE_FORM, ARCHIVE_VERSION } from './writeArchive'

const ROWS = 250 // written at a time
const LARGEST = 40 * 1024 ** 3 // bytes of all parts unpacked
const LONGEST_LINE = 200 * 1024 ** 2 // characters
const Manifest = z.object({
  form: z.literal(ARCHIVE_FORM),
  version: z.literal(ARCHIVE_VERSION),
  seminar: z.object({ id: z.uuid(), code: z.string(), title: z.string() }),
  tables: z.array(z.object({ name: z.string(), file: z.string(), rows: z.number().int() })),
})
type Row = Record<string, unknown>

const broken = (sentence: string) =>
  new Problem(422, 'archive', `${sentence} Nothing was imported.`, {
    fields: { file: `${sentence} Nothing was imported.` },
  })

/**
 * Brings a seminar back from its archive, whole or not at all. Every part is checked against its sum before anything is
 * written; rows may only point to rows of the same archive, so that nothing reaches into another seminar. People known
 * here by their address stay who they are; the others have no password until they choose one.
 *
 * The seminar comes back silent, and whoever brought it back is let in.
 *
 * @param path of the archive on disk
 */
export async function readArchive(
  db: Database,
  path: string,
  restorer: { readonly personId: string },
  now: Date,
): Promise<{ seminarId: string; title: string; people: number; contributions: number }> {
  const zip = await promisify<string, yauzl.Options, ZipFile>(yauzl.open)(path, {
    lazyEntries: true,
    autoClose: false,
  }).catch(() => {
    throw broken('This is no archive of a seminar, or it came in only in part.')
  })
  try {
    const entries = await entriesOf(zip)
    const open = (name: string): Promise<Readable> => {
      const entry = entries.get(name)
      if (!entry) throw broken(`The part “${name}” is missing.`)
      return promisify<Entry, Readable>(zip.openReadStream.bind(zip))(entry)
    }
    const text = async (name: string) => {
      const parts: Buffer[] = []
      for await (const p of await open(name)) parts.push(p as Buffer)
      return Buffer.concat(parts).toString('utf8')
    }
    await checkSums(entries, await text('SHA256SUMS'), open)
    const manifest = Manifest.safeParse(safeJson(await text('manifest.json')))
    if (!manifest.success) throw broken('This is no archive of a seminar, or one of a later Jovrel.')
    const { seminar, tables } = manifest.data
    return await db.transaction(async tx => {
      if ((await tx.$count(seminars, eq(seminars.id, seminar.id))) > 0)
        throw new Problem(
          409,
          'here',
          `“${seminar.title}” is here already. An archive is imported where it is not.`,
          { fields: { file: `“${seminar.title}” is here already.` } },
        )
      const restore = new Restore(tx, seminar.id)
      for (const kept of KEPT_TABLES) {
        const name = nameOf(kept)
        // one that is not listed came with a later release
        const listed = tables.find(t => t.name === name) ?? { rows: 0, file: null }
        const found = listed.file === null ? Readable.from([]) : await open(listed.file)
        const rows = await restore.table(kept, lines(found), async id =>
          Buffer.concat(await collect(await open(`files/${id}`))),
        )
        if (rows !== listed.rows)
          throw broken(`The table “${name}” has not as many rows as the archive says.`)
      }
      await restore.joinUp()
      await keepCounts(tx, seminar.id)
      await silenceRestored(tx, seminar.id, restorer.personId, now)
      return {
        seminarId: seminar.id,
        title: seminar.title,
        people: restore.counts.get('persons') ?? 0,
        contributions: restore.counts.get('contributions') ?? 0,
      }
    })
  } finally {
    zip.close()
  }
}

function entriesOf(zip: ZipFile): Promise<Map<string, Entry>> {
  return new Promise((resolve, reject) => {
    const entries = new Map<string, Entry>()
    let size = 0
    zip.on('entry', (entry: Entry) => {
      size += entry.uncompressedSize
      if (size > LARGEST) {
        reject(broken('Unpacked, this archive would be larger than what can be taken.'))
        return
      }
      entries.set(entry.fileName, entry)
      zip.readEntry()
    })
    zip.on('end', () => {
      resolve(entries)
    })
    zip.on('error', () => {
      reject(broken('This archive is damaged.'))
    })
    zip.readEntry()
  })
}

async function checkSums(
  entries: ReadonlyMap<string, Entry>,
  list: string,
  open: (name: string) => Promise<Readable>,
): Promise<void> {
  const sums = new Map(
    list
      .split('\n')
      .filter(Boolean)
      .map((line): [string, string] => [line.slice(66), line.slice(0, 64)]),
  )
  for (const name of entries.keys())
    if (name !== 'SHA256SUMS' && !sums.has(name))
      throw broken(`The part “${name}” has no sum to check it by.`)
  for (const [name, sum] of sums) {
    const hash = createHash('sha256')
    try {
      for await (const piece of await open(name)) hash.update(piece as Buffer)
    } catch (error) {
      throw error instanceof Problem ? error : broken(`The part “${name}” is damaged.`)
    }
    if (hash.digest('hex') !== sum)
      throw broken(`The part “${name}” is not what it was when the archive was made.`)
  }
}

async function collect(stream: Readable): Promise<Buffer[]> {
  const parts: Buffer[] = []
  for await (const p of stream) parts.push(p as Buffer)
  return parts
}
async function* lines(stream: Readable): AsyncGenerator<Row> {
  for await (const line of createInterface({ input: stream, crlfDelay: Infinity })) {
    if (line.length > LONGEST_LINE) throw broken('A row is longer than any row can be.')
    const row = safeJson(line)
    if (typeof row !== 'object' || row === null || Array.isArray(row)) throw broken('A row cannot be read.')
    yield row as Row
  }
}
function safeJson(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}

class Restore {
  readonly counts = new Map<string, number>()
  private readonly ids = new Map<string, Set<string>>() // by table
  private readonly names = new Map<string, Row>() // of people, by their id in the archive
  private readonly people = new Map<string, string>() // ids of the archive to ids here
  private readonly selves: Array<{
    readonly table: string
    readonly column: string
    readonly pairs: Array<readonly [string, string]>
  }> = []
  private readonly links: Row[] = [] // of criteria to their outcomes
  private readonly guests = new Set<string>() // seminars that are only named
  constructor(
    private readonly db: Db,
    private readonly seminarId: string,
  ) {}

  /** @returns how many rows there were */
  async table(
    kept: KeptTable,
    rows: AsyncIterable<Row>,
    bytesOf: (id: string) => Promise<Buffer>,
  ): Promise<number> {
    const name = nameOf(kept)
    const columns = columnsOf(kept)
      .map(c => c.name)
      .filter(c => !kept.without?.includes(c))
    const pointers = pointersOf(kept)
    const self = pointers.filter(p => p.to === name)
    const pairs = self.map(p => ({
      table: name,
      column: p.column,
      pairs: [] as Array<readonly [string, string]>,
    }))
    this.selves.push(...pairs)
    const own = new Set<string>()
    this.ids.set(name, own)
    let [batch, n] = [[] as Row[], 0]
    for await (const row of rows) {
      n++
      if (name === 'rubric_criteria') this.linkOne(row)
      for (const key of Object.keys(row))
        if (!columns.includes(key))
          throw broken(`The table “${name}” has a column “${key}” that is not known here.`)
      this.checkOwn(name, row)
      for (const [key, value] of Object.entries(row)) {
        if (!harmless(key, value))
          throw broken(`In the table “${name}” there is something that would run in a browser.`)
        row[key] = rewritten(name, key, value)
      }
      if (typeof row.id === 'string') own.add(row.id)
      for (const [i, p] of self.entries())
        if (typeof row[p.column] === 'string') {
          pairs[i]!.pairs.push([String(row.id), row[p.column] as string])
          row[p.column] = null
        }
      for (const p of pointers)
        if (
          p.to !== name &&
          typeof row[p.column] === 'string' &&
          !this.ids.get(p.to)?.has(row[p.column] as string)
        )
          throw broken(`A row of “${name}” points to something that is not in the archive.`)
      if (name === 'persons') this.names.set(String(row.id), pick(row, NAMES))
      const kind = name === 'persons' ? await this.person(row) : row
      if (!kind) continue
      if (name === 'enrolments') this.enrol(kind)
      if (name === 'files') {
        const bytes = await bytesOf(String(kind.id))
        const type = storedType(bytes, String(kind.name))
        const file = { ...kind, type, size: bytes.length, bytes: '\\x' }
        await this.insert(name, [...columns, 'bytes'], [file])
        await this.db.execute(sql`update files set bytes = ${bytes} where id = ${String(kind.id)}`)
        continue
      }
      batch.push(kind)
      if (batch.length >= ROWS) {
        await this.insert(name, columns, batch)
        batch = []
      }
    }
    await this.insert(name, columns, batch)
    this.counts.set(name, n)
    return n
  }

  /** A row belongs to the seminar of the archive; only by name there may be others it shares activities with. */
  private checkOwn(name: string, row: Row): void {
    if (name === 'seminars') {
      if (row.id === this.seminarId) return
      if (row.state !== 'archived') throw broken('A seminar that is only named is not archived.')
      this.guests.add(String(row.id))
      return
    }
    const guest = ['enrolments', 'joint_seminars'].includes(name) && this.guests.has(String(row.seminar_id))
    if (name !== 'persons' && row.seminar_id !== this.seminarId && !guest)
      throw broken(`A row of “${name}” is not of this seminar.`)
  }

  /** Archives of before a criterion could be evidence of several outcomes name its one in its own row. */
  private linkOne(row: Row): void {
    const outcome = row.outcome_id
    delete row.outcome_id
    if (typeof outcome !== 'string') return
    if (!this.ids.get('outcomes')?.has(outcome))
      throw broken('A row of “rubric_criteria” points to something that is not in the archive.')
    this.links.push({ id: v7(), seminar_id: this.seminarId, criterion_id: row.id, outcome_id: outcome })
  }

  /** Joins an enrolment to who is here. Archives of before names belonged to it have them with the person alone. */
  private enrol(row: Row): void {
    const archived = String(row.person_id)
    if (row.name === undefined) Object.assign(row, this.names.get(archived))
    row.person_id = this.people.get(archived)
  }

  /** Somebody who is here already stays as they are. */
  private async person(row: Row): Promise<Row | null> {
    const [known] = await this.db
      .select({ id: persons.id })
      .from(persons)
      .where(eq(persons.email, String(row.email).toLowerCase()))
    if (known) {
      this.people.set(String(row.id), known.id)
      return null
    }
    const [taken] = await this.db
      .select({ id: persons.id })
      .from(persons)
      .where(inArray(persons.id, [String(row.id)]))
    const id = taken ? v7() : String(row.id)
    this.people.set(String(row.id), id)
    return { ...row, id, email: String(row.email).toLowerCase(), founds_seminars: false }
  }

  private async insert(name: string, columns: readonly string[], rows: readonly Row[]): Promise<void> {
    if (rows.length === 0) return
    // a column that is not named keeps what the table gives it
    const named = columns.filter(c => c in rows[0]!)
    const list = sql.join(
      named.map(c => sql.identifier(c)),
      sql`, `,
    )
    try {
      await this.db.execute(
        sql`insert into ${sql.identifier(name)} (${list}) select ${list}
          from jsonb_populate_recordset(null::${sql.identifier(name)}, ${JSON.stringify(rows)}::jsonb)`,
      )
    } catch (error) {
      const said =
        error instanceof Error && error.cause instanceof Error ? error.cause.message : String(error)
      throw broken(`Rows of “${name}” could not be taken: ${said.slice(0, 200)}.`)
    }
  }

  /** Sets what rows say of others of their own table, once all are there. */
  async joinUp(): Promise<void> {
    await this.insert('criterion_outcomes', ['id', 'seminar_id', 'criterion_id', 'outcome_id'], this.links)
    for (const { table, column, pairs } of this.selves) {
      const known = this.ids.get(table)!
      if (pairs.some(([, to]) => !known.has(to)))
        throw broken(`A row of “${table}” points to something that is not in the archive.`)
      const mapped =
        table === 'persons'
          ? pairs.map(([a, b]) => [this.people.get(a)!, this.people.get(b)!] as const)
          : pairs
      for (let i = 0; i < mapped.length; i += 5000) {
        const some = mapped.slice(i, i + 5000)
        await this.db.execute(
          sql`update ${sql.identifier(table)} r set ${sql.identifier(column)} = v.at
            from jsonb_to_recordset(${JSON.stringify(some.map(([id, at]) => ({ id, at })))}::jsonb) as v(id uuid,
            at uuid) where r.id = v.id`,
        )
      }
    }
  }
}

const NAMES = ['name', 'given_name', 'family_name']
const pick = (row: Row, keys: readonly string[]): Row => Object.fromEntries(keys.map(key => [key, row[key]]))

function harmless(key: string, value: unknown): boolean {
  if (typeof value === 'string') return !isHtml(key) || runsNothing(value)
  if (Array.isArray(value)) return value.every(v => harmless(key, v))
  return (
    typeof value !== 'object' || value === null || Object.entries(value).every(([k, v]) => harmless(k, v))
  )
}
