import { capital, inWords, plural } from '#core/language'

/** What has been assigned. @param readers of each work */
export function assignedSentence(readers: readonly number[]): string {
  const [least, most] = [Math.min(...readers), Math.max(...readers)]
  const each = least === most ? inWords(least) : `${inWords(least)} to ${inWords(most)}`
  const works = `${capital(inWords(readers.length))} ${plural(readers.length, 'work')}`
  return `Reviewers are assigned. ${works} ${plural(readers.length, 'has', 'have')} ${each} ${plural(most, 'reader')} each.`
}
