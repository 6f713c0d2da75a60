/** What somebody is called. */
export interface Naming {
  readonly given: string
  readonly family: string
}
const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
const whole = (words: string) =>
  new RegExp(
    `(?<![\\p{L}\\p{M}\\p{N}])${escaped(words).replace(/\s+/g, '\\s+')}(?![\\p{L}\\p{M}\\p{N}])`,
    words.includes(' ') ? 'giu' : 'gu',
  )

/** Word for word, so that a text has as many words as before, at the same places: "Ada Brook" becomes "former student". */
function instead(found: string): string {
  const words = found.match(/[\p{L}\p{M}\p{N}]+/gu)!.length
  let at = 0
  return found.replace(/[\p{L}\p{M}\p{N}]+/gu, () => (++at === words ? 'student' : 'former'))
}

/**
 * Takes somebody’s name out of a text: in full, either way round, and the family name by itself as it is written. The
 * given name alone is taken out only where the text is to or by them: elsewhere it may be anybody’s, or a word.
 */
export function takeNamesOut(text: string, { given, family }: Naming, near: boolean): string {
  const forms = [
    `${given} ${family}`,
    `${family}, ${given}`,
    `${family} ${given}`,
    family,
    ...(near ? [given] : []),
  ].filter(f => /[\p{L}\p{N}]/u.test(f))
  return forms.reduce((now, form) => now.replace(whole(form), instead), text)
}

/** The same in all texts of a value as JSON has it; keys stay. */
export function takeNamesOutOf<T>(value: T, name: Naming, near: boolean): T {
  if (typeof value === 'string') return takeNamesOut(value, name, near) as T
  if (Array.isArray(value)) return value.map(v => takeNamesOutOf(v as unknown, name, near)) as T
  if (typeof value === 'object' && value !== null && !(value instanceof Date))
    return Object.fromEntries(
      Object.entries(value).map(([k, v]) => [k, takeNamesOutOf(v as unknown, name, near)]),
    ) as T
  return value
}
