import { fileRoute } from '#server/http/fileRoute'

/** The text of a document, to be read in place. */
export default fileRoute(file => ({
  bytes: Buffer.from(file.textHtml ?? ''),
  type: 'text/html; charset=utf-8',
  name: 'text.html',
}))
