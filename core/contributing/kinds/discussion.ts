import type { KindDefinition } from './kind'

export const discussion: KindDefinition = {
  kind: 'discussion',
  workingPhases: ['write', 'respond'],
  entryType: 'post',
  answerType: 'reply',
  readBy: 'class',
}
