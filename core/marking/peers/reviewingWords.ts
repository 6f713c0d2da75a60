import { plural } from '#core/language'
import type { ReviewingTold } from './reviewingMark'

/** What somebody's own reviewing came to and what that was made of, to them. `share`: ten-thousandths */
export function reviewingSentence(r: {
  readonly share: number
  readonly percent: number
  readonly parts?: ReviewingTold | null
}): string {
  const came = `${r.percent} % of it is for your own reviewing, which came to ${Math.round(r.share / 100)} %`
  return r.parts ? `${came}: ${partsOf(r.parts)}.` : `${came}.`
}

function partsOf({ owed, done, onTime, helpful, close }: ReviewingTold): string {
  const words = [`${done} of ${owed} ${plural(owed, 'review')} done`]
  if (done > 0) words.push(onTime === done ? 'in time' : `${onTime || 'none'} of them in time`)
  if (helpful !== null) words.push(`found helpful ${(helpful / 100).toFixed(1)} of 5`)
  if (close !== null) words.push(`close to the other readers ${Math.round(close / 100)} %`)
  return words.join(', ')
}
