import { unzipSync } from 'fflate'
import { parseDocument, DomUtils } from 'htmlparser2'
import { divide, type Section } from './sections'

const LARGEST_UNPACKED = 60_000_000 // bytes
const MOST_FILES = 3000

/** A book that cannot be read: it is none, is locked, or unpacks to more than any book would. */
export class NotABook extends Error {
  constructor(readonly reason: 'notABook' | 'locked' | 'tooLarge') {
    super(`readBook: ${reason}`)
    this.name = 'NotABook'
  }
}
export interface Book {
  readonly title: string
  readonly author: string
  readonly sections: Section[]
}

/**
 * A book (EPUB 3, W3C Recommendation of 25 May 2023; earlier ones where they agree): its chapters in the order of the
 * spine, divided at the pages of the printed book where they are marked. Only what holds text is unpacked.
 *
 * @throws {NotABook}
 */
export function readBook(bytes: Uint8Array): Book {
  let sum = 0
  let count = 0
  let files: Record<string, Uint8Array>
  try {
    files = unzipSync(bytes, {
      filter: f => {
        sum += f.originalSize
        if (sum > LARGEST_UNPACKED || ++count > MOST_FILES) throw new NotABook('tooLarge')
        return /\.(x?html?|xml|opf|ncx)$/i.test(f.name)
      },
    })
  } catch (error) {
    throw error instanceof NotABook ? error : new NotABook('notABook')
  }
  const textOf = (path: string) =>
    files[path] ? new TextDecoder().decode(files[path]).replaceAll('\0', '') : null
  if (
    files['META-INF/encryption.xml'] &&
    /EncryptedData/.test(textOf('META-INF/encryption.xml')!) &&
    files['META-INF/rights.xml']
  )
    throw new NotABook('locked')
  const container = textOf('META-INF/container.xml')
  const root = container && elements(container, 'rootfile')[0]?.attribs['full-path']
  const opf = root ? textOf(root) : null
  if (!root || !opf) throw new NotABook('notABook')
  const folder = root.includes('/') ? root.slice(0, root.lastIndexOf('/') + 1) : ''
  const items = new Map(elements(opf, 'item').map(i => [i.attribs.id, i.attribs]))
  const sections = elements(opf, 'itemref')
    .filter(r => r.attribs.linear !== 'no')
    .flatMap((ref): Section[] => {
      const href = items.get(ref.attribs.idref ?? '')?.href
      const chapter = href ? textOf(resolved(folder, decodeURIComponent(href))) : null
      if (!chapter) return []
      const divided = divide(chapter.replace(/^[\s\S]*?<body[^>]*>|<\/body>[\s\S]*$/gi, ''))
      return divided.map((s, i) => (i === 0 ? s : { ...s, heading: s.heading }))
    })
  if (sections.length === 0) throw new NotABook('notABook')
  const named = (tag: string) =>
    elements(opf, tag)
      .map(e => DomUtils.textContent(e).trim())
      .filter(Boolean)
  return { title: named('dc:title')[0] ?? '', author: named('dc:creator').join(', '), sections }
}

const elements = (xml: string, tag: string) =>
  DomUtils.findAll(
    e => e.name === tag || e.name.endsWith(`:${tag}`),
    parseDocument(xml, { xmlMode: true }).children,
  )
const resolved = (folder: string, href: string): string =>
  new URL(href, `x:/${folder}`).pathname.replace(/^\//, '')
