import { zipSync } from 'fflate'
import { standingWords } from '#core/kinds/wiki/followAuthors'
import { PageReader, wordsIn } from '#core/kinds/wiki/pageText'
import { answering } from '#server/threads/answering'
import { nextVersion, type AuthoredDoc } from './nextVersion'
import { versionChange, type TwoVersions } from './versionChange'

/** Words that stand in a page, and how many of them are from each version. */
export interface StandingCount {
  readonly words: number
  readonly byOrigin: Map<string, number>
}

/** What is compared, joined, counted and packed of pages: their length is the writers'. */
const tasks = {
  nextVersion,
  compareVersions: (pairs: readonly TwoVersions[]) => pairs.map(versionChange),
  countStanding: (pages: readonly AuthoredDoc[]): StandingCount[] =>
    pages.map(page => {
      const text = new PageReader().read(page.doc)
      return { words: wordsIn(text.tokens), byOrigin: standingWords(text, page.origins) }
    }),
  /** An archive of files, by their path in it. */
  packFiles: (packed: Readonly<Record<string, Uint8Array>>, at: Date) => zipSync(packed, { mtime: at }),
}
export type PageTasks = typeof tasks

export default answering(tasks)
