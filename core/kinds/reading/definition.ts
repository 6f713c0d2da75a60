import { ANYWHERE, never, type KindDefinition } from '../kind'

export const reading: KindDefinition = {
  kind: 'reading',

  entryType: 'note',
  answerType: 'reply',
  entryWord: ['note', 'notes'],
  answerWord: ['reply', 'replies'],
  promptWord: 'prompt',
  standsIn: 'thread',
  tiedTo: 'passages',
  oncePerStudent: false,
  handsIn: false,
  canWait: false,
  staffBegin: true,

  readBy: 'class',
  reach: 'class',
  namesSilent: true,
  asksQuestions: never,
  opensByPart: settings => settings.reading?.writeFirst === 'page',

  workingPhases: ['write', 'respond'],
  usualWeeks: [1, 1],
  expects: [...ANYWHERE, 'replies', 'questions', 'parts'],
  offers: () => ['entries', 'replies', 'holds', 'questions', 'parts', 'activeDays'],
  usualRules: [
    { kind: 'entries', need: 4, minWords: 20, due: 'write' },
    { kind: 'replies', need: 2, minWords: 20, due: 'respond' },
  ],
  usualTitle: 'New reading',
  usualWriteFirst: false,
  ownPart: 'reading',
  ownTalk: [],
  dueAsUsual: true,
  wantsStarter: false,
  goesOn: false,

  markedBy: 'staff',
  sharesPoints: true,
  measured: true,
}
