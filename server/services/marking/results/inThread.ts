import { Problem } from '#server/http/problem'
import { TaskEnded, ThreadPool } from '#server/threads/threadPool'
import type { PrintedLetter } from './letterPdf'
import type { ResultsTasks } from './resultsThread'
import type { Rows } from './tables'

const pool = new ThreadPool<ResultsTasks>(() => new URL('./resultsThread.ts', import.meta.url), {
  threads: 1,
  waiting: 20,
  megabytes: 1000,
})
const LONGEST = 5 * 60_000 // milliseconds

export const lettersPdf = (letters: readonly PrintedLetter[]): Promise<Buffer> =>
  asFile(pool.run('lettersPdf', [letters], LONGEST))

/** An archive with one PDF for each letter, by its path in it. */
export const lettersZip = (
  letters: ReadonlyArray<readonly [path: string, PrintedLetter]>,
  at: Date,
): Promise<Buffer> => asFile(pool.run('lettersZip', [letters, at], LONGEST))

export const csvOf = (rows: Rows): Promise<Buffer> => asFile(pool.run('csvOf', [rows], LONGEST))
export const workbook = (rows: Rows): Promise<Buffer> => asFile(pool.run('workbook', [rows], LONGEST))
export const tablesZip = (tables: Readonly<Record<string, Rows>>, at: Date): Promise<Buffer> =>
  asFile(pool.run('tablesZip', [tables, at], LONGEST))

async function asFile(made: Promise<Uint8Array>): Promise<Buffer> {
  try {
    const bytes = await made
    return Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  } catch (error) {
    if (!(error instanceof TaskEnded)) throw error
    throw new Problem(
      503,
      'tooSlow',
      'This took too long to make. Take letters activity by activity, or try again when less is going on.',
    )
  }
}
