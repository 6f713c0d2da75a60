import { francAll } from 'franc-min'
import type { Language } from './languages'

/** Letters that one language alone is written in, among those that can be marked. */
const BY_LETTERS: ReadonlyArray<readonly [letters: RegExp, language: Language]> = [
  [/\p{Script=Greek}/gu, 'el'],
  [/\p{Script=Hebrew}/gu, 'he'],
  [/\p{Script=Hangul}/gu, 'ko'],
  [/\p{Script=Hiragana}|\p{Script=Katakana}/gu, 'ja'],
]
/** As franc names them (ISO 639-3). */
const CODES: Readonly<Record<string, Language>> = {
  arb: 'ar',
  bul: 'bg',
  ces: 'cs',
  deu: 'de',
  eng: 'en',
  fra: 'fr',
  hun: 'hu',
  ita: 'it',
  nld: 'nl',
  pes: 'fa',
  pol: 'pl',
  por: 'pt',
  ron: 'ro',
  rus: 'ru',
  spa: 'es',
  swe: 'sv',
  tur: 'tr',
  ukr: 'uk',
  cmn: 'zh',
}
const LEAST = 140 // letters: below, three-letter groups say little
const NEAREST = 0.9 // of the first, for the second: nearer, it may as well be that
const SHARE = 0.3 // of all letters: Japanese has as many that Chinese has
const LONGEST = 600 // letters that are looked at

/**
 * The language of a text, by its letters or its groups of three (Cavnar and Trenkle 1994); null where that is not clear: a
 * wrong one is read out wrongly, none is read out as before.
 */
export function guessLanguage(text: string): Language | null {
  const letters = text.match(/\p{L}/gu)?.length ?? 0
  if (letters === 0) return null
  for (const [pattern, language] of BY_LETTERS)
    if ((text.match(pattern)?.length ?? 0) >= SHARE * letters) return language
  if (letters < LEAST) return null
  if (isPlainlyEnglish(text.slice(0, LONGEST))) return 'en'
  const [first, second] = francAll(text.slice(0, LONGEST), { minLength: LEAST, only: Object.keys(CODES) })
  if (!first || (second && second[1] > NEAREST)) return null
  return CODES[first[0]] ?? null
}

/** Most of what is written is, and this takes a hundredth of the time: its little words are every tenth word or more. */
function isPlainlyEnglish(text: string): boolean {
  const little = text.match(/\b(the|and|of|that|which|it|with|from)\b/gi) ?? []
  const words = text.split(/\s+/).length
  return little.some(word => /^the$/i.test(word)) && little.length >= SHARE_OF_LITTLE * words
}
const SHARE_OF_LITTLE = 0.1
