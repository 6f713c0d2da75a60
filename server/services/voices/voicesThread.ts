import { countText } from '#core/voices/countText'
import { analyseVoices } from '#core/voices/analyseVoices'
import type { RichNode } from '#core/contributing/richText'
import { answerCall } from '#server/threads/answerCall'

const tasks = { analyse: analyseVoices, countTexts: (docs: readonly RichNode[]) => docs.map(countText) }
export type VoicesTasks = typeof tasks

void answerCall(tasks)
