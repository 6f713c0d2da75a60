import { seededRandom, shuffled } from '#core/chance/seededRandom'

/**
 * The term of a day: all of them come up, each once, before one comes again; the same for everyone. A new term takes its
 * place in the coming rounds.
 *
 * @param ids of the terms, in a stable order
 * @param day the calendar day, as YYYY-MM-DD
 */
export function termOfTheDay(ids: readonly string[], day: string): string | null {
  if (ids.length === 0) return null
  const number = Math.round(Date.parse(`${day}T00:00:00Z`) / 86_400_000)
  const round = Math.floor(number / ids.length)
  return shuffled(ids, seededRandom(round))[number % ids.length]!
}
