import { countText } from '#core/voices/countText'
import { lookAtVoices } from '#core/voices/lookAtVoices'
import type { RichNode } from '#core/contributing/richText'
import { answerCall } from '#server/threads/answerCall'

const tasks = { look: lookAtVoices, countTexts: (docs: readonly RichNode[]) => docs.map(countText) }
export type VoicesTasks = typeof tasks

void answerCall(tasks)
