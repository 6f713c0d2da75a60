import { endpoint } from '../http/endpoint'
import { Done } from '../http/done'
import { RecordParams } from './desk'
import {
  ExcusedWrite,
  GradeRow,
  Gradebook,
  GradebookLayout,
  MarksFile,
  MarksImport,
  MarksImported,
  MarksPreview,
  OwnGrades,
  PointsWrite,
  ResultsQuery,
} from './gradebook'
import { SeminarParams } from '../people/seminar'

export const excuseStudent = endpoint({
  method: 'PUT',
  path: '/api/activities/:activityId/records/:enrolmentId/excused',
  summary: 'Excuses a student from an activity, or takes that back',
  params: RecordParams,
  body: ExcusedWrite,
  answer: GradeRow,
})

export const setPoints = endpoint({
  method: 'PUT',
  path: '/api/activities/:activityId/records/:enrolmentId/points',
  summary: 'Sets the points of a mark in the gradebook',
  params: RecordParams,
  body: PointsWrite,
  answer: GradeRow,
})

export const readGradebook = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/gradebook',
  summary: 'The gradebook',
  params: SeminarParams,
  answer: Gradebook,
})

export const arrangeGradebook = endpoint({
  method: 'PUT',
  path: '/api/seminars/:seminarId/gradebook/layout',
  summary: 'Orders and hides columns of the gradebook',
  params: SeminarParams,
  body: GradebookLayout,
  answer: Done,
})

export const readOwnGrades = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/grades',
  summary: "One's own returned marks",
  params: SeminarParams,
  answer: OwnGrades,
})

export const importMarks = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/marks',
  summary: 'Brings points in from a table',
  params: SeminarParams,
  body: MarksImport,
  largest: 8_500_000,
  answer: MarksImported,
})

export const previewMarks = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/marks/preview',
  summary: 'What bringing points in from a table would change',
  params: SeminarParams,
  body: MarksFile,
  largest: 8_500_000,
  answer: MarksPreview,
})

export const downloadResults = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/results',
  logged: 'marksTaken',
  summary: 'The gradebook as a file',
  params: SeminarParams,
  query: ResultsQuery,
  file: [
    'text/csv',
    'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    'application/zip',
    'application/pdf',
  ],
})
