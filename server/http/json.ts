import { Problem } from './problem'

/** Refuses texts that no database keeps and no letter has: U+0000, and half of a surrogate pair. */
export function requireWellFormed(text: string): void {
  if (text.includes('\0') || !isWellFormed(text))
    throw new Problem(
      422,
      'characters',
      'There is a character in this text that cannot be stored. Type it again, or paste it as plain text.',
    )
}

/** As in ECMAScript 2024; the language level of the build does not know it yet. */
const isWellFormed = (text: string): boolean =>
  !/[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/.test(text)

/** Parses JSON whose texts are well-formed. */
export function parseJson(raw: string): unknown {
  try {
    return JSON.parse(raw, (key, value: unknown) => {
      requireWellFormed(key)
      if (typeof value === 'string') requireWellFormed(value)
      return value
    })
  } catch (error) {
    if (error instanceof Problem) throw error
    throw new Problem(400, 'notJson', 'This request could not be read.')
  }
}
