import type { KindDefinition } from './kind'

export const blog: KindDefinition = {
  kind: 'blog',
  workingPhases: ['write', 'respond'],
  entryType: 'entry',
  answerType: 'comment',
  readBy: 'class',
}
