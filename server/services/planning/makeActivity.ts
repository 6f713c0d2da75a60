import { and, eq, max } from 'drizzle-orm'
import { v7 } from 'uuid'
import { KINDS } from '#core/contributing/kinds'
import { USUAL_LEXICON } from '#core/contributing/lexicon/lexiconSettings'
import { USUAL_READING } from '#core/contributing/reading/reading'
import { USUAL_WIKI } from '#core/contributing/wiki/wikiSettings'
import { USUAL_REVIEW } from '#core/contributing/review/reviewSettings'
import { USUAL_TALK } from '#core/contributing/talkSettings'
import { dayAfter, localInstant, weekOf } from '#core/planning/week'
import { shiftInstant } from '#core/planning/shiftTerm'
import { shiftDays } from '#core/planning/moveSchedule'
import {
  nothingHere,
  type Actor,
  type ActivityRow,
  type Seminar,
  type ActivityActor,
} from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import {
  activities,
  auditTrail,
  contributions,
  expectations,
  extensions,
  marks,
  phases,
  prompts,
  units,
} from '#server/database/schema'
import { Problem } from '#server/http/problem'
import type { TalkBody } from '#shared/contributing/activity'
import type { ActivityBody } from '#shared/planning/composer'
import { columnsOf, requireSound, writeParts } from './changeActivity'
import { copyBody } from './copyBody'
import { loadBody } from './composer'

/** A new draft in a week of the term, with the phases and expectations its kind usually has, or as a template has it. The browser makes the id. */
export async function makeActivity(
  db: Database,
  actor: Actor,
  make: {
    readonly id: string
    readonly kind: ActivityRow['kind']
    readonly week: number
    readonly unitId: string | null
    readonly templateId: string | null
  },
  now: Date,
): Promise<{ id: string }> {
  const { seminar } = actor
  await db.transaction(async tx => {
    const [template] = make.templateId
      ? await tx
          .select()
          .from(activities)
          .where(
            and(
              eq(activities.id, make.templateId),
              eq(activities.seminarId, seminar.id),
              eq(activities.isTemplate, true),
            ),
          )
      : []
    if (make.templateId && !template) throw nothingHere()
    const fresh = usualBody(seminar, make.kind, make.week)
    const body = template ? inWeek((await loadBody(tx, template)) as ActivityBody, seminar, make.week) : fresh
    const unit = make.unitId ?? (await unitOfWeek(tx, seminar.id, make.week))
    await insertActivity(tx, actor, make.id, { ...withNewIds(body), unitId: unit }, false, now)
  })
  return { id: make.id }
}

export const unitOfWeek = async (tx: Db, seminarId: string, week: number): Promise<string | null> => {
  const rows = await tx.select().from(units).where(eq(units.seminarId, seminarId)).orderBy(units.position)
  return rows.findLast(u => u.fromWeek <= week && u.toWeek >= week)?.id ?? null
}

