import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import PDFDocument from 'pdfkit'
import { TOLL_ROLL, tollRoll } from './tollRoll'

const PAGE = { width: 420, height: 560 } // points
const MARGIN = { left: 46, right: 40, top: 40 }
const INK = '#22302f'

/** The edition of the toll roll as a PDF of ten pages, with its outline. */
export async function tollRollPdf(): Promise<Buffer> {
  const folder = join(
    dirname(createRequire(import.meta.url).resolve('@fontsource/literata/package.json')),
    'files',
  )
  const pdf = new PDFDocument({
    size: [PAGE.width, PAGE.height],
    margin: 0,
    autoFirstPage: false,
    info: { Title: TOLL_ROLL.title, CreationDate: new Date(0) },
  })
  const parts: Buffer[] = []
  pdf.on('data', (part: Buffer) => parts.push(part))
  const done = new Promise<Buffer>(resolve => pdf.on('end', () => resolve(Buffer.concat(parts))))
  for (const face of ['400-normal', '400-italic', '600-normal'])
    pdf.registerFont(face, readFileSync(join(folder, `literata-latin-${face}.woff`)))
  const width = PAGE.width - MARGIN.left - MARGIN.right
  for (const [i, page] of tollRoll.entries()) {
    pdf.addPage()
    if (page.section) pdf.outline.addItem(page.section)
    pdf
      .fillColor('#6b6a63')
      .font('400-italic')
      .fontSize(9)
      .text(TOLL_ROLL.title, MARGIN.left, MARGIN.top - 12, { width, lineBreak: false })
    pdf
      .font('600-normal')
      .text(String(i + 1), MARGIN.left, MARGIN.top - 12, { width, align: 'center', lineBreak: false })
    pdf
      .font('400-italic')
      .text(page.runner, MARGIN.left, MARGIN.top - 12, { width, align: 'right', lineBreak: false })
    pdf
      .moveTo(MARGIN.left, MARGIN.top + 4)
      .lineTo(PAGE.width - MARGIN.right, MARGIN.top + 4)
      .lineWidth(0.5)
      .strokeColor('#cdc4b3')
      .stroke()
    pdf.fillColor(INK)
    pdf.y = MARGIN.top + 18
    for (const paragraph of page.roll) {
      // what stands between strokes is in another hand
      const runs = paragraph.split('_')
      pdf.fontSize(11.4)
      for (const [n, run] of runs.entries()) {
        const options = { width, lineGap: 3.2, continued: n < runs.length - 1, align: 'left' as const }
        pdf.font(n % 2 === 1 ? '400-italic' : '400-normal')
        if (n === 0) pdf.text(run, MARGIN.left, pdf.y, options)
        else pdf.text(run, options)
      }
      pdf.y += 6
    }
    if (page.roll.length > 0) {
      pdf
        .moveTo(MARGIN.left, pdf.y + 2)
        .lineTo(PAGE.width - MARGIN.right, pdf.y + 2)
        .strokeColor('#cdc4b3')
        .stroke()
      pdf.y += 10
    }
    for (const paragraph of page.commentary) {
      pdf
        .font('400-normal')
        .fontSize(page.roll.length > 0 ? 10.2 : 11.2)
        .fillColor(page.roll.length > 0 ? '#3d4a48' : INK)
        .text(paragraph, MARGIN.left, pdf.y, { width, lineGap: page.roll.length > 0 ? 2.4 : 3.2 })
      pdf.y += 6
    }
    if (pdf.y > PAGE.height - 16) throw new Error(`demo: page ${i + 1} of the toll roll is too long`)
  }
  pdf.end()
  return done
}
