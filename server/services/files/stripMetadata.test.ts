import { everythingInPaper, signedPaper } from '#server/testing/paper'
import { PDFDocument, PDFHexString, PDFName } from '@cantoo/pdf-lib'
import { strToU8, unzipSync, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { docxText, DOCX } from '#server/documents/docxText'
import { stripMetadata } from './stripMetadata'

const NAME = 'Solongo Gantulga'
const utf16 = (text: string) => Buffer.from(text, 'utf16le').swap16()
const holds = (bytes: Buffer, text: string) =>
  bytes.includes(Buffer.from(text)) ||
  bytes.includes(utf16(text)) ||
  bytes.toString('latin1').toLowerCase().includes(utf16(text).toString('hex'))
const chunk = (name: string, data: Buffer) => {
  const head = Buffer.alloc(8)
  head.writeUInt32BE(data.length)
  head.write(name, 4, 'latin1')
  return Buffer.concat([head, data, Buffer.alloc(4)])
}
const segment = (marker: number, data: Buffer) => {
  const head = Buffer.from([0xff, marker, 0, 0])
  head.writeUInt16BE(data.length + 2, 2)
  return Buffer.concat([head, data])
}

describe('files that are read without names', () => {
  it('carry no author in any place of a PDF, also in objects that nothing leads to any more', async () => {
    const before = await signedPaper(NAME, 'Whose silt is it?')
    expect(await everythingInPaper(before)).toContain(NAME)
    const after = await everythingInPaper(await stripMetadata(before, 'application/pdf'))
    expect(after).not.toContain(NAME)
    expect(after).toContain('Whose silt is it?')
  })

  it('carry no author in a PDF, and are the same pages', async () => {
    const pdf = await PDFDocument.create()
    pdf.setAuthor(NAME)
    pdf.setTitle(`Report by ${NAME}`)
    pdf.addPage([200, 300])
    pdf.addPage([200, 300])
    const page = pdf.getPage(0)
    const note = pdf.context.obj({
      Type: 'Annot',
      Subtype: 'Text',
      Rect: [0, 0, 10, 10],
      T: PDFHexString.fromText(NAME),
      Contents: PDFHexString.fromText('a note'),
    })
    page.node.set(PDFName.of('Annots'), pdf.context.obj([pdf.context.register(note)]))
    const xmp = pdf.context.stream(`<x:xmpmeta><dc:creator>${NAME}</dc:creator></x:xmpmeta>`, {
      Type: 'Metadata',
      Subtype: 'XML',
    })
    pdf.catalog.set(PDFName.of('Metadata'), pdf.context.register(xmp))
    const before = Buffer.from(await pdf.save({ useObjectStreams: false }))
    expect(holds(before, NAME)).toBe(true)
    const after = await stripMetadata(before, 'application/pdf')
    expect(holds(after, NAME)).toBe(false)
    const again = await PDFDocument.load(after, { updateMetadata: false })
    expect(again.getPageCount()).toBe(2)
    expect(again.getAuthor()).toBeUndefined()
    await expect(stripMetadata(Buffer.from('%PDF-1.7 broken'), 'application/pdf')).rejects.toMatchObject({
      code: 'locked',
    })
  })

  it('carry neither author nor commenter in a document, and read the same', async () => {
    const xml = (body: string) => strToU8(`<?xml version="1.0"?>${body}`)
    const before = Buffer.from(
      zipSync({
        '[Content_Types].xml': xml(
          '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>',
        ),
        '_rels/.rels': xml(
          '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>',
        ),
        'docProps/core.xml': xml(
          `<cp:coreProperties xmlns:cp="c" xmlns:dc="d"><dc:creator>${NAME}</dc:creator><cp:lastModifiedBy>${NAME}</cp:lastModifiedBy></cp:coreProperties>`,
        ),
        'docProps/app.xml': xml(`<Properties><Company>${NAME}</Company></Properties>`),
        'word/document.xml': xml(
          `<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body><w:p w:rsidR="00A1"><w:ins w:author="${NAME}" w:date="2026-10-01T10:00:00Z"><w:r><w:t>Whose silt?</w:t></w:r></w:ins></w:p></w:body></w:document>`,
        ),
        'word/comments.xml': xml(
          `<w:comments xmlns:w="w"><w:comment w:author="${NAME}" w:initials="SG"/></w:comments>`,
        ),
      }),
    )
    const after = await stripMetadata(before, DOCX)
    for (const part of Object.values(unzipSync(after)))
      expect(Buffer.from(part).toString('utf8')).not.toMatch(/Gantulga|"SG"|2026-10-01/)
    expect(await docxText(after)).toContain('Whose silt?')
  })

  it('carry no words, places or cameras in pictures, and keep which way up they are', async () => {
    const png = Buffer.concat([
      Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
      chunk('IHDR', Buffer.alloc(13)),
      chunk('tEXt', Buffer.from(`Author\0${NAME}`)),
      chunk('eXIf', Buffer.from(NAME)),
      chunk('IDAT', Buffer.from('pixels')),
      chunk('IEND', Buffer.alloc(0)),
    ])
    const cleanPng = await stripMetadata(png, 'image/png')
    expect(cleanPng.toString('latin1')).not.toContain(NAME)
    for (const kept of ['IHDR', 'pixels', 'IEND']) expect(cleanPng.toString('latin1')).toContain(kept)

    const exif = Buffer.concat([
      Buffer.from('Exif\0\0MM\0*\0\0\0\x08\0\x01\x01\x12\0\x03\0\0\0\x01\0\x06\0\0\0\0\0\0', 'latin1'),
      Buffer.from(NAME),
    ])
    const jpeg = Buffer.concat([
      Buffer.from([0xff, 0xd8]),
      segment(0xe0, Buffer.from('JFIF\0')),
      segment(0xe1, exif),
      segment(0xed, Buffer.from(NAME)),
      segment(0xfe, Buffer.from(NAME)),
      segment(0xdb, Buffer.from('table')),
      Buffer.from([0xff, 0xda]),
      Buffer.from('pixels'),
    ])
    const cleanJpeg = await stripMetadata(jpeg, 'image/jpeg')
    expect(cleanJpeg.toString('latin1')).not.toContain(NAME)
    expect(cleanJpeg.includes(Buffer.from('\x01\x12\0\x03\0\0\0\x01\0\x06', 'latin1'))).toBe(true) // turned by a quarter, as it was
    for (const kept of ['JFIF', 'table', 'pixels']) expect(cleanJpeg.toString('latin1')).toContain(kept)

    const part = (name: string, data: Buffer) => {
      const head = Buffer.alloc(8)
      head.write(name, 'latin1')
      head.writeUInt32LE(data.length, 4)
      return Buffer.concat([head, data, Buffer.alloc(data.length % 2)])
    }
    const body = Buffer.concat([
      part('VP8X', Buffer.from([0x0c, 0, 0, 0, 0, 0, 0, 0, 0, 0])),
      part('VP8 ', Buffer.from('pixels')),
      part('EXIF', Buffer.from(NAME)),
      part('XMP ', Buffer.from(NAME)),
    ])
    const head = Buffer.from('RIFF\0\0\0\0WEBP', 'latin1')
    const cleanWebp = await stripMetadata(Buffer.concat([head, body]), 'image/webp')
    expect(cleanWebp.toString('latin1')).not.toContain(NAME)
    expect(cleanWebp.readUInt32LE(4)).toBe(cleanWebp.length - 8)
    expect(cleanWebp[20]).toBe(0)
  })
})
