import { DOCX, cleanDocument, mayBeDocx } from '#server/documents/docxText'
import { typeOf } from '#server/documents/fileType'
import { sanitise } from '#server/richText/renderDoc'
import { cleanText } from '#server/kinds'
import { StoredDoc } from '#shared/contributing/richDoc'

/** Columns that hold HTML, and JSON with HTML in it. */
export const isHtml = (column: string): boolean => column === 'html' || column.endsWith('_html')

const isDoc = (value: object): boolean => (value as { type?: unknown }).type === 'doc'

/**
 * A value of an archive's row as it may be stored: HTML through the sanitiser that made its like, documents with known
 * nodes and marks only.
 */
export function rewritten(table: string, column: string, value: unknown): unknown {
  if (table === 'files' && column === 'without_metadata') return false // an archive may say so of any file
  if (typeof value === 'string') return isHtml(column) ? sanitiserOf(table, column)(value) : value
  if (Array.isArray(value)) return value.map(v => rewritten(table, column, v))
  if (typeof value !== 'object' || value === null) return value
  if (isDoc(value)) return StoredDoc.parse(value)
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, rewritten(table, k, v)]))
}

function sanitiserOf(table: string, column: string): (html: string) => string {
  if (table === 'text_versions') return cleanText
  return column === 'text_html' ? cleanDocument : sanitise
}

/** The media type of a file by its bytes, whatever an archive says it is. */
export function storedType(bytes: Buffer, name: string): string {
  return typeOf(bytes, name) ?? (mayBeDocx(bytes) ? DOCX : 'application/octet-stream')
}
