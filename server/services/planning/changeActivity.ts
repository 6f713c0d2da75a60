import { and, eq, inArray, isNull, notInArray } from 'drizzle-orm'
import { KINDS } from '#core/contributing/kinds'
import { readingOf } from '#core/contributing/reading/reading'
import { talkOf } from '#core/contributing/talkSettings'
import { plainText, type RichNode } from '#core/contributing/richText'
import { isWorkingPhase, scheduleFaults, type Phase } from '#core/planning/schedule'
import type { Actor, ActivityRow, ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import {
  activities,
  auditTrail,
  categories,
  contributions,
  enrolments,
  expectations,
  files,
  gradingScales,
  groupPlans,
  groups,
  jointSeminars,
  marks,
  phases,
  prompts,
  rubricVersions,
  sections,
  texts,
  units,
  wikiPages,
} from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { renderDoc } from '#server/services/contributing/renderDoc'
import { storePoints } from '#server/services/marking/saveMark'
import { withIdempotency } from '#server/services/idempotency'
import type { ActivityBody, ActivityPatch } from '#shared/planning/composer'
import { composerView, loadBody } from './composer'
import { otherSeminars } from './jointActivities'
import { scheduleSentence } from './scheduleWords'
import { notifyOfChange } from './notifyStudents'

/** Takes the activity's row for this change; refuses when it is locked or has moved on since it was seen. */
export async function requireCurrent(
  tx: Db,
  actor: ActivityActor,
  baseVersion: number,
  now: Date,
): Promise<ActivityRow> {
  const [row] = await tx.select().from(activities).where(eq(activities.id, actor.activity.id)).for('update')
  if (row!.version !== baseVersion) {
    const theirs = await composerView(tx, { ...actor, activity: row! }, now)
    throw new Problem(
      409,
      'changedMeanwhile',
      `${theirs.savedBy ?? 'Someone else'} changed this activity meanwhile. Nothing of yours was lost.`,
      { theirs },
    )
  }
  if (row!.lockedAt)
    throw new Problem(
      409,
      'locked',
      'The settings of this activity are locked. Unlock them first; then they can be changed.',
    )
  return row!
}

/** The body with a change on it; what the change does not name stays. */
export async function changedBody(
  db: Db,
  activity: ActivityRow,
  change: Partial<ActivityBody>,
): Promise<ActivityBody> {
  const named = Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined))
  return { ...((await loadBody(db, activity)) as ActivityBody), ...named }
}

/**
 * Changes what is set about an activity: only what the change names. Contributions, drafts and marks stay, whatever is
 * changed: with another kind they become that kind's entries and answers; with other points, marks not yet returned are calculated anew.
 */
export function changeActivity(db: Database, actor: ActivityActor, write: ActivityPatch, now: Date) {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const before = await requireCurrent(tx, actor, write.baseVersion, now)
    const old = await loadBody(tx, before)
    const body = await changedBody(tx, before, write.change)
    requireSound(body)
    await requireKindKept(tx, before, body.kind)
    await requirePagesKept(tx, before, body.audience)
    await requireTextKept(tx, before, body)
    await requireOwnParts(tx, actor, body, old.jointSeminarIds)
    const [after] = await tx
      .update(activities)
      .set({ ...columnsOf(body, before), version: before.version + 1 })
      .where(eq(activities.id, before.id))
      .returning()
    await writeParts(tx, after!, body)
    if (before.kind !== body.kind) await renameContributions(tx, before, body.kind)
    if (
      before.points !== body.points ||
      JSON.stringify(before.lateRule) !== JSON.stringify(body.lateRule) ||
      JSON.stringify(before.combine) !== JSON.stringify(after!.combine) ||
      before.settings.review?.reviewingPercent !== body.review.reviewingPercent
    )
      await recalculate(tx, { ...actor, activity: after! }, now)
    const fields = Object.keys(write.change)
    await tx.insert(auditTrail).values({
      seminarId: actor.seminar.id,
      actorId: actor.enrolment.id,
      at: now,
      act: 'activityChanged',
      subjectId: before.id,
      detail: { fields, title: body.title },
    })
    if (write.tell && after!.state === 'published')
      await notifyOfChange(tx, { ...actor, activity: after! }, old, body, now)
    return composerView(tx, { ...actor, activity: after! }, now)
  })
}

