import { endpoint } from '../http/endpoint'
import { ActivityParams } from './activityParams'
import { Done } from '../http/done'
import { SeminarParams } from '../people/seminar'
import {
  BeginWrite,
  BegunAnswer,
  ActivityMade,
  ActivityMake,
  ActivityPatch,
  ComposerView,
  CopyMade,
  CopyWrite,
  EffectAsk,
  EffectView,
  ExtensionParams,
  ExtensionWrite,
  LockWrite,
  OrderWrite,
  PublishWrite,
  ScheduleWrite,
  UnpublishWrite,
  VersionAnswer,
} from './composer'
import { FindQuery, Found } from './find'
import { MyWeek } from './myWeek'
import { TermPlan } from './plan'

export const copyActivity = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/copy',
  summary: 'Copies an activity within its seminar or into another one, as a draft',
  params: ActivityParams,
  body: CopyWrite,
  answer: CopyMade,
})

export const removeExtension = endpoint({
  method: 'DELETE',
  path: '/api/activities/:activityId/extensions/:enrolmentId',
  summary: "Takes a student's extension back",
  params: ExtensionParams,
  answer: Done,
})

export const giveExtension = endpoint({
  method: 'PUT',
  path: '/api/activities/:activityId/extensions/:enrolmentId',
  summary: 'Gives one student later dates',
  params: ExtensionParams,
  body: ExtensionWrite,
  answer: Done,
})

export const deleteActivity = endpoint({
  method: 'DELETE',
  path: '/api/activities/:activityId',
  summary: 'Deletes an activity in which nothing was written',
  params: ActivityParams,
  answer: Done,
})

export const lockActivity = endpoint({
  method: 'PUT',
  path: '/api/activities/:activityId/locked',
  summary: 'Locks or unlocks an activity',
  params: ActivityParams,
  body: LockWrite,
  answer: Done,
})

export const readPlanEffect = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/plan/effect',
  summary: 'What a change of plan would do to work that is there',
  params: ActivityParams,
  body: EffectAsk,
  answer: EffectView,
})

export const readPlannedActivity = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/plan',
  summary: 'An activity as it is planned',
  params: ActivityParams,
  answer: ComposerView,
})

export const changePlannedActivity = endpoint({
  method: 'PATCH',
  path: '/api/activities/:activityId/plan',
  summary: 'Changes what is planned of an activity',
  params: ActivityParams,
  body: ActivityPatch,
  answer: ComposerView,
})

export const publishActivity = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/publish',
  summary: 'Publishes an activity, now or at a time',
  params: ActivityParams,
  body: PublishWrite,
  answer: VersionAnswer,
})

export const changeSchedule = endpoint({
  method: 'PUT',
  path: '/api/activities/:activityId/schedule',
  summary: 'Changes the dates of an activity',
  params: ActivityParams,
  body: ScheduleWrite,
  answer: VersionAnswer,
})

export const beginPhase = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/begin',
  summary: 'Ends hand-in, or begins reviewing, now',
  params: ActivityParams,
  body: BeginWrite,
  answer: BegunAnswer,
})

export const unpublishActivity = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/unpublish',
  summary: 'Takes an activity back into draft',
  params: ActivityParams,
  body: UnpublishWrite,
  answer: VersionAnswer,
})

export const makeActivity = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/activities',
  summary: 'Plans a new activity',
  params: SeminarParams,
  body: ActivityMake,
  answer: ActivityMade,
})

export const findInSeminar = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/find',
  summary: 'Finds people, activities and texts of a seminar',
  params: SeminarParams,
  query: FindQuery,
  answer: Found,
})

export const readTermPlan = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/plan',
  summary: 'The term plan',
  params: SeminarParams,
  answer: TermPlan,
})

export const orderTermPlan = endpoint({
  method: 'PUT',
  path: '/api/seminars/:seminarId/plan/order',
  summary: 'Orders the activities within a unit',
  params: SeminarParams,
  body: OrderWrite,
  answer: Done,
})

export const readOwnWeek = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/week',
  summary: 'What is due for oneself',
  params: SeminarParams,
  answer: MyWeek,
})
