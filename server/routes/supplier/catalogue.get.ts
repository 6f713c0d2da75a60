import { escapeHTML } from '@tiptap/static-renderer/json/html-string'
import { defineEventHandler, setResponseHeader } from 'h3'
import { BOOKS } from '#server/supplier/books'

const entryOf = (b: (typeof BOOKS)[number]) => `<entry>
<id>${b.id}</id>
<title>${escapeHTML(b.title)}</title>
<author><name>${escapeHTML(b.author)}</name></author>
<summary>${escapeHTML(b.summary)}</summary>
<updated>2026-01-01T00:00:00Z</updated>
<link rel="http://opds-spec.org/acquisition/open-access" type="application/epub+zip" href="books/${b.id}"/>
</entry>`

/** The stand-in for a supplier of licensed books: its catalogue as OPDS 1.2, an Atom feed whose entries lead to the books. */
export default defineEventHandler(event => {
  setResponseHeader(
    event,
    'content-type',
    'application/atom+xml;profile=opds-catalog;kind=acquisition; charset=utf-8',
  )
  return `<?xml version="1.0" encoding="utf-8"?>
<feed xmlns="http://www.w3.org/2005/Atom">
<id>urn:jovrel:supplier</id>
<title>Tidewater Lending Shelf</title>
<updated>2026-01-01T00:00:00Z</updated>
${BOOKS.map(entryOf).join('\n')}
</feed>`
})