export function requireSound(body: Pick<ActivityBody, 'opensAt' | 'phases' | 'rules' | 'kind'>): void {
  const schedule = { opensAt: new Date(body.opensAt), phases: toPhases(body.phases) }
  const [fault] = scheduleFaults(schedule)
  if (fault) throw refusedField('phases', fault.code, scheduleSentence(fault))
  if (new Set(body.phases.map(p => p.name)).size < body.phases.length)
    throw refusedField('phases', 'twice', 'A phase stands in this schedule twice.')
  const working = new Set(body.phases.map(p => p.name).filter(isWorkingPhase))
  if (body.rules.some(r => !working.has(r.rule.due)))
    throw refusedField(
      'rules',
      'noPhase',
      'An expectation is due at the end of a phase this activity does not have. Choose another due time for it.',
    )
  const { answerType, readBy } = KINDS[body.kind]
  if (body.rules.some(r => r.rule.kind === 'reviews') && answerType !== 'review')
    throw refusedField('rules', 'noReviews', 'Nothing is reviewed here, so reviews cannot be asked for.')
  if (body.kind !== 'wiki' && body.rules.some(r => r.rule.kind === 'ownPages' || r.rule.kind === 'revisions'))
    throw refusedField(
      'rules',
      'noPages',
      'Pages are claimed in a wiki only, so they cannot be asked for here.',
    )
  if (body.kind !== 'reading' && body.rules.some(r => r.rule.kind === 'questions' || r.rule.kind === 'parts'))
    throw refusedField(
      'rules',
      'noMargin',
      'Notes stand in the margin of a reading only, so they cannot be asked for here.',
    )
  if (body.rules.some(r => r.rule.kind === 'replies') && (answerType === null || readBy !== 'class'))
    throw refusedField(
      'rules',
      'noAnswers',
      'Classmates do not answer each other here, so replies cannot be asked for.',
    )
}

export const toPhases = (list: ActivityBody['phases']): Phase[] =>
  list.map(p => ({ name: p.name, startsAt: new Date(p.startsAt), endsAt: new Date(p.endsAt) }))

/** Everything named must be this seminar's own. */
async function requireOwnParts(
  tx: Db,
  actor: Actor,
  body: ActivityBody,
  already: readonly string[],
): Promise<void> {
  const { seminar } = actor
  const gone = (field: string) =>
    refusedField(field, 'gone', 'What you chose is no longer there. Reload the page and choose again.')
  const own = async (
    table:
      | typeof units
      | typeof categories
      | typeof gradingScales
      | typeof files
      | typeof rubricVersions
      | typeof groupPlans
      | typeof activities
      | typeof texts,
    id: string | null,
    field: string,
  ) => {
    if (id === null) return
    const [found] = await tx
      .select({ id: table.id })
      .from(table as typeof units)
      .where(and(eq(table.id, id), eq(table.seminarId, seminar.id)))
    if (!found) throw gone(field)
  }
  await own(units, body.unitId, 'unitId')
  await own(categories, body.categoryId, 'categoryId')
  await own(gradingScales, body.gradingScaleId, 'gradingScaleId')
  await own(files, body.spokenFileId, 'spokenFileId')
  await own(rubricVersions, body.rubricVersionId, 'rubricVersionId')
  await own(texts, body.reading.textId, 'reading')
  await own(groupPlans, body.review.apartIn, 'review')
  await own(activities, body.review.sharesOf, 'review')
  const { audience } = body
  const all = async (table: typeof sections | typeof groups | typeof enrolments, ids: readonly string[]) => {
    if (
      ids.length > 0 &&
      (await tx.$count(table, and(inArray(table.id, [...ids]), eq(table.seminarId, seminar.id)))) <
        new Set(ids).size
    )
      throw gone('audience')
  }
  if (audience.kind === 'sections') await all(sections, audience.sectionIds)
  if (audience.kind === 'people') await all(enrolments, audience.enrolmentIds)
  if (audience.kind === 'groups') {
    await own(groupPlans, audience.groupPlanId, 'audience')
    await all(groups, audience.groupIds)
  }
  // held with other seminars: only the actor's own, or those that take part already
  const joinable = new Set([...(await otherSeminars(tx, actor)).map(s => s.id), ...already])
  if (body.jointSeminarIds.some(id => !joinable.has(id)))
    throw refusedField(
      'jointSeminarIds',
      'notYours',
      'A discussion can be held with seminars you instruct yourself.',
    )
  const used = [body.brief, body.starter, ...body.prompts.map(p => p.doc)].flatMap(doc =>
    doc ? filesIn(doc) : [],
  )
  if (
    used.length > 0 &&
    (await tx.$count(files, and(inArray(files.id, used), eq(files.seminarId, seminar.id)))) <
      new Set(used).size
  )
    throw gone('brief')
}

