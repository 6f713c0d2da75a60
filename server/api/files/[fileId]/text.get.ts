import { fileRoute } from '#server/http/fileRoute'
import * as filesEndpoints from '#shared/files/endpoints'

/** The text of a document, to be read in place. */
export default fileRoute(filesEndpoints.readFileText, file => ({
  bytes: Buffer.from(file.textHtml ?? ''),
  type: 'text/html; charset=utf-8',
  name: 'text.html',
  isOurText: true,
}))
