export interface Passage {
  readonly exact: string
  readonly open: string // HTML before it
  readonly close: string // HTML after it
}

const ENTITIES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": "'",
}

/**
 * Marks passages in HTML that came out of the sanitiser: the first place in running text where each stands whole. Tags
 * are never touched; a passage that runs across tags, or overlaps one marked before it, stays unmarked.
 */
export function markPassages(html: string, passages: readonly Passage[]): string {
  const parts = html.split(/(<[^>]*>)/)
  const taken = new Map<number, Array<readonly [from: number, to: number, passage: Passage]>>()
  for (const passage of passages) {
    const escaped = passage.exact.replace(/[&<>"']/g, c => ENTITIES[c]!)
    const loose = passage.exact.replace(/[&<>]/g, c => ENTITIES[c]!)
    for (const [i, part] of parts.entries()) {
      if (part.startsWith('<')) continue
      const needle = part.includes(escaped) ? escaped : loose
      const at = needle === '' ? -1 : part.indexOf(needle)
      if (at < 0) continue
      const others = taken.get(i) ?? []
      if (!others.some(([from, to]) => at < to && at + needle.length > from))
        taken.set(i, [...others, [at, at + needle.length, passage]])
      break
    }
  }
  return parts
    .map((part, i) => {
      const marks = [...(taken.get(i) ?? [])].sort((a, b) => b[0] - a[0])
      return marks.reduce(
        (text, [from, to, { open, close }]) =>
          text.slice(0, from) + open + text.slice(from, to) + close + text.slice(to),
        part,
      )
    })
    .join('')
}
