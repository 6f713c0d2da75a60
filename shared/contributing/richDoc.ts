import { z } from 'zod'
import { definesCommands } from '#core/contributing/formula'
import { isLanguage } from '#core/language/languages'
import { depthOf, plainText, type RichNode } from '#core/contributing/richText'

export const LONGEST_TEXT = 60_000 // characters: some 10,000 words
export const LONGEST_PAGE = 250_000 // of a wiki: some 40,000 words
const DEEPEST = 24

const NODES = new Set([
  'doc',
  'paragraph',
  'text',
  'heading',
  'blockquote',
  'bulletList',
  'orderedList',
  'listItem',
  'hardBreak',
  'horizontalRule',
  'table',
  'tableRow',
  'tableCell',
  'tableHeader',
  'inlineMath',
  'blockMath',
])
const MARKS = new Set([
  'bold',
  'italic',
  'underline',
  'strike',
  'superscript',
  'subscript',
  'code',
  'link',
  'language',
])
/** Briefs and starters hold all of them; a post, entry or note those pictures of its own files that stand in its text. */
const FILE_NODES = new Set(['image', 'recording', 'paper'])
const FILE = /^\/api\/files\/[0-9a-f-]{36}$/
const LONGEST_FORMULA = 1000 // characters
const LINK = /^(https?:|mailto:)/i
const LONGEST_TITLE = 120
const LONGEST_NOTE = 2000

/** A document of an archive: known nodes and marks only, however long it was allowed to be. */
export const StoredDoc = richDoc({ files: FILE_NODES, pages: true, longest: Infinity, pieces: Infinity })

/** Pieces of a document: its nodes, and what is set on them (bold, a link …). Rendering takes time by them. */
const MOST_PIECES = 6_000
const MOST_PIECES_OF_PAGE = 20_000
const MOST_FORMULAS = 300
const FORMULAS_IN_ALL = 20_000 // characters

interface Holds {
  readonly files: ReadonlySet<string>
  readonly pages: boolean
  readonly longest: number
  readonly pieces: number
}

/** A document as the editor keeps it, bounded in size and depth, with nodes and marks of the allowed kinds only. */
export const RichDoc = richDoc({ files: new Set(), pages: false, longest: LONGEST_TEXT, pieces: MOST_PIECES })
/** The same with pictures: of a post, an entry, a note. Its files must come with it, which whoever takes it in makes sure of. */
export const TalkDoc = richDoc({
  files: new Set(['image']),
  pages: false,
  longest: LONGEST_TEXT,
  pieces: MOST_PIECES,
})
/** The same with pictures, recordings and papers that were uploaded to the seminar. */
export const BriefDoc = richDoc({
  files: FILE_NODES,
  pages: false,
  longest: LONGEST_TEXT,
  pieces: MOST_PIECES,
})
/** A page of a wiki: pictures, links to other pages, footnotes, headings of two levels. */
export const PageDoc = richDoc({
  files: new Set(['image']),
  pages: true,
  longest: LONGEST_PAGE,
  pieces: MOST_PIECES_OF_PAGE,
})

function richDoc(holds: Holds) {
  return z.unknown().transform((value, context): RichNode => {
    const refuse = (message: string): RichNode => {
      context.addIssue({ code: 'custom', message })
      return { type: 'doc' }
    }
    if (!isNode(value) || value.type !== 'doc')
      return refuse('This text could not be read. It is kept here; try again.')
    if (depthOf(value) > DEEPEST)
      return refuse('This text is nested too deeply. Take some of its lists or quotations apart.')
    const tooMuch = tooManyPieces(value, holds)
    if (tooMuch) return refuse(tooMuch)
    const clean = cleanNode(value, holds)
    const formulas = refusedFormulas(clean)
    if (formulas) return refuse(formulas)
    const length = plainText(clean).length
    if (length > holds.longest) {
      return refuse(
        `This text has ${length.toLocaleString('en')} characters; up to ${holds.longest.toLocaleString('en')} fit. Shorten it or link to the rest.`,
      )
    }
    return clean
  })
}

/** A sentence if a document has more pieces than can be rendered quickly. */
function tooManyPieces(doc: RichNode, { pieces }: Holds): string | null {
  let count = 0
  for (const node of nodesIn(doc)) count += 1 + (Array.isArray(node.marks) ? node.marks.length : 0)
  if (count <= pieces) return null
  return `This text has ${count.toLocaleString('en')} pieces (paragraphs, bold words, links and the like); up to ${pieces.toLocaleString('en')} fit. Make it simpler, or divide it.`
}

