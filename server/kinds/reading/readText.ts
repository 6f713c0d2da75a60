import { micromark } from 'micromark'
import { gfm, gfmHtml } from 'micromark-extension-gfm'
import type { TextPart, TextForm } from '#core/kinds/reading/reading'
import { joinParts } from '#core/kinds/reading/reading'
import { readableText } from '#core/kinds/reading/readableText'
import type { Cue } from '#core/files/webVtt'
import { readTranscript } from '#server/documents/transcript'
import { refusedField } from '#server/http/problem'
import { docxText, mayBeDocx, NotADocument } from '#server/documents/docxText'
import { typeOf } from '#server/documents/fileType'
import { readWebPage } from './readWebPage'
import { NotABook, readBook } from './readBook'
import { NotAPaper, readPaper } from './readPaper'
import { divide, layArticle, type Section } from './sections'

type AnchoredCue = Cue & { readonly start: number; readonly end: number }
/** A text ready to be kept, and what its uploader should know. */
export interface TextIn {
  readonly form: TextForm
  readonly title: string | null
  readonly credit: string | null
  readonly language: string | null // as the file says
  readonly words: string
  readonly parts: readonly TextPart[]
  readonly html: readonly string[]
  readonly cues: readonly AnchoredCue[]
  readonly keep: string | null // media type under which the upload itself is kept; null: its words are enough
  readonly remarks: readonly string[]
}

const LONGEST = 3_000_000 // characters
/** What is known of a file that says nothing of itself. */
const NAMELESS = { title: null, credit: null, language: null }
const STRETCH = 60 // seconds of a transcript that stand together
const reject = (code: string, sentence: string) => refusedField('file', code, sentence)

