import { ANYWHERE, never, type KindDefinition } from '../kind'

export const discussion: KindDefinition = {
  kind: 'discussion',

  entryType: 'post',
  answerType: 'reply',
  entryWord: ['opening post', 'opening posts'],
  answerWord: ['reply', 'replies'],
  promptWord: 'question',
  standsIn: 'thread',
  tiedTo: 'nothing',
  oncePerStudent: false,
  handsIn: false,
  canWait: false,
  staffBegin: false,

  readBy: 'class',
  reach: 'class',
  namesSilent: true,
  asksQuestions: settings => settings.threads === 'staff',
  opensByPart: never,

  workingPhases: ['write', 'respond'],
  usualWeeks: [1, 1],
  expects: [...ANYWHERE, 'replies'],
  offers: settings => [
    'entries',
    'weeklyEntries',
    'replies',
    ...(settings.threads === 'staff' ? (['prompts'] as const) : []),
    'holds',
    'activeDays',
  ],
  usualRules: [
    { kind: 'entries', need: 1, minWords: 200, due: 'write' },
    { kind: 'replies', need: 2, minWords: 60, due: 'respond' },
  ],
  usualTitle: 'New discussion',
  usualWriteFirst: true,
  ownPart: null,
  ownTalk: ['threads', 'replies'],
  dueAsUsual: true,
  wantsStarter: true,
  goesOn: false,

  markedBy: 'staff',
  sharesPoints: true,
  measured: true,
}
