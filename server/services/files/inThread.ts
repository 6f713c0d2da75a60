import { Problem, refusedField } from '#server/http/problem'
import { logError } from '#server/log'
import { TaskEnded, ThreadPool } from '#server/threads/threadPool'
import type { FileTasks } from './fileThread'
import type { ReadAttachment } from './readAttachment'

const pool = new ThreadPool<FileTasks>(() => new URL('./fileThread.ts', import.meta.url), {
  threads: 2,
  waiting: 40,
  megabytes: 800,
})
const LONGEST = 60_000 // milliseconds

/** @throws {Problem} with a sentence for the person, also if it takes more time or memory than any file should */
export async function readAttachment(
  bytes: Uint8Array,
  type: string,
  isUnnamed: boolean,
): Promise<ReadAttachment> {
  try {
    return await pool.run('readAttachment', [bytes, type, isUnnamed], LONGEST)
  } catch (error) {
    if (error instanceof Problem) throw error
    if (!(error instanceof TaskEnded)) {
      logError('reading a file', error)
      throw refusedField(
        'file',
        'unreadable',
        'This file is not built as others of its kind, and could not be read. Save it again and add that.',
      )
    }
    throw refusedField(
      'file',
      error.reason === 'time' ? 'tooSlow' : 'tooLarge',
      'This file takes far more to read than a file of its kind should, so it was not kept. Save a smaller copy and add that.',
    )
  }
}
