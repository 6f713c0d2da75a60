import { spawn } from 'node:child_process'
import { text } from 'node:stream/consumers'
import { fileURLToPath } from 'node:url'
import { inflateSync } from 'node:zlib'
import { PDFDocument, PDFName, PDFString } from '@cantoo/pdf-lib'

/** A paper that tells who made it in every place a program writes that to. @param words what is seen on its page */
export async function signedPaper(author: string, words: string): Promise<Buffer> {
  const pdf = await PDFDocument.create()
  const page = pdf.addPage([300, 400])
  page.drawText(words, { x: 20, y: 360, size: 12 })
  pdf.setAuthor(author)
  pdf.setTitle(`${author}: draft`)
  pdf.setCreator(`the machine of ${author}`)
  await pdf.attach(Buffer.from(`Notes of ${author}`), `${author}.txt`)
  const { context } = pdf
  const packet = `<x:xmpmeta xmlns:x="adobe:ns:meta/"><creator>${author}</creator></x:xmpmeta>`
  const metadata = context.register(context.flateStream(packet, { Type: 'Metadata', Subtype: 'XML' }))
  pdf.catalog.set(PDFName.of('Metadata'), metadata)
  const remark = context.register(
    context.obj({
      Type: 'Annot',
      Subtype: 'Text',
      Rect: [20, 20, 40, 40],
      T: PDFString.of(author),
      Contents: PDFString.of('Is this so?'),
    }),
  )
  page.node.set(PDFName.of('Annots'), context.obj([remark]))
  return Buffer.from(await pdf.save())
}

/** All that can be got out of a paper: its bytes, what its streams unpack to, and what a reader finds in it. */
export async function everythingInPaper(bytes: Buffer): Promise<string> {
  const raw = bytes.toString('latin1')
  const unpacked = [...raw.matchAll(/stream\r?\n([\s\S]*?)\r?\nendstream/g)].map(([, data]) => {
    try {
      return inflateSync(Buffer.from(data!, 'latin1')).toString('latin1')
    } catch {
      return '' // not packed, or a picture
    }
  })
  // words of a PDF may be UTF-16, as bytes or as hexadecimal figures
  const all = [raw, ...unpacked].join('\n')
  const wide = all.replaceAll('\0', '')
  const hex = [...all.matchAll(/<([0-9A-Fa-f]{4,})>/g)].map(([, figures]) =>
    Buffer.from(figures!, 'hex').toString('latin1').replaceAll('\0', ''),
  )
  return [all, wide, ...hex, await readAll(bytes)].join('\n')
}

async function readAll(bytes: Buffer): Promise<string> {
  const reader = spawn(process.execPath, [fileURLToPath(new URL('./readPaper.mjs', import.meta.url))], {
    stdio: ['pipe', 'pipe', 'inherit'],
  })
  reader.stdin.end(bytes)
  const found = await text(reader.stdout)
  if (found === '') throw new Error('readAll: the reader ended without a word')
  return found
}