/** What was uploaded, by what it is and not by what it is called. @throws {Problem} with a sentence for the person */
export async function readText(bytes: Buffer, name: string, transcript: string | null): Promise<TextIn> {
  const type = typeOf(bytes, name)
  if (type === 'application/pdf') return paper(bytes)
  if (type && /^(audio|video)\//.test(type)) {
    if (!transcript)
      throw refusedField(
        'transcript',
        'missing',
        'A recording is annotated through its transcript. Add it as WebVTT, beside the recording.',
      )
    return recording(transcript, type)
  }
  if (type)
    throw reject(
      'type',
      'A picture has no words to annotate. Add a PDF, an article (HTML, Markdown, DOCX), a book (EPUB), or a recording with its transcript.',
    )
  if (mayBeDocx(bytes)) return archive(bytes)
  const source = decoded(bytes)
  if (source === null)
    throw reject(
      'type',
      'By its content this file is none that can be read here: add a PDF, an article (HTML, Markdown, DOCX), a book (EPUB), or a recording with its transcript.',
    )
  if (source.trim() === '') throw reject('empty', 'This file is empty.')
  // pictures that stand in the text itself are no words of it
  if (source.replace(/data:image\/[^"'\s>]*/g, '').length > LONGEST)
    throw reject('tooLarge', 'This text is longer than three million characters. Add it in parts.')
  const isMarkup = /\.x?html?$/i.test(name) || /^\s*<(!doctype|html|body|article|p|h1|div)\b/i.test(source)
  if (!isMarkup)
    return article(divide(micromark(source, { extensions: [gfm()], htmlExtensions: [gfmHtml()] })), NAMELESS)
  const page = readWebPage(source)
  const text = article(divide(page.html), { title: page.title, credit: page.author, language: page.language })
  return page.isWithout
    ? {
        ...text,
        remarks: ['What stands around the article on its page was left out: navigation, forms and footer.'],
      }
    : text
}

async function paper(bytes: Buffer): Promise<TextIn> {
  try {
    const { words, parts, hasScripts, about } = await readPaper(bytes)
    const scans = parts.filter(p => p.drawnOnly)
    const scanRemarks = () => {
      if (scans.length === parts.length)
        return [
          'No page of this PDF holds text: it is a scan. Notes can be put on areas of its pages, and finding and following a new version by words will not work.',
        ]
      if (scans.length > 0)
        return [
          `${
            scans.length === 1
              ? `Page ${scans[0]!.label} holds`
              : `Pages ${scans
                  .map(p => p.label)
                  .slice(0, 12)
                  .join(', ')}${scans.length > 12 ? ' …' : ''} hold`
          } no text: scanned. Notes can be put on areas of ${scans.length === 1 ? 'it' : 'them'}.`,
        ]
      return []
    }
    const remarks = [
      ...scanRemarks(),
      ...(hasScripts ? ['This PDF carries scripts. They are not run here.'] : []),
    ]
    return {
      form: 'paper',
      ...about,
      words,
      parts,
      html: [],
      cues: [],
      keep: 'application/pdf',
      remarks,
    }
  } catch (error) {
    if (!(error instanceof NotAPaper)) throw error
    throw reject(
      error.reason,
      {
        damaged:
          'This PDF is damaged and could not be opened. Save it again from the program it came from, and add that.',
        locked: 'This PDF is locked with a password. Save it without one, and add that.',
        tooLong: `This PDF has ${error.pages} pages; a thousand are the most. Add the pages that are to be read.`,
        tooSlow:
          'This PDF took more than a minute to read, so reading it was given up. Save a smaller copy and add that.',
      }[error.reason],
    )
  }
}

async function archive(bytes: Buffer): Promise<TextIn> {
  try {
    const { title, author, sections } = readBook(bytes)
    return article(sections, { title, credit: author, language: null })
  } catch (error) {
    if (!(error instanceof NotABook)) throw error
    if (error.reason === 'locked')
      throw reject('locked', 'This book is locked by its seller. Only books without a lock can be set.')
    if (error.reason === 'tooLarge')
      throw reject('tooLarge', 'This archive unpacks to far more than a book would. It was not kept.')
  }
  try {
    return article(divide(await docxText(bytes)), NAMELESS)
  } catch (error) {
    if (!(error instanceof NotADocument)) throw error
    throw error.reason === 'tooLarge'
      ? reject('tooLarge', 'This document unpacks to far more than a text would. It was not kept.')
      : reject('type', 'This archive is neither a book (EPUB) nor a document (DOCX) that can be read.')
  }
}

function article(sections: readonly Section[], about: Pick<TextIn, 'title' | 'credit' | 'language'>): TextIn {
  const laid = layArticle(sections)
  if (laid.words === '') throw reject('empty', 'There are no words in this text.')
  if (laid.words.length > LONGEST)
    throw reject('tooLarge', 'This text is longer than three million characters. Add it in parts.')
  return { form: 'article', ...about, ...laid, cues: [], keep: null, remarks: [] }
}

function recording(transcript: string, type: string): TextIn {
  return {
    form: 'recording',
    ...NAMELESS,
    ...layTranscript(readTranscript(transcript)),
    html: [],
    keep: type,
    remarks: [],
  }
}

/** Cues gathered into stretches of about a minute, each line with its place among the words. */
export function layTranscript(cues: readonly Cue[]): {
  words: string
  parts: TextPart[]
  cues: AnchoredCue[]
} {
  const stretches: Cue[][] = []
  for (const cue of cues) {
    const last = stretches.at(-1)
    if (!last || Math.floor(cue.from / STRETCH) > Math.floor(last[0]!.from / STRETCH)) stretches.push([cue])
    else last.push(cue)
  }
  const clock = (s: number) => `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, '0')}`
  const lines = stretches.map(list => list.map(c => readableText(c.text).text))
  const { text: words, parts } = joinParts(
    stretches.map((list, i) => ({
      text: lines[i]!.join(' '),
      label: clock(list[0]!.from),
      heading: null,
      aspect: null,
      drawnOnly: false,
      time: [list[0]!.from, Math.max(...list.map(c => c.to))] as const,
    })),
  )
  const anchored = stretches.flatMap((list, i) => {
    let at = parts[i]!.start
    return list.map((cue, j): AnchoredCue => {
      const start = at
      at += lines[i]![j]!.length + 1
      return { ...cue, text: lines[i]![j]!, start, end: start + lines[i]![j]!.length }
    })
  })
  return { words, parts, cues: anchored }
}

function decoded(bytes: Buffer): string | null {
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes).replaceAll('\0', '')
    return text.includes('\0') ? null : text
  } catch {
    return null
  }
}