/** Ids of the uploaded files a document shows. */
export function filesIn(doc: RichNode): string[] {
  const src = /^\/api\/files\/([0-9a-f-]{36})$/.exec(String(doc.attrs?.src ?? ''))?.[1]
  return [...(src ? [src] : []), ...(doc.content ?? []).flatMap(filesIn)]
}

export function columnsOf(body: ActivityBody, before: Pick<ActivityRow, 'summary' | 'brief'> | null) {
  const brief = renderDoc(body.brief)
  const sameBrief = before && plainText(before.brief) === brief.text
  return {
    kind: body.kind,
    title: body.title,
    brief: body.brief,
    briefHtml: brief.html,
    summary: sameBrief ? before.summary : firstWords(brief.text),
    starter: body.starter && plainText(body.starter) !== '' ? body.starter : null,
    starterHtml: body.starter && plainText(body.starter) !== '' ? renderDoc(body.starter).html : null,
    spokenFileId: body.spokenFileId,
    unitId: body.unitId,
    categoryId: body.categoryId,
    scale: body.scale,
    gradingScaleId: body.gradingScaleId,
    points: body.points,
    passPercent: body.passPercent,
    practice: body.practice,
    groupMark: body.groupMark,
    returnTogether: body.returnTogether,
    rubricVersionId: body.rubricVersionId,
    lateRule: body.lateRule,
    combine: body.rubricVersionId ? null : body.combine,
    audience: body.audience,
    settings: {
      ...talkOf(body),
      writeFirst: body.writeFirst,
      editMinutes: body.editMinutes,
      hiddenUntil: body.hiddenUntil,
      rests: body.rests,
      review: body.review,
      wiki: body.wiki,
      lexicon: body.lexicon,
      reading: body.reading,
    },
    opensAt: new Date(body.opensAt),
  }
}

const LONGEST_SUMMARY = 220 // characters

/** The first sentence or two of a brief, for lists. */
function firstWords(text: string): string {
  const line = text.split('\n').slice(0, 2).join(' ')
  if (line.length <= LONGEST_SUMMARY) return line
  const cut = line.slice(0, LONGEST_SUMMARY)
  const end = Math.max(cut.lastIndexOf('. '), cut.lastIndexOf('? '))
  return end > 80 ? cut.slice(0, end + 1) : `${cut.slice(0, cut.lastIndexOf(' '))} …`
}

/** Phases, expectations and prompts as the body has them; expectations keep their ids, so that what was checked stays checked. */
export async function writeParts(
  tx: Db,
  activity: Pick<ActivityRow, 'id' | 'seminarId'>,
  body: ActivityBody,
): Promise<void> {
  const ids = { seminarId: activity.seminarId, activityId: activity.id }
  await tx.delete(phases).where(eq(phases.activityId, activity.id))
  await tx.insert(phases).values(toPhases(body.phases).map((p, position) => ({ ...ids, ...p, position })))
  await tx.delete(expectations).where(eq(expectations.activityId, activity.id))
  if (body.rules.length > 0)
    await tx.insert(expectations).values(body.rules.map((r, position) => ({ ...ids, ...r, position })))
  await tx.delete(jointSeminars).where(eq(jointSeminars.activityId, activity.id))
  if (body.jointSeminarIds.length > 0)
    await tx
      .insert(jointSeminars)
      .values(body.jointSeminarIds.map(seminarId => ({ activityId: activity.id, seminarId })))
  await tx.delete(prompts).where(
    and(
      eq(prompts.activityId, activity.id),
      ...(body.prompts.length > 0
        ? [
            notInArray(
              prompts.id,
              body.prompts.map(p => p.id),
            ),
          ]
        : []),
    ),
  )
  for (const [position, p] of body.prompts.entries()) {
    const values = {
      ...ids,
      position,
      doc: p.doc,
      html: renderDoc(p.doc).html,
      releaseAt: new Date(p.releaseAt),
    }
    await tx
      .insert(prompts)
      .values({ id: p.id, ...values })
      .onConflictDoUpdate({ target: prompts.id, set: values, setWhere: eq(prompts.activityId, activity.id) })
  }
}

