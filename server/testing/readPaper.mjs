// Reads a PDF from standard input and prints everything a reader finds in it as JSON. A process of its own: the reader
// replaces what is built in, `JSON.parse` among it, by something that takes "{" for a whole object.
import { buffer } from 'node:stream/consumers'
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'

const bytes = await buffer(process.stdin)
const task = getDocument({ data: Uint8Array.from(bytes), useSystemFonts: true, verbosity: 0 })
const pdf = await task.promise
const { info, metadata } = await pdf.getMetadata()
const found = [info, metadata?.getRaw(), await pdf.getAttachments(), await pdf.getOutline()]
for (let n = 1; n <= pdf.numPages; n++) {
  const page = await pdf.getPage(n)
  found.push((await page.getTextContent()).items, await page.getAnnotations())
}
await task.destroy()
process.stdout.write(JSON.stringify(found))
