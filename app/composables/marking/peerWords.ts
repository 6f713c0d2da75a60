import { inWords, plural } from '#core/language'
import { agreementWord } from '#core/marking/peers/agreement'
import type { PeerAllocation } from '#shared/marking/peers'
import type { ReviewFlag } from '#core/marking/peers/flagReviews'

/** One place after the point: what peers' scores are shown in. 1523 → "15.2". */
export const tenth = (hundredths: number): string => (Math.round(hundredths / 10) / 10).toFixed(1)
const bare = (hundredths: number): string => tenth(Math.abs(hundredths))

/** How a reviewer runs on every work: "runs 1.4 low". */
export const runsWords = (severity: number): string =>
  Math.abs(severity) < 15 ? 'runs even' : `runs ${bare(severity)} ${severity > 0 ? 'high' : 'low'}`

/** Why a review is flagged, in a few words. */
export function flagWords(flag: ReviewFlag): string {
  switch (flag.code) {
    case 'apart':
      return `${bare(flag.by)} ${flag.by > 0 ? 'above' : 'below'} the others`
    case 'sameWords':
      return 'same words as another review'
    case 'brief':
      return `${flag.words} words in all`
    case 'names':
      return flag.own ? 'gives the reader’s own name away' : `names somebody: “${flag.exact}”`
  }
}

function alwaysWords(runs: number) {
  if (Math.abs(runs) < 50) return ''
  return `; this reader runs ${bare(runs)} ${runs > 0 ? 'high' : 'low'} on every work`
}

/** The same in a sentence, for the strip beside the scores. */
export function flagSentence(flag: ReviewFlag, others: string): string {
  switch (flag.code) {
    case 'apart':
      return `${bare(flag.by)} points ${flag.by > 0 ? 'above' : 'below'} the others${alwaysWords(flag.runs)}.`
    case 'sameWords':
      return `${Math.round(flag.share * 100)} % of its words stand in ${others}, too.`
    case 'brief':
      return `${flag.words} words in all, far less than is usual here.`
    case 'names':
      return flag.own
        ? `it gives its reader’s name away: “${flag.exact}”.`
        : `it names somebody of the seminar: “${flag.exact}”.`
  }
}

const AGREE = {
  close: 'Readers agree closely: their scores can be relied on.',
  broad: 'Readers broadly agree which works are stronger.',
  loose: 'Readers agree loosely: look at the works themselves where much depends on it.',
  none: 'Readers do not agree more than chance would have them: do not take these scores as they are.',
} as const
export const agreementSentence = (alpha: number): string => AGREE[agreementWord(alpha)]

const TELLING = 3 // works from which on shared leniency is told well
const EVEN = 15 // hundredths of a point that nobody would call lenient or harsh

/** What "corrected" takes out beside the differences between readers: leniency all share, which only the marker's own points can show. */
export function leniencySentence(shared: number | null, anchored: number): string {
  if (shared === null)
    return 'Corrected takes out how readers differ from each other. Whether all are too kind or too hard shows once you give points of your own.'
  const works = `${inWords(anchored)} ${plural(anchored, 'work')}`
  const more = anchored < TELLING ? ' Points for two or three works tell it better.' : ''
  if (Math.abs(shared) < EVEN)
    return `On the ${works} you gave points, readers give what you give; corrected takes out how they differ from each other.${more}`
  return `On the ${works} you gave points, readers give ${bare(shared)} ${shared > 0 ? 'more' : 'less'} than you in all; corrected takes that out everywhere.${more}`
}

/** What setting a review aside has done. */
export function asideSentence(
  given: string,
  choice: { readonly countsAsDone: boolean; readonly tell: boolean },
): string {
  const done = choice.countsAsDone ? 'still counts as done' : 'does not count as done'
  const told = choice.tell ? ' They are told, with the reason.' : ''
  return `${given}’s review is set aside and ${done}; everything is calculated again.${told}`
}

/** Whose review says the same words as another. */
export function sameWordsSentence(
  flags: readonly ReviewFlag[],
  reviews: ReadonlyArray<Pick<PeerAllocation, 'id' | 'reviewerId' | 'subjectId'>>,
  id: string,
  nameOf: (id: string) => string,
): string {
  const flag = flags.find(f => f.reviewId === id && f.code === 'sameWords')
  const other = flag?.code === 'sameWords' ? reviews.find(a => a.id === flag.otherId) : undefined
  return other ? `${nameOf(other.reviewerId)}’s review of ${nameOf(other.subjectId)}` : 'another review'
}
