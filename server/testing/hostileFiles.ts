import { PDFDocument, PDFName, PDFRef } from '@cantoo/pdf-lib'
import { strToU8 } from 'fflate'
import { deflateSync } from 'node:zlib'
import { zipOf } from './zipOf'

type Parts = Readonly<Record<string, Uint8Array>>

export interface HostileFile {
  readonly name: string
  readonly bytes: Uint8Array
  readonly transcript?: string
}

const TYPES =
  '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>'
const RELS =
  '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>'
const W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"'
const LAUGHS = `<!DOCTYPE x [<!ENTITY a "silt">${Array.from({ length: 12 }, (_, i) => `<!ENTITY ${'bcdefghijklm'[i]} "${`&${'abcdefghijkl'[i]};`.repeat(10)}">`).join('')}]>`

const body = (inner: string) => `<w:document ${W}><w:body>${inner}</w:body></w:document>`
const document = (xml: string, more: Parts = {}) =>
  zipOf({
    '[Content_Types].xml': strToU8(TYPES),
    '_rels/.rels': strToU8(RELS),
    'word/document.xml': strToU8(xml),
    ...more,
  })
const OPF = (manifest: string, spine: string, doctype = '') =>
  `<?xml version="1.0"?>${doctype}<package xmlns="http://www.idpf.org/2007/opf" version="3.0"><metadata xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:title>${doctype ? '&m;' : 'Book'}</dc:title></metadata><manifest>${manifest}</manifest><spine>${spine}</spine></package>`
const CONTAINER =
  '<container xmlns="urn:oasis:names:tc:opendocument:xmlns:container"><rootfiles><rootfile full-path="book.opf" media-type="application/oebps-package+xml"/></rootfiles></container>'
const book = (opf: string, more: Parts = {}) =>
  zipOf({
    mimetype: strToU8('application/epub+zip'),
    'META-INF/container.xml': strToU8(CONTAINER),
    'book.opf': strToU8(opf),
    ...more,
  })
const CHAPTER = '<item id="c" href="c.xhtml" media-type="application/xhtml+xml"/>'
const oneChapter = (xhtml: string) =>
  book(OPF(CHAPTER, '<itemref idref="c"/>'), { 'c.xhtml': strToU8(xhtml) })

