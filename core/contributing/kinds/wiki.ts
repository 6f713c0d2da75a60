import type { KindDefinition } from './kind'

export const wiki: KindDefinition = {
  kind: 'wiki',
  workingPhases: ['write', 'revise'],
  entryType: 'pageVersion',
  answerType: 'comment',
  readBy: 'class',
}
