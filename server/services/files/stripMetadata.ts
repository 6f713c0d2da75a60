import { PDFArray, PDFDict, PDFDocument, PDFName, PDFRawStream, PDFRef, PDFStream } from '@cantoo/pdf-lib'
import { zipSync } from 'fflate'
import { DomUtils, parseDocument } from 'htmlparser2'
import { refusedField } from '#server/http/problem'
import { DOCX, unpackDocx } from '#server/documents/docxText'
import { typeOf } from '#server/documents/fileType'
import { stripGif } from './stripGif'
import { stripMp3, stripMp4, stripOgg, stripWav, stripWebm } from './stripRecording'

/**
 * A file without what its program wrote into it about people: authors, titles, places, cameras, dates. What one sees and
 * hears in it stays as it was.
 */
export async function stripMetadata(bytes: Buffer, type: string): Promise<Buffer> {
  if (type === 'application/pdf') return stripPdf(bytes)
  if (type === DOCX) return stripDocx(bytes)
  const recording = RECORDINGS.find(([types]) => types.includes(type))
  return recording ? recording[1](bytes) : stripPicture(bytes)
}

const RECORDINGS: ReadonlyArray<readonly [types: readonly string[], strip: (bytes: Buffer) => Buffer]> = [
  [['audio/mpeg'], stripMp3],
  [['audio/wav'], stripWav],
  [['audio/ogg'], stripOgg],
  [['video/mp4', 'audio/mp4'], stripMp4],
  [['video/webm', 'audio/webm'], stripWebm],
]

/** Everywhere a PDF keeps who made it: its information, XMP packets of any object, private data of programs, names on annotations. */
async function stripPdf(bytes: Buffer): Promise<Buffer> {
  let pdf: PDFDocument
  try {
    pdf = await PDFDocument.load(bytes, { updateMetadata: false })
    if (pdf.getPageCount() === 0) throw new Error('no pages')
  } catch {
    throw refusedField(
      'file',
      'locked',
      'This PDF is locked or broken, so its author’s name cannot be removed from it. Save it without a password, and add that.',
    )
  }
  const about = ['Metadata', 'PieceInfo', 'LastModified'].map(n => PDFName.of(n))
  const onAnnotations = ['T', 'CreationDate', 'M', 'RC', 'FS'].map(n => PDFName.of(n))
  const { context } = pdf
  if (context.trailerInfo.Info instanceof PDFRef) context.delete(context.trailerInfo.Info)
  delete context.trailerInfo.Info
  delete context.trailerInfo.ID
  // what was put into the file beside its pages
  const names = pdf.catalog.lookup(PDFName.of('Names'))
  if (names instanceof PDFDict) names.delete(PDFName.of('EmbeddedFiles'))
  pdf.catalog.delete(PDFName.of('AF'))
  for (const [ref, object] of context.enumerateIndirectObjects()) {
    if (object instanceof PDFRawStream && String(object.dict.get(PDFName.of('Filter'))) === '/DCTDecode')
      context.assign(ref, PDFRawStream.of(object.dict, stripJpeg(Buffer.from(object.contents))))
    const dict = object instanceof PDFDict ? object : (object as { dict?: unknown }).dict
    if (!(dict instanceof PDFDict)) continue
    for (const key of about) {
      const held = dict.get(key)
      if (held instanceof PDFRef) context.delete(held)
      dict.delete(key)
    }
    if (dict.get(PDFName.of('Subtype')) && dict.get(PDFName.of('Rect')))
      for (const key of onAnnotations) dict.delete(key)
  }
  deleteUnreachable(pdf)
  return Buffer.from(
    await pdf.save({ useObjectStreams: false, addDefaultPage: false, updateFieldAppearances: false }),
  )
}

/**
 * What nothing in the document leads to would be written all the same: files that were beside its pages,
 * earlier versions of its objects.
 */
