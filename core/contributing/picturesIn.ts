import type { RichNode } from './richText'

const FILE = /^\/api\/files\/([0-9a-f-]{36})$/
const isPicture = (node: RichNode) => node.type === 'image'
const fileOf = (picture: RichNode): string | undefined => FILE.exec(String(picture.attrs?.src ?? ''))?.[1]

/** Ids of the files of the pictures that stand in a document, each once. */
export function picturesIn(doc: RichNode): string[] {
  return [...new Set(allPictures(doc).flatMap(picture => fileOf(picture) ?? []))]
}

/** What the pictures of a document show, as it is written for those who cannot see them. */
export const pictureWords = (doc: RichNode): string[] =>
  allPictures(doc)
    .map(picture => String(picture.attrs?.alt ?? '').trim())
    .filter(Boolean)

/** The document without the pictures whose files are not among `fileIds`: nobody shows a picture of somebody else's text. */
export function withPicturesOf(doc: RichNode, fileIds: readonly string[]): RichNode {
  const own = new Set(fileIds)
  const kept = (node: RichNode): RichNode => {
    if (!node.content) return node
    const content = node.content.filter(child => !isPicture(child) || own.has(fileOf(child) ?? ''))
    return { ...node, content: content.map(kept) }
  }
  return kept(doc)
}

const allPictures = (node: RichNode): RichNode[] => [
  ...(isPicture(node) ? [node] : []),
  ...(node.content ?? []).flatMap(allPictures),
]
