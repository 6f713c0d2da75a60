/** Somebody who is to go unnamed, and what they go by. */
export interface Unnamed {
  readonly givenName: string
  readonly familyName: string
  readonly alias: string
}
/** A piece of text; `alias` is what stands for it where it is somebody's name. */
export interface NamePiece {
  readonly text: string
  readonly alias: string | null
}

const WORD = /[\p{L}\p{N}_]/u

/**
 * Text cut at people's names: full names, given names and family names, whole words only, whatever their case, possessives
 * too. Longer names are taken first, so that part of one is never left behind; a name of one or two letters is a word like
 * others and is left alone. The same name of two people stands for the first of them.
 */
export function splitNames(text: string, people: readonly Unnamed[]): NamePiece[] {
  const names = namesOf(people)
  if (names.size === 0) return [{ text, alias: null }]
  const pattern = new RegExp(
    [...names.keys()]
      .sort((a, b) => b.length - a.length)
      .map(escape)
      .join('|'),
    'giu',
  )
  const pieces: NamePiece[] = []
  let from = 0
  for (const found of text.matchAll(pattern)) {
    const before = [...text.slice(Math.max(0, found.index - 2), found.index)].at(-1) ?? ''
    const after = [...text.slice(found.index + found[0].length, found.index + found[0].length + 2)][0] ?? ''
    if (WORD.test(before) || WORD.test(after)) continue
    if (found.index > from) pieces.push({ text: text.slice(from, found.index), alias: null })
    pieces.push({ text: found[0], alias: names.get(found[0].toLocaleLowerCase()) ?? null })
    from = found.index + found[0].length
  }
  if (from < text.length || pieces.length === 0) pieces.push({ text: text.slice(from), alias: null })
  return pieces
}

/** Text in which people go by their aliases. */
export const hideNames = (text: string, people: readonly Unnamed[]): string =>
  splitNames(text, people)
    .map(p => p.alias ?? p.text)
    .join('')

function namesOf(people: readonly Unnamed[]): Map<string, string> {
  const names = new Map<string, string>()
  for (const p of people) {
    for (const name of [`${p.givenName} ${p.familyName}`, p.familyName, p.givenName]) {
      const key = name.trim().toLocaleLowerCase()
      if ([...key].length > 2 && !names.has(key)) names.set(key, p.alias)
    }
  }
  return names
}

const escape = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
