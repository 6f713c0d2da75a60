import { and, eq, inArray, ne } from 'drizzle-orm'
import { talkOf, type Attachable } from '#core/contributing/talkSettings'
import type { ActivityRow, ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributionFiles, contributions, files } from '#server/database/schema'
import { refusedField } from '#server/http/problem'

const WORDS: Readonly<Record<Attachable, string>> = {
  picture: 'pictures',
  paper: 'PDF',
  document: 'documents (DOCX)',
  recording: 'recordings',
}

export function sortOf(type: string): Attachable {
  if (type.startsWith('image/')) return 'picture'
  if (type === 'application/pdf') return 'paper'
  return type.startsWith('video/') || type.startsWith('audio/') ? 'recording' : 'document'
}

/** Refuses a file this activity does not take, with what it takes. */
export function requireTaken(
  { settings }: ActivityRow,
  file: { readonly type: string; readonly size: number },
): void {
  const { attach } = talkOf(settings)
  if (attach.most === 0 || attach.types.length === 0)
    throw refusedField('file', 'noFiles', 'No files can be attached here. Write it, or link to it.')
  if (file.size > attach.megabytes * 1_000_000)
    throw refusedField(
      'file',
      'tooLarge',
      `This file has ${(file.size / 1_000_000).toFixed(1)} MB; up to ${attach.megabytes} MB are taken here. Make it smaller, or link to it.`,
      413,
    )
  if (!attach.types.includes(sortOf(file.type)))
    throw refusedField(
      'file',
      'type',
      `Here ${attach.types.map(t => WORDS[t]).join(', ')} can come with a text; this file is none of them.`,
    )
}

/** Makes exactly these files come with a contribution: the author's own, not with another text already, and no more than are taken. */
export async function attachFiles(
  tx: Db,
  actor: ActivityActor,
  contributionId: string,
  fileIds: readonly string[],
): Promise<void> {
  const wanted = [...new Set(fileIds)]
  const { attach } = talkOf(actor.activity.settings)
  if (wanted.length > attach.most)
    throw refusedField(
      'fileIds',
      'tooMany',
      attach.most === 0
        ? 'No files are taken here.'
        : `Up to ${attach.most} files can come with a text. Take ${wanted.length - attach.most} off.`,
    )
  const rows =
    wanted.length > 0
      ? await tx
          .select({ id: files.id, type: files.type, size: files.size })
          .from(files)
          .where(and(inArray(files.id, wanted), eq(files.madeBy, actor.enrolment.id)))
      : []
  const elsewhere =
    wanted.length > 0
      ? await tx.$count(
          contributionFiles,
          and(
            inArray(contributionFiles.fileId, wanted),
            ne(contributionFiles.contributionId, contributionId),
          ),
        )
      : 0
  if (rows.length < wanted.length || elsewhere > 0)
    throw refusedField('fileIds', 'gone', 'One of these files is not there any more. Add it again.')
  for (const file of rows) requireTaken(actor.activity, file)
  await tx.delete(contributionFiles).where(eq(contributionFiles.contributionId, contributionId))
  if (wanted.length > 0)
    await tx.insert(contributionFiles).values(
      wanted.map((fileId, position) => ({
        seminarId: actor.activity.seminarId,
        contributionId,
        fileId,
        position,
      })),
    )
  await tx
    .update(contributions)
    .set({ figures: rows.filter(r => sortOf(r.type) === 'picture').length })
    .where(eq(contributions.id, contributionId))
}
