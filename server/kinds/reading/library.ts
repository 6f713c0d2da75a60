import type { StoredNote } from '#core/kinds/reading/storedNote'
import { detailOf } from '#core/kinds/contributionDetail'
import { and, desc, eq, isNotNull, isNull, or, sql } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import { isStaff, nothingHere, type Actor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { activities, contributions, enrolments, files, texts, textVersions } from '#server/database/schema'
import { guessLanguage } from '#core/language/guessLanguage'
import { isLanguage, PAGE_LANGUAGE, type Language } from '#core/language/languages'
import { slicesOf } from '#server/database/slices'
import { Problem, refusedField } from '#server/http/problem'
import { copyStoredFile } from '#server/services/files'
import { withIdempotency } from '#server/services/idempotency'
import type {
  TextAdd,
  TextChange,
  TextsView,
  TextVersionAdd,
  VersionAdded,
} from '#shared/kinds/reading/reading'
import { announce } from '#server/services/contributing'
import { findPassages, readText } from './inThread'
import type { TextIn } from './readText'

const LARGEST = 20_000_000 // bytes
/** What a text is written in by its words, or else as its file says, where that is not what pages are written in. */
function languageOf({ words, language }: TextIn): Language | null {
  const said = language?.toLowerCase().split(/[-_]/)[0]
  const found = guessLanguage(words) ?? (isLanguage(said) ? said : null)
  return found === PAGE_LANGUAGE ? null : found
}

/** The texts of a seminar, newest first, and where each is read. */
export async function listTexts(db: Db, actor: Actor): Promise<TextsView> {
  const rows = await db
    .select({ text: texts, parts: textVersions.parts })
    .from(texts)
    .innerJoin(textVersions, and(eq(textVersions.textId, texts.id), eq(textVersions.number, texts.version)))
    .where(and(eq(texts.seminarId, actor.seminar.id), isNull(texts.archivedAt)))
    .orderBy(desc(texts.madeAt))
  const set = await db
    .select({
      id: activities.id,
      title: activities.title,
      textId: activities.textId,
      notes: sql<number>`(select count(*)::int from contributions c
        where c.activity_id = activities.id and c.type = 'note' and c.state = 'shown')`,
    })
    .from(activities)
    .where(and(eq(activities.seminarId, actor.seminar.id), isNotNull(activities.textId)))
  return {
    mayManage: actor.enrolment.role === 'instructor',
    texts: rows.map(({ text, parts }) => {
      const used = set.filter(a => a.textId === text.id)
      return {
        id: text.id,
        title: text.title,
        credit: text.credit,
        form: text.form,
        version: text.version,
        language: text.language,
        parts: parts.length,
        words: parts.reduce((sum, p) => sum + p.words, 0),
        scans: parts.filter(p => p.drawnOnly).length,
        minutes: text.form === 'recording' ? (parts.at(-1)?.time?.[1] ?? 0) / 60 : null,
        usedBy: used.map(({ id, title }) => ({ id, title })),
        notes: used.reduce((sum, a) => sum + a.notes, 0),
      }
    }),
  }
}

/** What can be set: the library, and what is set already though it is out of it. */
export async function settableTexts(db: Db, seminarId: string, chosen: string | null) {
  const rows = await db
    .select({ id: texts.id, title: texts.title, form: texts.form, parts: textVersions.parts })
    .from(texts)
    .innerJoin(textVersions, and(eq(textVersions.textId, texts.id), eq(textVersions.number, texts.version)))
    .where(
      and(
        eq(texts.seminarId, seminarId),
        or(isNull(texts.archivedAt), chosen ? eq(texts.id, chosen) : undefined),
      ),
    )
    .orderBy(desc(texts.madeAt))
  return rows.map(({ parts, ...text }) => ({ ...text, labels: parts.map(p => p.label) }))
}

/** Adds a text to the library. Long work goes before the transaction: nothing waits for it. */
export async function addText(db: Database, actor: Actor, write: TextAdd, now: Date) {
  const bytes = bytesOf(write)
  const read = await readText(bytes, write.name, write.transcript)
  return withIdempotency(db, actor.enrolment, write.key, tx =>
    keepText(
      tx,
      actor,
      {
        id: write.id,
        title: write.title || read.title || write.name.replace(/\.[^.]+$/, ''),
        credit: write.credit || read.credit || '',
        supplier: null,
      },
      read,
      { bytes, name: write.name, transcript: write.transcript },
      now,
    ),
  )
}

/** Keeps a text that has been read, with its file where that is needed to read it again. */
export async function keepText(
  tx: Db,
  actor: Actor,
  about: {
    readonly id: string
    readonly title: string
    readonly credit: string
    readonly supplier: (typeof texts.$inferInsert)['supplier']
  },
  read: TextIn,
  file: { readonly bytes: Buffer; readonly name: string; readonly transcript: string | null },
  now: Date,
) {
  await tx.insert(texts).values({
    ...about,
    seminarId: actor.seminar.id,
    form: read.form,
    version: 1,
    language: languageOf(read),
    madeBy: actor.enrolment.id,
    madeAt: now,
  })
  await keepVersion(tx, actor, about.id, 1, read, file, now)
  await noteActs(tx, actor, now, {
    act: 'textAdded',
    subjectId: about.id,
    detail: { title: about.title },
  })
  return {
    id: about.id,
    title: about.title,
    form: read.form,
    parts: read.parts.length,
    remarks: [...read.remarks],
  }
}

async function keepVersion(
  tx: Db,
  actor: Actor,
  textId: string,
  number: number,
  read: TextIn,
  file: { readonly bytes: Buffer; readonly name: string; readonly transcript: string | null },
  now: Date,
): Promise<void> {
  const [kept] = read.keep
    ? await tx
        .insert(files)
        .values({
          seminarId: actor.seminar.id,
          madeBy: actor.enrolment.id,
          name: file.name,
          type: read.keep,
          size: file.bytes.length,
          transcript: file.transcript,
          bytes: file.bytes,
          madeAt: now,
        })
        .returning({ id: files.id })
    : []
  await tx.insert(textVersions).values({
    seminarId: actor.seminar.id,
    textId,
    number,
    fileId: kept?.id ?? null,
    words: read.words,
    parts: read.parts,
    html: read.html,
    cues: read.cues,
    madeBy: actor.enrolment.id,
    madeAt: now,
  })
}

/**
 * Adds a new version of a text and carries all notes over: each is looked for by its words, in all readings of the text.
 * None is taken away; those that are not found stand beside the text and are listed.
 */
export async function addTextVersion(
  db: Database,
  actor: Actor,
  textId: string,
  write: TextVersionAdd,
  now: Date,
): Promise<VersionAdded> {
  const bytes = bytesOf(write)
  const read = await readText(bytes, write.name, write.transcript)
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const [text] = await tx
      .select()
      .from(texts)
      .where(and(eq(texts.id, textId), eq(texts.seminarId, actor.seminar.id)))
      .for('update')
    if (!text) throw nothingHere()
    if (text.form !== read.form)
      throw refusedField(
        'file',
        'form',
        `This text is ${{ paper: 'a paper (PDF)', article: 'an article', recording: 'a recording' }[text.form]}. A new version of it must be one, too.`,
      )
    const number = text.version + 1
    await keepVersion(
      tx,
      actor,
      textId,
      number,
      read,
      { bytes, name: write.name, transcript: write.transcript },
      now,
    )
    await tx.update(texts).set({ version: number }).where(eq(texts.id, textId))
    await noteActs(tx, actor, now, {
      act: 'textVersionAdded',
      subjectId: textId,
      detail: { number },
    })
    return { number, remarks: [...read.remarks], ...(await carryNotes(tx, textId, read)) }
  })
}

