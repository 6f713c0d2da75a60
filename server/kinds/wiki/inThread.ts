import { Problem } from '#server/http/problem'
import { TaskEnded, ThreadPool } from '#server/threads/threadPool'
import type { AuthoredDoc, NextVersion, VersionIn } from './nextVersion'
import type { PageTasks, StandingCount } from './pageThread'
import type { TwoVersions, VersionChange } from './versionChange'

const pool = new ThreadPool<PageTasks>(() => new URL('./pageThread.ts', import.meta.url), {
  threads: 2,
  waiting: 400,
  megabytes: 800,
})
const LONGEST = 60_000 // milliseconds

export const makeNextVersion = (save: VersionIn): Promise<NextVersion> =>
  bounded(pool.run('nextVersion', [save], LONGEST))

/** What each version changed, in the order of the pairs. */
export const compareVersions = async (pairs: readonly TwoVersions[]): Promise<VersionChange[]> =>
  pairs.length === 0 ? [] : bounded(pool.run('compareVersions', [pairs], LONGEST))

export const countStanding = async (pages: readonly AuthoredDoc[]): Promise<StandingCount[]> =>
  pages.length === 0 ? [] : bounded(pool.run('countStanding', [pages], LONGEST))

/** Files of a wiki as one archive, by their path in it. */
export async function packFiles(files: Readonly<Record<string, Uint8Array>>, at: Date): Promise<Buffer> {
  const packed = await bounded(pool.run('packFiles', [files, at], LONGEST))
  return Buffer.from(packed.buffer, packed.byteOffset, packed.byteLength)
}

async function bounded<T>(work: Promise<T>): Promise<T> {
  try {
    return await work
  } catch (error) {
    if (!(error instanceof TaskEnded)) throw error
    throw new Problem(
      503,
      'tooSlow',
      'These pages took too long to work on, so it was given up. Nothing was changed; try again.',
    )
  }
}
