import type { RichNode } from '#core/contributing/richText'
import { countText, type TextCount } from '#core/voices/countText'
import { analyseVoices, type VoicesIn, type VoicesOut } from '#core/voices/analyseVoices'
import { runThread } from '#server/threads/runThread'
import type { VoicesTasks } from './voicesThread'

const file = () => new URL('./voicesThread.ts', import.meta.url)
const BOUNDS = { milliseconds: 5 * 60_000, megabytes: 3000 }
/** From so much on, it goes into a thread of its own; below, starting one would take longer. */
const MANY = { talkEntries: 4000, texts: 400 }

/** All figures of a span, beside everything else when there is much. */
export const analyse = async (voices: VoicesIn): Promise<VoicesOut> =>
  voices.talkEntries.length + voices.before.length < MANY.talkEntries
    ? analyseVoices(voices)
    : runThread<VoicesTasks, 'analyse'>(file(), 'analyse', [voices], BOUNDS)

export const countTexts = async (docs: readonly RichNode[]): Promise<TextCount[]> =>
  docs.length < MANY.texts
    ? docs.map(countText)
    : runThread<VoicesTasks, 'countTexts'>(file(), 'countTexts', [docs], BOUNDS)
