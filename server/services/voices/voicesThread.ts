import { countText } from '#core/voices/countText'
import { analyseVoices } from '#core/voices/analyseVoices'
import type { RichNode } from '#core/contributing/richText'
import { answering } from '#server/threads/answering'

const tasks = { analyse: analyseVoices, countTexts: (docs: readonly RichNode[]) => docs.map(countText) }
export type VoicesTasks = typeof tasks

export default answering(tasks)
