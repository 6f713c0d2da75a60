import { endpoint } from '../http/endpoint'
import { AccessLog, AccessLogQuery } from './accessLog'

export const readAccessLog = endpoint({
  method: 'GET',
  path: '/api/access-log',
  summary: 'Who signed in, what was taken away, and what was refused',
  query: AccessLogQuery,
  answer: AccessLog,
})
