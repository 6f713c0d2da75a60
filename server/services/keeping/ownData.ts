import { and, eq } from 'drizzle-orm'
import { ZipFile } from 'yazl'
import { Readable } from 'node:stream'
import { nothingHere, type Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { enrolments, persons, sections } from '#server/database/schema'
import { storedBytes } from '#server/services/files'
import { gatherOwnData } from './gatherOwnData'
import { ownDataPage } from './ownDataPage'
import { shapeOwnData } from './shapeOwnData'

const README = `What one person has put in and been given in one seminar of Jovrel.

data.json   all of it, named as it is called there; times are ISO 8601, points are hundredths
work.html   the same contributions and letters, to be read
files/      files that were handed in or uploaded, under their id and name
`

/**
 * All a person has put in and been given in a seminar, as one zip. Asked for by staff on somebody’s behalf it holds no
 * words of a draft: those are nobody’s but their author’s. What others may not be known by (who reviewed, held marks,
 * markers’ notes) is not in it.
 */
export async function ownData(
  db: Db,
  { seminar }: Actor,
  enrolmentId: string,
  self: boolean,
  now: Date,
): Promise<{ readonly name: string; readonly stream: Readable }> {
  const [who] = await db
    .select({ person: persons, enrolment: enrolments, section: sections.title })
    .from(enrolments)
    .innerJoin(persons, eq(persons.id, enrolments.personId))
    .leftJoin(sections, eq(sections.id, enrolments.sectionId))
    .where(and(eq(enrolments.id, enrolmentId), eq(enrolments.seminarId, seminar.id)))
  if (!who || who.enrolment.state === 'practice') throw nothingHere()
  const rows = await gatherOwnData(db, seminar.id, enrolmentId)
  const isHidden = (state: string) => !self && (state === 'draft' || state === 'scheduled')
  const data = shapeOwnData(rows, who, seminar, isHidden, now)
  const work = data.contributions
  const zip = new ZipFile()
  const put = (name: string, text: string) => {
    zip.addBuffer(Buffer.from(text), name, { mtime: now, compress: true, forceDosTimestamp: true })
  }
  put('README.txt', README)
  put('data.json', `${JSON.stringify(data, null, 2)}\n`)
  put('work.html', ownDataPage(data.person.name, seminar.title, work, rows.letters))
  const fileIds = rows.own.map(f => f.id)
  for (const id of self
    ? fileIds
    : fileIds.filter(f => work.some(w => !isHidden(w.state) && w.files.includes(f)))) {
    const { name } = rows.own.find(f => f.id === id)!
    // one file at a time: its bytes are fetched when its turn has come
    zip.addReadStreamLazy(
      `files/${id} ${name.replace(/[^\p{L}\p{N}. _-]+/gu, '_').slice(0, 100)}`,
      { mtime: now, compress: false, forceDosTimestamp: true },
      give => {
        give(null, Readable.from(storedBytes(db, id), { objectMode: false }))
      },
    )
  }
  zip.end()
  return { name: `${seminar.code} ${who.enrolment.name}.zip`, stream: zip.outputStream as Readable }
}
