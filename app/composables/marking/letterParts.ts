import type { RichNode } from '#core/contributing/richText'

const paragraph = (text = ''): RichNode => ({
  type: 'paragraph',
  ...(text && { content: [{ type: 'text', text }] }),
})
const textOf = (node: RichNode): string => node.text ?? (node.content ?? []).map(textOf).join('')
const isEmpty = (letter: RichNode) => textOf(letter).trim() === ''
/** "Dear …," for a letter that has not begun: the name is filled in when it is returned. */
const greeting = (): RichNode => paragraph('Dear {first name},')

const withoutTail = (content: readonly RichNode[]) =>
  content.filter((n, i, all) => !(i === all.length - 1 && n.type === 'paragraph' && !n.content))
const heading = (title: string): RichNode => ({
  type: 'heading',
  attrs: { level: 3 },
  content: [{ type: 'text', text: title }],
})

/** Where the remarks about a criterion end: after its heading, up to the next; -1 where it has none. */
function endOfPart(content: readonly RichNode[], title: string): number {
  const at = content.findIndex(n => n.type === 'heading' && textOf(n).trim() === title)
  if (at < 0) return -1
  const next = content.findIndex((n, i) => i > at && n.type === 'heading')
  return next < 0 ? content.length : next
}

/** A letter with a place to write about a criterion, under its name. @returns the letter and the index of the paragraph to write in */
export function withPart(letter: RichNode, title: string): { letter: RichNode; at: number } {
  const begun = isEmpty(letter) ? [greeting()] : withoutTail(letter.content ?? [])
  const end = endOfPart(begun, title)
  const findContent = () => {
    if (end < 0) return [...begun, heading(title), paragraph()]
    if (begun[end - 1]!.type === 'paragraph' && textOf(begun[end - 1]!) === '') return begun
    return [...begun.slice(0, end), paragraph(), ...begun.slice(end)]
  }
  const content = findContent()
  const lastOfPart = () => {
    if (end < 0) return content.length - 1
    if (content === begun) return end - 1
    return end
  }
  return {
    letter: { type: 'doc', content },
    at: lastOfPart(),
  }
}

/** A letter with words put in: under the criterion's name where there is one, else at its end. */
export function withWords(letter: RichNode, text: string, title: string | null): RichNode {
  if (title === null) {
    const begun = isEmpty(letter) ? [] : withoutTail(letter.content ?? [])
    return { type: 'doc', content: [...begun, ...text.split('\n').map(line => paragraph(line))] }
  }
  const { letter: written, at } = withPart(letter, title)
  return {
    type: 'doc',
    content: written.content!.flatMap((n, i) =>
      i === at ? text.split('\n').map(line => paragraph(line)) : [n],
    ),
  }
}
