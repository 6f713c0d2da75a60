import { and, asc, eq, isNotNull } from 'drizzle-orm'
import { ZipFile } from 'yazl'
import { Readable } from 'node:stream'
import { nothingHere, type Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import {
  activities,
  closingAnswers,
  closingSurveys,
  contributionFiles,
  contributionRevisions,
  contributions,
  enrolments,
  extensions,
  files,
  groupMembers,
  groups,
  letterReplies,
  marks,
  messages,
  messageThreads,
  nods,
  notices,
  persons,
  sections,
  visits,
} from '#server/database/schema'

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
  const [
    written,
    revisions,
    own,
    came,
    letters,
    below,
    said,
    told,
    answers,
    rounds,
    longer,
    grouped,
    nodded,
    seen,
  ] = await Promise.all([
    db
      .select({ c: contributions, activity: activities.title })
      .from(contributions)
      .innerJoin(activities, eq(activities.id, contributions.activityId))
      .where(eq(contributions.authorId, enrolmentId))
      .orderBy(asc(contributions.madeAt), asc(contributions.id)),
    db
      .select({ r: contributionRevisions })
      .from(contributionRevisions)
      .innerJoin(contributions, eq(contributions.id, contributionRevisions.contributionId))
      .where(eq(contributions.authorId, enrolmentId))
      .orderBy(asc(contributionRevisions.contributionId), asc(contributionRevisions.version)),
    db
      .select({ id: files.id, name: files.name, type: files.type, size: files.size, madeAt: files.madeAt })
      .from(files)
      .where(and(eq(files.madeBy, enrolmentId), eq(files.seminarId, seminar.id)))
      .orderBy(asc(files.id)),
    db
      .select({ contributionId: contributionFiles.contributionId, fileId: contributionFiles.fileId })
      .from(contributionFiles)
      .innerJoin(contributions, eq(contributions.id, contributionFiles.contributionId))
      .where(eq(contributions.authorId, enrolmentId)),
    db
      .select({ activity: activities.title, returned: marks.returned, at: marks.returnedAt })
      .from(marks)
      .innerJoin(activities, eq(activities.id, marks.activityId))
      .where(and(eq(marks.enrolmentId, enrolmentId), isNotNull(marks.returned)))
      .orderBy(asc(marks.returnedAt)),
    db
      .select({
        activity: activities.title,
        by: persons.name,
        at: letterReplies.at,
        html: letterReplies.html,
      })
      .from(letterReplies)
      .innerJoin(activities, eq(activities.id, letterReplies.activityId))
      .innerJoin(enrolments, eq(enrolments.id, letterReplies.authorId))
      .innerJoin(persons, eq(persons.id, enrolments.personId))
      .where(eq(letterReplies.enrolmentId, enrolmentId))
      .orderBy(asc(letterReplies.at)),
    db
      .select({ subject: messageThreads.subject, by: persons.name, at: messages.at, text: messages.text })
      .from(messages)
      .innerJoin(messageThreads, eq(messageThreads.id, messages.threadId))
      .innerJoin(enrolments, eq(enrolments.id, messages.authorId))
      .innerJoin(persons, eq(persons.id, enrolments.personId))
      .where(and(eq(messageThreads.studentId, enrolmentId), isNotNull(messageThreads.toldAt)))
      .orderBy(asc(messages.at)),
    db
      .select({ text: notices.text, detail: notices.detail, at: notices.madeAt })
      .from(notices)
      .where(eq(notices.enrolmentId, enrolmentId))
      .orderBy(asc(notices.madeAt)),
    db
      .select({
        activityId: closingAnswers.activityId,
        answers: closingAnswers.answers,
        at: closingAnswers.handedInAt,
      })
      .from(closingAnswers)
      .where(eq(closingAnswers.enrolmentId, enrolmentId)),
    db
      .select({ activityId: closingSurveys.activityId, questions: closingSurveys.questions })
      .from(closingSurveys)
      .where(eq(closingSurveys.seminarId, seminar.id)),
    db
      .select({ activity: activities.title, dueAt: extensions.dueAt })
      .from(extensions)
      .innerJoin(activities, eq(activities.id, extensions.activityId))
      .where(eq(extensions.enrolmentId, enrolmentId)),
    db
      .select({ group: groups.title })
      .from(groupMembers)
      .innerJoin(groups, eq(groups.id, groupMembers.groupId))
      .where(eq(groupMembers.enrolmentId, enrolmentId)),
    db
      .select({ contributionId: nods.contributionId, at: nods.madeAt })
      .from(nods)
      .where(eq(nods.enrolmentId, enrolmentId)),
    db
      .select({ activity: activities.title, seenUntil: visits.seenUntil })
      .from(visits)
      .innerJoin(activities, eq(activities.id, visits.activityId))
      .where(eq(visits.enrolmentId, enrolmentId)),
  ])
  const isHidden = (state: string) => !self && (state === 'draft' || state === 'scheduled')
  const work = written.map(({ c, activity }) => ({
    // a review’s id and place would tell whose work it is of
    ...(c.type === 'review' ? {} : { id: c.id, answers: c.parentId }),
    activity,
    type: c.type,
    state: c.state,
    madeAt: c.madeAt,
    shownAt: c.shownAt,
    editedAt: c.editedAt,
    withdrawnAt: c.withdrawnAt,
    words: c.words,
    ...(isHidden(c.state)
      ? {}
      : {
          title: c.detail.title ?? null,
          text: c.text,
          html: c.html,
          doc: c.doc,
          note: c.detail.note ?? null,
          term: c.detail.term ?? null,
          review: c.detail.review ?? null,
          sentBack: c.sentBack,
        }),
    files: came.filter(f => f.contributionId === c.id).map(f => f.fileId),
    earlier: isHidden(c.state)
      ? []
      : revisions
          .filter(r => r.r.contributionId === c.id)
          .map(({ r }) => ({ version: r.version, text: r.text, html: r.html, replacedAt: r.replacedAt })),
  }))
  const data = {
    seminar: { code: seminar.code, title: seminar.title, college: seminar.college },
    madeAt: now,
    person: {
      name: who.person.name,
      givenName: who.person.givenName,
      familyName: who.person.familyName,
      email: who.person.email,
      mail: who.person.mailChoice,
      role: who.enrolment.role,
      section: who.section,
      studentNumber: who.enrolment.studentNumber,
      joinedAt: who.enrolment.joinedAt,
      groups: grouped.map(g => g.group),
    },
    contributions: work,
    letters: letters.map(l => ({ activity: l.activity, returnedAt: l.at, letter: l.returned })),
    repliesBelowLetters: below,
    messages: said,
    notices: told,
    closingAnswers: answers.map(a => ({
      ...a,
      questions: rounds.find(r => r.activityId === a.activityId)?.questions ?? [],
    })),
    extensions: longer,
    nods: nodded,
    lookedIn: seen,
    files: own,
  }
  const zip = new ZipFile()
  const put = (name: string, text: string) => {
    zip.addBuffer(Buffer.from(text), name, { mtime: now, compress: true, forceDosTimestamp: true })
  }
  put('README.txt', README)
  put('data.json', `${JSON.stringify(data, null, 2)}\n`)
  put('work.html', page(data.person.name, seminar.title, work, letters))
  const fileIds = own.map(f => f.id)
  for (const id of self
    ? fileIds
    : fileIds.filter(f => work.some(w => !isHidden(w.state) && w.files.includes(f)))) {
    const { name } = own.find(f => f.id === id)!
    // one file at a time: its bytes are fetched when its turn has come
    zip.addReadStreamLazy(
      `files/${id} ${name.replace(/[^\p{L}\p{N}. _-]+/gu, '_').slice(0, 100)}`,
      { mtime: now, compress: false, forceDosTimestamp: true },
      give => {
        give(null, Readable.from(bytesOf(db, id), { objectMode: false }))
      },
    )
  }
  zip.end()
  return { name: `${seminar.code} ${who.person.name}.zip`, stream: zip.outputStream as Readable }
}