/** Pages with their versions are no posts, and posts no pages: once something is written, neither becomes the other. */
async function requireKindKept(tx: Db, before: ActivityRow, kind: ActivityRow['kind']): Promise<void> {
  if (
    before.kind === kind ||
    (before.kind !== 'wiki' && kind !== 'wiki' && before.kind !== 'reading' && kind !== 'reading')
  )
    return
  const refusal = () => {
    if (before.kind === 'wiki')
      return 'Pages have been written here, so it stays a wiki. Plan another activity beside it.'
    if (before.kind === 'reading' || kind === 'reading')
      return `Something has been written here already, and ${kind === 'reading' ? 'it would belong to no passage of a text' : 'its passages would be lost'}. Plan another activity beside it.`
    return 'Something has been written here already, and it would not become pages. Plan a wiki beside it.'
  }
  if ((await tx.$count(contributions, eq(contributions.activityId, before.id))) > 0)
    throw refusedField('kind', 'written', refusal())
}

/** Pages stand in the wiki of a group, or of the class: whom a wiki is for can change only as far as every page keeps its readers. */
async function requirePagesKept(
  tx: Db,
  before: ActivityRow,
  audience: ActivityBody['audience'],
): Promise<void> {
  if (before.kind !== 'wiki' || JSON.stringify(before.audience) === JSON.stringify(audience)) return
  const written = await tx
    .selectDistinct({ groupId: wikiPages.groupId })
    .from(wikiPages)
    .where(and(eq(wikiPages.activityId, before.id), isNull(wikiPages.trialBy)))
  if (written.length === 0) return
  const findThere = async () => {
    if (audience.kind !== 'groups') return null
    if (audience.groupIds.length > 0) return audience.groupIds
    const all = await tx
      .select({ id: groups.id })
      .from(groups)
      .where(eq(groups.groupPlanId, audience.groupPlanId))
    return all.map(g => g.id)
  }
  const there = await findThere()
  if (
    written.some(w =>
      there === null ? w.groupId !== null : w.groupId === null || !there.includes(w.groupId),
    )
  ) {
    throw refusedField(
      'audience',
      'written',
      there === null
        ? 'Groups have written pages here, and nobody could read them if there were one wiki for the class. Plan another activity beside it.'
        : 'Pages have been written here that none of these groups could read. Plan another activity beside it.',
    )
  }
}

/** Notes stand on passages of a text: once there are any, the reading keeps its text. A new version of it is another thing. */
async function requireTextKept(tx: Db, before: ActivityRow, body: ActivityBody): Promise<void> {
  const { textId } = readingOf(before.settings)
  if (before.kind !== 'reading' || textId === null || textId === body.reading.textId) return
  if ((await tx.$count(contributions, eq(contributions.activityId, before.id))) > 0)
    throw refusedField(
      'reading',
      'written',
      'Notes have been written in the margin of this text, so it stays. Add a new version of it in the library, or plan another reading.',
    )
}

/** With another kind, what was written becomes that kind's entries and answers; words, authors and times stay. */
async function renameContributions(tx: Db, before: ActivityRow, kind: ActivityRow['kind']): Promise<void> {
  const [from, to] = [KINDS[before.kind], KINDS[kind]]
  if (from.entryType !== to.entryType)
    await tx
      .update(contributions)
      .set({ type: to.entryType })
      .where(and(eq(contributions.activityId, before.id), eq(contributions.type, from.entryType)))
  if (from.answerType && from.answerType !== to.answerType)
    await tx
      .update(contributions)
      .set({ type: to.answerType ?? 'comment' })
      .where(and(eq(contributions.activityId, before.id), eq(contributions.type, from.answerType)))
}

/** Points of marks that were not returned yet, by the activity as it is now. Returned letters are what they were. */
async function recalculate(tx: Db, actor: ActivityActor, now: Date): Promise<void> {
  const rows = await tx
    .select()
    .from(marks)
    .where(and(eq(marks.activityId, actor.activity.id), inArray(marks.state, ['open', 'held'])))
  for (const row of rows) {
    await storePoints(tx, actor, row.enrolmentId, now)
  }
}
