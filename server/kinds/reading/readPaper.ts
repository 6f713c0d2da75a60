/* eslint-disable-next-line @typescript-eslint/triple-slash-reference -- the reader brings no types of its other half; they come along */
/// <reference path="../../types/pdfWorker.d.ts" />
import { getDocument, type PDFDocumentProxy } from 'pdfjs-dist/legacy/build/pdf.mjs'
import * as worker from 'pdfjs-dist/legacy/build/pdf.worker.mjs'
import { joinParts, type TextPart } from '#core/kinds/reading/reading'
import { readableText } from '#core/kinds/reading/readableText'

// the reader looks here for its other half before it looks for a file
;(globalThis as { pdfjsWorker?: unknown }).pdfjsWorker = worker

const MOST_PAGES = 1000
const LONGEST = 60_000 // milliseconds

export type PaperFault = 'damaged' | 'locked' | 'tooLong' | 'tooSlow'
/** Why a paper cannot be set. */
export class NotAPaper extends Error {
  constructor(
    readonly reason: PaperFault,
    readonly pages = 0,
  ) {
    super(`readPaper: ${reason}`)
    this.name = 'NotAPaper'
  }
}
export interface PaperText {
  readonly words: string
  readonly parts: TextPart[]
  readonly hasScripts: boolean
  /** What the file says of itself; null where it says nothing that names it. */
  readonly about: {
    readonly title: string | null
    readonly credit: string | null
    readonly language: string | null
  }
}

/**
 * The words of a paper page by page, as a page that shows it lays them over its picture. Nothing in it is run; one page
 * after the other, so that others are served meanwhile.
 *
 * @throws {NotAPaper} when it is broken, needs a password, has more than 1,000 pages, or takes more than a minute
 */
export async function readPaper(bytes: Uint8Array): Promise<PaperText> {
  const task = getDocument({
    data: new Uint8Array(bytes),
    isEvalSupported: false,
    useSystemFonts: false,
    disableFontFace: true,
    verbosity: 0,
    stopAtErrors: false,
    enableXfa: false,
  })
  let ends: ReturnType<typeof setTimeout> | undefined
  const tooSlow = new Promise<never>((_, refuse) => {
    ends = setTimeout(() => refuse(new NotAPaper('tooSlow')), LONGEST)
  })
  try {
    return await Promise.race([pagesOf(await Promise.race([task.promise, tooSlow])), tooSlow])
  } catch (error) {
    if (error instanceof NotAPaper) throw error
    throw new NotAPaper(error instanceof Error && error.name === 'PasswordException' ? 'locked' : 'damaged')
  } finally {
    clearTimeout(ends)
    await task.destroy()
  }
}

async function pagesOf(paper: PDFDocumentProxy): Promise<PaperText> {
  if (paper.numPages > MOST_PAGES) throw new NotAPaper('tooLong', paper.numPages)
  const [labels, headings, actions] = [
    await paper.getPageLabels(),
    await headingsOf(paper),
    await paper.getJSActions().catch(() => null),
  ]
  const pages: Array<Parameters<typeof joinParts>[0][number]> = []
  for (let n = 1; n <= paper.numPages; n++) {
    const page = await paper.getPage(n)
    const { width, height } = page.getViewport({ scale: 1 })
    const { items } = await page.getTextContent({ includeMarkedContent: true, disableNormalization: true })
    const { text } = readableText(
      items.map(item => ('str' in item ? item.str + (item.hasEOL ? '\n' : '') : '')).join(''),
    )
    pages.push({
      text,
      label: labels?.[n - 1] || String(n),
      heading: headings.get(n) ?? null,
      aspect: height / width,
      drawnOnly: text === '',
      time: null,
    })
    page.cleanup()
    await new Promise(setImmediate)
  }
  const { text, parts } = joinParts(pages)
  return { words: text, parts, hasScripts: actions !== null, about: await aboutOf(paper) }
}

/** Programs put the name of the file, or nothing that is a title, where a title belongs. */
const NO_TITLE = /^(untitled|document\d*|microsoft word\b.*|.*\.(pdf|docx?|odt|tex|indd|qxd|rtf))$/i

async function aboutOf(paper: PDFDocumentProxy): Promise<PaperText['about']> {
  const { info } = await paper.getMetadata()
  const { Title, Author, Language } = info as Record<string, unknown>
  const said = (value: unknown) =>
    (typeof value === 'string' && readableText(value).text.trim().slice(0, 200)) || null
  const title = said(Title)
  return {
    title: title && !NO_TITLE.test(title) ? title : null,
    credit: said(Author),
    language: said(Language),
  }
}

/** The titles of a paper's outline by the page they lead to; of several on one page the first. */
async function headingsOf(paper: PDFDocumentProxy): Promise<Map<number, string>> {
  const found = new Map<number, string>()
  for (const { title, dest } of (await paper.getOutline().catch(() => null)) ?? []) {
    try {
      const destination = typeof dest === 'string' ? await paper.getDestination(dest) : dest
      const page = destination?.[0] ? (await paper.getPageIndex(destination[0])) + 1 : null
      if (page && !found.has(page)) found.set(page, title.trim().slice(0, 120))
    } catch {
      /* an outline that leads nowhere is left out */
    }
  }
  return found
}
