import { endpoint } from '../http/endpoint'
import { ActivityParams } from '../planning/activityParams'
import { Done } from '../http/done'
import {
  DeskView,
  MarkAct,
  MarkHistory,
  MarkView,
  MarkWrite,
  MarkingQueue,
  MoveView,
  OthersHere,
  MoveWrite,
  PhraseParams,
  PhraseView,
  PhraseWrite,
  Phrases,
  RecordParams,
  RecordView,
  ReturnAtWrite,
  ReturnHeld,
  ReturnedAnswer,
  SecondAsk,
  SecondWrite,
  ShareWrite,
} from './desk'
import { Distribution } from './gradebook'
import { LetterReplyWrite, LetterTalk, LetterView, Letters } from './letter'
import {
  OutcomeAdd,
  OutcomeParams,
  OutcomesExportQuery,
  OutcomesQuery,
  OutcomesView,
  OutcomeWrite,
} from './outcomes'
import {
  ExportQuery,
  LibraryView,
  OutcomeView,
  RubricExport,
  RubricImport,
  RubricImported,
  RubricMade,
  RubricMake,
  RubricParams,
  RubricWrite,
} from './rubric'
import { SeminarParams } from '../people/seminar'

export const readDesk = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/desk',
  summary: 'What the marking desk opens with: rubric, students, where each stands',
  params: ActivityParams,
  answer: DeskView,
})

export const readDistribution = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/distribution',
  summary: 'How the points of an activity are distributed',
  params: ActivityParams,
  answer: Distribution,
})

export const readLetter = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/letter',
  summary: "One's own returned letter",
  params: ActivityParams,
  answer: LetterView,
})

export const downloadLetter = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/letter/pdf',
  summary: "One's own returned letter as PDF",
  params: ActivityParams,
  file: ['application/pdf'],
})

export const readOwnLetterReplies = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/letter/replies',
  summary: "What was written about one's letter since it was returned",
  params: ActivityParams,
  answer: LetterTalk,
})

export const replyToOwnLetter = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/letter/replies',
  summary: "Replies to one's letter",
  params: ActivityParams,
  body: LetterReplyWrite,
  answer: LetterTalk,
})

export const agreeSecondMark = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/records/:enrolmentId/agree',
  summary: 'Settles a second marking',
  params: RecordParams,
  body: MarkAct,
  answer: RecordView,
})

export const readMarkHistory = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/records/:enrolmentId/history',
  summary: 'What happened to a mark, in order',
  params: RecordParams,
  answer: MarkHistory,
})

export const holdMark = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/records/:enrolmentId/hold',
  summary: 'Holds a mark: it is finished and not yet returned',
  params: RecordParams,
  body: MarkAct,
  answer: MarkView,
})

export const readRecord = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/records/:enrolmentId',
  summary: 'The record of one student in one activity, for markers',
  params: RecordParams,
  answer: RecordView,
})

export const noteMarkerHere = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/records/:enrolmentId/here',
  summary: 'Says that a marker has a record open, and answers who else has',
  params: RecordParams,
  answer: OthersHere,
})

export const saveMark = endpoint({
  method: 'PUT',
  path: '/api/activities/:activityId/records/:enrolmentId/mark',
  summary: 'Keeps a mark while it is written',
  params: RecordParams,
  body: MarkWrite,
  answer: MarkView,
})

export const previewLetter = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/records/:enrolmentId/preview',
  summary: 'The letter as the student would get it',
  params: RecordParams,
  answer: LetterView,
})

export const reopenMark = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/records/:enrolmentId/reopen',
  summary: 'Opens a held mark again',
  params: RecordParams,
  body: MarkAct,
  answer: MarkView,
})

export const readLetterReplies = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/records/:enrolmentId/replies',
  summary: "What was written about a student's letter since it was returned",
  params: RecordParams,
  answer: LetterTalk,
})

export const replyToLetter = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/records/:enrolmentId/replies',
  summary: 'Replies to a student about their letter',
  params: RecordParams,
  body: LetterReplyWrite,
  answer: LetterTalk,
})

export const returnMark = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/records/:enrolmentId/return',
  logged: 'marksReturned',
  summary: 'Returns one mark with its letter',
  params: RecordParams,
  body: MarkAct,
  answer: MarkView,
})

export const saveSecondMark = endpoint({
  method: 'PUT',
  path: '/api/activities/:activityId/records/:enrolmentId/second',
  summary: 'Keeps or finishes a second marking',
  params: RecordParams,
  body: SecondWrite,
  answer: RecordView,
})

export const takeMarkBack = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/records/:enrolmentId/take-back',
  summary: 'Takes a returned mark back',
  params: RecordParams,
  body: MarkAct,
  answer: MarkView,
})

