import { plural } from '#core/language'
import type { TextsView } from '#shared/kinds/reading/reading'

/** What the library says of a text, and what a chosen file is. */
export const FORMS = { paper: 'PDF', article: 'text', recording: 'recording' } as const
export const sizeWords = (t: TextsView['texts'][number]) =>
  t.form === 'recording'
    ? `${Math.max(1, Math.round(t.minutes ?? 0))} minutes, ${t.words.toLocaleString('en')} words`
    : `${t.parts} ${t.form === 'paper' ? plural(t.parts, 'page') : plural(t.parts, 'section')}, ${t.words.toLocaleString('en')} words`
export const isMedia = (f: File) =>
  /^(audio|video)\//.test(f.type) || /\.(weba|webm|mp3|ogg|wav|mp4|m4a)$/i.test(f.name)
export const isTranscript = (f: File) => /\.vtt$/i.test(f.name)
