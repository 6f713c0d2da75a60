import { detailOf } from '#core/kinds/contributionDetail'
import { eq, inArray } from 'drizzle-orm'
import { readingOf } from '#core/kinds/reading/reading'
import type { ActivityActor } from '#server/access/seminar'
import { readableText } from '#core/kinds/reading/readableText'
import { isStaff, nothingHere } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { contributions, files, groupMembers, groups } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import type { ReadingView } from '#shared/kinds/reading/reading'
import { announce, readable } from '#server/services/contributing'
import { currentVersion } from './library'

/** The text of a reading as one opens it: its pages or sections with their places, and where its picture or sound is. */
export async function readReading(db: Db, { activity, enrolment }: ActivityActor): Promise<ReadingView> {
  const settings = readingOf(activity.settings)
  const current = settings.textId ? await currentVersion(db, settings.textId) : null
  const [file] = current?.version.fileId
    ? await db
        .select({ id: files.id, type: files.type })
        .from(files)
        .where(eq(files.id, current.version.fileId))
    : []
  return {
    text: current && {
      id: current.text.id,
      title: current.text.title,
      credit: current.text.credit,
      form: current.text.form,
      version: current.text.version,
      language: current.text.language,
      words: current.version.parts.reduce((sum, p) => sum + p.words, 0),
      file: file ? { url: `/api/files/${file.id}`, type: file.type } : null,
      parts: current.version.parts.map(p => ({
        ...p,
        time: p.time ? ([...p.time] as [number, number]) : null,
      })),
      cues: [...current.version.cues],
    },
    from: settings.from,
    to: settings.to,
    writeFirst: settings.writeFirst,
    groups: await groupsOf(),
    first: current ? sections(current.version.html, settings.from, settings.from + FIRST) : [],
  }

  /** The groups the activity is for, if it is for groups: to staff all, to a student their own. */
  async function groupsOf(): Promise<ReadingView['groups']> {
    if (activity.audience.kind !== 'groups') return []
    const rows = await db
      .select({ id: groups.id, memberId: groupMembers.enrolmentId })
      .from(groupMembers)
      .innerJoin(groups, eq(groups.id, groupMembers.groupId))
      .where(
        activity.audience.groupIds.length > 0
          ? inArray(groups.id, [...activity.audience.groupIds])
          : eq(groups.groupPlanId, activity.audience.groupPlanId),
      )
    const by = new Map<string, string[]>()
    for (const { id, memberId } of rows) by.set(id, [...(by.get(id) ?? []), memberId])
    return [...by]
      .filter(([, members]) => isStaff(enrolment) || members.includes(enrolment.id))
      .map(([id, memberIds]) => ({ id, memberIds }))
  }
}

/** Some sections of an article. */
export async function readParts(
  db: Db,
  { activity }: ActivityActor,
  from: number,
  to: number,
): Promise<{ parts: Array<{ number: number; html: string }> }> {
  const { textId } = readingOf(activity.settings)
  const current = textId ? await currentVersion(db, textId) : null
  if (!current) throw nothingHere()
  return { parts: sections(current.version.html, from, to) }
}

const FIRST = 2 // sections after the first that come with the text
const sections = (html: readonly string[], from: number, to: number) =>
  html.slice(from - 1, to).map((section, i) => ({ number: from + i, html: section }))

/** A question has its answer, or is open again: for whoever put it, and staff, to say. */
export async function setSettled(
  db: Database,
  actor: ActivityActor & { readonly contribution: typeof contributions.$inferSelect },
  settled: boolean,
  now: Date,
): Promise<{ done: boolean }> {
  const { contribution, enrolment, activity } = actor
  if (!(await readable(db, actor, contribution.id, now))) throw nothingHere()
  const { note } = detailOf(contribution, 'note')
  if (note?.kind !== 'question') throw new Problem(409, 'noQuestion', 'Only a question can have its answer.')
  if (contribution.authorId !== enrolment.id && !isStaff(enrolment))
    throw new Problem(403, 'notYours', 'Whether a question has its answer, whoever put it says.')
  await db.transaction(async tx => {
    const [current] = await tx
      .select()
      .from(contributions)
      .where(eq(contributions.id, contribution.id))
      .for('update')
    await tx
      .update(contributions)
      .set({
        detail: {
          ...current!.detail,
          note: {
            ...detailOf(current!, 'note').note!,
            settled: settled ? { by: enrolment.id, at: now.toISOString() } : null,
          },
        },
      })
      .where(eq(contributions.id, contribution.id))
    await announce(tx, { activityId: activity.id, id: contribution.id })
  })
  return { done: true }
}

const MOST_FOUND = 300

/** Places of a text that hold some words, large and small letters alike. */
export async function findInText(
  db: Db,
  { activity }: ActivityActor,
  words: string,
): Promise<{ places: Array<{ start: number; end: number }>; more: boolean }> {
  const { textId } = readingOf(activity.settings)
  const current = textId ? await currentVersion(db, textId) : null
  if (!current) throw nothingHere()
  const looked = readableText(words).text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
  const places: Array<{ start: number; end: number }> = []
  if (looked === '') return { places, more: false }
  for (const { index, 0: found } of current.version.words.matchAll(new RegExp(looked, 'giu'))) {
    if (places.length === MOST_FOUND) return { places, more: true }
    places.push({ start: index, end: index + found.length })
  }
  return { places, more: false }
}