async function* bytesOf(db: Db, id: string): AsyncGenerator<Buffer> {
  const [file] = await db.select({ bytes: files.bytes }).from(files).where(eq(files.id, id))
  if (file) yield file.bytes
}

const escaped = (text: string) =>
  text.replace(/[&<>"]/g, c => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!)
function page(
  name: string,
  seminar: string,
  work: ReadonlyArray<{
    readonly activity: string
    readonly type: string
    readonly state: string
    readonly shownAt: Date | null
    readonly html?: string
  }>,
  letters: ReadonlyArray<{ readonly activity: string; readonly returned: { readonly html: string } | null }>,
): string {
  const parts = work
    .filter(w => w.html !== undefined)
    .map(
      w =>
        `<article><h2>${escaped(w.activity)}</h2><p>${escaped(w.type)}, ${w.shownAt ? w.shownAt.toISOString().slice(0, 16).replace('T', ' ') : escaped(w.state)}</p>${w.html}</article>`,
    )
  return `<!doctype html><html lang="en"><meta charset="utf-8"><title>${escaped(name)}: ${escaped(seminar)}</title><body><h1>${escaped(name)}: ${escaped(seminar)}</h1>${parts.join('\n')}<h1>Letters</h1>${letters.map(l => `<article><h2>${escaped(l.activity)}</h2>${l.returned?.html ?? ''}</article>`).join('\n')}</body></html>\n`
}
