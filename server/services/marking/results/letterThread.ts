import { zipSync } from 'fflate'
import { answering } from '#server/threads/answering'
import { lettersPdf, type PrintedLetter } from './letterPdf'

/** Letters as files: hundreds of them take seconds to set. */
const tasks = {
  lettersPdf,
  /** One PDF for each letter, by its path in the archive. */
  async lettersZip(letters: ReadonlyArray<readonly [path: string, PrintedLetter]>, at: Date) {
    const files: Record<string, Uint8Array> = {}
    for (const [path, letter] of letters) files[path] = await lettersPdf([letter])
    return zipSync(files, { level: 6, mtime: at })
  },
}
export type LetterTasks = typeof tasks

export default answering(tasks)
