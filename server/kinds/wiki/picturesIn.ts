import type { RichNode } from '#core/contributing/richText'

/** Ids of the pictures that stand in a document, each once. */
export function picturesIn(node: RichNode): string[] {
  const own =
    node.type === 'image'
      ? [/^\/api\/files\/([0-9a-f-]{36})$/.exec(String(node.attrs?.src ?? ''))?.[1]].filter(
          x => x !== undefined,
        )
      : []
  return [...new Set([...own, ...(node.content ?? []).flatMap(picturesIn)])]
}
