import { endpoint } from '#shared/http/endpoint'
import { ActivityParams } from '#shared/planning/activityParams'
import {
  AnnotationsQuery,
  AnnotationsTake,
  AnnotationsTaken,
  PartsAnswer,
  PartsQuery,
  ReadingView,
  SettledWrite,
  SupplierTake,
  SupplierView,
  TextAdd,
  TextAdded,
  TextChange,
  TextFound,
  TextParams,
  TextVersionAdd,
  TextsView,
  ToolsAddress,
  VersionAdded,
} from './reading'
import { ContributionParams, TalkFindQuery } from '#shared/contributing/thread'
import { Done } from '#shared/http/done'
import { SeminarParams } from '#shared/people/seminar'

export const downloadAnnotations = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/reading/annotations',
  summary: 'The notes of a reading as Web Annotations',
  params: ActivityParams,
  query: AnnotationsQuery,
  file: ['application/ld+json'],
})

export const importAnnotations = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/reading/annotations',
  summary: "Brings Web Annotations into a reading as one's own notes; a trial changes nothing",
  params: ActivityParams,
  body: AnnotationsTake,
  largest: 10_000_000,
  answer: AnnotationsTaken,
})

export const findInText = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/reading/find',
  summary: 'Finds words in the text of a reading',
  params: ActivityParams,
  query: TalkFindQuery,
  answer: TextFound,
})

export const readReading = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/reading',
  summary: "A reading: its text's outline, first sections and notes",
  params: ActivityParams,
  answer: ReadingView,
})

export const readTextParts = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/reading/parts',
  summary: 'Sections of the text of a reading',
  params: ActivityParams,
  query: PartsQuery,
  answer: PartsAnswer,
})

export const closeAnnotationAddress = endpoint({
  method: 'DELETE',
  path: '/api/activities/:activityId/reading/tools',
  summary: "Closes the address by which one's own programs reach the notes",
  params: ActivityParams,
  answer: ToolsAddress,
})

export const readAnnotationAddress = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/reading/tools',
  summary: "Whether one's own programs have an address here",
  params: ActivityParams,
  answer: ToolsAddress,
})

export const makeAnnotationAddress = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/reading/tools',
  summary: "Makes an address by which one's own programs reach the notes",
  params: ActivityParams,
  answer: ToolsAddress,
})

export const downloadTranscript = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/reading/transcript',
  summary: 'The transcript of a recording as WebVTT',
  params: ActivityParams,
  file: ['text/vtt'],
})

export const settleQuestion = endpoint({
  method: 'PUT',
  path: '/api/contributions/:contributionId/settled',
  summary: 'Says that a question beside a text is settled, or that it is not',
  params: ContributionParams,
  body: SettledWrite,
  answer: Done,
})

export const readSupplier = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/supplier',
  summary: 'What the supplier of books offers',
  params: SeminarParams,
  answer: SupplierView,
})

export const takeFromSupplier = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/supplier',
  summary: 'Takes chapters of a supplied book into the library',
  params: SeminarParams,
  body: SupplierTake,
  answer: TextAdded,
})

export const changeText = endpoint({
  method: 'PATCH',
  path: '/api/seminars/:seminarId/texts/:textId',
  summary: 'Changes the title, credit or pages of a library text',
  params: TextParams,
  body: TextChange,
  answer: Done,
})

export const addTextVersion = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/texts/:textId/versions',
  summary: 'Adds a version of a library text',
  params: TextParams,
  body: TextVersionAdd,
  largest: 30_000_000,
  answer: VersionAdded,
})

export const readLibraryTexts = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/texts',
  summary: 'The texts of the library',
  params: SeminarParams,
  answer: TextsView,
})

export const addText = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/texts',
  summary: 'Adds a text to the library',
  params: SeminarParams,
  body: TextAdd,
  largest: 30_000_000,
  answer: TextAdded,
})
