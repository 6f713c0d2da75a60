import type { KindDefinition } from './kind'

export const exitNote: KindDefinition = {
  kind: 'exitNote',
  workingPhases: ['write'],
  entryType: 'entry',
  answerType: 'comment',
  readBy: 'staff',
}
