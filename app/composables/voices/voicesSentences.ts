import { inWords, plural } from '#core/language'
import type { VoicesView } from '#shared/voices/voices'

type Person = VoicesView['people'][number]
const NAMED = 6 // people named one by one

/** Given names in a sentence; of many the first, and how many more. */
export function namesInSentence(people: ReadonlyArray<{ readonly givenName: string }>): string {
  const all = people.slice(0, NAMED).map(p => p.givenName)
  if (people.length > NAMED) return `${all.join(', ')} and ${people.length - NAMED} more`
  if (all.length > 1) return `${all.slice(0, -1).join(', ')} and ${all.at(-1)}`
  return all[0] ?? ''
}

export const neglectedOf = ({ people, gapLimit }: VoicesView): Person[] =>
  people.filter(p => p.fromMe.gapDays >= gapLimit)

/** How many have spoken, and how evenly. */
export function spokenSentence({ people, all, activity }: VoicesView, isNarrowed: boolean): string {
  if (people.length === 0) return activity || isNarrowed ? 'Nobody is meant here.' : 'Nobody takes part yet.'
  const count = people.length.toLocaleString('en')
  if (all.spoke === 0) return `Nobody of ${count} has spoken yet.`
  const spoke = `${all.spoke.toLocaleString('en')} of ${count} ${plural(all.spoke, 'has', 'have')} spoken`
  const half = all.haveHalf === 1 ? 'one student' : `${inWords(all.haveHalf)} students`
  const end = all.spoke === people.length ? '.' : ';'
  return `${spoke}; half of all words come from ${half}${end}`
}

/** How much the reader has written to students one by one, and to whom not for long. */
export function ownPresenceSentence(view: VoicesView): string {
  const { people, gapLimit } = view
  const reached = people.filter(p => p.fromMe.acts > 0)
  const acts = reached.reduce((sum, p) => sum + p.fromMe.acts, 0)
  const neglected = neglectedOf(view)
  const whom =
    reached.length === people.length
      ? 'all of them'
      : `${inWords(reached.length)} ${plural(reached.length, 'student')}`
  const what = plural(acts, 'reply, comment or letter', 'replies, comments and letters')
  const so =
    acts === 0
      ? 'no reply, comment or letter to a single student yet this term'
      : `${inWords(acts)} ${what} to ${whom} this term`
  if (neglected.length === 0) return `${so}.`
  const gone = `${inWords(neglected.length)} ${plural(neglected.length, 'has', 'have')} had nothing from you`
  return `${so}; ${gone} for ${inWords(gapLimit)} days or longer: ${namesInSentence(neglected)}.`
}
