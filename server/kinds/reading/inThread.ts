import type { TextAnchor } from '#core/kinds/reading/anchor'
import type { Found } from '#core/kinds/reading/findAnchors'
import { Problem, refusedField } from '#server/http/problem'
import { logError } from '#server/log'
import { TaskEnded, ThreadPool } from '#server/threads/threadPool'
import type { TextIn } from './readText'
import type { TextTasks } from './textThread'

const pool = new ThreadPool<TextTasks>(() => new URL('./textThread.ts', import.meta.url), {
  threads: 2,
  waiting: 20,
  megabytes: 1500,
})
const MINUTE = 60_000
/** Milliseconds a text may take to be read; tests, which send the worst there is, give it less. */
const LONGEST = Number(process.env.JOVREL_READING_SECONDS ?? 90) * 1000

/** Reads a text that was uploaded, beside everything else. @throws {Problem} with a sentence for the person */
export async function readText(bytes: Uint8Array, name: string, transcript: string | null): Promise<TextIn> {
  try {
    return await pool.run('readText', [bytes, name, transcript], LONGEST)
  } catch (error) {
    if (error instanceof Problem) throw error
    if (!(error instanceof TaskEnded)) throw unreadable(error)
    throw refusedField(
      'file',
      error.reason === 'time' ? 'tooSlow' : 'tooLarge',
      error.reason === 'time'
        ? 'This text took far longer to read than any text should, so reading it was given up. Save a smaller copy and add that.'
        : 'This text takes more room to read than any text should, so reading it was given up. It was not kept.',
    )
  }
}

/** A reader that fails on a file says nothing about us: the file is refused, and the failure is logged. */
function unreadable(error: unknown): Problem {
  logError('reading a text', error)
  return refusedField(
    'file',
    'unreadable',
    'This text is not built as others of its kind, and could not be read. Save it again from the program it came from, and add that.',
  )
}

/** Where passages stand in a text that may have changed since they were chosen; null for what is none or is lost. */
export const findPassages = (
  words: string,
  passages: ReadonlyArray<TextAnchor | null>,
): Promise<Array<Found | null>> => pool.run('findPassages', [words, passages], 10 * MINUTE)