export const scheduleReturn = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/return-at',
  summary: 'Returns held marks at a time',
  params: ActivityParams,
  body: ReturnAtWrite,
  answer: ReturnedAnswer,
})

export const returnMarks = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/return',
  logged: 'marksReturned',
  summary: 'Returns held marks with their letters',
  params: ActivityParams,
  body: ReturnHeld,
  answer: ReturnedAnswer,
})

export const readRubricMove = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/rubric-move',
  summary: 'What moving marks to the newest rubric would change',
  params: ActivityParams,
  answer: MoveView,
})

export const moveMarksToRubric = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/rubric-move',
  summary: 'Moves marks to the newest version of their rubric',
  params: ActivityParams,
  body: MoveWrite,
  answer: ReturnedAnswer,
})

export const askSecondMarker = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/second',
  summary: 'Asks a second marker for a sample of records',
  params: ActivityParams,
  body: SecondAsk,
  answer: Done,
})

export const divideMarking = endpoint({
  method: 'PUT',
  path: '/api/activities/:activityId/shares',
  summary: 'Divides the students of an activity among markers',
  params: ActivityParams,
  body: ShareWrite,
  answer: Done,
})

export const restoreRubric = endpoint({
  method: 'PUT',
  path: '/api/rubrics/:rubricId/back',
  summary: 'Brings a removed rubric back',
  params: RubricParams,
  answer: Done,
})

export const exportRubric = endpoint({
  method: 'GET',
  path: '/api/rubrics/:rubricId/export',
  summary: 'A rubric in a portable form',
  params: RubricParams,
  query: ExportQuery,
  answer: RubricExport,
})

export const removeRubric = endpoint({
  method: 'DELETE',
  path: '/api/rubrics/:rubricId',
  summary: 'Removes a rubric from the library',
  params: RubricParams,
  answer: Done,
})

export const saveRubric = endpoint({
  method: 'PUT',
  path: '/api/rubrics/:rubricId',
  summary: 'Saves a rubric; one in use gets a new version',
  params: RubricParams,
  body: RubricWrite,
  answer: RubricMade,
})

export const readOwnLetters = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/letters',
  summary: "One's own returned letters",
  params: SeminarParams,
  answer: Letters,
})

export const importRubric = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/library/import',
  summary: 'Brings a rubric in from a file',
  params: SeminarParams,
  body: RubricImport,
  largest: 2_100_000,
  answer: RubricImported,
})

export const readLibrary = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/library',
  summary: 'The rubrics of a seminar',
  params: SeminarParams,
  answer: LibraryView,
})

export const readMarkingQueue = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/marking',
  summary: 'What waits to be marked',
  params: SeminarParams,
  answer: MarkingQueue,
})

export const readOutcomes = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/outcomes',
  summary: 'What students reached, by outcome',
  params: SeminarParams,
  query: OutcomesQuery,
  answer: OutcomesView,
})

export const addOutcome = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/outcomes',
  summary: 'Adds a learning outcome',
  params: SeminarParams,
  body: OutcomeAdd,
  answer: OutcomeView,
})

export const changeOutcome = endpoint({
  method: 'PUT',
  path: '/api/seminars/:seminarId/outcomes/:outcomeId',
  summary: 'Words a learning outcome anew, retires it or takes it up again',
  params: OutcomeParams,
  body: OutcomeWrite,
  answer: OutcomeView,
})

export const downloadOutcomes = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/outcomes/table',
  logged: 'exported',
  summary: 'What students reached, by outcome, as a table',
  params: SeminarParams,
  query: OutcomesExportQuery,
  file: ['text/csv'],
})

export const removePhrase = endpoint({
  method: 'DELETE',
  path: '/api/seminars/:seminarId/phrases/:phraseId',
  summary: 'Removes a phrase',
  params: PhraseParams,
  answer: Done,
})

export const recordPhraseUse = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/phrases/:phraseId/used',
  summary: 'Counts one use of a phrase',
  params: PhraseParams,
  answer: PhraseView,
})

export const readPhrases = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/phrases',
  summary: 'The phrases one uses in letters',
  params: SeminarParams,
  answer: Phrases,
})

export const savePhrase = endpoint({
  method: 'PUT',
  path: '/api/seminars/:seminarId/phrases',
  summary: 'Keeps a phrase',
  params: SeminarParams,
  body: PhraseWrite,
  answer: PhraseView,
})

export const makeRubric = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/rubrics',
  summary: 'Makes a rubric',
  params: SeminarParams,
  body: RubricMake,
  answer: RubricMade,
})
