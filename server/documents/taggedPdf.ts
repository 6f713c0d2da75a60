import { PDF_FONTS } from './pdfFonts'

export const INK = '#22201c'
export const QUIET = '#6b665c'
export const HARBOUR = '#1d4d45'
export type Doc = PDFKit.PDFDocument
export type Face = 'text' | 'strong' | 'slant' | 'ui' | 'uiStrong'
export interface Style {
  readonly face: Face
  readonly size: number
  readonly color?: string
  readonly gap?: number
  readonly indent?: number
}

/** A PDF that reads aloud in order: tagged parts, a language, a title, embedded fonts (ISO 32000-1, 14.8). */
export async function openPdf({
  title,
  author,
  landscape,
}: {
  readonly title: string
  readonly author: string
  readonly landscape?: boolean
}): Promise<{ readonly doc: Doc; readonly done: Promise<Buffer> }> {
  const { default: PDFDocument } = await import('pdfkit') // a server that starts does not wait for it
  const doc = new PDFDocument({
    size: 'A4',
    layout: landscape ? 'landscape' : 'portrait',
    margins: { top: 64, bottom: 64, left: 68, right: 68 },
    font: null as never, // no font to begin with: the types leave out that null is allowed (fonts of our own follow)
    pdfVersion: '1.7',
    tagged: true,
    lang: 'en-GB',
    displayTitle: true,
    info: { Title: title, Author: author, Creator: 'Jovrel' },
  })
  for (const [name, latin, further] of PDF_FONTS) {
    doc.registerFont(name, latin)
    doc.registerFont(`${name}+`, further)
  }
  const parts: Buffer[] = []
  const done = new Promise<Buffer>((resolve, reject) => {
    doc.on('data', (part: Buffer) => parts.push(part))
    doc.on('end', () => resolve(Buffer.concat(parts)))
    doc.on('error', reject)
  })
  return { doc, done }
}

/** One tagged piece of text. Letters outside the first font's share of the alphabet are set in its extension. */
export function say(
  doc: Doc,
  tag: string,
  text: string,
  { face, size, color = INK, gap = 0, indent = 0 }: Style,
): void {
  const runs = runsOf(text)
  const x = doc.page.margins.left + indent
  const width = doc.page.width - doc.page.margins.right - x
  const struct = doc.struct(tag, {}, [
    () => {
      runs.forEach((run, i) => {
        doc
          .font(run.further ? `${face}+` : face)
          .fontSize(size)
          .fillColor(color)
        const last = i === runs.length - 1
        const options = { width, continued: !last, lineGap: size * 0.28, ...(last && { paragraphGap: gap }) }
        if (i === 0) doc.text(run.text, x, doc.y, options)
        else doc.text(run.text, options)
      })
    },
  ])
  doc.addStructure(struct)
  struct.end()
}

// what the latin cut of the fonts holds: Basic Latin, Latin-1 and the usual punctuation
const LATIN =
  /^[\u0020-\u00FF\u0131\u0152\u0153\u02C6\u02DA\u02DC\u2000-\u206F\u20AC\u2122\u2191\u2193\u2212]*$/u

function runsOf(text: string): Array<{ text: string; further: boolean }> {
  const runs: Array<{ text: string; further: boolean }> = []
  for (const letter of text.replace(/[\n\t]+/g, ' ')) {
    const further = !LATIN.test(letter)
    const last = runs.at(-1)
    if (last?.further === further) last.text += letter
    else runs.push({ text: letter, further })
  }
  return runs.length > 0 ? runs : [{ text: ' ', further: false }]
}

/** A row of a table, cell by cell, tagged as such; it begins a new page where it would not fit. Cells are one line each. */
export function sayRow(
  doc: Doc,
  tag: 'TH' | 'TD',
  cells: ReadonlyArray<{ readonly text: string; readonly width: number; readonly right?: boolean }>,
  { face, size, color = INK }: Style,
): void {
  const height = size * 1.75
  if (doc.y + height > doc.page.height - doc.page.margins.bottom) doc.addPage()
  const top = doc.y
  const row = doc.struct('TR')
  doc.addStructure(row)
  let x = doc.page.margins.left
  for (const cell of cells) {
    const at = x
    row.add(
      doc.struct(tag, {}, [
        () => {
          const runs = runsOf(cell.text)
          runs.forEach((run, i) => {
            doc
              .font(run.further ? `${face}+` : face)
              .fontSize(size)
              .fillColor(color)
            const options = {
              width: cell.width - 6,
              height,
              lineBreak: runs.length > 1,
              ellipsis: true,
              continued: i < runs.length - 1,
              align: cell.right ? ('right' as const) : ('left' as const),
            }
            if (i === 0) doc.text(run.text, at, top, options)
            else doc.text(run.text, options)
          })
        },
      ]),
    )
    x += cell.width
  }
  row.end()
  doc.y = top + height
  doc.x = doc.page.margins.left
}
