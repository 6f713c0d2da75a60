/** Tones of the members of one wiki, in the order in which they stand: enough for a group; a class begins again. */
const TONES = [
  '--k-discussion',
  '--k-wiki',
  '--k-journal',
  '--k-blog',
  '--k-reading',
  '--k-lexicon',
  '--k-review',
  '--moss',
] as const

export function toneOf(members: ReadonlyArray<{ readonly id: string }>, id: string): Record<string, string> {
  const at = members.findIndex(m => m.id === id)
  return { '--tone': at < 0 ? 'var(--ink-3)' : `var(${TONES[at % TONES.length]})` }
}
