import type { PageText } from './pageText'

/**
 * The tokens a passage covers, as it is chosen on the page: blocks and white space of any kind are one
 * space. Null where it is not there.
 */
export function passageTokens({ tokens }: PageText, exact: string): readonly [number, number] | null {
  let text = ''
  const starts: number[] = []
  tokens.forEach(token => {
    const own = token.kind === 'block' ? ' ' : token.text.replace(/\s+/g, ' ')
    starts.push(text.length)
    text += own.startsWith(' ') && text.endsWith(' ') ? own.slice(1) : own
  })
  const wanted = exact.replace(/\s+/g, ' ').trim()
  const at = wanted === '' ? -1 : text.indexOf(wanted)
  if (at < 0) return null
  const first = starts.findLastIndex(s => s <= at)
  const end = starts.findIndex(s => s >= at + wanted.length)
  return [first, end < 0 ? tokens.length : end]
}
