import { ANYWHERE, never, type KindDefinition } from '../kind'

export const blog: KindDefinition = {
  kind: 'blog',

  entryType: 'entry',
  answerType: 'comment',
  entryWord: ['entry', 'entries'],
  answerWord: ['comment', 'comments'],
  promptWord: 'prompt',
  standsIn: 'thread',
  tiedTo: 'nothing',
  oncePerStudent: false,
  handsIn: false,
  canWait: true,
  staffBegin: false,

  readBy: 'class',
  reach: 'class',
  namesSilent: true,
  asksQuestions: never,
  opensByPart: never,

  workingPhases: ['write', 'respond'],
  usualWeeks: [3, 1],
  expects: [...ANYWHERE, 'replies'],
  offers: () => ['entries', 'weeklyEntries', 'replies', 'holds', 'activeDays'],
  usualRules: [
    { kind: 'entries', need: 3, minWords: 250, due: 'write' },
    { kind: 'replies', need: 2, minWords: 40, due: 'respond' },
  ],
  usualTitle: 'New blog',
  usualWriteFirst: false,
  ownPart: null,
  ownTalk: ['layout', 'indexBy'],
  dueAsUsual: true,
  wantsStarter: true,
  goesOn: true,

  markedBy: 'staff',
  sharesPoints: true,
  measured: true,
}
