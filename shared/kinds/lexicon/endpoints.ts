import { endpoint } from '#shared/http/endpoint'
import { ActivityParams } from '#shared/planning/activityParams'
import { LexiconImport, LexiconImported, LexiconTakeQuery, TermCard, TermParams, TermsView } from './lexicon'
import { SeminarParams } from '#shared/people/seminar'

export const downloadTerms = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/lexicon/export',
  logged: 'exported',
  summary: 'The terms of a lexicon as a file',
  params: ActivityParams,
  query: LexiconTakeQuery,
  file: ['text/csv', 'application/json', 'text/html'],
})

export const importTerms = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/lexicon/import',
  summary: 'Brings terms into a lexicon from a file; a trial changes nothing',
  params: ActivityParams,
  body: LexiconImport,
  largest: 3_000_000,
  answer: LexiconImported,
})

export const readTerm = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/terms/:termId',
  summary: 'The card of one term',
  params: TermParams,
  answer: TermCard,
})

export const readTerms = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/terms',
  summary: 'The terms whose words are marked in texts',
  params: SeminarParams,
  answer: TermsView,
})
