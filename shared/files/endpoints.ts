import { endpoint } from '../http/endpoint'
import { ActivityParams } from '../planning/activityParams'
import { FileParams, FileView, FileWrite, TranscriptKept, TranscriptWrite } from './file'
import { SeminarParams } from '../people/seminar'

export const addActivityFile = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/files',
  summary: 'Adds a file for use in an activity',
  params: ActivityParams,
  body: FileWrite,
  largest: 28_000_000,
  answer: FileView,
})

export const readFile = endpoint({
  method: 'GET',
  path: '/api/files/:fileId',
  summary: 'The bytes of a file',
  params: FileParams,
  file: ['*/*'],
})

export const readFileText = endpoint({
  method: 'GET',
  path: '/api/files/:fileId/text',
  summary: 'The text of a document as a page',
  params: FileParams,
  file: ['text/html'],
})

export const readFileTranscript = endpoint({
  method: 'GET',
  path: '/api/files/:fileId/transcript',
  summary: 'The transcript of a recording as WebVTT',
  params: FileParams,
  file: ['text/vtt'],
})

export const keepFileTranscript = endpoint({
  method: 'PUT',
  path: '/api/files/:fileId/transcript',
  summary: 'Gives a recording its transcript',
  params: FileParams,
  body: TranscriptWrite,
  answer: TranscriptKept,
})

export const addSeminarFile = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/files',
  summary: 'Adds a file for use in a seminar',
  params: SeminarParams,
  body: FileWrite,
  largest: 28_000_000,
  answer: FileView,
})