function refusedFormulas(doc: RichNode): string | null {
  const formulas = [...nodesIn(doc)].flatMap(n => (n.type.endsWith('Math') ? String(n.attrs?.latex) : []))
  if (formulas.length > MOST_FORMULAS)
    return `This text has ${formulas.length} formulas; up to ${MOST_FORMULAS} fit. Divide it.`
  if (formulas.reduce((sum, f) => sum + f.length, 0) > FORMULAS_IN_ALL)
    return `The formulas of this text have more than ${FORMULAS_IN_ALL.toLocaleString('en')} characters together. Divide it.`
  const defining = formulas.find(definesCommands)
  return defining === undefined
    ? null
    : `The formula “${defining.slice(0, 40)}” defines a command of its own. Write out what it stands for.`
}

function* nodesIn(doc: RichNode): Generator<RichNode> {
  const open: unknown[] = [doc]
  for (let node = open.pop(); node !== undefined; node = open.pop()) {
    if (!isNode(node)) continue
    yield node
    if (Array.isArray(node.content)) for (const child of node.content) open.push(child)
  }
}

function isNode(value: unknown): value is RichNode {
  return typeof value === 'object' && value !== null && typeof (value as RichNode).type === 'string'
}

/** Copies only what is known: unknown nodes give way to their children, unknown marks and attributes go. */
function cleanNode(node: RichNode, holds: Holds): RichNode {
  if (node.type === 'text') {
    const marks = (Array.isArray(node.marks) ? node.marks : [])
      .filter(m => MARKS.has(m?.type) || (holds.pages && m?.type === 'pageLink'))
      .flatMap(mark => {
        if (mark.type === 'pageLink')
          return titleOf(mark.attrs?.title) === ''
            ? []
            : [{ type: 'pageLink', attrs: { title: titleOf(mark.attrs?.title) } }]
        if (mark.type === 'language') {
          const lang = mark.attrs?.lang
          return isLanguage(lang) ? [{ type: 'language', attrs: { lang } }] : []
        }
        if (mark.type !== 'link') return [{ type: mark.type }]
        const href = String(mark.attrs?.href ?? '')
        return LINK.test(href) ? [{ type: 'link', attrs: { href } }] : []
      })
    return { type: 'text', text: String(node.text ?? ''), ...(marks.length > 0 && { marks }) }
  }
  if (node.type === 'inlineMath' || node.type === 'blockMath')
    return { type: node.type, attrs: { latex: String(node.attrs?.latex ?? '').slice(0, LONGEST_FORMULA) } }
  if (node.type === 'footnote')
    return {
      type: 'footnote',
      attrs: {
        text: String(node.attrs?.text ?? '').slice(0, LONGEST_NOTE),
        source: String(node.attrs?.source ?? '').slice(0, LONGEST_NOTE),
      },
    }
  if (FILE_NODES.has(node.type)) return fileNode(node)
  const children = (Array.isArray(node.content) ? node.content : []).filter(isNode)
  const content = children
    .flatMap(child => {
      if (isKept(child, holds)) return [cleanNode(child, holds)]
      if (FILE_NODES.has(child.type) || child.type === 'footnote') return []
      return cleanNode({ ...child, type: 'paragraph' }, holds).content ?? []
    })
    .filter(child => child.type !== 'text' || child.text !== '')
  return {
    type: node.type,
    ...(node.type === 'heading' && { attrs: { level: node.attrs?.level === 4 ? 4 : 3 } }),
    ...(content.length > 0 && { content }),
  }
}

const titleOf = (title: unknown): string =>
  String(title ?? '')
    .trim()
    .replace(/\s+/g, ' ')
    .slice(0, LONGEST_TITLE)

const isKept = (node: RichNode, holds: Holds): boolean =>
  NODES.has(node.type) ||
  (holds.pages && node.type === 'footnote') ||
  (holds.files.has(node.type) && FILE.test(String(node.attrs?.src ?? '')))

function fileNode(node: RichNode): RichNode {
  const text = (name: string, most: number) => String(node.attrs?.[name] ?? '').slice(0, most)
  return {
    type: node.type,
    attrs: {
      src: text('src', 80),
      ...(node.type === 'image'
        ? { alt: text('alt', 300) }
        : { name: text('name', 200), type: text('type', 100) }),
    },
  }
}
