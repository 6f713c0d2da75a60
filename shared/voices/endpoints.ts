import { endpoint } from '../http/endpoint'
import { SeminarParams } from '../people/seminar'
import { PresenceActs, PresenceActsQuery, PresenceLogQuery, PresenceQuery, PresenceView } from './presence'
import { OneVoice, StudentParams } from './student'
import { VoicesQuery, VoicesView } from './voices'

export const readPresenceActs = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/presence/acts',
  summary: 'What one person did, act by act',
  params: SeminarParams,
  query: PresenceActsQuery,
  answer: PresenceActs,
})

export const readPresence = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/presence',
  summary: 'Who was here when',
  params: SeminarParams,
  query: PresenceQuery,
  answer: PresenceView,
})

export const downloadPresenceLog = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/presence/log',
  logged: 'exported',
  summary: 'Who was here when, as a table',
  params: SeminarParams,
  query: PresenceLogQuery,
  file: ['text/csv', 'application/pdf'],
})

export const readVoices = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/voices',
  summary: 'Who speaks how much, and with whom',
  params: SeminarParams,
  query: VoicesQuery,
  answer: VoicesView,
})

export const readStudent = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/voices/:enrolmentId',
  summary: 'The picture of one student',
  params: StudentParams,
  answer: OneVoice,
})

export const downloadVoices = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/voices/table',
  logged: 'exported',
  summary: 'Who speaks how much, as a table',
  params: SeminarParams,
  query: VoicesQuery,
  file: ['text/csv'],
})