async function carryNotes(
  tx: Db,
  textId: string,
  read: Pick<TextIn, 'words' | 'parts'>,
): Promise<Omit<VersionAdded, 'number' | 'remarks'>> {
  const rows = await tx
    .select({
      id: contributions.id,
      activityId: contributions.activityId,
      activity: activities.title,
      type: contributions.type,
      detail: contributions.detail,
      author: enrolments.name,
      state: contributions.state,
    })
    .from(contributions)
    .innerJoin(activities, eq(activities.id, contributions.activityId))
    .innerJoin(enrolments, eq(enrolments.id, contributions.authorId))
    .where(and(eq(activities.textId, textId), eq(contributions.type, 'note')))
    .for('update', { of: contributions })
  const notes = rows.flatMap(row => {
    const { note } = detailOf(row, 'note')
    return note ? [{ ...row, note }] : []
  })
  const all = await findPassages(read.words, [
    ...notes.map(n => n.note.passage),
    ...notes.map(n => n.note.to?.passage ?? null),
  ])
  const [found, leads] = [all.slice(0, notes.length), all.slice(notes.length)]
  const answer = { kept: 0, moved: 0, nearly: 0, lost: [] as VersionAdded['lost'] }
  const carried: Array<{ readonly id: string; readonly note: StoredNote }> = []
  const told = new Set<string>()
  for (const [i, row] of notes.entries()) {
    const { note } = row
    const [at, toAt] = [found[i], leads[i]]
    const findHow = () => {
      if (note.passage) return at?.how ?? 'lost'
      if (note.part <= read.parts.length) return 'here'
      return 'lost'
    }
    const how = findHow()
    if (row.state === 'shown' || row.state === 'awaitingApproval') {
      if (how === 'here') answer.kept++
      else if (how === 'elsewhere') answer.moved++
      else if (how === 'nearly') answer.nearly++
      else
        answer.lost.push({
          id: row.id,
          activityId: row.activityId,
          activity: row.activity,
          author: row.author,
          exact: note.passage?.exact ?? '',
        })
    }
    const part = at
      ? (read.parts.findLast(p => p.start <= at.start)?.number ?? 1)
      : Math.min(note.part, read.parts.length)
    const next: StoredNote = {
      ...note,
      part,
      at: at ? { start: at.start, end: at.end } : null,
      toAt: toAt ? { start: toAt.start, end: toAt.end } : null,
      how,
    }
    carried.push({ id: row.id, note: next })
    told.add(row.activityId)
  }
  for (const some of slicesOf(carried))
    await tx.execute(sql`
      update contributions c set detail = c.detail || jsonb_build_object('note', v.note)
      from jsonb_to_recordset(${JSON.stringify(some)}::jsonb) as v(id uuid, note jsonb)
      where c.id = v.id`)
  // open pages fetch the text and its notes anew
  for (const activityId of told) await announce(tx, { activityId, id: null })
  return answer
}