function deleteUnreachable({ context }: PDFDocument): void {
  const reached = new Set<PDFRef>()
  const open: unknown[] = [context.trailerInfo.Root]
  while (open.length > 0) {
    const object = open.pop()
    if (object instanceof PDFRef) {
      if (reached.has(object)) continue
      reached.add(object)
      open.push(context.lookup(object))
    } else if (object instanceof PDFDict) open.push(...object.values())
    else if (object instanceof PDFArray) open.push(...object.asArray())
    else if (object instanceof PDFStream) open.push(object.dict)
  }
  for (const [ref] of context.enumerateIndirectObjects()) if (!reached.has(ref)) context.delete(ref)
}

const EMPTY_CORE =
  '<?xml version="1.0" encoding="UTF-8" standalone="yes"?><cp:coreProperties xmlns:cp="http://schemas.openxmlformats.org/package/2006/metadata/core-properties"/>'
const EMPTY_APP =
  '<?xml version="1.0" encoding="UTF-8" standalone="yes"?><Properties xmlns="http://schemas.openxmlformats.org/officeDocument/2006/extended-properties"/>'
const EMPTY_CUSTOM =
  '<?xml version="1.0" encoding="UTF-8" standalone="yes"?><Properties xmlns="http://schemas.openxmlformats.org/officeDocument/2006/custom-properties"/>'
const EMPTY_PEOPLE =
  '<?xml version="1.0" encoding="UTF-8" standalone="yes"?><w15:people xmlns:w15="http://schemas.microsoft.com/office/word/2012/wordml"/>'

/** Properties emptied, and whoever commented on or changed a passage unnamed. */
function stripDocx(bytes: Buffer): Buffer {
  const parts = unpackDocx(bytes)
  const put = (name: string, text: string) => {
    if (parts[name]) parts[name] = Buffer.from(text)
  }
  put('docProps/core.xml', EMPTY_CORE)
  put('docProps/app.xml', EMPTY_APP)
  put('docProps/custom.xml', EMPTY_CUSTOM)
  put('word/people.xml', EMPTY_PEOPLE)
  const shown = Object.fromEntries(
    Object.entries(parts).filter(([name]) => !/^docProps\/thumbnail\./.test(name)),
  )
  for (const [name, part] of Object.entries(shown)) {
    const bytes = Buffer.from(part)
    if (/^word\/.*\.xml$/.test(name)) shown[name] = rewritten(bytes, unname)
    else if (name.endsWith('.rels')) shown[name] = rewritten(bytes, withoutThumbnail)
    else if (name.startsWith('word/media/')) shown[name] = stripPicture(bytes)
  }
  return Buffer.from(zipSync(shown, { mtime: new Date(1980, 0, 2) }))
}

type Element = ReturnType<typeof DomUtils.findAll>[number]

/** A part of a document, read and written by a parser: there are many ways to write an attribute. */
function rewritten(part: Buffer, change: (element: Element) => void): Buffer {
  const tree = parseDocument(part.toString('utf8'), { xmlMode: true })
  for (const element of DomUtils.findAll(() => true, tree.children)) change(element)
  return Buffer.from(DomUtils.getOuterHTML(tree.children, { xmlMode: true }))
}

const NAMING = new Set(['author', 'initials', 'userid', 'providerid', 'lastmodifiedby'])

function unname(element: Element): void {
  const kept = Object.entries(element.attribs).flatMap(([name, value]) => {
    const local = name.slice(name.indexOf(':') + 1).toLowerCase()
    if (local.startsWith('rsid')) return []
    if (NAMING.has(local)) return [[name, '']]
    return [[name, local === 'date' ? '2000-01-01T00:00:00Z' : value]]
  })
  element.attribs = Object.fromEntries(kept) as Record<string, string> // pairs of two texts
}

function withoutThumbnail(element: Element): void {
  if (Object.values(element.attribs).some(value => value.includes('thumbnail')))
    DomUtils.removeElement(element)
}

function stripPicture(bytes: Buffer): Buffer {
  const type = typeOf(bytes, '')
  if (type === 'image/jpeg') return stripJpeg(bytes)
  if (type === 'image/png') return stripPng(bytes)
  if (type === 'image/webp') return stripWebp(bytes)
  if (type === 'image/gif') return stripGif(bytes)
  return bytes
}