/** What a new activity of a kind begins with: a week of work, the usual due time, marking in the week after. */
function usualBody(seminar: Seminar, kind: ActivityRow['kind'], week: number): ActivityBody {
  const monday = dayAfter(seminar.firstDay, 7 * (week - 1))
  const at = (day: number, time: string) =>
    localInstant(dayAfter(monday, day), time, seminar.timeZone).toISOString()
  const due = seminar.usualDueWeekday - 1
  const [first, second, third] = KINDS[kind].workingPhases
  const middle = Math.max(0, due - 3)
  const opensAt = at(0, '08:00')
  // a wiki takes its time: two weeks of writing, one of comments, one of revising
  const findPhaseList = () => {
    if (third)
      return [
        { name: first!, startsAt: opensAt, endsAt: at(7 + due, seminar.usualDueTime) },
        {
          name: second!,
          startsAt: at(7 + due, seminar.usualDueTime),
          endsAt: at(14 + due, seminar.usualDueTime),
        },
        {
          name: third,
          startsAt: at(14 + due, seminar.usualDueTime),
          endsAt: at(21 + due, seminar.usualDueTime),
        },
      ]
    if (second)
      return second === 'review'
        ? [
            { name: first!, startsAt: opensAt, endsAt: at(due, seminar.usualDueTime) },
            { name: second, startsAt: at(7, '00:00'), endsAt: at(7 + due, seminar.usualDueTime) },
          ]
        : [
            { name: first!, startsAt: opensAt, endsAt: at(middle, seminar.usualDueTime) },
            {
              name: second,
              startsAt: at(middle, seminar.usualDueTime),
              endsAt: at(due, seminar.usualDueTime),
            },
          ]
    return [{ name: first!, startsAt: opensAt, endsAt: at(due, seminar.usualDueTime) }]
  }
  const phaseList: ActivityBody['phases'] = findPhaseList()
  const last = phaseList.at(-1)!
  const marking = {
    name: 'mark' as const,
    startsAt: shiftDays(new Date(last.endsAt), 0, seminar.timeZone).toISOString(),
    endsAt: shiftDays(new Date(last.endsAt), 7, seminar.timeZone).toISOString(),
  }
  const rule = (r: ActivityBody['rules'][number]['rule']) => ({ id: v7(), rule: r, needed: true })
  const rules = {
    discussion: [
      rule({ kind: 'entries', need: 1, minWords: 200, due: 'write' }),
      rule({ kind: 'replies', need: 2, minWords: 60, due: 'respond' }),
    ],
    journal: [rule({ kind: 'weeklyEntries', need: 1, minWords: 150, due: 'write' })],
    blog: [
      rule({ kind: 'entries', need: 3, minWords: 250, due: 'write' }),
      rule({ kind: 'replies', need: 2, minWords: 40, due: 'respond' }),
    ],
    wiki: [
      rule({ kind: 'ownPages', need: 1, minWords: 300, due: 'write' }),
      rule({ kind: 'replies', need: 2, minWords: 20, due: 'respond' }),
      rule({ kind: 'revisions', need: 1, due: 'revise' }),
    ],
    reading: [
      rule({ kind: 'entries', need: 4, minWords: 20, due: 'write' }),
      rule({ kind: 'replies', need: 2, minWords: 20, due: 'respond' }),
    ],
    review: [
      rule({ kind: 'entries', need: 1, minWords: 800, due: 'write' }),
      rule({ kind: 'reviews', need: USUAL_REVIEW.each, minWords: 60, due: 'review' }),
    ],
    lexicon: [rule({ kind: 'entries', need: 2, minWords: 40, due: 'write' })],
    exitNote: [rule({ kind: 'entries', need: 1, minWords: 10, due: 'write' })],
  }[kind]
  const empty = { type: 'doc', content: [{ type: 'paragraph' }] }
  return {
    kind,
    title: {
      discussion: 'New discussion',
      journal: 'New journal',
      blog: 'New blog',
      wiki: 'New wiki',
      reading: 'New reading',
      review: 'New peer review',
      lexicon: 'New lexicon',
      exitNote: 'New exit note',
    }[kind],
    brief: empty,
    starter: null,
    spokenFileId: null,
    unitId: null,
    categoryId: null,
    scale: 'none',
    gradingScaleId: null,
    points: null,
    passPercent: null,
    practice: false,
    groupMark: false,
    returnTogether: true,
    rubricVersionId: null,
    lateRule: { kind: 'none' },
    combine: null,
    audience: { kind: 'everyone' },
    jointSeminarIds: [],
    ...(structuredClone(USUAL_TALK) as TalkBody),
    review: structuredClone(USUAL_REVIEW) as ActivityBody['review'],
    wiki: structuredClone(USUAL_WIKI) as ActivityBody['wiki'],
    lexicon: structuredClone(USUAL_LEXICON) as ActivityBody['lexicon'],
    reading: { ...USUAL_READING },
    writeFirst: kind === 'discussion',
    hiddenUntil: null,
    editMinutes: 30,
    rests: [],
    opensAt,
    phases: [...phaseList, marking],
    rules,
    prompts: [],
  }
}

/** A body moved so that it opens in a week of the term, on the same weekdays at the same times. */
function inWeek(body: ActivityBody, seminar: Seminar, week: number): ActivityBody {
  const days = 7 * (week - weekOf(new Date(body.opensAt), seminar))
  return atTimes(body, at => shiftDays(at, days, seminar.timeZone))
}

