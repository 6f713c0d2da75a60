import type { KindDefinition } from './kind'

export const wiki: KindDefinition = {
  kind: 'wiki',
  workingPhases: ['write', 'respond', 'revise'],
  entryType: 'pageVersion',
  answerType: 'comment',
  readBy: 'class',
}