/**
 * Segments that programs and cameras write about a picture; what is needed to show it, turning included,
 * stays. Source: ITU T.81, B.1.1.
 */
function stripJpeg(bytes: Buffer): Buffer {
  const out: Buffer[] = [bytes.subarray(0, 2)]
  for (let at = 2; at + 4 <= bytes.length && bytes[at] === 0xff;) {
    const marker = bytes[at + 1]!
    if (marker === 0xda) {
      out.push(bytes.subarray(at))
      break
    }
    const end = at + 2 + bytes.readUInt16BE(at + 2)
    // APP1 to APP13, APP15 and comments go; APP0 is the format itself, APP2 may hold a colour profile, APP14 how colours are coded
    const goes =
      marker === 0xfe ||
      (marker >= 0xe1 &&
        marker <= 0xef &&
        marker !== 0xee &&
        !(marker === 0xe2 && bytes.subarray(at + 4, at + 15).toString('latin1') === 'ICC_PROFILE'))
    if (!goes) out.push(bytes.subarray(at, end))
    else if (marker === 0xe1) out.push(...turning(bytes.subarray(at + 4, end)))
    at = end
  }
  return Buffer.concat(out)
}

/** The one thing of a camera's notes that is seen: which way up. Source: Exif 2.3, tag 0x0112. */
function turning(exif: Buffer): Buffer[] {
  if (exif.subarray(0, 6).toString('latin1') !== 'Exif\0\0') return []
  const tiff = exif.subarray(6)
  const little = tiff.subarray(0, 2).toString('latin1') === 'II'
  const u16 = (at: number) => {
    if (at + 2 > tiff.length) return 0
    if (little) return tiff.readUInt16LE(at)
    return tiff.readUInt16BE(at)
  }
  const u32 = (at: number) => {
    if (at + 4 > tiff.length) return 0
    if (little) return tiff.readUInt32LE(at)
    return tiff.readUInt32BE(at)
  }
  const first = u32(4)
  for (let i = 0; i < u16(first); i++) {
    const entry = first + 2 + 12 * i
    if (u16(entry) !== 0x0112) continue
    const turn = u16(entry + 8)
    if (turn < 2 || turn > 8) return []
    const notes = Buffer.from(
      'Exif\0\0MM\0*\0\0\0\x08\0\x01\x01\x12\0\x03\0\0\0\x01\0\0\0\0\0\0\0\0',
      'latin1',
    )
    notes.writeUInt16BE(turn, notes.length - 8)
    return [Buffer.from([0xff, 0xe1, 0, notes.length + 2]), notes]
  }
  return []
}

/** Chunks of words, times and cameras. Source: PNG (ISO/IEC 15948), ch. 11. */
function stripPng(bytes: Buffer): Buffer {
  const out: Buffer[] = [bytes.subarray(0, 8)]
  for (let at = 8; at + 12 <= bytes.length;) {
    const end = at + 12 + bytes.readUInt32BE(at)
    if (!['tEXt', 'zTXt', 'iTXt', 'eXIf', 'tIME'].includes(bytes.subarray(at + 4, at + 8).toString('latin1')))
      out.push(bytes.subarray(at, end))
    at = end
  }
  return Buffer.concat(out)
}

/** Source: WebP container (RFC 9649), ch. 2. */
function stripWebp(bytes: Buffer): Buffer {
  const out: Buffer[] = []
  for (let at = 12; at + 8 <= bytes.length;) {
    const length = bytes.readUInt32LE(at + 4)
    const end = at + 8 + length + (length % 2)
    const name = bytes.subarray(at, at + 4).toString('latin1')
    if (name === 'VP8X') {
      const head = Buffer.from(bytes.subarray(at, end))
      head[8] = head[8]! & ~0x0c // says that neither camera's notes nor XMP follow
      out.push(head)
    } else if (name !== 'EXIF' && name !== 'XMP ') out.push(bytes.subarray(at, end))
    at = end
  }
  const head = Buffer.from(bytes.subarray(0, 12))
  const body = Buffer.concat(out)
  head.writeUInt32LE(body.length + 4, 4)
  return Buffer.concat([head, body])
}
