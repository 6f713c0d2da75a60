import { posix } from 'node:path'
import { v5, v7 } from 'uuid'
import { capital, inWords } from '#core/language'
import { nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import { Problem, refusedField } from '#server/http/problem'
import { PageDoc } from '#shared/contributing/richDoc'
import { LONGEST_TITLE, type WikiImport } from '#shared/kinds/wiki/wiki'
import { decoded, readMarkdownPage, type MarkdownPage } from './markdown/readPage'
import { pageOfTitle } from './pages'
import { requireMayWrite, wikiSpaceOf, wikiAccess } from './wikiAccess'
import { saveVersion } from './saveVersion'

/**
 * Takes pages in from Markdown files, all of them or none: each becomes a version of the page of its title, which is made
 * if there is none. Sent again, nothing is done twice; a page that says the same already gets no version. What a page has
 * no place for is answered in sentences.
 */
export async function importPages(db: Database, actor: ActivityActor, write: WikiImport, now: Date) {
  const access = await wikiAccess(db, actor, now)
  const reach = access.reach(write.groupId)
  if (!reach.read) throw nothingHere()
  requireMayWrite(access, reach, actor)
  const read = write.files.map(file => {
    const { title, doc, left } = readMarkdownPage(
      file.name,
      file.text,
      pictureFinder(file.name, write.pictures),
    )
    const parsed = PageDoc.safeParse(doc)
    if (!parsed.success)
      throw refusedField(
        'files',
        'unread',
        `“${file.name}” could not be taken: ${parsed.error.issues[0]?.message ?? 'it could not be read'} Nothing was changed.`,
      )
    return {
      name: file.name,
      title: title.replace(/\s+/g, ' ').slice(0, LONGEST_TITLE),
      doc: parsed.data,
      left,
    }
  })
  return db.transaction(async tx => {
    const pages: Array<{ id: string; title: string; isNew: boolean }> = []
    for (const { name, title, doc } of read) {
      const page = await pageOfTitle(
        tx,
        actor,
        { id: v7(), groupId: write.groupId, title, parentId: null },
        wikiSpaceOf(access, write.groupId),
        now,
      )
      try {
        await saveVersion(
          tx as Database,
          actor,
          page.id,
          {
            key: v5(name, write.key),
            doc,
            base: page.versions,
            summary: `taken in from ${name}`,
            actsOn: [],
            chosen: [],
          },
          now,
        )
      } catch (problem) {
        // an empty file makes an empty page; one that says what stands there already changes nothing
        if (!(problem instanceof Problem) || (problem.code !== 'nothingNew' && problem.code !== 'empty'))
          throw problem
      }
      pages.push({ id: page.id, title: page.title, isNew: page.versions === 0 })
    }
    return { pages, left: read.flatMap(({ name, left }) => leftWords(name, left)) }
  })
}

/** Finds the picture a page of a file names: by its path from there, else by its name where only one is called so. */
function pictureFinder(fileName: string, pictures: WikiImport['pictures']) {
  const at = (path: string) => posix.normalize(path.normalize('NFC')).replace(/^(\.{0,2}\/)+/, '')
  const folder = posix.dirname(fileName)
  return (url: string): string | null => {
    if (/^[a-z][a-z\d+.-]*:/i.test(url)) return null
    const path = decoded(url.replace(/[?#].*$/, ''))
    const exact = pictures.find(p => at(p.path) === at(posix.join(folder, path)))
    const named = pictures.filter(p => posix.basename(at(p.path)) === posix.basename(at(path)))
    const found = exact ?? (named.length === 1 ? named[0] : undefined)
    return found ? `/api/files/${found.fileId}` : null
  }
}

function leftWords(name: string, { pictures, links, numbers, columns }: MarkdownPage['left']): string[] {
  const [one, many] = [(n: number) => n === 1, (n: number) => n > 1]
  const about = (sentence: string) => `“${name}”: ${sentence}`
  return [
    ...(one(pictures) ? ['One picture is not among the files; what it shows is kept in words.'] : []),
    ...(many(pictures)
      ? [`${capital(inWords(pictures))} pictures are not among the files; what they show is kept in words.`]
      : []),
    ...(one(links) ? ['One link leads to a file that is not a page; its words are kept.'] : []),
    ...(many(links)
      ? [`${capital(inWords(links))} links lead to files that are not pages; their words are kept.`]
      : []),
    ...(numbers > 0 ? ['Lists that begin at another number begin at 1 here.'] : []),
    ...(columns > 0
      ? ['Columns of tables that stood to the right or in the middle stand to the left here.']
      : []),
  ].map(about)
}
