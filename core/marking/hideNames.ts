/** Somebody who is to go unnamed, and what they go by. */
export interface Unnamed { readonly givenName: string, readonly familyName: string, readonly alias: string }

const WORD = /[\p{L}\p{N}_]/u

/**
 * Text in which people go by their aliases: full names, given names and family names, whole words only, whatever their
 * case, possessives too. Longer names are taken first, so that part of one is never left behind; somebody's given name that
 * is a word in use (one or two letters) is left alone. The same name of two people stands for the first of them.
 */
export function hideNames(text: string, people: readonly Unnamed[]): string {
  const names = new Map<string, string>()
  for (const p of people) {
    for (const name of [`${p.givenName} ${p.familyName}`, p.familyName, p.givenName]) {
      const key = name.trim().toLocaleLowerCase()
      if ([...key].length > 2 && !names.has(key)) names.set(key, p.alias)
    }
  }
  if (names.size === 0) return text
  const pattern = [...names.keys()].sort((a, b) => b.length - a.length).map(escape).join('|')
  return text.replace(new RegExp(`(?:${pattern})`, 'giu'), (found, ...rest) => {
    const at = rest.find(x => typeof x === 'number') as number
    const before = [...text.slice(Math.max(0, at - 2), at)].at(-1) ?? ''
    const after = [...text.slice(at + found.length, at + found.length + 2)][0] ?? ''
    return WORD.test(before) || WORD.test(after) ? found : names.get(found.toLocaleLowerCase())!
  })
}

const escape = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
