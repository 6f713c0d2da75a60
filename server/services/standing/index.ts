// Where students stand in what is asked of them. This is what other areas may use of it.
export { type CheckedStanding, judge } from './judgeWork'
export { type Work, loadWork, missingOf, missingWork, nextDue, openPlans } from './missingWork'
export { readChecked, readOwn, readStandings, standingsIn } from './readStandings'
export { loadRecords } from './records'
export { countStandings } from './standingCounts'
