import { refusedField } from '#server/http/problem'
import { DOCX, docxText, NotADocument } from '#server/documents/docxText'
import { stripMetadata } from './stripMetadata'

export interface ReadAttachment {
  readonly bytes: Uint8Array // as it is kept
  readonly textHtml: string | null // of a document
}

/**
 * What is made of a file that comes with a contribution.
 * @param isUnnamed it is read without names, so it must not carry one along
 * @throws {Problem} with a sentence for the person
 */
export async function readAttachment(
  bytes: Uint8Array,
  type: string,
  isUnnamed: boolean,
): Promise<ReadAttachment> {
  const whole = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const textHtml = type === DOCX ? await textOf(whole) : null
  return { bytes: isUnnamed ? await stripMetadata(whole, type) : whole, textHtml }
}

async function textOf(bytes: Uint8Array): Promise<string> {
  try {
    return await docxText(bytes)
  } catch (error) {
    if (!(error instanceof NotADocument)) throw error
    throw error.reason === 'tooLarge'
      ? refusedField(
          'file',
          'tooLarge',
          'This document unpacks to far more than a text would. It was not kept.',
        )
      : refusedField(
          'file',
          'type',
          'This archive is no document that can be read. Save it as DOCX or PDF, and add that.',
        )
  }
}
