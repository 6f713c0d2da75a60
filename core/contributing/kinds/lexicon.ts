import type { KindDefinition } from './kind'

export const lexicon: KindDefinition = {
  kind: 'lexicon',
  workingPhases: ['write'],
  entryType: 'term',
  answerType: 'comment',
  readBy: 'class',
}
