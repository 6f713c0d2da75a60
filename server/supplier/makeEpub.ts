import { escapeHTML } from '@tiptap/static-renderer/json/html-string'
import { strToU8, zipSync } from 'fflate'
import type { Book } from './books'

/** A book as EPUB 3, its printed pages marked as its structural semantics have them. */
export function makeEpub(book: Book): Uint8Array {
  let page = 0
  const chapters = book.chapters.map(({ title, pages }, i) => ({
    name: `chapter-${i + 1}.xhtml`,
    text: `<?xml version="1.0" encoding="utf-8"?>
<html xmlns="http://www.w3.org/1999/xhtml" xmlns:epub="http://www.idpf.org/2007/ops" lang="en">
<head><title>${escapeHTML(title)}</title></head>
<body>${pages
      .map((paragraphs, j) => {
        const mark = `<span epub:type="pagebreak" role="doc-pagebreak" id="page-${++page}" title="${page}"></span>`
        const heading = j === 0 ? `<h1>${mark}${escapeHTML(title)}</h1>` : ''
        const lines = paragraphs.map((p, k) => `<p>${j > 0 && k === 0 ? mark : ''}${escapeHTML(p)}</p>`)
        return heading + lines.join('')
      })
      .join('')}</body></html>`,
  }))
  const items = chapters.map(
    (c, i) => `<item id="c${i + 1}" href="${c.name}" media-type="application/xhtml+xml"/>`,
  )
  const order = chapters.map((_, i) => `<itemref idref="c${i + 1}"/>`)
  const opf = `<?xml version="1.0" encoding="utf-8"?>
<package xmlns="http://www.idpf.org/2007/opf" version="3.0" unique-identifier="id">
<metadata xmlns:dc="http://purl.org/dc/elements/1.1/">
<dc:identifier id="id">urn:jovrel:${book.id}</dc:identifier>
<dc:title>${escapeHTML(book.title)}</dc:title>
<dc:creator>${escapeHTML(book.author)}</dc:creator>
<dc:language>en</dc:language>
</metadata>
<manifest>${items.join('')}</manifest>
<spine>${order.join('')}</spine>
</package>`
  return zipSync({
    mimetype: [strToU8('application/epub+zip'), { level: 0 }],
    'META-INF/container.xml': strToU8(
      '<?xml version="1.0"?><container version="1.0" xmlns="urn:oasis:names:tc:opendocument:xmlns:container"><rootfiles><rootfile full-path="text/book.opf" media-type="application/oebps-package+xml"/></rootfiles></container>',
    ),
    'text/book.opf': strToU8(opf),
    ...Object.fromEntries(chapters.map(c => [`text/${c.name}`, strToU8(c.text)])),
  })
}
