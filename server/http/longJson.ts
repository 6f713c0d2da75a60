import { TaskEnded, ThreadPool } from '#server/threads/threadPool'
import { LARGEST_BODY } from '#shared/http/limits'
import { parseJson } from './json'
import type { JsonTasks } from './jsonThread'
import { Problem } from './problem'

const LONGEST = 60_000 // milliseconds

const pool = new ThreadPool<JsonTasks>(() => new URL('./jsonThread.ts', import.meta.url), {
  threads: 1,
  waiting: 50,
  megabytes: 1000,
})

/**
 * Parses the JSON of a request; a long one in a thread, because a file of 20 MB in it holds everybody else up for a quarter
 * of a second.
 *
 * @throws {Problem} 400 where it is no JSON, 422 where a text cannot be stored, 503 where too many wait
 */
export async function parseBody(raw: Buffer): Promise<unknown> {
  if (raw.length <= LARGEST_BODY) return parseJson(raw.toString())
  try {
    // memory that holds nothing else is handed over: copying it takes longer
    const isAlone = raw.byteLength === raw.buffer.byteLength && raw.buffer instanceof ArrayBuffer
    return await pool.run('parseBody', [raw], LONGEST, isAlone ? [raw.buffer as ArrayBuffer] : [])
  } catch (error) {
    if (!(error instanceof TaskEnded)) throw error
    throw new Problem(
      503,
      'busy',
      'There is a lot to do just now. Nothing was changed; try again in a minute.',
    )
  }
}
