// Plans as they stand: when, what is asked, and of whom. This is what other areas may use of it.
export { type ActivityPlan, loadPlan, loadPlans, weeksAsked } from './activityPlan'
export { type AudienceGroup, groupsOf, groupsOfEach } from './audienceGroups'
export { otherSeminars, seminarsOf, seminarsOfEach, takesPartIn } from './jointActivities'
export { participants } from './participants'
export { phaseWord, scheduleSentence } from './scheduleWords'
