import { ANYWHERE, never, type KindDefinition } from '../kind'
import { USUAL_REVIEW } from './reviewSettings'

export const review: KindDefinition = {
  kind: 'review',

  entryType: 'entry',
  answerType: 'review',
  entryWord: ['draft', 'drafts'],
  answerWord: ['review', 'reviews'],
  promptWord: 'prompt',
  standsIn: 'thread',
  tiedTo: 'nothing',
  oncePerStudent: false,
  handsIn: true,
  canWait: false,
  staffBegin: false,

  readBy: 'staff',
  reach: 'own',
  namesSilent: false,
  asksQuestions: never,
  opensByPart: never,

  workingPhases: ['write', 'review'],
  usualWeeks: [1, 1],
  expects: [...ANYWHERE, 'reviews'],
  offers: () => ['entries', 'holds', 'reviews', 'activeDays'],
  usualRules: [
    { kind: 'entries', need: 1, minWords: 800, due: 'write' },
    { kind: 'reviews', need: USUAL_REVIEW.each, minWords: 60, due: 'review' },
  ],
  usualTitle: 'New peer review',
  usualWriteFirst: false,
  ownPart: 'review',
  ownTalk: [],
  dueAsUsual: true,
  wantsStarter: false,
  goesOn: false,

  markedBy: 'peers',
  sharesPoints: false,
  measured: false,
}
