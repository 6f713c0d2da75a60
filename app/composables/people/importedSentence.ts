import { capital, plural } from '#core/language'
import type { RosterAnswer } from '#shared/people/people'

/** "3 added, 2 changed, 1 row passed over.": what became of a roster. */
export function importedSentence(answer: RosterAnswer): string {
  const parts = [
    answer.added && `${answer.added} added`,
    answer.changed && `${answer.changed} changed`,
    answer.back && `${answer.back} restored`,
    answer.withdrawn && `${answer.withdrawn} withdrawn`,
    answer.passedOver && `${answer.passedOver} ${plural(answer.passedOver, 'row')} passed over`,
  ].filter(Boolean)
  return `${capital(parts.join(', '))}.`
}