export function atTimes(body: ActivityBody, move: (at: Date) => Date): ActivityBody {
  const iso = (at: string) => move(new Date(at)).toISOString()
  return {
    ...body,
    opensAt: iso(body.opensAt),
    hiddenUntil: body.hiddenUntil && iso(body.hiddenUntil),
    phases: body.phases.map(p => ({ ...p, startsAt: iso(p.startsAt), endsAt: iso(p.endsAt) })),
    prompts: body.prompts.map(p => ({ ...p, releaseAt: iso(p.releaseAt) })),
  }
}

export const withNewIds = (body: ActivityBody): ActivityBody => ({
  ...body,
  rules: body.rules.map(r => ({ ...r, id: v7() })),
  prompts: body.prompts.map(p => ({ ...p, id: v7() })),
})

export async function insertActivity(
  tx: Db,
  actor: Actor,
  id: string,
  body: ActivityBody,
  isTemplate: boolean,
  now: Date,
): Promise<void> {
  requireSound(body)
  const [{ last } = { last: null }] = await tx
    .select({ last: max(activities.position) })
    .from(activities)
    .where(eq(activities.seminarId, actor.seminar.id))
  const [row] = await tx
    .insert(activities)
    .values({
      id,
      seminarId: actor.seminar.id,
      ...columnsOf(body, null),
      isTemplate,
      position: (last ?? -1) + 1,
    })
    .onConflictDoNothing()
    .returning()
  if (!row) return // the same wish sent again after a lost answer
  await writeParts(tx, row, body)
  await tx.insert(auditTrail).values({
    seminarId: actor.seminar.id,
    actorId: actor.enrolment.id,
    at: now,
    act: 'activityPlanned',
    subjectId: id,
    detail: { title: body.title },
  })
}

/** A copy as a draft: into a week of this seminar, into another one the actor instructs (dates moved by teaching weeks), or as a template. */
export async function copyActivity(
  db: Database,
  actor: ActivityActor,
  target: Actor,
  copy: { readonly id: string; readonly week: number | null; readonly asTemplate: boolean },
  now: Date,
): Promise<{ id: string }> {
  await db.transaction(async tx => {
    const body = (await loadBody(tx, actor.activity)) as ActivityBody
    const same = target.seminar.id === actor.seminar.id
    const there = same
      ? body
      : atTimes(await copyBody(tx, body, actor.seminar.id, target), at =>
          shiftInstant(at, actor.seminar, target.seminar),
        )
    const fitted = copy.week === null ? there : inWeek(there, target.seminar, copy.week)
    const unitId =
      same && copy.week === null
        ? fitted.unitId
        : await unitOfWeek(tx, target.seminar.id, weekOf(new Date(fitted.opensAt), target.seminar))
    await insertActivity(
      tx,
      target,
      copy.id,
      {
        ...withNewIds(fitted),
        unitId,
        title: same && !copy.asTemplate ? `${body.title} (copy)` : body.title,
      },
      copy.asTemplate,
      now,
    )
  })
  return { id: copy.id }
}

/** Takes a draft or a template away. What has been written in stays: then the activity stays, too. */
export async function removeActivity(db: Database, actor: ActivityActor, now: Date): Promise<void> {
  await db.transaction(async tx => {
    const [row] = await tx.select().from(activities).where(eq(activities.id, actor.activity.id)).for('update')
    const used =
      (await tx.$count(contributions, eq(contributions.activityId, row!.id))) +
      (await tx.$count(marks, eq(marks.activityId, row!.id)))
    if (row!.state !== 'draft' || used > 0)
      throw new Problem(
        409,
        'inUse',
        'Only a draft in which nobody has written can be taken away. Take it back to draft first, or let it stand.',
      )
    for (const table of [phases, expectations, prompts, extensions])
      await tx.delete(table).where(eq(table.activityId, row!.id))
    await tx.delete(activities).where(eq(activities.id, row!.id))
    await tx.insert(auditTrail).values({
      seminarId: actor.seminar.id,
      actorId: actor.enrolment.id,
      at: now,
      act: 'draftActivityRemoved',
      subjectId: row!.id,
      detail: { title: row!.title },
    })
  })
}
