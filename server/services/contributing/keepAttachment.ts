import { KINDS } from '#core/kinds'
import { talkOf } from '#core/contributing/talkSettings'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { refusedField } from '#server/http/problem'
import { DOCX, mayBeDocx } from '#server/documents/docxText'
import { typeOf } from '#server/documents/fileType'
import { bytesOf, readAttachment, storeFile } from '#server/services/files'
import type { FileView, FileWrite } from '#shared/files/file'
import { requireTaken } from './attach'
import { hooksOf } from './kindHooks'

/** Keeps a file that is to come with a contribution, if this activity takes its like. A document is kept with its text beside it. */
export async function keepAttachment(
  db: Db,
  actor: Actor & { readonly activity: ActivityRow },
  write: FileWrite,
  begunAt: Date,
  now: Date,
): Promise<FileView> {
  const bytes = bytesOf(write)
  const known = typeOf(bytes, write.name)
  const isDocument = known === null && mayBeDocx(bytes)
  if (known === null && !isDocument)
    throw refusedField(
      'file',
      'type',
      'Pictures, PDF, documents (DOCX) and recordings can be added; by its content this file is none of them, whatever it is called.',
    )
  requireTaken(actor.activity, { type: known ?? DOCX, size: bytes.length })
  const type = known ?? DOCX
  const { wordsOfPaper } = hooksOf(actor.activity.kind)
  const isUnnamed = KINDS[actor.activity.kind].handsIn || talkOf(actor.activity.settings).namesHidden
  const needsReading = isDocument || isUnnamed
  const read = needsReading ? await readAttachment(bytes, type, isUnnamed) : { bytes, textHtml: null }
  return storeFile(db, actor, write, {
    textHtml: read.textHtml,
    bytes: Buffer.from(read.bytes),
    paperWords: wordsOfPaper && type === 'application/pdf' ? await wordsOfPaper(bytes, write.name) : null,
    withoutMetadata: isUnnamed,
    type,
    begunAt,
    madeAt: now,
  })
}
