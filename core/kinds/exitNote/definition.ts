import { ANYWHERE, never, type KindDefinition } from '../kind'

export const exitNote: KindDefinition = {
  kind: 'exitNote',

  entryType: 'entry',
  answerType: 'comment',
  entryWord: ['answer', 'answers'],
  answerWord: ['comment', 'comments'],
  promptWord: 'prompt',
  standsIn: 'thread',
  tiedTo: 'nothing',
  oncePerStudent: true,
  handsIn: false,
  canWait: false,
  staffBegin: false,

  readBy: 'staff',
  reach: 'thread',
  namesSilent: true,
  asksQuestions: never,
  opensByPart: never,

  workingPhases: ['write'],
  usualWeeks: [1],
  expects: [...ANYWHERE],
  offers: () => ['entries', 'activeDays'],
  usualRules: [{ kind: 'entries', need: 1, minWords: 10, due: 'write' }],
  usualTitle: 'New exit note',
  usualWriteFirst: false,
  ownPart: null,
  ownTalk: [],
  dueAsUsual: false,
  wantsStarter: false,
  goesOn: false,

  markedBy: 'staff',
  sharesPoints: true,
  measured: true,
}
