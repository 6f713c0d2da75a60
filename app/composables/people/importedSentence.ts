import { capital, inWords, listed, plural } from '#core/language'
import type { RosterAnswer, RosterPreview } from '#shared/people/people'

/** "3 added, 2 changed, 1 row passed over.": what became of a roster. */
export function importedSentence(answer: RosterAnswer): string {
  const parts = [
    answer.added && `${answer.added} added`,
    answer.changed && `${answer.changed} changed`,
    answer.back && `${answer.back} restored`,
    answer.withdrawn && `${answer.withdrawn} withdrawn`,
    answer.placed && `${answer.placed} put into groups`,
    answer.passedOver && `${answer.passedOver} ${plural(answer.passedOver, 'row')} passed over`,
  ].filter(Boolean)
  return `${capital(parts.join(', '))}.`
}

/** What a column of groups would do. */
export function groupsSentence({
  plan,
  isNew,
  newGroups,
  placed,
}: NonNullable<RosterPreview['groups']>): string {
  if (placed === 0) return `In the groups “${plan}” everybody is as the file says.`
  const people = `${capital(inWords(placed))} ${placed === 1 ? 'is' : 'are'} put into groups`
  const named = `${plural(newGroups.length, 'the new group')} ${listed(newGroups)}`
  const made =
    newGroups.length > 0 ? `, with ${newGroups.length > 12 ? `${newGroups.length} new groups` : named}` : ''
  return `${people} of ${isNew ? 'a new plan' : 'the plan'}, “${plan}”${made}.`
}
