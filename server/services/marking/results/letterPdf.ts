import sanitizeHtml from 'sanitize-html'
import { reviewingSentence } from '#core/marking/peers/reviewingWords'
import type { LetterView } from '#shared/marking/letter'
import { HARBOUR, openPdf, QUIET, say, type Doc } from '#server/documents/taggedPdf'

export interface PrintedLetter {
  readonly letter: LetterView
  readonly seminar: string
  readonly student: string
  readonly at: string
}
interface Block {
  readonly tag: 'H2' | 'P' | 'LI' | 'BlockQuote'
  readonly text: string
}

/**
 * Letters as one PDF that reads aloud in order: tagged paragraphs and headings, a language, a title, embedded fonts
 * (ISO 32000-1, 14.8). Each letter begins on a page of its own.
 * @returns the bytes of the file
 */
export async function lettersPdf(letters: readonly PrintedLetter[]): Promise<Buffer> {
  const { doc, done } = await openPdf({
    title: letters.length === 1 ? `${letters[0]!.letter.title}: letter to ${letters[0]!.student}` : 'Letters',
    author: letters[0]?.letter.by ?? '',
  })
  for (const [i, l] of letters.entries()) {
    if (i > 0) doc.addPage()
    oneLetter(doc, l)
  }
  if (letters.length === 0) say(doc, 'P', 'No letter has been returned yet.', { face: 'text', size: 12 })
  doc.end()
  return done
}

const pts = (hundredths: number) => String(hundredths / 100)

function oneLetter(doc: Doc, { letter, seminar, student, at }: PrintedLetter): void {
  say(doc, 'P', seminar, { face: 'ui', size: 9.5, color: QUIET, gap: 2 })
  say(doc, 'H1', letter.title, { face: 'strong', size: 19, gap: 3 })
  say(doc, 'P', `To ${student}, from ${letter.by}, ${at}`, { face: 'ui', size: 9.5, color: QUIET, gap: 14 })
  const blocks = blocksOf(letter.html)
  for (const b of blocks) {
    if (b.tag === 'H2') say(doc, 'H2', b.text, { face: 'uiStrong', size: 10.5, color: HARBOUR, gap: 2 })
    else
      say(doc, b.tag === 'BlockQuote' ? 'BlockQuote' : 'P', b.tag === 'LI' ? `• ${b.text}` : b.text, {
        face: b.tag === 'BlockQuote' ? 'slant' : 'text',
        size: 11.5,
        gap: 8,
        indent: b.tag === 'P' ? 0 : 14,
      })
  }
  if (blocks.length === 0)
    say(doc, 'P', 'This mark came back without a letter.', {
      face: 'slant',
      size: 11.5,
      color: QUIET,
      gap: 8,
    })
  doc.moveDown(0.6)
  const passedWords = () => {
    if (letter.passed === null) return ''
    if (letter.passed) return ', passed'
    return ', below the pass mark'
  }
  say(doc, 'H2', `Mark: ${letter.shown}${passedWords()}`, { face: 'strong', size: 13, gap: 4 })
  if (letter.late)
    say(
      doc,
      'P',
      letter.late.waived
        ? 'It was late; nothing was taken for it.'
        : `${pts(letter.late.before)} without being late.`,
      { face: 'ui', size: 9.5, color: QUIET, gap: 4 },
    )
  if (letter.factor !== null && letter.factor !== 100)
    say(
      doc,
      'P',
      `Your share of the group’s points: ${letter.factor / 100}, from what your teammates said.`,
      { face: 'ui', size: 9.5, color: QUIET, gap: 4 },
    )
  if (letter.reviewing)
    say(doc, 'P', reviewingSentence(letter.reviewing), { face: 'ui', size: 9.5, color: QUIET, gap: 4 })
  if (letter.override)
    say(doc, 'P', `Set in place of ${pts(letter.override.before)}: ${letter.override.reason}`, {
      face: 'ui',
      size: 9.5,
      color: QUIET,
      gap: 4,
    })
  for (const c of letter.criteria) {
    say(
      doc,
      'H3',
      c.excused === null
        ? `${c.title}: ${c.levelTitle.toLowerCase()}, ${pts(c.points)} of ${pts(c.max)}`
        : `${c.title}: left out`,
      { face: 'uiStrong', size: 10, gap: 1 },
    )
    say(doc, 'P', c.excused ?? c.descriptor, { face: 'ui', size: 9.5, color: QUIET, gap: 3 })
    for (const cite of letter.citations.filter(x => x.criterionId === c.id))
      say(doc, 'BlockQuote', `“${cite.exact}”`, { face: 'slant', size: 10, gap: 3, indent: 14 })
    doc.moveDown(0.25)
  }
  if (letter.files.length > 0)
    say(doc, 'P', `With this letter: ${letter.files.map(f => f.name).join(', ')}`, {
      face: 'ui',
      size: 9.5,
      color: QUIET,
    })
}

/** The paragraphs of a letter's HTML, which was sanitised when it was made. */
function blocksOf(html: string): Block[] {
  const blocks: Block[] = []
  for (const found of html.matchAll(/<(h3|li|blockquote|p)\b[^>]*>([\s\S]*?)<\/\1>/g)) {
    const inner = found[2]!.replace(/<br\s*\/?>/g, ' ')
    const text = plain(inner)
    const tagOf = () => {
      if (found[1] === 'h3') return 'H2'
      if (found[1] === 'li') return 'LI'
      if (found[1] === 'blockquote') return 'BlockQuote'
      return 'P'
    }
    if (text)
      blocks.push({
        tag: tagOf(),
        text,
      })
  }
  return blocks
}

const plain = (html: string): string =>
  sanitizeHtml(html, { allowedTags: [], allowedAttributes: {} })
    .replace(
      /&(amp|lt|gt|quot|#39);/g,
      (_, e: string) => ({ amp: '&', lt: '<', gt: '>', quot: '"', '#39': "'" })[e]!,
    )
    .replace(/\s+/g, ' ')
    .trim()
