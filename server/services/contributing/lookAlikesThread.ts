import { lookAlikes, type LookAlike } from '#core/contributing/lookAlikes'
import { plainText, type RichNode } from '#core/contributing/richText'
import { answering } from '#server/threads/answering'

export interface WrittenText {
  readonly id: string
  readonly authorId: string
  readonly doc: RichNode
}
export interface FoundPair extends Omit<LookAlike, 'passages'> {
  readonly passages: ReadonlyArray<{ readonly first: string; readonly second: string }>
}

/** Texts of one activity compared each with each: their number and length are the writers'. */
function compareTexts(
  written: readonly WrittenText[],
  { least, most, readings }: { least: number; most: number; readings: readonly RichNode[] },
): FoundPair[] {
  const texts = new Map(written.map(w => [w.id, plainText(w.doc, { leaveOutQuotations: true })]))
  const authors = new Map(written.map(w => [w.id, w.authorId]))
  return lookAlikes(
    [...texts].map(([id, text]) => ({ id, text })),
    { least, readings: readings.map(doc => plainText(doc)) },
  )
    .filter(pair => authors.get(pair.first) !== authors.get(pair.second))
    .slice(0, most)
    .map(pair => ({
      ...pair,
      passages: pair.passages.map(({ text, inSecond }) => ({
        first: text,
        second: texts.get(pair.second)!.slice(inSecond, inSecond + text.length),
      })),
    }))
}

const tasks = { compareTexts }
export type LookAlikeTasks = typeof tasks

export default answering(tasks)
