import type { KindDefinition } from './kind'

export const reading: KindDefinition = {
  kind: 'reading',
  workingPhases: ['write', 'respond'],
  entryType: 'note',
  answerType: 'reply',
  readBy: 'class',
}
