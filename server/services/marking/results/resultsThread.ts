import { zipSync } from 'fflate'
import { answering } from '#server/threads/answering'
import { lettersPdf, type PrintedLetter } from './letterPdf'
import { csvOf, tablesZip, workbook } from './tables'

/** Letters and results as files: hundreds of letters take seconds to set, a term of a large class to pack. */
const tasks = {
  csvOf,
  tablesZip,
  workbook,
  lettersPdf,
  /** One PDF for each letter, by its path in the archive. */
  async lettersZip(letters: ReadonlyArray<readonly [path: string, PrintedLetter]>, at: Date) {
    const files: Record<string, Uint8Array> = {}
    for (const [path, letter] of letters) files[path] = await lettersPdf([letter])
    return zipSync(files, { level: 6, mtime: at })
  },
}
export type ResultsTasks = typeof tasks

export default answering(tasks)
