import { endpoint } from '../http/endpoint'
import { ClosingAnswersBody, ClosingQuery, ClosingRemoved, ClosingSet, ClosingView } from './closing'
import { ActivityParams } from '../planning/activityParams'

export const answerClosingQuestions = endpoint({
  method: 'PUT',
  path: '/api/activities/:activityId/closing/answers',
  summary: "Keeps or hands in one's answers to the closing questions",
  params: ActivityParams,
  body: ClosingAnswersBody,
  answer: ClosingView,
})

export const downloadClosingAnswers = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/closing/export',
  logged: 'exported',
  summary: 'The answers to the closing questions as a file',
  params: ActivityParams,
  query: ClosingQuery,
  file: ['text/csv'],
})

export const removeClosingQuestions = endpoint({
  method: 'DELETE',
  path: '/api/activities/:activityId/closing',
  summary: 'Removes the last closing questions of an activity',
  params: ActivityParams,
  answer: ClosingRemoved,
})

export const readClosingQuestions = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/closing',
  summary: 'The closing questions of an activity, and what their reader may see of the answers',
  params: ActivityParams,
  query: ClosingQuery,
  answer: ClosingView,
})

export const setClosingQuestions = endpoint({
  method: 'PUT',
  path: '/api/activities/:activityId/closing',
  summary: 'Sets the closing questions of an activity',
  params: ActivityParams,
  body: ClosingSet,
  answer: ClosingView,
})
