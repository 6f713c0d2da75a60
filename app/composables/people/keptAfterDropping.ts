import { capital, inWords, plural } from '#core/language'

const FEW = 2 // marks that make a whole category: one bad day decides much

/**
 * What little remains of a category when its lowest marks are left out, in words; null where enough remains. One mark is
 * always kept.
 */
export function keptAfterDropping(activities: number, drop: number, weightPercent: number): string | null {
  const kept = Math.max(1, activities - drop)
  if (drop === 0 || activities === 0 || kept > FEW || kept === activities) return null
  const each = Math.round(weightPercent / kept)
  const has = `${capital(inWords(activities))} ${plural(activities, 'activity is', 'activities are')} marked in it`
  return kept === 1
    ? `${has}: one alone makes ${each} % of the final mark.`
    : `${has}: two remain, and each makes about ${each} % of the final mark.`
}
