import { ANYWHERE, never, type KindDefinition } from '../kind'

export const lexicon: KindDefinition = {
  kind: 'lexicon',

  entryType: 'term',
  answerType: 'comment',
  entryWord: ['term', 'terms'],
  answerWord: ['comment', 'comments'],
  promptWord: 'prompt',
  standsIn: 'thread',
  tiedTo: 'nothing',
  oncePerStudent: false,
  handsIn: false,
  canWait: false,
  staffBegin: false,

  readBy: 'class',
  reach: 'class',
  namesSilent: true,
  asksQuestions: never,
  opensByPart: never,

  workingPhases: ['write'],
  usualWeeks: [2],
  expects: [...ANYWHERE, 'replies'],
  offers: () => ['entries', 'replies', 'holds', 'activeDays'],
  usualRules: [{ kind: 'entries', need: 2, minWords: 40, due: 'write' }],
  usualTitle: 'New lexicon',
  usualWriteFirst: false,
  ownPart: 'lexicon',
  ownTalk: ['indexBy'],
  dueAsUsual: true,
  wantsStarter: false,
  goesOn: false,

  markedBy: 'staff',
  sharesPoints: true,
  measured: true,
}
