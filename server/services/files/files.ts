import { neutralName } from '#core/contributing/neutralName'
import { and, eq, ne, sql } from 'drizzle-orm'
import { isStaff, type Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { files } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import type { FileView, FileWrite } from '#shared/files/file'
import { typeOf } from '#server/documents/fileType'
import { readAttachment } from './inThread'
import { wordsOf } from './wordsOfFiles'
import { wholeBytes, type StoredFile } from './storedBytes'

const LARGEST = 20_000_000 // bytes
/** Bytes that one person's files may have together in one seminar. */
const QUOTA = { staff: 5_000_000_000, others: 500_000_000 }

/** Keeps an uploaded file for a brief. The browser makes the id: sent again, it is kept once. */
export async function keepFile(db: Db, actor: Actor, write: FileWrite): Promise<FileView> {
  const bytes = bytesOf(write)
  const type = typeOf(bytes, write.name)
  if (!type)
    throw refusedField(
      'file',
      'type',
      'Pictures (PNG, JPEG, WebP, GIF), PDF, video (WebM, MP4) and sound (MP3, OGG, WAV, WebM) can be added; this file is none of them.',
    )
  return storeFile(db, actor, write, { bytes, type, textHtml: null })
}

/**
 * A file for a reader who is not told whose it is: its own name may say so, and so may what its program wrote into it. One
 * from before names were hidden is cleaned once, for everybody: a reader must not be able to have it done again and again.
 */
export async function unnamedFile(db: Db, file: StoredFile): Promise<StoredFile> {
  const unnamed = { ...file, name: neutralName('Attachment', file.name) }
  if (file.withoutMetadata) return unnamed
  const stored = await wholeBytes(db, file.id)
  const bytes = Buffer.from((await readAttachment(stored, file.type, true)).bytes)
  await db
    .update(files)
    .set({ bytes, size: bytes.length, withoutMetadata: true })
    .where(and(eq(files.id, file.id), eq(files.withoutMetadata, false)))
  return { ...unnamed, size: bytes.length, withoutMetadata: true }
}

/** @throws {Problem} 413 if there are too many */
export function bytesOf(write: FileWrite): Buffer {
  const bytes = Buffer.from(write.base64, 'base64')
  if (bytes.length > LARGEST)
    throw refusedField(
      'file',
      'tooLarge',
      'This file is larger than 20 MB. Make it smaller, or link to it.',
      413,
    )
  return bytes
}

/** Keeps a file in the database, once for its id, within what its person may have in the seminar. */
export async function storeFile(
  db: Db,
  actor: Actor,
  write: FileWrite,
  file: {
    readonly bytes: Buffer
    readonly type: string
    readonly textHtml: string | null
    readonly paperWords?: string | null
    readonly withoutMetadata?: boolean
    readonly begunAt?: Date
    readonly madeAt?: Date
  },
): Promise<FileView> {
  await requireRoom(db, actor, write.id, file.bytes.length)
  await db
    .insert(files)
    .values({
      id: write.id,
      seminarId: actor.seminar.id,
      madeBy: actor.enrolment.id,
      name: write.name,
      size: file.bytes.length,
      transcript: write.transcript,
      words: wordsOf(file),
      ...file,
    })
    .onConflictDoNothing()
  return {
    id: write.id,
    url: `/api/files/${write.id}`,
    name: write.name,
    type: file.type,
    size: file.bytes.length,
    hasText: file.textHtml !== null,
  }
}

/** @param id of the file that comes, which may be here already: then it was sent again */
async function requireRoom(db: Db, { seminar, enrolment }: Actor, id: string, more: number): Promise<void> {
  const [sum] = await db
    .select({ bytes: sql<number>`coalesce(sum(${files.size}), 0)::float8` })
    .from(files)
    .where(and(eq(files.seminarId, seminar.id), eq(files.madeBy, enrolment.id), ne(files.id, id)))
  const quota = isStaff(enrolment) ? QUOTA.staff : QUOTA.others
  if (sum!.bytes + more <= quota) return
  const megabytes = (bytes: number) => Math.floor(bytes / 1_000_000).toLocaleString('en')
  throw refusedField(
    'file',
    'quota',
    `Your files in this seminar have ${megabytes(sum!.bytes)} MB together, and ${megabytes(quota)} MB are the most. Make this one smaller, or link to it.`,
    413,
  )
}
