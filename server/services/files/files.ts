import { eq } from 'drizzle-orm'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { files } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import { requireTaken } from '#server/services/contributing/attach'
import type { FileView, FileWrite } from '#shared/files/file'
import { stripMetadata } from './stripMetadata'
import { DOCX, docxText, mayBeDocx, NotADocument } from './docxText'

const LARGEST = 20_000_000 // bytes

/** Media types by their first bytes: what a file is, not what it is called. Nothing a browser would run is among them. */
const SIGNATURES: ReadonlyArray<readonly [type: string, at: number, bytes: readonly number[]]> = [
  ['image/png', 0, [0x89, 0x50, 0x4e, 0x47]], ['image/jpeg', 0, [0xff, 0xd8, 0xff]], ['image/gif', 0, [0x47, 0x49, 0x46, 0x38]], ['image/webp', 8, [0x57, 0x45, 0x42, 0x50]],
  ['application/pdf', 0, [0x25, 0x50, 0x44, 0x46]], ['video/webm', 0, [0x1a, 0x45, 0xdf, 0xa3]], ['video/mp4', 4, [0x66, 0x74, 0x79, 0x70]],
  ['audio/mpeg', 0, [0x49, 0x44, 0x33]], ['audio/ogg', 0, [0x4f, 0x67, 0x67, 0x53]], ['audio/wav', 8, [0x57, 0x41, 0x56, 0x45]],
]

export function typeOf(bytes: Uint8Array, name: string): string | null {
  const known = SIGNATURES.find(([, at, signature]) => signature.every((b, i) => bytes[at + i] === b))?.[0]
  // one container holds pictures with sound, or sound alone: the name tells which
  if (known === 'video/webm' && /^(spoken|voice)|\.weba$/i.test(name)) return 'audio/webm'
  if (known === 'video/mp4' && /\.m4a$/i.test(name)) return 'audio/mp4'
  return known ?? null
}

/** Keeps an uploaded file for a brief. The browser makes the id: sent again, it is kept once. */
export async function keepFile(db: Db, actor: Actor, write: FileWrite): Promise<FileView> {
  const bytes = bytesOf(write)
  const type = typeOf(bytes, write.name)
  if (!type) throw refusedField('file', 'type', 'Pictures (PNG, JPEG, WebP, GIF), PDF, video (WebM, MP4) and sound (MP3, OGG, WAV, WebM) can be added; this file is none of them.')
  return store(db, actor, write, { bytes, type, textHtml: null })
}

/** Keeps a file that is to come with a contribution, if this activity takes its like. A document is kept with its text beside it. */
export async function keepAttachment(db: Db, actor: Actor & { readonly activity: ActivityRow }, write: FileWrite, begunAt: Date, now: Date): Promise<FileView> {
  const bytes = bytesOf(write)
  const known = typeOf(bytes, write.name)
  const isDocument = known === null && mayBeDocx(bytes)
  if (known === null && !isDocument) throw refusedField('file', 'type', 'Pictures, PDF, documents (DOCX) and recordings can be added; by its content this file is none of them, whatever it is called.')
  requireTaken(actor.activity, { type: known ?? DOCX, size: bytes.length })
  const textHtml = isDocument ? await textOf(bytes) : null
  // what is read without names must not carry one along
  const kept = actor.activity.kind === 'review' ? await stripMetadata(bytes, known ?? DOCX) : bytes
  return store(db, actor, write, { bytes: kept, type: known ?? DOCX, textHtml, begunAt, madeAt: now })
}

async function textOf(bytes: Uint8Array): Promise<string> {
  try {
    return await docxText(bytes)
  }
  catch (error) {
    if (!(error instanceof NotADocument)) throw error
    throw error.reason === 'tooLarge'
      ? refusedField('file', 'tooLarge', 'This document unpacks to far more than a text would. It was not kept.')
      : refusedField('file', 'type', 'This archive is no document that can be read. Save it as DOCX or PDF, and add that.')
  }
}

function bytesOf(write: FileWrite): Buffer {
  const bytes = Buffer.from(write.base64, 'base64')
  if (bytes.length > LARGEST) throw refusedField('file', 'tooLarge', 'This file is larger than 20 MB. Make it smaller, or link to it.', 413)
  return bytes
}

async function store(db: Db, actor: Actor, write: FileWrite, file: { readonly bytes: Buffer, readonly type: string, readonly textHtml: string | null, readonly begunAt?: Date, readonly madeAt?: Date }): Promise<FileView> {
  await db.insert(files).values({ id: write.id, seminarId: actor.seminar.id, madeBy: actor.enrolment.id, name: write.name, size: file.bytes.length, transcript: write.transcript, ...file }).onConflictDoNothing()
  return { id: write.id, url: `/api/files/${write.id}`, name: write.name, type: file.type, size: file.bytes.length, hasText: file.textHtml !== null }
}

export async function fileById(db: Db, id: string) {
  const [file] = await db.select().from(files).where(eq(files.id, id))
  return file ?? null
}
