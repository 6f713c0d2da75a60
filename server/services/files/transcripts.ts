import { eq } from 'drizzle-orm'
import type { Db } from '#server/database/client'
import { files } from '#server/database/schema'
import { readTranscript } from '#server/documents/transcript'
import { refusedField } from '#server/http/problem'
import type { StoredFile } from './storedBytes'

const isRecording = (type: string) => /^(audio|video)\//.test(type)

/**
 * Gives a recording its transcript, another one, or none.
 * @returns the one it had, with which this is undone
 * @throws {Problem} when the file is no recording, or the transcript cannot be read
 */
export async function keepTranscript(
  db: Db,
  file: StoredFile,
  transcript: string | null,
): Promise<{ before: string | null }> {
  if (!isRecording(file.type))
    throw refusedField('transcript', 'noRecording', 'Only what is heard or seen has a transcript.')
  if (transcript !== null) readTranscript(transcript)
  await db.update(files).set({ transcript }).where(eq(files.id, file.id))
  return { before: file.transcript }
}
