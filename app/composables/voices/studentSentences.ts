import { capital, inWords, plural } from '#core/language'
import type { OneVoice } from '#shared/voices/student'

/** How much a student has said, beside what is usual, and with whom. */
export function talkSentence({ voice, typical }: OneVoice): string {
  const { contributions: n, words, answered, answeredBy } = voice
  if (n === 0) return `${voice.givenName} has said nothing yet${voice.quiet ? `; ${voice.quiet}` : ''}.`
  const beside = besideUsual(words, typical.words ?? 0)
  const written = `${capital(inWords(n))} ${plural(n, 'contribution')}, ${words.toLocaleString('en')} words${beside}`
  return `${written}; answered ${inWords(answered)} ${plural(answered, 'classmate')}, answered by ${inWords(answeredBy)}.`
}

function besideUsual(words: number, usual: number): string {
  if (usual === 0) return ''
  if (words >= usual * 1.25) return ', more than is usual here'
  if (words <= usual * 0.75) return ', less than is usual here'
  return ', about what is usual here'
}

/** When the reader last said something to this student alone. @param day how a day is written */
export function contactSentence({ voice }: OneVoice, day: (at: string) => string): string {
  const { acts, lastAt, gapDays, longestGapDays } = voice.fromMe
  if (acts === 0) return `${voice.givenName} has heard nothing from you alone yet this term.`
  const days = (n: number) => `${inWords(n)} ${plural(n, 'day')}`
  const last = `${acts === 1 ? '' : 'last '}on ${day(lastAt!)}, ${gapDays === 0 ? 'today' : `${days(gapDays)} ago`}`
  return `Heard from you ${times(acts)}, ${last}; the longest time without was ${days(longestGapDays)}.`
}

function times(n: number): string {
  if (n === 1) return 'once'
  if (n === 2) return 'twice'
  return `${inWords(n)} times`
}

/** Where a student stands in an activity. */
export const STANDING_WORDS: Readonly<Record<OneVoice['activities'][number]['standing'], string>> = {
  nothing: 'nothing yet',
  underWay: 'under way',
  ready: 'ready to mark',
  held: 'held',
  returned: 'returned',
}

/** Weeks of the term with what stands under them: a number, or that it is a break. */
export const labelledWeeks = ({ weeks }: OneVoice) =>
  weeks.map(w => ({ ...w, label: w.label === null ? 'break' : String(w.label) }))
