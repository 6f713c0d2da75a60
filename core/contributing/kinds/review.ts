import type { KindDefinition } from './kind'

export const review: KindDefinition = {
  kind: 'review',
  workingPhases: ['write', 'review'],
  entryType: 'entry',
  answerType: 'review',
  readBy: 'staff',
}