/** A PDF written object by object; offsets of its table are right. */
function rawPdf(objects: readonly string[], trailer = '/Root 1 0 R'): Buffer {
  let out = '%PDF-1.7\n'
  const offsets = objects.map((object, i) => {
    const at = out.length
    out += `${i + 1} 0 obj\n${object}\nendobj\n`
    return at
  })
  const table = out.length
  out += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${offsets.map(o => `${String(o).padStart(10, '0')} 00000 n \n`).join('')}`
  return Buffer.from(
    `${out}trailer\n<< /Size ${objects.length + 1} ${trailer} >>\nstartxref\n${table}\n%%EOF`,
    'latin1',
  )
}
const stream = (dict: string, data: Buffer) =>
  `<< ${dict} /Length ${data.length} >>\nstream\n${data.toString('latin1')}\nendstream`
const CATALOG = '<< /Type /Catalog /Pages 2 0 R >>'
const PAGES = '<< /Type /Pages /Kids [3 0 R] /Count 1 >>'
const PAGE =
  '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 300 400] /Contents 4 0 R /Resources << /Font << /F 5 0 R >> /XObject << /X 6 0 R >> >> >>'
const FONT = '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>'
const drawn = (dict: string, content: Buffer, further: readonly string[] = []) =>
  rawPdf([CATALOG, PAGES, PAGE, stream(dict, content), FONT, ...further])

async function papers(): Promise<HostileFile[]> {
  const whole = await PDFDocument.create()
  whole.addPage([300, 400])
  const bytes = await whole.save()
  const locked = await PDFDocument.create()
  locked.addPage()
  locked.encrypt({ userPassword: 'silt', ownerPassword: 'mole' })
  const cyclic = await PDFDocument.create()
  const page = cyclic.addPage([300, 400])
  cyclic.catalog
    .Pages()
    .set(PDFName.of('Kids'), cyclic.context.obj([cyclic.catalog.get(PDFName.of('Pages')) as PDFRef]))
  page.node.set(PDFName.of('Parent'), page.ref)
  const inflated = deflateSync(Buffer.alloc(120_000_000, ' '))
  const operators = deflateSync(Buffer.from('q Q '.repeat(3_000_000)))
  const words = deflateSync(Buffer.from(`BT /F 9 Tf ${'(silt) Tj '.repeat(300_000)} ET`))
  const form = (resources: string, content: string) =>
    stream(
      `/Type /XObject /Subtype /Form /BBox [0 0 9 9] /Resources << ${resources} >>`,
      Buffer.from(content),
    )
  return [
    { name: 'head.pdf', bytes: strToU8('%PDF-1.7\n') },
    { name: 'half.pdf', bytes: bytes.subarray(0, bytes.length / 2) },
    { name: 'locked.pdf', bytes: await locked.save() },
    { name: 'own parent.pdf', bytes: await cyclic.save({ useObjectStreams: false }) },
    {
      name: 'pages of pages.pdf',
      bytes: rawPdf([CATALOG, '<< /Type /Pages /Kids [2 0 R 2 0 R] /Count 1000000000 >>']),
    },
    { name: 'no catalogue.pdf', bytes: rawPdf(['<< >>'], '/Root 9 0 R') },
    { name: 'table of itself.pdf', bytes: rawPdf([CATALOG, PAGES, PAGE], '/Root 1 0 R /Prev 15') },
    { name: 'deep array.pdf', bytes: rawPdf([`${'['.repeat(50_000)}${']'.repeat(50_000)}`, PAGES]) },
    { name: 'inflated.pdf', bytes: drawn('/Filter /FlateDecode', inflated) },
    {
      name: 'inflated twice.pdf',
      bytes: drawn('/Filter [/FlateDecode /FlateDecode]', deflateSync(inflated)),
    },
    { name: 'operators.pdf', bytes: drawn('/Filter /FlateDecode', operators) },
    { name: 'one long page.pdf', bytes: drawn('/Filter /FlateDecode', words) },
    {
      name: 'form in itself.pdf',
      bytes: drawn('', Buffer.from('/X Do'), [form('/XObject << /X 6 0 R >>', '/X Do /X Do')]),
    },
    {
      name: 'length of itself.pdf',
      bytes: rawPdf([CATALOG, PAGES, PAGE, '<< /Length 4 0 R >>\nstream\nx\nendstream', FONT]),
    },
    { name: 'paper and archive.pdf', bytes: Buffer.concat([bytes, document(body('<w:p/>'))]) },
  ]
}

function documents(): HostileFile[] {
  const text = (n: number) => `<w:p><w:r><w:t>${'silt '.repeat(n)}</w:t></w:r></w:p>`
  const whole = document(body(text(3)))
  const marked = Buffer.from(whole)
  for (let at = marked.indexOf('PK\x01\x02'); at >= 0; at = marked.indexOf('PK\x01\x02', at + 4))
    marked.writeUInt16LE(1, at + 8) // says that it is encrypted
  const lying = Buffer.from(document(body(text(1)), { 'word/styles.xml': new Uint8Array(30_000_000) }))
  for (let at = lying.indexOf('PK\x01\x02'); at >= 0; at = lying.indexOf('PK\x01\x02', at + 4))
    lying.writeUInt32LE(1, at + 24)
  const many = Object.fromEntries(Array.from({ length: 5000 }, (_, i) => [`word/p${i}.xml`, strToU8('<x/>')]))
  return [
    { name: 'half.docx', bytes: whole.subarray(0, 200) },
    { name: 'encrypted.docx', bytes: marked },
    { name: 'lying.docx', bytes: lying },
    { name: 'many parts.docx', bytes: document(body(text(1)), many) },
    { name: 'unpacks.docx', bytes: document(body(text(1)), { 'word/x.xml': new Uint8Array(60_000_000) }) },
    {
      name: 'archive of archives.docx',
      bytes: document(body(text(1)), {
        'word/x.zip': zipOf({ 'y.zip': zipOf({ z: new Uint8Array(10_000_000) }) }),
      }),
    },
    { name: 'laughs.docx', bytes: document(`${LAUGHS}${body('<w:p><w:r><w:t>&m;</w:t></w:r></w:p>')}`) },
    {
      name: 'outside.docx',
      bytes: document(
        `<!DOCTYPE x [<!ENTITY e SYSTEM "file:///etc/passwd">]>${body('<w:p><w:r><w:t>&e;</w:t></w:r></w:p>')}`,
      ),
    },
    {
      name: 'deep.docx',
      bytes: document(
        body(`${'<w:sdt><w:sdtContent>'.repeat(50_000)}${'</w:sdtContent></w:sdt>'.repeat(50_000)}`),
      ),
    },
    {
      name: 'tables in tables.docx',
      bytes: document(body(`${'<w:tbl><w:tr><w:tc>'.repeat(3000)}${'</w:tc></w:tr></w:tbl>'.repeat(3000)}`)),
    },
    {
      name: 'attributes.docx',
      bytes: document(
        `<w:document ${W} ${Array.from({ length: 60_000 }, (_, i) => `a${i}="1"`).join(' ')}><w:body/></w:document>`,
      ),
    },
    { name: 'open.docx', bytes: document(body('<w:p><w:r><w:t>silt').slice(0, -30)) },
    {
      name: 'paths.docx',
      bytes: document(body(text(1)), { '../../../etc/x.xml': strToU8('<x/>'), '/abs.xml': strToU8('<x/>') }),
    },
    { name: 'long.docx', bytes: document(body(text(6_000_000))) },
    { name: 'nulls.docx', bytes: document(body('<w:p><w:r><w:t>a\u0000b\ufffe</w:t></w:r></w:p>')) },
  ]
}

function books(): HostileFile[] {
  const deep = `<html><body>${'<div>'.repeat(60_000)}silt${'</div>'.repeat(60_000)}</body></html>`
  const spine = '<itemref idref="c"/>'.repeat(200_000)
  return [
    { name: 'no book.epub', bytes: zipOf({ mimetype: strToU8('application/epub+zip') }) },
    {
      name: 'laughs.epub',
      bytes: book(OPF(CHAPTER, '<itemref idref="c"/>', LAUGHS), { 'c.xhtml': strToU8('<p>x</p>') }),
    },
    { name: 'deep.epub', bytes: oneChapter(deep) },
    {
      name: 'again and again.epub',
      bytes: book(OPF(CHAPTER, spine), { 'c.xhtml': strToU8(`<p>${'silt '.repeat(2000)}</p>`) }),
    },
    {
      name: 'locked.epub',
      bytes: book(OPF(CHAPTER, ''), {
        'META-INF/rights.xml': strToU8('<x/>'),
        'META-INF/encryption.xml': strToU8('<x/>'),
      }),
    },
    { name: 'unpacks.epub', bytes: book(OPF(CHAPTER, ''), { 'c.xhtml': new Uint8Array(200_000_000) }) },
    {
      name: 'climbs.epub',
      bytes: book(
        OPF(
          '<item id="c" href="../../../../etc/passwd" media-type="application/xhtml+xml"/>',
          '<itemref idref="c"/>',
        ),
      ),
    },
    { name: 'unclosed.epub', bytes: oneChapter('<html><body>' + '<p><b><i>silt'.repeat(60_000)) },
  ]
}

function others(): HostileFile[] {
  const video = new Uint8Array([0x1a, 0x45, 0xdf, 0xa3, 0, 0])
  return [
    { name: 'quotes.md', bytes: strToU8(`${'>'.repeat(30_000)} silt`) },
    { name: 'brackets.md', bytes: strToU8('['.repeat(60_000)) },
    { name: 'stars.md', bytes: strToU8('*a_ '.repeat(30_000)) },
    { name: 'links.md', bytes: strToU8('[a]('.repeat(30_000)) },
    { name: 'table.md', bytes: strToU8(`${'|a'.repeat(10_000)}|\n${'|-'.repeat(10_000)}|\n`) },
    { name: 'deep.html', bytes: strToU8(`<html><body>${'<blockquote>'.repeat(60_000)}`) },
    { name: 'half utf.txt', bytes: new Uint8Array([0x61, 0xc3, 0x28, 0xff, 0xfe, 0xed, 0xa0, 0x80]) },
    {
      name: 'cues.weba',
      bytes: video,
      transcript: `WEBVTT\n\n${'00:00:00.000 --> 99:59:59.999\nsilt\n\n'.repeat(80_000)}`,
    },
    {
      name: 'tags.weba',
      bytes: video,
      transcript: `WEBVTT\n\n00:00:01.000 --> 00:00:02.000\n${'<v a><b>'.repeat(40_000)}`,
    },
  ]
}

/** Files made to stop whoever reads them: nested, inflated, entity-expanding, cyclic, truncated, encrypted, of two kinds at once. */
export const hostileFiles = async (): Promise<HostileFile[]> => [
  ...(await papers()),
  ...documents(),
  ...books(),
  ...others(),
]
