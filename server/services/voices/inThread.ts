import type { RichNode } from '#core/contributing/richText'
import { countText, type TextCount } from '#core/voices/countText'
import { analyseVoices, type VoicesIn, type VoicesOut } from '#core/voices/analyseVoices'
import { ThreadPool } from '#server/threads/threadPool'
import type { VoicesTasks } from './voicesThread'

const pool = new ThreadPool<VoicesTasks>(() => new URL('./voicesThread.ts', import.meta.url), {
  threads: 1,
  waiting: 20,
  megabytes: 3000,
})
const LONGEST = 5 * 60_000 // milliseconds
/** From so much on, it goes into a thread; below, copying would take longer. */
const MANY = { talkEntries: 4000, texts: 400 }

/** All figures of a span, beside everything else when there is much. */
export const analyse = async (voices: VoicesIn): Promise<VoicesOut> =>
  voices.talkEntries.length + voices.before.length < MANY.talkEntries
    ? analyseVoices(voices)
    : pool.run('analyse', [voices], LONGEST)

export const countTexts = async (docs: readonly RichNode[]): Promise<TextCount[]> =>
  docs.length < MANY.texts ? docs.map(countText) : pool.run('countTexts', [docs], LONGEST)
