import type { StoredNote } from '#core/kinds/reading/storedNote'
import { detailOf, takenUpBy, titleOf } from '#core/kinds/contributionDetail'
import { and, asc, eq, inArray, sql } from 'drizzle-orm'
import { localDay } from '#core/planning/week'
import type { Lateness } from '#core/marking/lateness'
import { latenessOfRecord } from '#core/marking/latenessOfRecord'
import { plainText } from '#core/contributing/richText'
import { isSet, readingOf } from '#core/kinds/reading/reading'
import { suggestTimelinessStep } from '#core/marking/suggestStep'
import { type ActivityRow, type ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import {
  contributionRevisions,
  contributions,
  enrolments,
  markerShares,
  prompts,
  rubricVersions,
} from '#server/database/schema'
import { judge, loadRecords } from '#server/services/standing'
import { type ActivityPlan, loadPlan } from '#server/services/planning'
import type { Judged } from '#core/standing/judgeRecord'
import { closesFor, dueAtOf } from '#core/planning/dueTimes'
import type { RubricView } from '#shared/contributing/activity'
import type { RecordItem, RecordView } from '#shared/marking/desk'
import { wordsOfFiles } from '#server/services/files'
import { attachedFiles } from '#server/services/contributing'
import { changesOf, currentVersion } from '#server/kinds'
import { requireStudent } from './markedStudents'
import { groupOf } from './groupCriteria'
import { emptyMark, givenTo, loadMark, calculate, rubricOfMark } from './mark'
import { secondOf } from './secondOf'

/** One student's record, checked and in context, with the mark as it stands: the whole of the marking desk. */
export async function recordView(
  db: Db,
  actor: ActivityActor,
  enrolmentId: string,
  now: Date,
): Promise<RecordView> {
  const { activity, seminar } = actor
  const student = await requireStudent(db, actor, enrolmentId)
  const [plan, rubric, records, rows, group, asked, shares] = await Promise.all([
    loadPlan(db, activity),
    rubricOfMark(db, activity, enrolmentId),
    loadRecords(db, [activity.id], [student]),
    ownRows(db, activity.id, enrolmentId),
    groupOf(db, activity, enrolmentId),
    secondOf(db, activity.id, enrolmentId),
    db
      .select({ markerId: markerShares.markerId })
      .from(markerShares)
      .where(and(eq(markerShares.activityId, activity.id), eq(markerShares.enrolmentId, enrolmentId))),
  ])
  const judged = judge(plan, records.get(activity.id)!.get(enrolmentId)!, now)
  const lateness = latenessOfRecord(plan, activity.lateRule, judged.checks, enrolmentId)
  const [items, stored, given] = await Promise.all([
    inContext(
      db,
      activity,
      rows.filter(r => r.state !== 'draft'),
    ),
    loadMark(db, actor, enrolmentId, now),
    givenTo(db, activity.id, enrolmentId),
  ])
  const shown = items.filter(i => !i.withdrawn)
  // whoever marks a second time does not see the first until they are done
  const blind = asked !== null && asked.markerId === actor.enrolment.id && asked.state === 'asked'
  const mark = blind ? emptyMark() : stored
  const secondShown = asked !== null && (asked.markerId === actor.enrolment.id || asked.state !== 'asked')
  const calculated = calculate(activity, rubric, mark, blind ? [] : given, lateness)
  return {
    rubric,
    student: {
      id: student.enrolmentId,
      name: student.name,
      givenName: student.givenName,
      familyName: student.familyName,
      standing: judged.standing,
      practice: student.practice,
      markerId: shares[0]?.markerId ?? null,
      groupId: group?.id ?? null,
      judged: mark.steps.map(s => s.criterionId),
      held: null, // what the desk says of it; here the whole mark is
    },
    items: items.map(i => ({ ...i, mark: blind ? null : markOf(given.find(g => g.id === i.id)) })),
    draftsBegun: rows
      .filter(r => r.state === 'draft' && r.words > 0)
      .map(r => ({ words: r.words, savedAt: r.savedAt.toISOString() })),
    summary: {
      contributions: shown.length,
      words: shown.reduce((sum, i) => sum + i.words, 0),
      classmates: new Set(
        records
          .get(activity.id)!
          .get(enrolmentId)!
          .shown.filter(c => c.answers?.isClassmate && c.answers.personId !== enrolmentId)
          .map(c => c.answers!.personId),
      ).size,
      days: new Set(shown.map(i => localDay(new Date(i.shownAt), seminar.timeZone))).size,
    },
    checks: judged.checks,
    dues: plan.expectations.map(e => dueAtOf(plan, e.rule, enrolmentId).toISOString()),
    dueAt: closesFor(plan, enrolmentId).toISOString(),
    extended: plan.extensions.get(enrolmentId)?.reason ?? null,
    late:
      lateness && lateness.minutes > 0
        ? { minutes: lateness.minutes, pointsWithout: calculated.before ?? 0 }
        : null,
    suggested: suggestions(rubric, lateness, plan, judged, enrolmentId),
    mark: {
      ...mark,
      points: calculated.points ?? 0,
      before: calculated.before,
      criteriaLeft: calculated.left,
    },
    group,
    second:
      asked && secondShown
        ? {
            ...asked,
            isMine: asked.markerId === actor.enrolment.id,
            points: calculate(
              activity,
              rubric,
              {
                steps: [...asked.steps],
                excusedFrom: stored.excusedFrom,
                override: null,
                lateWaived: stored.lateWaived,
                factor: stored.factor,
                reviewing: stored.reviewing,
              },
              given,
              lateness,
            ).points,
          }
        : null,
    newerRubric:
      rubric && activity.rubricVersionId && rubric.versionId !== activity.rubricVersionId
        ? await versionOf(db, activity.rubricVersionId)
        : null,
  }
}

const markOf = (given: { readonly points: number | null; readonly done: boolean | null } | undefined) =>
  given ? { points: given.points, done: given.done } : null

async function versionOf(db: Db, rubricVersionId: string): Promise<number | null> {
  const [row] = await db
    .select({ version: rubricVersions.version })
    .from(rubricVersions)
    .where(eq(rubricVersions.id, rubricVersionId))
  return row?.version ?? null
}

function suggestions(
  rubric: RubricView | null,
  lateness: Lateness | null,
  plan: ActivityPlan,
  judged: Judged,
  enrolmentId: string,
): RecordView['suggested'] {
  return (rubric?.criteria ?? [])
    .filter(c => c.suggestFrom === 'timeliness')
    .map(criterion => {
      const level =
        criterion.levels[
          suggestTimelinessStep(
            criterion.levels.map(l => l.points),
            lateness,
          )
        ]!
      return {
        criterionId: criterion.id,
        levelId: level.id,
        because: because(lateness, plan, judged, enrolmentId),
      }
    })
}

function because(lateness: Lateness | null, plan: ActivityPlan, judged: Judged, enrolmentId: string): string {
  if (lateness === null) return 'the opening post is missing'
  if (lateness.minutes > 0) return `${span(lateness.minutes)} late`
  const first = plan.expectations.findIndex(e => e.rule.kind === 'entries')
  const metAt = judged.checks[first]?.metAt
  if (!metAt) return 'everything was in on time'
  const early =
    (dueAtOf(plan, plan.expectations[first]!.rule, enrolmentId).getTime() - new Date(metAt).getTime()) /
    60_000
  return `opening post ${span(early)} early`
}

/** "2 days", "9 hours", "40 minutes": the largest unit that fits. */
function span(minutes: number): string {
  const findSpan = (): [number, string] => {
    if (minutes >= 1440) return [minutes / 1440, 'day']
    if (minutes >= 60) return [minutes / 60, 'hour']
    return [minutes, 'minute']
  }
  const [n, unit] = findSpan()
  const whole = Math.max(1, Math.floor(n))
  return `${whole} ${unit}${whole === 1 ? '' : 's'}`
}

function ownRows(db: Db, activityId: string, enrolmentId: string) {
  return db
    .select()
    .from(contributions)
    .where(
      and(
        eq(contributions.activityId, activityId),
        eq(contributions.authorId, enrolmentId),
        inArray(contributions.state, ['shown', 'withdrawn', 'draft']),
      ),
    )
    .orderBy(asc(contributions.shownAt), asc(contributions.id))
}

/** Each contribution with what it answered and who answered it. */
async function inContext(
  db: Db,
  activity: ActivityRow,
  rows: readonly (typeof contributions.$inferSelect)[],
): Promise<RecordItem[]> {
  if (rows.length === 0) return []
  const parentIds = rows.flatMap(r => r.parentId ?? [])
  const named = {
    id: contributions.id,
    parentId: contributions.parentId,
    type: contributions.type,
    name: enrolments.name,
    text: contributions.text,
    state: contributions.state,
    detail: contributions.detail,
  }
  const joined = () =>
    db.select(named).from(contributions).innerJoin(enrolments, eq(enrolments.id, contributions.authorId))
  const ids = rows.map(r => r.id)
  const { textId } = readingOf(activity.settings)
  const promptIds = rows.flatMap(r => r.promptId ?? [])
  const [parents, answers, files, revisions, changes, read, asked, fileWords] = await Promise.all([
    parentIds.length > 0 ? joined().where(inArray(contributions.id, parentIds)) : [],
    joined()
      .where(
        and(
          inArray(
            contributions.parentId,
            rows.map(r => r.id),
          ),
          eq(contributions.state, 'shown'),
        ),
      )
      .orderBy(asc(contributions.shownAt)),
    attachedFiles(db, { ids }),
    db
      .select({ id: contributionRevisions.contributionId, n: sql<number>`count(*)::int` })
      .from(contributionRevisions)
      .where(inArray(contributionRevisions.contributionId, ids))
      .groupBy(contributionRevisions.contributionId),
    changesOf(db, ids),
    textId ? currentVersion(db, textId) : null,
    promptIds.length > 0 ? promptsOf(db, activity.id) : [],
    wordsOfFiles(db, ids),
  ])
  const notedAs = (note: StoredNote): NonNullable<RecordItem['noted']> => {
    const partWord = () => {
      if (read?.text.form === 'paper') return 'page'
      if (read?.text.form === 'recording') return 'from'
      return 'section'
    }
    return {
      kind: note.kind,
      where: `${partWord()} ${read?.version.parts[note.part - 1]?.label ?? note.part}`,
      before: note.passage?.prefix ?? '',
      exact: note.passage?.exact ?? '',
      after: note.passage?.suffix ?? '',
      to: note.to?.passage.exact ?? null,
      tags: [...note.tags],
      isSet: isSet(readingOf(activity.settings), note.part),
      lost: note.how === 'lost',
    }
  }
  return rows.map(row => {
    const change = changes.get(row.id)
    const { note } = detailOf(row, 'note')
    // a comment in a wiki says itself which page it stands on
    const parent = parents.find(p => p.id === row.parentId && p.type !== 'pageVersion')
    const around = takenUpBy(row)?.exact
    const parentText = () => {
      if (parent!.state === 'withdrawn') return 'This post was withdrawn.'
      if (around) return `… ${around} …`
      return firstWords(parent!.text)
    }
    return {
      id: row.id,
      type: row.type,
      shownAt: (row.shownAt ?? row.savedAt).toISOString(),
      words: row.words,
      text: change?.text ?? row.text,
      withdrawn: row.state === 'withdrawn',
      files: files.get(row.id) ?? [],
      revisions: revisions.find(r => r.id === row.id)?.n ?? 0,
      mark: null,
      answers: parent
        ? {
            name: parent.name,
            text: parentText(),
            passage: detailOf(parent, 'note').note?.passage?.exact ?? null,
          }
        : null,
      answered: (change?.change ? [] : answers.filter(a => a.parentId === row.id)).map(a => ({
        name: a.name,
        text: firstWords(a.text),
      })),
      change: change?.change ?? null,
      about: change?.about ?? null,
      title: titleOf(row),
      fileWords: fileWords.get(row.id) ?? 0,
      prompt: asked.find(p => p.id === row.promptId) ?? null,
      noted: note ? notedAs(note) : null,
    }
  })
}

/** Prompts of a journal with the numbers its students know them by. */
async function promptsOf(db: Db, activityId: string) {
  const rows = await db
    .select({ id: prompts.id, doc: prompts.doc })
    .from(prompts)
    .where(eq(prompts.activityId, activityId))
    .orderBy(asc(prompts.position))
  return rows.map(({ id, doc }, i) => ({ id, number: i + 1, text: firstWords(plainText(doc)) }))
}

const firstWords = (text: string, most = 220): string =>
  text.length <= most ? text : `${text.slice(0, text.lastIndexOf(' ', most))} …`
