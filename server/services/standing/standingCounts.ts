import { STANDINGS, type Standing } from '#core/standing/standing'
import type { StandingCounts } from '#shared/planning/plan'

export function countStandings(standings: Iterable<Standing>): StandingCounts {
  const counts = Object.fromEntries(STANDINGS.map(s => [s, 0])) as StandingCounts
  for (const standing of standings) counts[standing]++
  return counts
}
