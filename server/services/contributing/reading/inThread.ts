import type { TextAnchor } from '#core/contributing/reading/anchor'
import type { Found } from '#core/contributing/reading/findAnchors'
import { refusedField } from '#server/http/problem'
import { runThread, TaskEnded } from '#server/threads/runThread'
import type { TextIn } from './readText'
import type { TextTasks } from './textThread'

const file = () => new URL('./textThread.ts', import.meta.url)
const MINUTE = 60_000

/** Reads a text that was uploaded, beside everything else. @throws {Problem} with a sentence for the person */
export async function readText(bytes: Uint8Array, name: string, transcript: string | null): Promise<TextIn> {
  try {
    return await runThread<TextTasks, 'readText'>(file(), 'readText', [bytes, name, transcript], {
      milliseconds: 1.5 * MINUTE,
      megabytes: 1500,
    })
  } catch (error) {
    if (!(error instanceof TaskEnded)) throw error
    throw refusedField(
      'file',
      error.reason === 'time' ? 'tooSlow' : 'tooLarge',
      error.reason === 'time'
        ? 'This text took more than a minute to read, so reading it was given up. Save it anew, smaller, and add that.'
        : 'This text takes more room to read than any text should, so reading it was given up. It was not kept.',
    )
  }
}

/** Where passages stand in a text that may have changed since they were chosen; null for what is none or is lost. */
export const findPassages = (
  words: string,
  passages: ReadonlyArray<TextAnchor | null>,
): Promise<Array<Found | null>> =>
  runThread<TextTasks, 'findPassages'>(file(), 'findPassages', [words, passages], {
    milliseconds: 10 * MINUTE,
    megabytes: 2000,
  })
