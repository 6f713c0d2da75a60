import { endpoint } from '../http/endpoint'
import { DueFailures } from './dueFailures'
import { AccessLog, AccessLogQuery } from './accessLog'

export const readAccessLog = endpoint({
  method: 'GET',
  path: '/api/access-log',
  summary: 'Who signed in, what was downloaded, and what was refused',
  query: AccessLogQuery,
  answer: AccessLog,
})

export const readDueFailures = endpoint({
  method: 'GET',
  path: '/api/due-failures',
  summary: 'Work that was due and could not be done, with its reason, for the owner of the installation',
  answer: DueFailures,
})
