import { ANYWHERE, never, type KindDefinition } from '../kind'

export const wiki: KindDefinition = {
  kind: 'wiki',

  entryType: 'pageVersion',
  answerType: 'comment',
  entryWord: ['page', 'pages'],
  answerWord: ['comment', 'comments'],
  promptWord: 'prompt',
  standsIn: 'pages',
  tiedTo: 'pages',
  oncePerStudent: false,
  handsIn: false,
  canWait: false,
  staffBegin: false,

  readBy: 'class',
  reach: 'own',
  namesSilent: true,
  asksQuestions: never,
  opensByPart: never,

  workingPhases: ['write', 'respond', 'revise'],
  usualWeeks: [2, 1, 1],
  expects: [...ANYWHERE, 'replies', 'ownPages', 'revisions'],
  offers: () => ['entries', 'replies', 'holds', 'ownPages', 'revisions', 'activeDays'],
  usualRules: [
    { kind: 'ownPages', need: 1, minWords: 300, due: 'write' },
    { kind: 'replies', need: 2, minWords: 20, due: 'respond' },
    { kind: 'revisions', need: 1, due: 'revise' },
  ],
  usualTitle: 'New wiki',
  usualWriteFirst: false,
  ownPart: 'wiki',
  ownTalk: [],
  dueAsUsual: true,
  wantsStarter: false,
  goesOn: false,

  markedBy: 'staff',
  sharesPoints: true,
  measured: false,
}
