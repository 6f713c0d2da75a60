/** Languages that a passage or a text can be marked as, by their code (BCP 47), as English names them. */
export const LANGUAGES = {
  ar: 'Arabic',
  bg: 'Bulgarian',
  ca: 'Catalan',
  cs: 'Czech',
  da: 'Danish',
  de: 'German',
  el: 'Greek',
  en: 'English',
  es: 'Spanish',
  fa: 'Persian',
  fi: 'Finnish',
  fr: 'French',
  he: 'Hebrew',
  hu: 'Hungarian',
  it: 'Italian',
  ja: 'Japanese',
  ko: 'Korean',
  la: 'Latin',
  nl: 'Dutch',
  no: 'Norwegian',
  pl: 'Polish',
  pt: 'Portuguese',
  ro: 'Romanian',
  ru: 'Russian',
  sv: 'Swedish',
  tr: 'Turkish',
  uk: 'Ukrainian',
  zh: 'Chinese',
} as const
export type Language = keyof typeof LANGUAGES

/** What pages are written in; words in it need no mark. */
export const PAGE_LANGUAGE = 'en' satisfies Language

export const isLanguage = (code: unknown): code is Language =>
  typeof code === 'string' && Object.hasOwn(LANGUAGES, code)
/** In the order of their names. */
export const languageCodes = (Object.keys(LANGUAGES) as [Language, ...Language[]]) // the keys of that object, which has some
  .sort((a, b) => LANGUAGES[a].localeCompare(LANGUAGES[b], 'en'))
