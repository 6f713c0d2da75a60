import { v5, v7 } from 'uuid'
import { nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import { Problem, refusedField } from '#server/http/problem'
import { PageDoc } from '#shared/contributing/richDoc'
import { LONGEST_TITLE, type WikiImport } from '#shared/kinds/wiki/wiki'
import { readMarkdownPage } from './markdown/readPage'
import { pageOfTitle } from './pages'
import { requireMayWrite, wikiSpaceOf, wikiAccess } from './wikiAccess'
import { saveVersion } from './saveVersion'

/**
 * Takes pages in from Markdown files, all of them or none: each becomes a version of the page of its title, which is made
 * if there is none. Sent again, nothing is done twice; a page that says the same already gets no version.
 */
export async function importPages(db: Database, actor: ActivityActor, write: WikiImport, now: Date) {
  const access = await wikiAccess(db, actor, now)
  const reach = access.reach(write.groupId)
  if (!reach.read) throw nothingHere()
  requireMayWrite(access, reach, actor)
  const read = write.files.map(file => {
    const { title, doc } = readMarkdownPage(file.name, file.text)
    const parsed = PageDoc.safeParse(doc)
    if (!parsed.success)
      throw refusedField(
        'files',
        'unread',
        `“${file.name}” could not be taken: ${parsed.error.issues[0]?.message ?? 'it could not be read'} Nothing was changed.`,
      )
    return { name: file.name, title: title.replace(/\s+/g, ' ').slice(0, LONGEST_TITLE), doc: parsed.data }
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
    return { pages }
  })
}