export async function changeText(
  db: Database,
  actor: Actor,
  textId: string,
  { archived, ...change }: TextChange,
  now: Date,
): Promise<{ done: boolean }> {
  const [row] = await db
    .update(texts)
    .set({
      ...change,
      ...(archived !== undefined && { archivedAt: archived ? now : null }),
      seminarId: actor.seminar.id,
    })
    .where(and(eq(texts.id, textId), eq(texts.seminarId, actor.seminar.id)))
    .returning({ id: texts.id })
  if (!row) throw nothingHere()
  return { done: true }
}

/** A text with its file in another seminar's library: the same one if it was copied there before. */
export async function copyText(tx: Db, textId: string, target: Actor): Promise<string | null> {
  const [text] = await tx.select().from(texts).where(eq(texts.id, textId))
  const [version] = text
    ? await tx
        .select()
        .from(textVersions)
        .where(and(eq(textVersions.textId, textId), eq(textVersions.number, text.version)))
    : []
  if (!text || !version) return null
  const [there] = await tx
    .select({ id: texts.id })
    .from(texts)
    .innerJoin(textVersions, and(eq(textVersions.textId, texts.id), eq(textVersions.number, texts.version)))
    .where(
      and(
        eq(texts.seminarId, target.seminar.id),
        eq(texts.title, text.title),
        eq(textVersions.words, version.words),
        isNull(texts.archivedAt),
      ),
    )
  if (there) return there.id
  const own = { seminarId: target.seminar.id, madeBy: target.enrolment.id }
  const fileThere = version.fileId ? await copyStoredFile(tx, version.fileId, own) : null
  const [made] = await tx
    .insert(texts)
    .values({
      title: text.title,
      credit: text.credit,
      form: text.form,
      supplier: text.supplier,
      language: text.language,
      version: 1,
      ...own,
    })
    .returning({ id: texts.id })
  const { id: _version, madeAt: _at, ...columns } = version
  await tx.insert(textVersions).values({ ...columns, ...own, textId: made!.id, number: 1, fileId: fileThere })
  return made!.id
}

/** The newest version of a text. */
export async function currentVersion(db: Db, textId: string) {
  const [row] = await db
    .select({ text: texts, version: textVersions })
    .from(texts)
    .innerJoin(textVersions, and(eq(textVersions.textId, texts.id), eq(textVersions.number, texts.version)))
    .where(eq(texts.id, textId))
  return row ?? null
}

function bytesOf(write: { readonly base64: string }): Buffer {
  const bytes = Buffer.from(write.base64, 'base64')
  if (bytes.length > LARGEST)
    throw refusedField(
      'file',
      'tooLarge',
      'This file is larger than 20 MB. Make it smaller, or add the part that is to be read.',
      413,
    )
  return bytes
}
export const requireLibrarian = (actor: Actor): void => {
  if (!isStaff(actor.enrolment)) throw new Problem(403, 'notYours', 'The library is for those who teach.')
}
