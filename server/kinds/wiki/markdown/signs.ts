import type { RichNode } from '#core/contributing/richText'

/** A box before the words of an item, open or ticked: how a page shows a list of tasks. */
export const TASK = { open: '☐ ', done: '☑ ' } as const

/** The code a paragraph is, if it is nothing else; an empty paragraph is an empty line of it. */
export function codeLine(node: RichNode): string | null {
  if (node.type !== 'paragraph') return null
  const [only, ...more] = node.content ?? []
  if (!only) return ''
  const isCode = only.text !== undefined && only.marks?.length === 1 && only.marks[0]!.type === 'code'
  return isCode && more.length === 0 ? only.text! : null
}

/** Code as a page holds it: a paragraph for each line. */
export const codeParagraphs = (code: string): RichNode[] =>
  code.split('\n').map(line => ({
    type: 'paragraph',
    ...(line !== '' && { content: [{ type: 'text', text: line, marks: [{ type: 'code' }] }] }),
  }))
