import { endpoint } from '../http/endpoint'
import { ErasePreview, EraseWrite, Erased, Restored } from './archive'
import { EnrolmentParams } from '../people/people'
import { SeminarParams } from '../people/seminar'

export const restoreArchive = endpoint({
  method: 'POST',
  path: '/api/archives',
  logged: 'archiveRestored',
  summary: 'Brings a seminar back from its archive',
  answer: Restored,
  upload: 'application/zip',
})

export const downloadArchive = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/archive',
  logged: 'archiveTaken',
  summary: 'The whole seminar as an archive',
  params: SeminarParams,
  file: ['application/zip'],
})

export const downloadOwnData = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/own-data',
  logged: 'ownDataTaken',
  summary: 'All that is kept about oneself in a seminar',
  params: SeminarParams,
  file: ['application/zip'],
})

export const downloadDataOfPerson = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/people/:enrolmentId/data',
  logged: 'personDataTaken',
  summary: 'All that is kept about somebody in a seminar',
  params: EnrolmentParams,
  file: ['application/zip'],
})

export const previewErasure = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/people/:enrolmentId/erase',
  summary: 'Where the given name of somebody stands by itself, before they are erased',
  params: EnrolmentParams,
  answer: ErasePreview,
})

export const erasePerson = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/people/:enrolmentId/erase',
  logged: 'personErased',
  summary: 'Erases who somebody in a seminar is',
  params: EnrolmentParams,
  body: EraseWrite,
  answer: Erased,
})
