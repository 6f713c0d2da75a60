import type { KindDefinition } from './kind'

export const journal: KindDefinition = {
  kind: 'journal',
  workingPhases: ['write'],
  entryType: 'entry',
  answerType: 'comment',
  readBy: 'staff',
}
