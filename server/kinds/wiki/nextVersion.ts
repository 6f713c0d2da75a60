import { plainText, type RichNode } from '#core/contributing/richText'
import { comparePages } from '#core/kinds/wiki/comparePages'
import {
  asGone,
  followAuthors,
  GoneWords,
  type Credited,
  type GoneRun,
  type Runs,
} from '#core/kinds/wiki/followAuthors'
import { mergePages, type Choice, type Overlap } from '#core/kinds/wiki/mergePages'
import { docOf, PageReader, sameTokens, wordsIn, type PageText } from '#core/kinds/wiki/pageText'
import { linkedTitles } from '#core/kinds/wiki/wikiSettings'
import { refusedField } from '#server/http/problem'
import { countSources, renderDoc, type RenderedDoc } from '#server/richText/renderDoc'
import { PageDoc } from '#shared/contributing/richDoc'
import { picturesIn } from '#core/contributing/picturesIn'

export interface AuthoredDoc {
  readonly doc: RichNode
  readonly origins: Runs
}
/** A place both changed, in words. */
export interface SaidOverlap {
  readonly was: string
  readonly mine: string
  readonly theirs: string
}
/** What a save is made of. */
export interface VersionIn {
  readonly id: string // of the new version, as an origin of words
  readonly written: RichNode
  readonly base: RichNode | null // what it was written from; null: from nothing
  readonly current: AuthoredDoc | null
  readonly isOnCurrent: boolean // nobody saved since the writer began
  readonly chosen: ReadonlyArray<SaidOverlap & { readonly choice: Choice }>
  /** By what words that come to the page are known again, what counts first in front. */
  readonly known: {
    readonly goneHere: readonly GoneRun[]
    readonly elsewhere: readonly AuthoredDoc[]
    readonly goneElsewhere: readonly GoneRun[]
  }
}
export interface VersionOut extends Omit<RenderedDoc, 'words' | 'sentences'> {
  readonly as: 'next'
  readonly credited: Credited
  readonly words: number
  readonly added: number
  readonly removed: number
  readonly moved: number
  readonly pictures: readonly string[]
  readonly figures: number // pictures that are new in it
  readonly links: readonly string[]
}
export type NextVersion =
  | VersionOut
  | { readonly as: 'same' }
  | { readonly as: 'empty' }
  | { readonly as: 'overlaps'; readonly overlaps: readonly SaidOverlap[] }

/** The version a save makes: joined with what others saved, its words with their authors, rendered. @throws {Problem} if it is too long */
export function nextVersion(save: VersionIn): NextVersion {
  const reader = new PageReader()
  const before = save.current && { text: reader.read(save.current.doc), runs: save.current.origins }
  const merged =
    save.isOnCurrent || !before ? { text: reader.read(save.written) } : joined(save, before.text, reader)
  if ('overlaps' in merged) return { as: 'overlaps', overlaps: merged.overlaps }
  const parsed = PageDoc.safeParse(docOf(merged.text.tokens))
  if (!parsed.success) throw refusedField('doc', 'tooLong', parsed.error.issues[0]!.message)
  const doc = parsed.data
  if (!before && plainText(doc) === '') return { as: 'empty' }
  const next = reader.read(doc)
  if (before && sameTokens(before.text.tokens, next.tokens)) return { as: 'same' }
  const comparison = before && comparePages(before.text, next)
  const elsewhere = save.known.elsewhere.flatMap(p => asGone(reader.read(p.doc), p.origins))
  const gone = new GoneWords(reader, [...save.known.goneHere, ...elsewhere, ...save.known.goneElsewhere])
  const credited = followAuthors(before, next, gone, save.id, comparison ?? undefined)
  const { html, text, sources } = renderDoc(doc)
  const pictures = picturesIn(doc)
  return {
    as: 'next',
    doc,
    html,
    text,
    credited,
    words: wordsIn(next.tokens),
    added: comparison?.added ?? credited.written,
    removed: comparison?.removed ?? 0,
    moved: comparison?.wordsMoved ?? 0,
    sources: Math.max(0, sources - (save.current ? countSources(save.current.doc) : 0)),
    pictures,
    figures: Math.max(0, pictures.length - (save.current ? picturesIn(save.current.doc).length : 0)),
    links: linkedTitles(doc),
  }
}

function joined(
  save: VersionIn,
  current: PageText,
  reader: PageReader,
): { readonly text: PageText } | { readonly overlaps: SaidOverlap[] } {
  const sides = [reader.read(save.base ?? EMPTY), reader.read(save.written), current] as const
  const open = mergePages(reader, ...sides)
  if (open.overlaps.length === 0) return { text: open.text }
  const overlaps = open.overlaps.map(said)
  // a choice holds for the very words it was made between, whatever was saved elsewhere on the page since
  const choices = overlaps.map(
    o => save.chosen.find(c => c.was === o.was && c.mine === o.mine && c.theirs === o.theirs)?.choice,
  )
  return choices.includes(undefined) ? { overlaps } : { text: mergePages(reader, ...sides, choices).text }
}

const EMPTY: RichNode = { type: 'doc' }

function said({ base, mine, theirs }: Overlap): SaidOverlap {
  const words = (tokens: Overlap['mine']) => plainText(docOf(tokens))
  return { was: words(base), mine: words(mine), theirs: words(theirs) }
}
