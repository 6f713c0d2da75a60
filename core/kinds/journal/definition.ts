import { ANYWHERE, never, type KindDefinition } from '../kind'

export const journal: KindDefinition = {
  kind: 'journal',

  entryType: 'entry',
  answerType: 'comment',
  entryWord: ['entry', 'entries'],
  answerWord: ['comment', 'comments'],
  promptWord: 'prompt',
  standsIn: 'thread',
  tiedTo: 'nothing',
  oncePerStudent: false,
  handsIn: false,
  canWait: false,
  staffBegin: false,

  readBy: 'staff',
  reach: 'asOpened',
  namesSilent: false,
  asksQuestions: never,
  opensByPart: never,

  workingPhases: ['write'],
  usualWeeks: [40],
  expects: [...ANYWHERE],
  offers: () => ['entries', 'weeklyEntries', 'prompts', 'holds', 'activeDays'],
  usualRules: [{ kind: 'weeklyEntries', need: 1, minWords: 150, due: 'write' }],
  usualTitle: 'New journal',
  usualWriteFirst: false,
  ownPart: null,
  ownTalk: ['opening', 'indexBy'],
  dueAsUsual: true,
  wantsStarter: true,
  goesOn: false,

  markedBy: 'staff',
  sharesPoints: true,
  measured: true,
}
