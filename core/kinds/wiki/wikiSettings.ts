import type { RichNode } from '#core/contributing/richText'

/**
 * How a wiki is kept; all of it can be changed while it is written. Each group of the activity's audience
 * has one of its own, else the class has one.
 */
export interface WikiSettings {
  readonly keyWords: readonly string[] // pages that are suggested to everyone
  readonly othersRead: 'never' | 'afterWriting' | 'always' // whether groups read each other's wikis
}

export const USUAL_WIKI: WikiSettings = { keyWords: [], othersRead: 'afterWriting' }

export const wikiOf = (settings: { readonly wiki?: Partial<WikiSettings> }): WikiSettings => ({
  ...USUAL_WIKI,
  ...settings.wiki,
})

const LONGEST_KEY_WORD = 80 // characters

/** The key words of a brief: what stands in bold, each once. */
export function keyWordsOf(brief: RichNode): string[] {
  const found = new Map<string, string>()
  const visit = (node: RichNode) => {
    let bold = ''
    for (const child of [...(node.content ?? []), null]) {
      if (child?.text !== undefined && child.marks?.some(m => m.type === 'bold')) {
        bold += child.text
        continue
      }
      const word = bold.trim().replace(/[.,:;]+$/, '')
      if (word !== '' && word.length <= LONGEST_KEY_WORD)
        found.set(titleKey(word), found.get(titleKey(word)) ?? word)
      bold = ''
      if (child) visit(child)
    }
  }
  visit(brief)
  return [...found.values()]
}

/** A title as it is looked for: links know a page whatever the case and spaces. */
export const titleKey = (title: string): string => title.trim().replace(/\s+/g, ' ').toLowerCase()

/** Titles of pages that a document links to, each once, as they are written there. */
export function linkedTitles(doc: RichNode): string[] {
  const found = new Map<string, string>()
  const visit = (node: RichNode) => {
    for (const mark of node.marks ?? []) {
      const title = String(mark.attrs?.title ?? '').trim()
      if (mark.type === 'pageLink' && title !== '' && !found.has(titleKey(title)))
        found.set(titleKey(title), title)
    }
    node.content?.forEach(visit)
  }
  visit(doc)
  return [...found.values()]
}
