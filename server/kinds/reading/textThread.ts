import { AnchorFinder, type Found } from '#core/kinds/reading/findAnchors'
import type { TextAnchor } from '#core/kinds/reading/anchor'
import { answering } from '#server/threads/answering'
import { readText as readHere } from './readText'

/**
 * What is done with texts in a thread of its own: long work, on files nobody has looked at, with a reader
 * that changes what is built in.
 */
const tasks = {
  readText: (bytes: Uint8Array, name: string, transcript: string | null) =>
    readHere(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength), name, transcript),
  findPassages(words: string, passages: ReadonlyArray<TextAnchor | null>): Array<Found | null> {
    const finder = new AnchorFinder(words)
    return passages.map(passage => passage && finder.find(passage))
  },
}
export type TextTasks = typeof tasks

export default answering(tasks)
