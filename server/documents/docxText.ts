import { unzipSync, zipSync } from 'fflate'
import sanitizeHtml from 'sanitize-html'

const LARGEST_UNPACKED = 40_000_000 // bytes of all parts of a document together
const MOST_PARTS = 2000
const LONGEST_HTML = 2_000_000 // characters
export const DOCX = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document'

/** Why a document cannot be taken: it is none, or unpacks to more than any text would. */
export class NotADocument extends Error {
  constructor(readonly reason: 'notADocument' | 'tooLarge') {
    super(`docxText: ${reason}`)
    this.name = 'NotADocument'
  }
}

/** Whether bytes begin like an archive that could be a document. */
export const mayBeDocx = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 0x03 && bytes[3] === 0x04

/** Parts of a document, never more than they say they are. @throws {NotADocument} when they are too many or too large together */
export function unpackDocx(
  bytes: Uint8Array,
  isWanted: (name: string) => boolean = () => true,
): Record<string, Uint8Array> {
  let sum = 0
  let count = 0
  try {
    return unzipSync(bytes, {
      filter: part => {
        sum += part.originalSize
        if (sum > LARGEST_UNPACKED || ++count > MOST_PARTS) throw new NotADocument('tooLarge')
        return isWanted(part.name)
      },
    })
  } catch (error) {
    throw error instanceof NotADocument ? error : new NotADocument('notADocument')
  }
}

/**
 * The text of a word processor's document (Office Open XML) as plain, sanitised HTML, so that nobody has to download it.
 * Only the parts that hold text are unpacked, and never to more than they say they are; pictures and macros stay packed.
 *
 * @throws {NotADocument} when it is none, or unpacks to more than 40 MB
 */
export async function docxText(bytes: Uint8Array): Promise<string> {
  const parts = unpackDocx(
    bytes,
    name => name === '[Content_Types].xml' || /\.rels$/.test(name) || /^word\/[a-zA-Z0-9]+\.xml$/.test(name),
  )
  if (!parts['[Content_Types].xml'] || !parts['word/document.xml']) throw new NotADocument('notADocument')
  try {
    // the reader gets an archive of what was unpacked here, so that it cannot be made to unpack more
    const { default: mammoth } = await import('mammoth') // a server that starts does not wait for it
    const { value } = await mammoth.convertToHtml(
      { buffer: Buffer.from(zipSync(parts, { level: 0 })) },
      { convertImage: mammoth.images.imgElement(() => Promise.resolve({ src: '' })) },
    )
    return cleanDocument(value.replaceAll('\0', '')) // no database keeps it
  } catch {
    throw new NotADocument('notADocument')
  }
}

/** Text of a document as it may be shown: words, structure and tables. */
export const cleanDocument = (html: string): string =>
  sanitizeHtml(html, {
    allowedTags: [
      'p',
      'h1',
      'h2',
      'h3',
      'h4',
      'blockquote',
      'ul',
      'ol',
      'li',
      'br',
      'strong',
      'em',
      'u',
      's',
      'sup',
      'sub',
      'table',
      'tbody',
      'thead',
      'tr',
      'td',
      'th',
    ],
    allowedAttributes: {},
  }).slice(0, LONGEST_HTML)
